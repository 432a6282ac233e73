#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/optics/nominal_fixture.h"
#include "core/settle/surest.h"
#include "core/whole_light/reference_rooms.h"
#include "evaluation/audit/audited_test.h"
#include "evaluation/light_words.h"
#include "evaluation/rig_model.h"
#include "record/claim_kinds.h"

namespace sunbreak::evaluation {
namespace {

constexpr double touching_floor_m = 0.005;

std::string stage_words(const AuditedTest::Stage& stage) {
  return fmt::format("{} ({:.0f} to {:.0f} µmol/m²/s)",
                     stage.own ? "the test's own target, " + stage.target.name : stage.target.name, stage.band.low,
                     stage.band.high);
}

std::string figures_words(const SettleRule& rule, const SettleFigures& f) {
  switch (rule.kind) {
    case SettleRule::Kind::Edge:
      return fmt::format("the edge reads {:.0f}, the brightest place {:.0f} µmol/m²/s", f.edge, f.highest);
    case SettleRule::Kind::Every:
      return fmt::format("it reads {:.0f} to {:.0f} µmol/m²/s", f.lowest, f.highest);
    case SettleRule::Kind::Share:
      return fmt::format("{:.0f} % of it is in band", 100 * f.in_band);
    case SettleRule::Kind::Mean:
      return fmt::format("the mean is {:.0f} µmol/m²/s", f.mean);
    case SettleRule::Kind::Corners:
      return fmt::format("the corners read {:.0f} µmol/m²/s", f.corners);
    case SettleRule::Kind::Center:
      return fmt::format("the center reads {:.0f} µmol/m²/s", f.center);
  }
  return {};
}

std::string chance_words(double chance) {
  if (chance < 0.01) return "under 1 %";
  if (chance > 0.99) return "over 99 %";
  return fmt::format("{:.0f} %", 100 * chance);
}

/// A way of running it, with the chance that the rule is met there.
struct Way {
  double height_m = 0, percent = 100, chance = unread;
  bool may_hold = false;
  SettleFigures figures;
};

/// The walls that a claim names, as a test would describe its bench.
Room claimed_room(const Footprint& floor, double height_m, const std::string& walls) {
  const double r = usual_reflectance(walls);
  const bool open = walls == "open";
  return {floor.width_m, floor.depth_m, height_m, {r, r, r, r, open ? 0 : 0.7, open ? 0 : 0.25}};
}

bool walls_differ(const AuditedTest& test, const Claim& claim) {
  const Bench& b = test.record().bench;
  return !claim.walls.empty() && (b.wall_left != claim.walls || b.wall_right != claim.walls ||
                                  b.wall_front != claim.walls || b.wall_back != claim.walls);
}

bool fits_the_floor(const Rectangle& floor, const Footprint& size) {
  return size.width_m <= floor.width_m + touching_floor_m && size.depth_m <= floor.depth_m + touching_floor_m;
}

/// Whether another room has to be worked out for an area, and which one: with the walls that are claimed, as large as
/// the claim where it does not fit on the bench or walls are claimed about it.
std::optional<Room> other_room(const AuditedTest& test, const Claim& claim) {
  const Footprint size{*claim.width_m, *claim.depth_m};
  const bool differ = walls_differ(test, claim);
  if (!differ && fits_the_floor(whole_area(*test.light()), size)) return {};
  Room room = differ ? claimed_room(size, test.light()->question().fit.room.height_m, claim.walls) : test.found_room();
  room.width_m = size.width_m, room.depth_m = size.depth_m;
  return room;
}

/// The light that a claim of coverage is judged by, and where in it.
struct CoverageGround {
  std::optional<FloorLight> made;       ///< of another room
  std::optional<FloorLight> at_height;  ///< of the bench at the claim's own height
  const FloorLight* floor = nullptr;    ///< the bench's, where it is not another room
  Rectangle part;
  ServedWhere where;
  std::string in;  ///< which room, in words
};

Result<CoverageGround> ground_of(const AuditedTest& test, const Claim& claim) {
  const TestLight& light = *test.light();
  const Footprint size{*claim.width_m, *claim.depth_m};
  CoverageGround g;
  std::vector<double> heights = settle_heights(light, test.units());
  const auto [low, high] = light.heights_m();
  if (claim.height_m) {
    constexpr double rounding_m = 1e-6;
    if (*claim.height_m < low - rounding_m || *claim.height_m > high + rounding_m)
      return Problem{fmt::format("{} is beyond what can be told ({} to {})", length_text(*claim.height_m, test.units()),
                                 length_text(low, test.units()), length_text(high, test.units())),
                     "", "walk " + length_text(*claim.height_m, test.units())};
    heights = {*claim.height_m};
  }
  if (claim.percent) {
    const auto setting = test.setting(*claim.percent);
    if (!setting) return Problem{setting.problem().seen, "", setting.problem().remedy};
    g.where.setting = setting.value();
  }
  if (const auto room = other_room(test, claim)) {
    if (!test.fits())
      return Problem{"it is claimed for another space, and the whole light that would tell is not known", "",
                     light.found().advice.empty() ? "walk two heights" : light.found().advice};
    if (claim.walls.empty())
      g.in = fmt::format("predicted for a space of {} with this bench's walls",
                         size_text(size.width_m, size.depth_m, test.units()));
    else
      g.in = fmt::format("predicted for a space of {} {}", size_text(size.width_m, size.depth_m, test.units()),
                         claim.walls == "open" ? "without walls" : "with " + claim.walls + " walls");
    g.made.emplace(FloorLight::of_room(light, *room, heights));
    if (g.where.setting) g.where.setting->lower = g.where.setting->upper = 0, g.where.setting->upper_share = 0;
  } else {
    g.in = "on this bench";
    g.floor = test.floor();
    if (!g.floor) return Problem{"light is not known all over the bench", "", "read the missing stations"};
    if (claim.height_m) g.at_height = test.floor_at(*claim.height_m);
  }
  return g;
}

/// The most likely way to meet a stage over an area of the bench.
Result<Way> surest_on_bench(const AuditedTest& test, const Claim& claim, const Band& band,
                            std::optional<std::pair<double, double>> heights_m = {}) {
  const Rectangle whole = whole_area(*test.light());
  const Rectangle part =
      claim.width_m ? centered(whole, std::min(*claim.width_m, whole.width_m), std::min(*claim.depth_m, whole.depth_m))
                    : whole;
  const SettleRequest request = test.request(band);
  SettleMaps maps;
  if (claim.height_m || heights_m) {
    std::vector<double> heights;
    if (claim.height_m)
      heights = {*claim.height_m};
    else
      for (int i = 0; i < 5; ++i) {
        heights.push_back(heights_m->first + (heights_m->second - heights_m->first) * i / 4);
        if (heights_m->second - heights_m->first < 1e-9) break;
      }
    auto made = settle_maps(*test.light(), part, heights, 0, test.stop());
    if (!made) return made.problem();
    maps = std::move(made.value());
  } else {
    const auto& known = test.maps(part);
    if (!known) return known.problem();
    maps = known.value();
  }
  if (claim.percent) {
    const auto setting = test.setting(*claim.percent);
    if (!setting) return setting.problem();
    maps = at_setting(maps, setting.value());
  }
  const auto p = surest(maps, request, test.stop());
  if (!p) return p.problem();
  return Way{p.value().height->height_m, p.value().setting.percent, p.value().chance, may_be_met(maps, request),
             p.value().figures};
}

/// The sides that the claim's area and what is served have on the axis.
void put_sides(const AuditedTest& test, AuditedClaim& a) {
  const LengthUnit unit = surface_unit(test.units());
  a.unit = symbol(unit);
  a.claimed = from_m(std::max(*a.claim.width_m, *a.claim.depth_m), unit);
}

}  // namespace

void audit_coverage(const AuditedTest& test, AuditedClaim& a) {
  put_sides(test, a);
  if (!test.light()) return not_testable(a, "No sweep has readings.", "walk two heights");
  const auto stage = test.stage(a.claim.stage);
  if (!stage)
    return not_testable(a, fmt::format("The list '{}' has no target for '{}'.", test.list_name(), a.claim.stage),
                        "choose a list that has one, or name the stage as the list does");
  auto ground = ground_of(test, a.claim);
  if (!ground) return not_testable(a, "Not known: " + ground.problem().seen + ".", ground.problem().remedy);
  CoverageGround& g = ground.value();
  const FloorLight* floor = g.made ? &*g.made : g.at_height ? &*g.at_height : g.floor;
  const Footprint size{*a.claim.width_m, *a.claim.depth_m};
  Way way;
  if (g.made) {
    const auto there = surest_there(*floor, test.rule(), stage->band, floor->area(), g.where);
    if (!there) return not_testable(a, "No height is known that hangs in that space.", "walk a lower height");
    way = {floor->heights_m()[there->height], there->setting.percent, there->chance, there->may_hold, there->figures};
  } else {
    const auto found = surest_on_bench(test, a.claim, stage->band);
    if (!found) return not_testable(a, "Not known: " + found.problem().seen + ".", found.problem().remedy);
    way = found.value();
  }
  a.judgement = judge_condition(way.chance, way.may_hold);
  a.reason = fmt::format("For {}. Rule: {}. {}{} at {} and {} %: {}; the rule holds with a chance of {}.",
                         stage_words(*stage), settle_rule_words(test.rule(), stage->band),
                         a.claim.height_m || a.claim.percent ? "As claimed, " : "At the best there is, ", g.in,
                         length_text(way.height_m, test.units()), short_number(way.percent, 1),
                         figures_words(test.rule(), way.figures), chance_words(way.chance));
  // How large an area of these proportions is served: on the bench, at the claim's height and setting where given.
  const ServedArea served = served_area(*floor, test.rule(), stage->band, size, g.where);
  a.measured = served.scale * a.claimed, a.expanded = served.expanded * a.claimed;
  const LengthUnit unit = surface_unit(test.units());
  a.measured_words = served.scale > 0
                         ? fmt::format("{:.0f} × {:.0f} ± {:.0f} {}", from_m(served.scale * size.width_m, unit),
                                       from_m(served.scale * size.depth_m, unit), a.expanded, a.unit)
                         : "no area";
  a.judgement.difference_pct = 100 * (served.scale - 1);
  if (a.judgement.verdict == Verdict::NotToldApart) {
    a.weakest = "how sure all light is together";
    a.lifts = test.fits() ? "walk " + length_text(way.height_m, test.units()) +
                                ": a height that was read is surer than a predicted one"
                          : "walk one more height";
  }
}

void audit_height(const AuditedTest& test, AuditedClaim& a) {
  const LengthUnit unit = surface_unit(test.units());
  const double low = *a.claim.value, high = a.claim.value_to.value_or(low);
  a.unit = symbol(unit), a.decimals = unit == LengthUnit::Inch ? 1 : 0;
  a.claimed = from_m(low, unit);
  if (high > low) a.claimed_to = from_m(high, unit);
  if (!test.light()) return not_testable(a, "No sweep has readings.", "walk two heights");
  if (a.claim.stage.empty())
    return not_testable(a, "For which stage of growth it is recommended is not said.",
                        "note the stage that the maker means");
  const auto stage = test.stage(a.claim.stage);
  if (!stage)
    return not_testable(a, fmt::format("The list '{}' has no target for '{}'.", test.list_name(), a.claim.stage),
                        "choose a list that has one, or name the stage as the list does");
  const auto [least, most] = test.light()->heights_m();
  const double from = std::max(low, least), to = std::min(high, most);
  if (from > to)
    return not_testable(a,
                        fmt::format("That is beyond what can be told ({} to {}).", length_text(least, test.units()),
                                    length_text(most, test.units())),
                        "walk " + length_text(low, test.units()));
  // Over the area that is claimed for the stage, where one is.
  Claim over;
  const auto claims = claims_of(test.record());
  const Rectangle whole = whole_area(*test.light());
  for (const Claim& c : claims)
    if (c.kind == "coverage" && c.width_m && c.stage == a.claim.stage &&
        fits_the_floor(whole, {*c.width_m, *c.depth_m}))
      over.width_m = c.width_m, over.depth_m = c.depth_m;
  const auto way = surest_on_bench(test, over, stage->band, std::pair{from, to});
  if (!way) return not_testable(a, "Not known: " + way.problem().seen + ".", way.problem().remedy);
  a.judgement = judge_condition(way.value().chance, way.value().may_hold);
  const std::string area = over.width_m ? "the " + size_text(*over.width_m, *over.depth_m, test.units()) + " claimed"
                                        : "the whole footprint";
  a.reason = fmt::format("For {} over {}. Rule: {}. At {} and {} % {}; the rule holds with a chance of {}.",
                         stage_words(*stage), area, settle_rule_words(test.rule(), stage->band),
                         length_text(way.value().height_m, test.units()), short_number(way.value().percent, 1),
                         figures_words(test.rule(), way.value().figures), chance_words(way.value().chance));
  if (from > low || to < high) a.reason += " Only a part of the range can be told.";
  // The heights at which it does hold, as likely as not.
  const Rectangle part =
      over.width_m ? centered(whole, std::min(*over.width_m, whole.width_m), std::min(*over.depth_m, whole.depth_m))
                   : whole;
  if (const auto& maps = test.maps(part)) {
    const SettleRequest request = test.request(stage->band);
    std::optional<double> first, last;
    for (const auto& height : maps.value().heights)
      for (const SettleSetting& setting : maps.value().settings)
        if (judged(request.rule, request.band, settle_figures(*height, setting, request.band)).met()) {
          if (!first) first = height->height_m;
          last = height->height_m;
          break;
        }
    if (first) {
      a.measured = from_m(*first, unit), a.measured_to = from_m(*last, unit);
      a.measured_words =
          *last > *first ? fmt::format("{} to {}", length_text(*first, test.units()), length_text(*last, test.units()))
                         : length_text(*first, test.units());
    } else {
      a.measured_words = "no height";
    }
  }
  if (a.judgement.verdict == Verdict::NotToldApart) {
    a.weakest = "how sure all light is together";
    a.lifts = "walk " + length_text(way.value().height_m, test.units()) +
              ": a height that was read is surer than a predicted one";
  }
}

void audit_map(const AuditedTest& test, AuditedClaim& a) {
  a.unit = "µmol/m²/s";
  const std::vector<double> values = map_values(a.claim);
  const Footprint area{*a.claim.width_m, *a.claim.depth_m};
  // What can be said of any map: smaller than what is claimed to be covered, lower than it is recommended to hang.
  std::string plain;
  for (const Claim& c : claims_of(test.record())) {
    if (c.kind == "coverage" && c.width_m && c.depth_m &&
        area.area_m2() < *c.width_m * *c.depth_m * (1 - telling_share))
      plain += fmt::format(" The map shows {}, which is {:.0f} % of the {} claimed to be covered.",
                           size_text(area.width_m, area.depth_m, test.units()),
                           100 * area.area_m2() / (*c.width_m * *c.depth_m),
                           size_text(*c.width_m, *c.depth_m, test.units()));
    if (c.kind == "height_m" && c.value && a.claim.height_m && *a.claim.height_m < *c.value * (1 - 0.05))
      plain += fmt::format(" It was made at {}, where {} are recommended: nearer, where it is brighter and less even.",
                           length_text(*a.claim.height_m, test.units()), length_text(*c.value, test.units()));
  }
  if (!plain.empty()) plain.erase(0, 1);
  const auto cannot = [&](const std::string& why, std::string would) {
    not_testable(a, plain.empty() ? why : plain + " " + why, std::move(would));
  };
  if (values.empty()) return cannot("Its values are not on record.", "type or paste the map");
  const ClaimedMap map{area, a.claim.map_grid == "nodes" ? GridKind::Nodes : GridKind::Cells,
                       a.claim.map_columns.value_or(0), a.claim.map_rows.value_or(0), values};
  const auto laid_out = claimed_layout(map);
  if (!laid_out) return cannot(laid_out.problem().sentence(), "paste it again");
  Layout layout = laid_out.value();
  a.claimed = held_map(map, layout, values).claimed_mean;
  if (!test.light()) return cannot("No sweep has readings.", "walk two heights");
  const TestLight& light = *test.light();
  if (!a.claim.height_m) return cannot("The height it was made at is not stated.", "ask the maker for it");
  const double percent = a.claim.percent.value_or(100);
  const auto setting = test.setting(percent);
  if (!setting) return cannot("Not known: " + setting.problem().seen + ".", setting.problem().remedy);
  const auto [low, high] = light.heights_m();
  if (*a.claim.height_m < low - 1e-6 || *a.claim.height_m > high + 1e-6)
    return cannot(fmt::format("{} is beyond what can be told ({} to {}).", length_text(*a.claim.height_m, test.units()),
                              length_text(low, test.units()), length_text(high, test.units())),
                  "walk a height near " + length_text(*a.claim.height_m, test.units()));
  const double height_m = *a.claim.height_m;
  AuditedMap held;
  std::string in;
  if (const auto room = other_room(test, a.claim)) {
    if (!test.fits())
      return cannot("It was made in another space, and the whole light that would tell is not known.",
                    light.found().advice.empty() ? "walk two heights" : light.found().advice);
    const Restated r = Elsewhere(light.found(), *room, layout).at({}, height_m, setting.value().light_factor);
    held.held = held_map(map, std::move(layout), r.ppfd);
    held.expanded = std::hypot(r.mean_ppfd.expanded / r.mean_ppfd.value, 2 * light.shared_light_sd());
    in = a.claim.walls.empty()     ? "with this bench's walls about it"
         : a.claim.walls == "open" ? "without walls"
                                   : "with " + a.claim.walls + " walls about it";
  } else {
    const Rectangle whole = whole_area(light), part = centered(whole, area.width_m, area.depth_m);
    std::vector<Vec3> places;
    std::vector<double> weights;
    for (const Station& s : layout.stations)
      places.push_back({std::clamp(part.left_m + s.x_m, whole.left_m, whole.left_m + whole.width_m),
                        std::clamp(part.front_m + s.y_m, whole.front_m, whole.front_m + whole.depth_m), 0}),
          weights.push_back(s.weight);
    const auto at = light.between().at_places(std::move(places));
    const auto patterns = at->at({&height_m, 1}).front();
    std::vector<double> ours(weights.size());
    const SettleSetting& s = setting.value();
    for (std::size_t i = 0; i < ours.size(); ++i)
      ours[i] = s.light_factor * mixed(patterns[static_cast<std::size_t>(s.lower)][i],
                                       patterns[static_cast<std::size_t>(s.upper)][i], s.upper_share);
    if (std::ranges::any_of(ours, [](double e) { return std::isnan(e); }))
      return cannot("Light is not known all over the map's area.", "read the missing stations");
    held.held = held_map(map, std::move(layout), std::move(ours));
    const auto floor = test.floor_at(height_m);
    if (!floor) return cannot("Light is not known all over the bench.", "read the missing stations");
    held.outside = outside_of_map(floor->layout(), floor->ppfd(0, s), area);
    // Where no model fits, what is between two heights is less sure than the meters.
    const double model = at->mean_expanded(height_m, weights), meters = 2 * light.shared_light_sd();
    held.expanded = std::isnan(model) ? 2 * floor->errors(0).together : std::hypot(model, meters);
    in = "in this bench";
  }
  const HeldMap& h = held.held;
  a.claimed = h.claimed_mean, a.measured = h.our_mean, a.expanded = held.expanded * h.our_mean;
  a.measured_words = found_text({a.measured, a.expanded}, 0, a.unit);
  std::vector<SurePart> parts = test.light_parts(false);
  judge(a, parts);
  a.reason = fmt::format(
      "{}{}At {} and {} %, {}, the same places have a mean of {} where {:.0f} are claimed, a ratio of {:.2f}; lowest ÷ "
      "mean is "
      "{:.2f} where {:.2f} is claimed; place by place the ratio varies by {:.0f} %.",
      plain, plain.empty() ? "" : " ", length_text(height_m, test.units()), short_number(percent, 1), in,
      a.measured_words, h.claimed_mean, h.mean_ratio, h.our_lowest_over_mean, h.claimed_lowest_over_mean,
      100 * h.pattern_spread);
  if (held.outside)
    a.reason += fmt::format(" Outside of the square shown, which is {:.0f} % of this footprint, the mean is {:.0f}.",
                            100 * held.outside->outside_share, held.outside->outside_mean_ppfd);
  a.map = std::move(held);
}

}  // namespace sunbreak::evaluation
