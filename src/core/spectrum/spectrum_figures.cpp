#include "core/spectrum/spectrum_figures.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {

constexpr double told_below_zero = -0.02;  ///< of the highest value
constexpr double coarse_step_nm = 10;
constexpr WavelengthRange usual_color_range{380, 780};  ///< beyond, an eye sees next to nothing

std::string words(WavelengthRange range) { return fmt::format("{:g} to {:g} nm", range.from_nm, range.to_nm); }

void note_bands(SpectrumFigures& figures) {
  std::string missing;
  for (std::size_t i = 0; i < photon_bands.size(); ++i) {
    const PhotonBand& band = photon_bands[i];
    const BandShare& told = figures.bands[i];
    if (!told.any())
      missing += fmt::format("{}{} ({})", missing.empty() ? "" : ", ", band.label, words(band.range));
    else if (!told.whole)
      figures.notes.push_back(fmt::format("Of {} ({}) only {} was measured; its share is of that part.", band.label,
                                          words(band.range), words(told.measured)));
  }
  if (!missing.empty())
    figures.notes.push_back(fmt::format("Not measured: {}. How much light is there is not known.", missing));
}

void note_samples(const SpectralCurve& curve, SpectrumFigures& figures) {
  for (const WavelengthRange& gap : figures.gaps)
    figures.notes.push_back(fmt::format("Nothing was measured from {}. What is there enters no figure.", words(gap)));
  if (curve.usual_step_nm() > coarse_step_nm)
    figures.notes.push_back(fmt::format(
        "Samples are {:g} nm apart: too far for peaks, and lines between them are missed.", curve.usual_step_nm()));
  const auto& values = curve.spectrum().values;
  const auto [lowest, highest] = std::minmax_element(values.begin(), values.end());
  if (*lowest < told_below_zero * *highest)
    figures.notes.push_back(fmt::format(
        "The lowest value is {:.1f} % of the highest, below zero: the dark was not taken off well, and weak bands are "
        "wrong by about as much. Measure the dark again.",
        100 * *lowest / *highest));
}

void find_color(const SpectralCurve& curve, SpectrumFigures& figures) {
  if (!curve.covers(least_color_range)) {
    figures.notes.push_back("Color takes all of 400 to 700 nm, which was not measured.");
    return;
  }
  const Tristimulus t = tristimulus(curve);
  if (!(t[0] >= 0 && t[1] > 0 && t[2] >= 0)) {
    figures.notes.push_back("There is no light between 380 and 780 nm that would have a color.");
    return;
  }
  if (!curve.covers(usual_color_range))
    figures.notes.push_back(
        fmt::format("Color is told from {}, and as if the light went on beyond as it is at these ends (CIE 15); an eye "
                    "sees little there.",
                    words(figures.range)));
  figures.color = chromaticity(t);
  figures.temperature = color_temperature(*figures.color);
  if (!figures.temperature) {
    figures.notes.push_back(
        "Its color is too far from that of any glowing body for a color temperature, and color rendering (CIE 13.3) is "
        "not defined for it.");
    return;
  }
  figures.rendering = color_rendering(curve, figures.temperature);
  if (!figures.rendering)
    figures.notes.push_back("Color rendering (CIE 13.3) is not defined for light of over 25,000 K.");
  else if (!figures.rendering->within_standard())
    figures.notes.push_back(fmt::format(
        "Its color is {:.4f} from that of its reference, over the 0.0054 that CIE 13.3 is meant for: Ra and R1 to R14 "
        "are rough.",
        figures.rendering->color_difference));
}

}  // namespace

SpectrumFigures spectrum_figures(const SpectralCurve& curve) {
  SpectrumFigures figures;
  figures.range = curve.range();
  figures.gaps = curve.gaps();
  for (const PhotonBand& band : photon_bands) figures.bands.push_back(band_share(curve, band.range));
  note_samples(curve, figures);
  note_bands(figures);
  const auto band = [](std::size_t i) { return photon_bands[i].range; };
  figures.ppfd_share = curve.covers(ppfd_range) ? band_share(curve, ppfd_range).share : std::nan("");
  figures.eppfd_over_ppfd = whole_photon_ratio(curve, eppfd_range, ppfd_range);
  figures.blue_over_red = photon_ratio(curve, band(2), band(4));
  figures.red_over_far_red = photon_ratio(curve, band(4), band(5));
  figures.peaks = spectral_peaks(curve);
  figures.lux_per_ppfd = lux_per_ppfd(curve);
  find_color(curve, figures);
  if (curve.spectrum().absolute && curve.covers(ppfd_range))
    figures.ppfd =
        curve.photon_integral(ppfd_range) * (curve.spectrum().scale == SpectralScale::Power ? umol_per_joule_nm : 1);
  return figures;
}

}  // namespace sunbreak
