#include "core/checks/between_sweeps.h"

#include <fmt/format.h>

#include <cmath>

#include "core/quantity/display.h"

namespace sunbreak {
namespace {

constexpr double mean_rise = 0.015, beyond_inverse_square = 0.03, light_rise = 0.01;
constexpr double same_sweep_height_m = 0.0005, same_dimmer_pct = 0.01, least_spacings = 1.5, rounding_m = 1e-6;

std::string pct(double p) { return short_number(p, 1) + " %"; }

/// The sweep nearest above `value` among those that `alike` lets through.
template <typename Value, typename Alike>
std::optional<std::size_t> next_above(std::span<const SweepSummary> sweeps, std::size_t from, Value value,
                                      Alike alike) {
  std::optional<std::size_t> next;
  for (std::size_t i = 0; i < sweeps.size(); ++i) {
    if (!alike(sweeps[i], sweeps[from]) || value(sweeps[i]) <= value(sweeps[from])) continue;
    if (!next || value(sweeps[i]) < value(sweeps[*next])) next = i;
  }
  return next;
}

void compare_heights(std::vector<SweepCheck>& checks, std::size_t upper_at, const SweepSummary& lower,
                     const SweepSummary& upper, UnitSystem units) {
  if (upper.mean_ppfd > lower.mean_ppfd * (1 + mean_rise))
    checks.push_back({upper_at,
                      {"brighter from higher up",
                       Severity::Look,
                       {},
                       fmt::format("the mean is {} at {} and {} at {}, higher up", ppfd_text(lower.mean_ppfd),
                                   length_text(lower.height_m, units), ppfd_text(upper.mean_ppfd),
                                   length_text(upper.height_m, units)),
                       "between the same walls more height cannot bring more light: one of the two sweeps is wrong",
                       "check both heights and dimmer settings, and whether one was read before it had settled"}});
  const double drop = lower.center_ppfd / upper.center_ppfd;
  const double most = std::pow(upper.height_m / lower.height_m, 2);
  if (std::isfinite(drop) && drop > most * (1 + beyond_inverse_square))
    checks.push_back(
        {upper_at,
         {"falls faster than distance allows",
          Severity::Look,
          {},
          fmt::format("the center falls to 1/{:.2f} from {} to {}; the inverse square of the heights allows 1/{:.2f}",
                      drop, length_text(lower.height_m, units), length_text(upper.height_m, units), most),
          "one of the two distances is not what the plan says, or the lamp was dimmer",
          "measure both heights again, from the stated datum to the sensor's receiving surface"}});
}

void compare_stops(std::vector<SweepCheck>& checks, std::size_t dimmed_at, const SweepSummary& dimmed,
                   const SweepSummary& brighter) {
  if (dimmed.mean_ppfd > brighter.mean_ppfd * (1 + light_rise))
    checks.push_back({dimmed_at,
                      {"brighter when dimmed",
                       Severity::Look,
                       {},
                       fmt::format("the mean is {} at {} and {} at {}", ppfd_text(dimmed.mean_ppfd),
                                   pct(dimmed.dimmer_pct), ppfd_text(brighter.mean_ppfd), pct(brighter.dimmer_pct)),
                       "one of the two sweeps was taken at another setting, or before the light had settled",
                       "check the dimmer, then read the center of both again"}});
  if (dimmed.power_w && brighter.power_w && *dimmed.power_w >= *brighter.power_w)
    checks.push_back({dimmed_at,
                      {"watts do not fall when dimmed",
                       Severity::Look,
                       {},
                       fmt::format("{} W at {}, {} W at {}", short_number(*dimmed.power_w, 1), pct(dimmed.dimmer_pct),
                                   short_number(*brighter.power_w, 1), pct(brighter.dimmer_pct)),
                       "the efficacy of one of the two is wrong",
                       "read the wall meter again in both settings"}});
}

}  // namespace

std::vector<SweepCheck> between_sweeps_checks(std::span<const SweepSummary> sweeps, UnitSystem units) {
  std::vector<SweepCheck> checks;
  for (std::size_t i = 0; i < sweeps.size(); ++i) {
    const auto above = next_above(
        sweeps, i, [](const SweepSummary& s) { return s.height_m; },
        [](const SweepSummary& a, const SweepSummary& b) {
          return std::abs(a.dimmer_pct - b.dimmer_pct) < same_dimmer_pct;
        });
    if (above) compare_heights(checks, *above, sweeps[i], sweeps[*above], units);
    const auto brighter = next_above(
        sweeps, i, [](const SweepSummary& s) { return s.dimmer_pct; },
        [](const SweepSummary& a, const SweepSummary& b) {
          return std::abs(a.height_m - b.height_m) < same_sweep_height_m;
        });
    if (brighter) compare_stops(checks, i, sweeps[i], sweeps[*brighter]);
  }
  return checks;
}

double least_height_m(std::optional<double> emitter_spacing_m) {
  return least_spacings * emitter_spacing_m.value_or(0);
}

std::optional<Finding> too_close_check(double height_m, std::optional<double> emitter_spacing_m, UnitSystem units) {
  if (height_m >= least_height_m(emitter_spacing_m) - rounding_m) return {};
  return Finding{
      "too close for the grid",
      Severity::Look,
      {},
      fmt::format("{} is under 1.5 times the {} between emitters", length_text(height_m, units),
                  length_text(*emitter_spacing_m, units)),
      "readings jump between bars and gaps, so lowest, highest and mean depend on where stations happen to lie",
      "use a finer grid at this height, or leave it out"};
}

}  // namespace sunbreak
