#include "evaluation/sensor_spectrum.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/lower_case.h"
#include "evaluation/measured_spectra.h"
#include "record/spectrum_samples.h"

namespace sunbreak::evaluation {
namespace {

constexpr double same_factor = 0.005;

}  // namespace

std::optional<Result<SpectralCorrection>> spectral_correction_here(const record::TestRecord& record) {
  const record::Meter* sensor = record.meter(record.test.sensor_id);
  const auto response = sensor ? record::response_of(*sensor) : std::nullopt;
  if (!response) return {};
  const auto light = light_at_full(record);
  if (!light)
    return Problem{"No spectrum of this light is on record", "what the sensor makes of it cannot be told",
                   "bring one in on Spectrum"};
  const auto reference = record::reference_light_of(*sensor);
  if (!reference)
    return Problem{fmt::format("The light that {} was calibrated under is not on record", sensor->name),
                   "what the sensor makes of this one beside it cannot be told", "name it with the meter on Home"};
  return spectral_correction(*response, *light, SpectralCurve(*reference));
}

std::optional<Finding> spectral_check(const record::TestRecord& record) {
  const auto told = spectral_correction_here(record);
  if (!told || !*told || told->value().finding.empty() || record.sweeps.empty()) return {};
  const SpectralCorrection& c = told->value();
  if (std::ranges::all_of(record.sweeps, [&](const record::Sweep& s) {
        return std::fabs(s.spectral_factor / c.factor - 1) < same_factor;
      }))
    return {};
  std::string saw = c.finding;
  if (saw.ends_with('.')) saw.pop_back();
  saw.replace(0, 1, lower_case(saw.substr(0, 1)));
  return Finding{"sensor and spectrum",
                 Severity::Look,
                 {},
                 saw,
                 "all light of this test is off by as much",
                 fmt::format("Spectrum on Read offers the factor {:.3f} ± {:.3f}", c.factor,
                             2 * c.standard_uncertainty * c.factor)};
}

}  // namespace sunbreak::evaluation
