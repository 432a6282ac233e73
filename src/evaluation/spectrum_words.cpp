#include "evaluation/spectrum_words.h"

#include <fmt/format.h>

#include <cmath>

#include "core/quantity/display.h"
#include "evaluation/light_words.h"

namespace sunbreak::evaluation {
namespace {

std::string or_not_measured(double value, const char* format) {
  return std::isfinite(value) ? fmt::format(fmt::runtime(format), value) : "not measured";
}

std::string nm(WavelengthRange range) { return fmt::format("{:g} to {:g} nm", range.from_nm, range.to_nm); }

}  // namespace

std::string spectrum_name(const record::MeasuredSpectrum& spectrum) {
  const std::string name = spectrum.name.empty() ? "spectrum" : spectrum.name;
  return spectrum.percent ? fmt::format("{} · {} %", name, short_number(*spectrum.percent, 1)) : name;
}

std::string spectrum_summary(const SpectrumFigures& f) {
  std::string words = f.temperature ? fmt::format("{:.0f} K", f.temperature->cct_k) : "no color temperature";
  if (f.rendering) words += ", Ra " + plain_number(f.rendering->ra, 0);
  std::string bands;
  for (std::size_t i = 0; i < f.bands.size(); ++i)
    if (f.bands[i].any() && f.bands[i].share >= 0.005)
      bands += fmt::format("{}{} {:.0f}", bands.empty() ? "" : ", ", photon_bands[i].label, 100 * f.bands[i].share);
  return bands.empty() ? words : fmt::format("{}; {} % of the photons", words, bands);
}

std::vector<SpectrumRow> spectrum_rows(const SpectrumFigures& f) {
  std::vector<SpectrumRow> rows;
  rows.push_back({"range", "Measured", nm(f.range), "first and last wavelength"});
  for (std::size_t i = 0; i < photon_bands.size(); ++i) {
    const PhotonBand& band = photon_bands[i];
    const BandShare& share = f.bands[i];
    rows.push_back({std::string(band.id), fmt::format("Photons, {}", band.label),
                    or_not_measured(100 * share.share, "{:.1f} %") +
                        (share.any() && !share.whole ? " of " + nm(share.measured) : ""),
                    fmt::format("photons of {} over all that were measured", nm(band.range))});
  }
  rows.push_back({"ppfd_share", "PPFD of all photons", or_not_measured(100 * f.ppfd_share, "{:.1f} %"),
                  "photons of 400 to 700 nm over all that were measured"});
  rows.push_back({"eppfd_over_ppfd", "ePPFD over PPFD", or_not_measured(f.eppfd_over_ppfd, "{:.3f}"),
                  "photons of 400 to 750 nm over those of 400 to 700 nm"});
  rows.push_back({"red_over_far_red", "Red over far red", or_not_measured(f.red_over_far_red, "{:.2f}"),
                  "photons of 600 to 700 nm over those of 700 to 800 nm"});
  rows.push_back({"blue_over_red", "Blue over red", or_not_measured(f.blue_over_red, "{:.2f}"),
                  "photons of 400 to 500 nm over those of 600 to 700 nm"});
  std::string peaks;
  for (const SpectralPeak& p : f.peaks)
    peaks += fmt::format("{}{:.0f} nm{}", peaks.empty() ? "" : ", ", p.nm,
                         std::isfinite(p.width_nm) ? fmt::format(" ({:.0f} wide)", p.width_nm) : "");
  rows.push_back({"peaks", "Peaks", peaks.empty() ? "none" : peaks,
                  "places on the scale of photons that rise by 3 % of the highest, with their width at half height"});
  rows.push_back({"cct_k", "Color temperature",
                  f.temperature ? fmt::format("{:.0f} K, Duv {}{}", f.temperature->cct_k,
                                              f.temperature->duv < 0 ? "" : "+", plain_number(f.temperature->duv, 4))
                                : "none",
                  "of the glowing body whose color is nearest, and the distance from it (Ohno 2014)"});
  rows.push_back(
      {"xy", "Chromaticity", f.color ? fmt::format("x {:.4f}, y {:.4f}", f.color->x, f.color->y) : "none", "CIE 1931"});
  rows.push_back(
      {"ra", "Color rendering",
       f.rendering ? fmt::format("Ra {}{}, R9 {}", plain_number(f.rendering->ra, 0),
                                 f.rendering->within_standard() ? "" : " (rough)", plain_number(f.rendering->r[8], 0))
                   : "not defined",
       "CIE 13.3-1995"});
  if (f.rendering) {
    std::string indices;
    for (std::size_t i = 0; i < f.rendering->r.size(); ++i)
      indices += (indices.empty() ? "" : "  ") + plain_number(f.rendering->r[i], 0);
    rows.push_back({"r", "R1 to R14", indices, "CIE 13.3-1995, by test color"});
  }
  rows.push_back({"ppfd_per_lux", "PPFD per lux",
                  std::isfinite(f.lux_per_ppfd)
                      ? fmt::format("{:.5f}, lux per PPFD {:.1f}", f.ppfd_per_lux(), f.lux_per_ppfd)
                      : "not measured",
                  "photons of 400 to 700 nm over 683 lm/W · V(λ) · power"});
  if (f.ppfd)
    rows.push_back(
        {"ppfd", "PPFD of the spectrum", fmt::format("{:.1f} µmol/m²/s", *f.ppfd), "∫ photons of 400 to 700 nm"});
  return rows;
}

}  // namespace sunbreak::evaluation
