#include "evaluation/lux_walk.h"

#include <fmt/format.h>

#include <cmath>

#include "core/meters/lux_factor.h"
#include "core/uncertainty/budget.h"
#include "evaluation/measured_spectra.h"
#include "record/plan_grid.h"
#include "record/spectrum_samples.h"

namespace sunbreak::evaluation {
namespace {

constexpr double beyond_levels = 1.1;

}  // namespace

std::optional<Problem> lux_factor_refused(const TestRecord& record, const FittedLuxFactor& factor) {
  const auto found_under = light_of(factor);
  const auto here = light_at_full(record);
  std::optional<SpectrumMatch> match;
  if (found_under && here) match = spectrum_match(SpectralCurve(*found_under), *here);
  const bool same_class = found_under_fixture(factor, record.fixture.id) ||
                          (!factor.light_class.empty() && factor.light_class == record.test.light_class);
  return sunbreak::lux_factor_refused(match, same_class, factor.lowest_lux, factor.lowest_lux, factor.highest_lux);
}

bool found_under_fixture(const FittedLuxFactor& factor, Id fixture_id) { return factor.fixture_id == fixture_id; }

std::optional<Problem> lux_factor_missing(const TestRecord& record) {
  if (!walked_by_lux(record) || lux_factor_of(record)) return {};
  return Problem{fmt::format("{} tells lux, and no factor makes PPFD of it", record.meter(record.test.sensor_id)->name),
                 "what it reads under this light cannot be told",
                 "find its factor by Lux factor on Home, and choose it on Rig"};
}

std::optional<double> whole_k_expanded(const FittedLuxFactor& factor) {
  if (!factor.k_expanded) return {};
  const double usual_pct = 100 * BudgetQuestion{}.calibration.value;
  const double reference = factor.source == "paired" ? factor.reference_uncertainty_pct.value_or(usual_pct) / 100 : 0;
  return std::hypot(*factor.k_expanded, 2 * reference * factor.k);
}

Correction live_correction(const TestRecord& record) {
  return walked_by_lux(record) ? Correction{} : correction_of(record);
}

std::optional<Finding> lux_level_check(const Sweep& sweep, const SweepView& view) {
  if (!sweep.lux_k || !sweep.lux_lowest || !sweep.lux_highest) return {};
  Finding finding{"outside of the lux factor", Severity::Look, {}, {}, {}, {}};
  for (std::size_t i = 0; i < view.states.size(); ++i) {
    const StationState& s = view.states[i];
    if (s.kind == StationState::Read &&
        (s.raw < *sweep.lux_lowest / beyond_levels || s.raw > *sweep.lux_highest * beyond_levels))
      finding.stations.push_back(static_cast<int>(i));
  }
  if (finding.stations.empty()) return {};
  finding.saw = fmt::format("{} of {} stations read outside of {:.0f} to {:.0f} lx", finding.stations.size(),
                            view.states.size(), *sweep.lux_lowest, *sweep.lux_highest);
  finding.effect = "the lux factor was found between these levels; beyond them it is a guess";
  finding.remedy = "add pairs at these levels to the factor, or read these stations by a quantum sensor";
  return finding;
}

}  // namespace sunbreak::evaluation
