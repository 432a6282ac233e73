#include "core/checks/plausibility.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/figures/sweep_figures.h"
#include "core/quantity/display.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr double least_efficacy = 0.05, share_read_for_efficacy = 0.9;
constexpr double claim_exceeded = 3, claim_missed = 8;
constexpr double height_step = 5, tall_m = 2.5, tall_for_bench = 2, low_m = 0.05;
constexpr double fixture_for_bench = 2.5;
constexpr double own_watts_agree = 0.1, own_watts_rounding_w = 2;
constexpr double most_a_second = 2;
constexpr int fewest_for_pace = 100;  ///< a few may have been typed from paper, one after the other

struct StatedSweep : SweepStatement {
  const Layout& layout;
  std::span<const double> ppfd;
};

std::optional<Finding> efficacy_check(const StatedSweep& s) {
  if (!s.power_w || !(*s.power_w > 0)) return {};
  double read = 0;
  for (std::size_t i = 0; i < s.ppfd.size(); ++i)
    if (!std::isnan(s.ppfd[i])) read += s.layout.stations[i].weight;
  if (read < share_read_for_efficacy) return {};
  const double efficacy = area_mean(s.layout, s.ppfd) * s.layout.measured.area_m2() / *s.power_w;
  const double most = efficacy_ceiling(s.photons_per_joule) * s.most_return;
  if (efficacy > most)
    return Finding{
        "efficacy above physics",
        Severity::Impossible,
        {},
        fmt::format(
            "{:.3g} µmol/J on {} is more than {}{}", efficacy, area_text(s.layout.measured.area_m2(), s.units),
            ceiling_words(s.photons_per_joule),
            s.most_return > 1 ? fmt::format(", and {:.3g} times that by what the walls send back", s.most_return) : ""),
        "light, area or watts is wrong by a factor, and every figure made of them too",
        "check the unit of the bench's size, the watts and the sensor's factor"};
  if (efficacy < least_efficacy)
    return Finding{"hardly any light for its watts",
                   Severity::Look,
                   {},
                   fmt::format("{:.2g} µmol/J on {} is less than a fiftieth of what lamps give", efficacy,
                               area_text(s.layout.measured.area_m2(), s.units)),
                   "light, area or watts may be wrong by a factor",
                   "check the unit of the bench's size, the watts and the sensor's factor"};
  return {};
}

std::optional<Finding> watts_check(const StatedSweep& s) {
  if (!s.power_w || !s.claimed_power_w || !(*s.claimed_power_w > 0)) return {};
  const double claimed = *s.claimed_power_w, at_setting = claimed * std::min(s.dimmer_pct, 100.0) / 100;
  if (*s.power_w <= claim_exceeded * claimed && *s.power_w * claim_missed >= at_setting) return {};
  return Finding{"watts unlike the claim",
                 Severity::Bad,
                 {},
                 fmt::format("{:.4g} W at {:g} %, where {:.4g} W are claimed", *s.power_w, s.dimmer_pct, claimed),
                 "efficacy and cost are wrong by that factor if a digit slipped",
                 "read the meter again, and compare the claim with the box"};
}

std::optional<Finding> own_watts_check(const StatedSweep& s) {
  double sum = 0;
  int count = 0;
  for (const WallSample& w : s.wall)
    if (w.watts) sum += *w.watts, ++count;
  if (!s.power_w || count == 0) return {};
  const double read = sum / count;
  if (std::abs(*s.power_w - read) <= own_watts_agree * read + own_watts_rounding_w) return {};
  return Finding{"watts unlike its own wall readings",
                 Severity::Bad,
                 {},
                 fmt::format("{:.4g} W stand for the sweep, and its own wall readings say {:.4g} W", *s.power_w, read),
                 "efficacy and cost are wrong by that factor",
                 "take the watts from the meter again, or correct those that were typed"};
}

std::vector<Finding> own_wall_checks(const StatedSweep& s) {
  std::vector<Finding> checks;
  for (const WallSample& w : s.wall)
    for (Finding& check : wall_checks(w))
      if (std::ranges::find(checks, check.id, &Finding::id) == checks.end()) checks.push_back(std::move(check));
  return checks;
}

std::optional<Finding> height_check(const StatedSweep& s) {
  const double side = std::max(s.layout.footprint.width_m, s.layout.footprint.depth_m);
  double below = 0, above = INFINITY;
  for (const double h : s.heights_m) {
    if (h < s.height_m) below = std::max(below, h);
    if (h > s.height_m) above = std::min(above, h);
  }
  const bool leaps =
      (below > 0 && s.height_m > height_step * below) || (above < INFINITY && above > height_step * s.height_m);
  const bool out_of_proportion = (s.height_m > tall_m && s.height_m > tall_for_bench * side) || s.height_m < low_m;
  if (!leaps && !out_of_proportion) return {};
  return Finding{
      "height unlikely",
      Severity::Look,
      {},
      leaps ? fmt::format("{}, and the next height of the test is {}", length_text(s.height_m, s.units),
                          length_text(below > 0 && s.height_m > height_step * below ? below : above, s.units))
            : fmt::format("{} over a bench of {}", length_text(s.height_m, s.units), length_text(side, s.units)),
      "a slipped point or another unit puts the sweep in the wrong place among the heights",
      "check the height on Rig, and its unit"};
}

std::optional<Finding> size_check(const StatedSweep& s) {
  if (!s.fixture_width_m || !s.fixture_depth_m) return {};
  const Footprint& bench = s.layout.footprint;
  const double across = std::max(*s.fixture_width_m, *s.fixture_depth_m),
               deep = std::min(*s.fixture_width_m, *s.fixture_depth_m);
  if (across < fixture_for_bench * std::max(bench.width_m, bench.depth_m) ||
      deep < fixture_for_bench * std::min(bench.width_m, bench.depth_m))
    return {};
  return Finding{
      "fixture larger than the bench",
      Severity::Look,
      {},
      fmt::format("a fixture of {} over a bench of {}", size_text(*s.fixture_width_m, *s.fixture_depth_m, s.units),
                  size_text(bench.width_m, bench.depth_m, s.units)),
      "area, PPF and efficacy are wrong by a factor if a size has another unit",
      "check both sizes and their units on Rig"};
}

}  // namespace

double efficacy_ceiling(std::optional<double> photons_per_joule) { return photons_per_joule.value_or(most_efficacy); }

std::string ceiling_words(std::optional<double> photons_per_joule) {
  return fmt::format("{:.2f} µmol/J, what {} without any loss", efficacy_ceiling(photons_per_joule),
                     photons_per_joule ? "this light's spectrum gives" : "any light gives");
}

std::vector<Finding> plausibility_checks(const Layout& layout, std::span<const double> ppfd,
                                         const SweepStatement& statement) {
  const StatedSweep s{statement, layout, ppfd};
  std::vector<Finding> checks;
  if (std::all_of(s.ppfd.begin(), s.ppfd.end(), [](double v) { return std::isnan(v); })) return checks;
  for (auto& check : {efficacy_check(s), watts_check(s), own_watts_check(s), height_check(s), size_check(s)})
    if (check) checks.push_back(*check);
  for (Finding& check : own_wall_checks(s)) checks.push_back(std::move(check));
  return checks;
}

std::vector<Finding> taking_checks(std::span<const TakenReading> readings) {
  std::vector<Finding> checks;
  double first = INFINITY, last = -INFINITY;
  int taken = 0, wild = 0;
  for (const TakenReading& r : readings) {
    if (!std::isnan(r.taken_s)) first = std::min(first, r.taken_s), last = std::max(last, r.taken_s), ++taken;
    wild += r.spread && *r.spread > std::abs(r.raw) && *r.spread > 1;
  }
  if (taken >= fewest_for_pace && taken > most_a_second * std::max(last - first, 1.0))
    checks.push_back({"read faster than hands",
                      Severity::Bad,
                      {},
                      fmt::format("{} stations were read within {:.3g} s", taken, last - first),
                      "nobody carries a sensor so fast: the times, or the readings, are not of a walk",
                      "walk the sweep again; what comes from elsewhere is imported as a table"});
  if (wild > 0)
    checks.push_back({"samples apart as far as they are high",
                      Severity::Bad,
                      {},
                      fmt::format("at {} {} the samples of one reading lie further apart than their mean", wild,
                                  wild == 1 ? "station" : "stations"),
                      "such a mean says nothing of the light there",
                      "look at the sensor's plug and range, and read them again"});
  return checks;
}

}  // namespace sunbreak
