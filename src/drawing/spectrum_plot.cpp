#include "drawing/spectrum_plot.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/spectrum/photon_bands.h"
#include "drawing/light_scale.h"

namespace sunbreak::drawing {
namespace {

constexpr double spectrum_left_px = 56, spectrum_right_px = 16, spectrum_top_px = 44, spectrum_bottom_px = 34;
constexpr double usual_from_nm = 380, usual_to_nm = 780, shown_from_nm = 250, shown_to_nm = 1100;

Stroke stroke_of(std::size_t line, const Palette& t) {
  static constexpr std::array dashes{Dash::Solid,  Dash::Solid,      Dash::Dashed,
                                     Dash::Dotted, Dash::DashDotted, Dash::Dashed};
  const std::array colors{t.lake, t.ember, t.ink, t.lake, t.ember, t.quiet};
  const std::size_t i = line % dashes.size();
  return {{colors[i], 1}, 2, dashes[i]};
}

}  // namespace

SpectrumPlotArea spectrum_plot_area(const Box& room, const std::vector<SpectrumLine>& lines) {
  SpectrumPlotArea area{
      {room.left + spectrum_left_px, room.top + spectrum_top_px, room.width - spectrum_left_px - spectrum_right_px,
       room.height - spectrum_top_px - spectrum_bottom_px},
      {usual_from_nm, usual_to_nm}};
  for (const SpectrumLine& line : lines) {
    area.range.from_nm = std::min(area.range.from_nm, line.light.wavelengths_nm.front());
    area.range.to_nm = std::max(area.range.to_nm, line.light.wavelengths_nm.back());
  }
  area.range = {std::max(shown_from_nm, area.range.from_nm), std::min(shown_to_nm, area.range.to_nm)};
  return area;
}

void draw_spectra(Canvas& c, const Box& room, const std::vector<SpectrumLine>& lines, const SpectrumScale& scale) {
  const SpectrumPlotArea area = spectrum_plot_area(room, lines);
  const Box& box = area.box;
  if (lines.empty() || box.empty()) return;
  const Palette& t = c.colors();
  double lowest = 0, highest = 0;
  for (const SpectrumLine& line : lines)
    for (const double value : line.light.values) {
      lowest = std::min(lowest, scale.shown_for_one * value);
      highest = std::max(highest, scale.shown_for_one * value);
    }
  // A dark that is a little off is cut at zero; light that is less in one than in another is not.
  if (lowest > -0.05 * highest) lowest = 0;
  const ScaleRange range = round_range(lowest, highest * 1.05);
  const auto y_of = [&](double value) { return box.bottom() - box.height * range.share(value); };

  c.fill(box, t.panel);
  bool tinted = false;
  for (const PhotonBand& band : photon_bands) {
    const double from = std::max(band.range.from_nm, area.range.from_nm),
                 to = std::min(band.range.to_nm, area.range.to_nm);
    tinted = !tinted;
    if (!(to > from)) continue;
    const Box strip{area.x_of(from), box.top, area.x_of(to) - area.x_of(from), box.height};
    if (tinted) c.fill(strip, {t.rule, 0.28});
    if (c.text_width(std::string(band.label), 11, false) + 4 < strip.width)
      c.text({strip.left, box.top - 18, strip.width, 16}, Align::Center, std::string(band.label), {11, false, t.quiet});
  }
  const double step = round_step(range.high - range.low, 5);
  for (double at = std::ceil(range.low / step - 1e-9) * step; at <= range.high + 1e-9 * step; at += step) {
    c.line({box.left, y_of(at)}, {box.right(), y_of(at)}, {{t.rule, 0.6}, 1});
    c.text({room.left, y_of(at) - 7, spectrum_left_px - 8, 14}, Align::Right,
           fmt::format("{:.3g}", std::abs(at) < step / 2 ? 0 : at), {11, false, t.quiet});
  }
  const double step_nm = round_step(area.range.width_nm(), 10);
  for (double nm = std::ceil(area.range.from_nm / step_nm) * step_nm; nm <= area.range.to_nm + 1e-9; nm += step_nm) {
    c.line({area.x_of(nm), box.bottom()}, {area.x_of(nm), box.bottom() + 4}, {{t.quiet, 1}, 1});
    c.text({area.x_of(nm) - 24, box.bottom() + 5, 48, 14}, Align::Center, fmt::format("{:g}", nm),
           {11, false, t.quiet});
  }
  c.text({box.right() - 60, box.bottom() + 19, 60, 14}, Align::Right, "nm", {11, false, t.quiet});
  c.text({room.left + 8, box.bottom() + 19, box.width, 14}, Align::Left, scale.words, {11, false, t.quiet});

  double name_left = box.left;
  for (std::size_t i = 0; i < lines.size(); ++i) {
    const Stroke stroke = stroke_of(i, t);
    const SpectralCurve curve(lines[i].light);
    c.clip(box);
    std::vector<Point> points;
    const auto draw = [&] {
      if (points.size() > 1) c.lines(points, stroke);
      points.clear();
    };
    for (double x = box.left; x <= box.right(); x += 1) {
      const double value = scale.shown_for_one * curve.photons(area.nm_at(x));
      if (std::isnan(value))
        draw();
      else
        points.push_back({x, y_of(value)});
    }
    draw();
    c.unclip();
    const double wide = c.text_width(lines[i].name, 12, false);
    if (name_left + 26 + wide > box.right() + spectrum_right_px) continue;
    c.line({name_left, room.top + 12}, {name_left + 20, room.top + 12}, stroke);
    c.text({name_left + 25, room.top + 3, wide + 4, 18}, Align::Left, lines[i].name, {12, false, t.ink});
    name_left += 45 + wide;
  }
}

}  // namespace sunbreak::drawing
