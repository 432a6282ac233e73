#include "report/svg_figures.h"

#include <cmath>

#include "core/figures/area_curve.h"
#include "drawing/area_plot.h"
#include "drawing/map_drawing.h"
#include "drawing/ring_bars.h"
#include "drawing/svg_canvas.h"

namespace sunbreak::report {
namespace {
constexpr double small_side = 260, chart_width = 420, area_plot_height = 180;
}

std::string map_svg(const record::TestRecord& record, const evaluation::SweepView& view,
                    const std::optional<Band>& band, const drawing::ScaleRange& range, UnitSystem units,
                    const drawing::Palette& palette, double longest_side) {
  const Footprint& floor = view.layout.footprint;
  const double scale = longest_side / std::max(floor.width_m, floor.depth_m);
  const drawing::Box room{0, 0, floor.width_m * scale + drawing::map_left_room + drawing::map_right_room,
                          floor.depth_m * scale + drawing::map_top_room + drawing::map_foot_room};
  drawing::SvgCanvas canvas(room.width, room.height, "PPFD map, far wall at the top", palette);
  drawing::MapScene scene;
  scene.view = &view;
  scene.bench = &record.bench;
  scene.scale.range = range;
  scene.band = band;
  scene.units = units;
  scene.room_right = room.right();
  drawing::draw_map(canvas, drawing::fit_map(room, floor, true), scene);
  return canvas.svg();
}

std::string values_svg(const Layout& layout, const std::vector<double>& ppfd, const drawing::ScaleRange& range,
                       const std::string& label, const drawing::Palette& palette) {
  const Footprint& floor = layout.footprint;
  const double scale = small_side / std::max(floor.width_m, floor.depth_m);
  const drawing::Box room{0, 0, floor.width_m * scale + 4, floor.depth_m * scale + 4};
  drawing::SvgCanvas canvas(room.width, room.height, label, palette);
  evaluation::SweepView view;
  view.layout = layout, view.ppfd = ppfd;
  view.states.resize(ppfd.size());
  for (evaluation::StationState& state : view.states) state.kind = evaluation::StationState::Read;
  record::Bench bare;
  bare.width_m = floor.width_m, bare.depth_m = floor.depth_m;
  drawing::MapScene scene;
  scene.view = &view;
  scene.bench = &bare;
  scene.scale.range = range;
  scene.rulers = scene.key = false;
  scene.room_right = room.right();
  drawing::draw_map(canvas, drawing::fit_map(room.grown(-2), floor, false, 0), scene);
  return canvas.svg();
}

std::string rings_svg(const SweepFigures& figures, const drawing::ScaleRange& range, const std::optional<Band>& band,
                      UnitSystem units, const drawing::Palette& palette) {
  const drawing::Box room{0, 0, chart_width, drawing::ring_bars_height(figures.rings.size()) + 4};
  drawing::SvgCanvas canvas(room.width, room.height, "Mean PPFD of each ring from the wall inwards", palette);
  drawing::draw_ring_bars(canvas, room, figures.rings, range, band, units, figures.photoperiod_h);
  return canvas.svg();
}

std::string area_curve_svg(const evaluation::SweepView& view, const std::optional<Band>& band, UnitSystem units,
                           const drawing::Palette& palette) {
  const Raster raster = Field(view.layout, view.ppfd).raster();
  const AreaCurve curve(raster);
  double highest = 1;
  for (const double ppfd : view.ppfd)
    if (!std::isnan(ppfd)) highest = std::max(highest, ppfd);
  drawing::SvgCanvas canvas(chart_width, area_plot_height, "Area at or above each PPFD", palette);
  drawing::draw_area_plot(canvas, {0, 0, chart_width, area_plot_height},
                          {&curve, std::max(view.layout.measured.area_m2(), 1e-9), drawing::round_range(0, highest),
                           band ? std::optional(band->low) : std::nullopt, units});
  return canvas.svg();
}

}  // namespace sunbreak::report
