#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/uncertain_text.h"
#include "core/settle/surest.h"
#include "evaluation/audit/audited_test.h"
#include "evaluation/light_words.h"
#include "record/claim_kinds.h"

namespace sunbreak::evaluation {
namespace {

std::string stage_words(const AuditedTest::Stage& stage) {
  return fmt::format("{} ({:.0f} to {:.0f} µmol/m²/s)",
                     stage.own ? "the test's own target, " + stage.target.name : stage.target.name, stage.band.low,
                     stage.band.high);
}

std::string figures_words(const ServingRule& rule, const AreaLight& f) {
  switch (rule.kind) {
    case ServingRule::Kind::Edge:
      return fmt::format("the edge reads {:.0f}, the brightest place {:.0f} µmol/m²/s", f.edge, f.highest);
    case ServingRule::Kind::Every:
      return fmt::format("it reads {:.0f} to {:.0f} µmol/m²/s", f.lowest, f.highest);
    case ServingRule::Kind::Share:
      return fmt::format("{:.0f} % of it is in band", 100 * f.in_band);
    case ServingRule::Kind::Mean:
      return fmt::format("the mean is {:.0f} µmol/m²/s", f.mean);
    case ServingRule::Kind::Corners:
      return fmt::format("the corners read {:.0f} µmol/m²/s", f.corners);
    case ServingRule::Kind::Center:
      return fmt::format("the center reads {:.0f} µmol/m²/s", f.center);
  }
  return {};
}

/// A way of running it, with the chance that the rule is met there.
struct Way {
  double height_m = 0, percent = 100, chance = unread;
  bool may_hold = false;
  AreaLight figures;
};

/// The light that a claim of coverage is judged by, where it is not the bench's own at all heights.
struct CoverageGround {
  std::optional<FloorLight> made;  ///< of another room, or of one height
  bool elsewhere = false;          ///< another room
  std::optional<SettleSetting> setting;
  std::string in;  ///< which room, in words
};

Result<CoverageGround> ground_of(const AuditedTest& test, const Claim& claim) {
  const TestLight& light = *test.light();
  CoverageGround g;
  g.in = "on this bench";
  if (claim.height_m)
    if (auto problem = beyond_reach(test, *claim.height_m)) return *problem;
  if (claim.percent) {
    const auto setting = test.setting(*claim.percent);
    if (!setting) return setting.problem();
    g.setting = setting.value();
  }
  if (const auto room = test.other_room(claim)) {
    if (!test.fits()) return elsewhere_not_known(test);
    g.elsewhere = true;
    g.in = "predicted for " + room_words(claim, test.units());
    g.made.emplace(
        FloorLight::of_room(light, *room, claim.height_m ? std::vector{*claim.height_m} : settle_heights(light)));
    if (g.setting) g.setting->lower = g.setting->upper = 0, g.setting->upper_share = 0;
    return g;
  }
  if (claim.height_m) g.made = test.floor_at(*claim.height_m);
  if (claim.height_m ? !g.made : !test.floor())
    return Problem{"light is not known all over the bench", "", "read the missing stations"};
  return g;
}

/// The most likely way to meet a stage over an area of the bench.
Result<Way> surest_on_bench(const AuditedTest& test, const Claim& claim, const Band& band,
                            std::optional<std::pair<double, double>> heights_m = {}) {
  const Rectangle whole = known_area(*test.light());
  const Rectangle part =
      claim.width_m ? centered(whole, std::min(*claim.width_m, whole.width_m), std::min(*claim.depth_m, whole.depth_m))
                    : whole;
  SettleRequest request = test.request(band);
  SettleMaps maps;
  if (claim.height_m || heights_m) {
    request.limits = {};  // it is the maker who names the heights
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
  // Where no way meets it, the one that Settle names.
  auto p = surest(maps, request, test.stop());
  if (p && !judged(request.rule, request.band, p.value().figures).met()) p = lacking_least(maps, request, test.stop());
  if (!p) return p.problem();
  return Way{p.value().height->height_m, p.value().setting.percent, p.value().chance, may_be_met(maps, request),
             p.value().figures};
}

/// What would tell a condition that is not told apart.
void lift_condition(const AuditedTest& test, AuditedClaim& a, const Way& way) {
  if (a.judgement.verdict != Verdict::NotToldApart) return;
  a.weakest = "how sure all light is together";
  a.lifts = test.fits() ? "walk " + length_text(way.height_m, test.units()) +
                              ": a height that was read is surer than a predicted one"
                        : "walk one more height";
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
  const auto ground = ground_of(test, a.claim);
  if (!ground) return not_testable(a, "Not known: " + ground.problem().seen + ".", ground.problem().remedy);
  const CoverageGround& g = ground.value();
  const FloorLight* floor = g.made ? &*g.made : test.floor();
  const Footprint size{*a.claim.width_m, *a.claim.depth_m};
  Way way;
  if (g.elsewhere) {
    const auto there = surest_there(*floor, test.rule(), stage->band, floor->area(), g.setting);
    if (!there) return not_testable(a, "No height is known that hangs in that space.", "walk a lower height");
    way = {floor->heights_m()[there->height], there->setting.percent, there->chance, there->may_hold, there->figures};
  } else {
    const auto found = surest_on_bench(test, a.claim, stage->band);
    if (!found) return not_testable(a, "Not known: " + found.problem().seen + ".", found.problem().remedy);
    way = found.value();
  }
  a.judgement = judge_condition(way.chance, way.may_hold);
  a.reason = fmt::format("For {}. Rule: {}. {}{} at {} and {} %: {}; the rule holds with a chance of {}.",
                         stage_words(*stage), serving_rule_words(test.rule(), stage->band),
                         a.claim.height_m || a.claim.percent ? "As claimed, " : "At the best there is, ", g.in,
                         length_text(way.height_m, test.units()), short_number(way.percent, 1),
                         figures_words(test.rule(), way.figures), chance_text(way.chance));
  // How large an area of these proportions is served: on the bench, at the claim's height and setting where given.
  const ServedArea served = served_area(*floor, test.rule(), stage->band, size, g.setting);
  a.measured = served.scale * a.claimed;
  if (served.scale > 0) a.expanded = served.expanded * a.claimed;
  const LengthUnit unit = surface_unit(test.units());
  const double width_m = served.scale * size.width_m, depth_m = served.scale * size.depth_m;
  // Beyond the area that light is known of nothing is told.
  constexpr double to_the_end_m = 1e-6;
  const Rectangle& known = floor->area();
  if (served.scale == 0)
    a.measured_words = "no area";
  else if (width_m > known.width_m - to_the_end_m || depth_m > known.depth_m - to_the_end_m)
    a.measured_words = "at least " + size_text(width_m, depth_m, test.units());
  else
    a.measured_words = fmt::format("{} × {}", told(from_m(width_m, unit), a.expanded, 0).value,
                                   uncertain_text(from_m(depth_m, unit), a.expanded, 0, a.unit));
  a.judgement.difference_pct = 100 * (served.scale - 1);
  lift_condition(test, a, way);
}

void audit_mean_ppfd(const AuditedTest& test, AuditedClaim& a) {
  if (!test.light()) return not_testable(a, "No sweep has readings.", "walk two heights");
  if (!a.claim.height_m) return not_testable(a, "At which height it is meant is not stated.", "ask the maker for it");
  const TestLight& light = *test.light();
  Claim over = a.claim;
  const Rectangle walked = whole_area(light);
  if (!over.width_m || !over.depth_m) over.width_m = walked.width_m, over.depth_m = walked.depth_m;
  const double percent = a.claim.percent.value_or(100);
  over.percent = percent;
  const auto ground = ground_of(test, over);
  if (!ground) return not_testable(a, "Not known: " + ground.problem().seen + ".", ground.problem().remedy);
  const CoverageGround& g = ground.value();
  const FloorLight& floor = *g.made;
  if (floor.heights_m().empty())
    return not_testable(a, "No height is known that hangs in that space.", "walk a lower height");
  AreaLight found;
  double sd = std::hypot(floor.errors(0).together, g.setting->light_sd);
  const Rectangle part = g.elsewhere ? floor.area()
                                     : centered(floor.area(), std::min(*over.width_m, floor.area().width_m),
                                                std::min(*over.depth_m, floor.area().depth_m));
  if (g.elsewhere) {
    found = PartOfFloor(floor, part).figures(0, *g.setting, {});
  } else {
    const auto maps = settle_maps(light, part, {*a.claim.height_m}, *a.claim.height_m, test.stop());
    if (!maps) return not_testable(a, "Not known: " + maps.problem().seen + ".", maps.problem().remedy);
    found = settle_figures(*maps.value().heights.front(), *g.setting, {});
  }
  a.measured = found.mean, a.expanded = 2 * sd * found.mean;
  a.measured_words = found_text({a.measured, a.expanded}, 0, a.unit);
  judge(a, test.light_parts(false));
  a.reason = fmt::format("The mean over {}, at {} and {} %, {}.{}", size_text(part.width_m, part.depth_m, test.units()),
                         length_text(*a.claim.height_m, test.units()), short_number(percent, 1), g.in,
                         a.claim.width_m ? "" : " Over which area it is claimed is not said: this is what was walked.");
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
  const Rectangle whole = known_area(*test.light());
  for (const Claim& c : claims)
    if (c.kind == "coverage" && c.width_m && c.stage == a.claim.stage && fits_in({*c.width_m, *c.depth_m}, whole))
      over.width_m = c.width_m, over.depth_m = c.depth_m;
  const auto way = surest_on_bench(test, over, stage->band, std::pair{from, to});
  if (!way) return not_testable(a, "Not known: " + way.problem().seen + ".", way.problem().remedy);
  a.judgement = judge_condition(way.value().chance, way.value().may_hold);
  const std::string area = over.width_m ? "the " + size_text(*over.width_m, *over.depth_m, test.units()) + " claimed"
                                        : "the whole footprint";
  a.reason = fmt::format("For {} over {}. Rule: {}. At {} and {} % {}; the rule holds with a chance of {}.",
                         stage_words(*stage), area, serving_rule_words(test.rule(), stage->band),
                         length_text(way.value().height_m, test.units()), short_number(way.value().percent, 1),
                         figures_words(test.rule(), way.value().figures), chance_text(way.value().chance));
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
  lift_condition(test, a, way.value());
}

}  // namespace sunbreak::evaluation
