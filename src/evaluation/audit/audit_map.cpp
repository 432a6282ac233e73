#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "evaluation/audit/audited_test.h"
#include "evaluation/light_words.h"
#include "record/claim_kinds.h"

namespace sunbreak::evaluation {

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
  if (const auto problem = beyond_reach(test, *a.claim.height_m)) return cannot(problem->seen + ".", problem->remedy);
  const double height_m = *a.claim.height_m;
  AuditedMap held;
  std::string in;
  if (const auto room = test.other_room(a.claim)) {
    if (!test.fits()) {
      const Problem problem = elsewhere_not_known(test);
      return cannot("Not known: " + problem.seen + ".", problem.remedy);
    }
    const Restated r = Elsewhere(light.found(), *room, layout).at({}, height_m, setting.value().light_factor);
    held.held = held_map(map, std::move(layout), r.ppfd);
    held.expanded =
        std::hypot(r.mean_ppfd.expanded / r.mean_ppfd.value, 2 * light.shared_light_sd(), 2 * setting.value().light_sd);
    in = "in " + room_words(a.claim, test.units());
  } else {
    const Rectangle whole = known_area(light), part = centered(whole, area.width_m, area.depth_m);
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
    held.expanded = std::hypot(std::isnan(model) ? 2 * light.between().mean_sd_of(*at, weights, height_m) : model,
                               meters, 2 * s.light_sd);
    in = "in this bench";
  }
  const HeldMap& h = held.held;
  a.claimed = h.claimed_mean, a.measured = h.our_mean, a.expanded = held.expanded * h.our_mean;
  a.measured_words = found_text({a.measured, a.expanded}, 0, a.unit);
  judge(a, test.light_parts(false));
  a.reason = fmt::format(
      "{}{}At {} and {} %, {}, the same places have a mean of {} where {:.0f} are claimed, a ratio of {:.2f}; lowest ÷ "
      "mean is {:.2f} where {:.2f} is claimed; place by place the ratio varies by {:.0f} %.",
      plain, plain.empty() ? "" : " ", length_text(height_m, test.units()), short_number(percent, 1), in,
      a.measured_words, h.claimed_mean, h.mean_ratio, h.our_lowest_over_mean, h.claimed_lowest_over_mean,
      100 * h.pattern_spread);
  if (held.outside)
    a.reason += fmt::format(" Outside of the square shown, which is {:.0f} % of this footprint, the mean is {:.0f}.",
                            100 * held.outside->outside_share, held.outside->outside_mean_ppfd);
  a.map = std::move(held);
}

}  // namespace sunbreak::evaluation
