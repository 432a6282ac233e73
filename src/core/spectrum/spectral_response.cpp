#include "core/spectrum/spectral_response.h"

#include <fmt/format.h>

#include <cmath>

#include "core/spectrum/photon_bands.h"

namespace sunbreak {
namespace {

constexpr double alike_within_nm = 25;
constexpr double told_over = 0.02;

struct Signal {
  double over_ppfd = 0;  ///< ∫ R N / ∫ N of 400 to 700 nm
  double short_share = 0, far_red_share = 0;
  std::vector<double> parts;  ///< of the whole signal, by windows of `alike_within_nm`
};

Signal signal_of(const SpectralCurve& response, const SpectralCurve& light) {
  const WavelengthRange seen = response.range();
  const auto between = [&](double from, double to) {
    // The response is a curve of its own with breaks every so often: short steps keep the rule exact enough.
    return light.photon_integral(
        {std::max(from, seen.from_nm), std::min(to, seen.to_nm)}, [&](double nm) { return response.value(nm); }, 1);
  };
  Signal signal;
  const double all = between(seen.from_nm, seen.to_nm);
  signal.over_ppfd = all / light.photon_integral(ppfd_range);
  signal.short_share = between(seen.from_nm, ppfd_range.from_nm) / all;
  signal.far_red_share = between(ppfd_range.to_nm, seen.to_nm) / all;
  for (double nm = 100; nm < 2000; nm += alike_within_nm)
    signal.parts.push_back(between(nm, nm + alike_within_nm) / all);
  return signal;
}

}  // namespace

std::optional<Problem> response_problem(const SpectralResponse& response) {
  return spectrum_problem({response.wavelengths_nm, response.per_photon, SpectralScale::Photons, false});
}

Result<SpectralCorrection> spectral_correction(const SpectralResponse& response, const SpectralCurve& light,
                                               const SpectralCurve& calibrated_under) {
  if (const auto problem = response_problem(response)) return *problem;
  for (const auto& [curve, name] : {std::pair{&light, "The spectrum of this light"},
                                    std::pair{&calibrated_under, "The spectrum of the light of calibration"}})
    if (!curve->covers(ppfd_range) || !(curve->photon_integral(ppfd_range) > 0))
      return Problem{fmt::format("{} does not hold all of 400 to 700 nm, or no light there", name),
                     "what the sensor should have read cannot be told", "measure it over that range"};
  const SpectralCurve curve =
      SpectralCurve::drawn({response.wavelengths_nm, response.per_photon, SpectralScale::Photons, false});
  const Signal here = signal_of(curve, light), there = signal_of(curve, calibrated_under);
  if (!(here.over_ppfd > 1e-6) || !(there.over_ppfd > 1e-6))
    return Problem{"The sensor sees next to nothing of one of the two lights", "no factor can be told",
                   "check that the response curve belongs to this sensor"};
  SpectralCorrection told;
  told.factor = there.over_ppfd / here.over_ppfd;
  double variance = 0;
  for (std::size_t i = 0; i < here.parts.size(); ++i)
    variance += std::pow(response.uncertainty * (here.parts[i] - there.parts[i]), 2);
  told.standard_uncertainty = std::sqrt(variance);
  told.short_share = here.short_share;
  told.far_red_share = here.far_red_share;
  if (std::fabs(told.factor - 1) > told_over)
    told.finding =
        fmt::format("Under this light the sensor reads {:.1f} % too {}{}.", 100 * std::fabs(1 / told.factor - 1),
                    told.factor < 1 ? "much" : "little",
                    told.factor < 1 && told.far_red_share > 0.01
                        ? fmt::format("; {:.1f} % of its signal is light over 700 nm", 100 * told.far_red_share)
                        : "");
  for (const auto& [spectrum, name] :
       {std::pair{&light, "this light"}, std::pair{&calibrated_under, "its calibration"}})
    if (spectrum->range().from_nm > curve.range().from_nm + 1 || spectrum->range().to_nm < curve.range().to_nm - 1)
      told.notes.push_back(fmt::format(
          "The sensor sees {:g} to {:g} nm; the spectrum of {} was measured from {:g} to {:g} nm. What the sensor "
          "counts beyond is not in the factor.",
          curve.range().from_nm, curve.range().to_nm, name, spectrum->range().from_nm, spectrum->range().to_nm));
  return told;
}

}  // namespace sunbreak
