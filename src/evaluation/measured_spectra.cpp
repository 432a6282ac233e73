#include "evaluation/measured_spectra.h"

#include <algorithm>
#include <cmath>

#include "record/spectrum_samples.h"

namespace sunbreak::evaluation {
namespace {

constexpr double full_pct = 100;
/// Shares of all photons: over the first there is an emitter, under the second there is none.
constexpr double uv_present = 0.002, uv_absent = 0.0005, far_red_present = 0.03, far_red_absent = 0.01;

struct MeasuredLight {
  record::Id id = 0;
  SpectralCurve curve;
};

std::optional<MeasuredLight> light_of_row(const record::MeasuredSpectrum& row) {
  auto spectrum = record::spectrum_of(row);
  return spectrum ? std::optional(MeasuredLight{row.id, SpectralCurve(std::move(spectrum.value()))}) : std::nullopt;
}

SpectrumRead read_of(MeasuredLight light) {
  SpectrumFigures figures = spectrum_figures(light.curve);
  return {light.id, std::move(light.curve), std::move(figures)};
}

std::optional<MeasuredLight> nearest_to_full(const record::TestRecord& record) {
  std::vector<const record::MeasuredSpectrum*> rows;
  for (const record::MeasuredSpectrum& row : record.spectra) rows.push_back(&row);
  const auto off_full = [](const record::MeasuredSpectrum* row) {
    return std::fabs(row->percent.value_or(full_pct) - full_pct);
  };
  std::stable_sort(rows.begin(), rows.end(), [&](auto* a, auto* b) { return off_full(a) < off_full(b); });
  for (const record::MeasuredSpectrum* row : rows)
    if (auto light = light_of_row(*row)) return light;
  return std::nullopt;
}

bool peak_between(const SpectrumFigures& f, WavelengthRange range) {
  return std::any_of(f.peaks.begin(), f.peaks.end(),
                     [&](const SpectralPeak& p) { return p.nm >= range.from_nm && p.nm < range.to_nm; });
}

}  // namespace

std::vector<SpectrumRead> measured_spectra(const record::TestRecord& record) {
  std::vector<SpectrumRead> all;
  for (const record::MeasuredSpectrum& row : record.spectra)
    if (auto light = light_of_row(row)) all.push_back(read_of(std::move(*light)));
  return all;
}

std::optional<SpectrumRead> spectrum_at_full(const record::TestRecord& record) {
  auto light = nearest_to_full(record);
  return light ? std::optional(read_of(std::move(*light))) : std::nullopt;
}

std::optional<SpectralCurve> light_at_full(const record::TestRecord& record) {
  auto light = nearest_to_full(record);
  return light ? std::optional(std::move(light->curve)) : std::nullopt;
}

double uv_share(const SpectrumFigures& f) {
  const BandShare &b = f.bands[0], &a = f.bands[1];
  return a.share + (b.any() ? b.share : 0);
}

std::optional<bool> shows_uv(const SpectrumFigures& f) {
  const BandShare& a = f.bands[1];
  if (!a.any()) return std::nullopt;
  const double share = uv_share(f);
  if (share >= uv_present || peak_between(f, {280, 400})) return true;
  return a.whole && share < uv_absent ? std::optional(false) : std::nullopt;
}

std::optional<bool> shows_far_red(const SpectrumFigures& f) {
  const BandShare& band = f.bands[5];
  if (!band.any()) return std::nullopt;
  if (band.share >= far_red_present || peak_between(f, {705, 800})) return true;
  return band.measured.to_nm >= 750 && band.share < far_red_absent ? std::optional(false) : std::nullopt;
}

}  // namespace sunbreak::evaluation
