#pragma once

#include <string>
#include <vector>

#include "core/spectrum/spectrum.h"
#include "drawing/canvas.h"

namespace sunbreak::drawing {

/// One spectrum among others: brought to a scale of photons that all share.
struct SpectrumLine {
  std::string name;
  Spectrum light;
};

/// What the height of a plot is, in words, and what is shown for 1.
struct SpectrumScale {
  const char* words;
  double shown_for_one = 1;
};
inline constexpr SpectrumScale percent_of_ppfd{"photons per nm, % of the PPFD", 100},
    highest_is_one{"photons per nm, the highest of each is 1", 1};

/// Where the plot lies in its room.
struct SpectrumPlotArea {
  Box box;
  WavelengthRange range;
  double x_of(double nm) const { return box.left + box.width * (nm - range.from_nm) / range.width_nm(); }
  double nm_at(double x) const { return range.from_nm + range.width_nm() * (x - box.left) / box.width; }
};

/// The plot's area for these lines; empty where there are none or no room.
SpectrumPlotArea spectrum_plot_area(const Box& room, const std::vector<SpectrumLine>& lines);

/// Lines over the named bands of photons, each in a color and a dash of its own, with their names. Up to six lines are
/// told apart.
void draw_spectra(Canvas& canvas, const Box& room, const std::vector<SpectrumLine>& lines, const SpectrumScale& scale);

}  // namespace sunbreak::drawing
