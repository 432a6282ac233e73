#include "report/page_figures.h"

#include <cmath>
#include <memory>

#include "core/figures/area_curve.h"
#include "drawing/area_plot.h"
#include "drawing/map_drawing.h"
#include "drawing/ring_bars.h"

namespace sunbreak::report {
namespace {
constexpr double small_side = 260, chart_width = 420, area_plot_height = 180, bar_width = 200, bar_height = 22;
}

drawing::Drawing map_figure(const record::TestRecord& record, const evaluation::SweepView& view,
                            const std::optional<Band>& band, const drawing::ScaleRange& range, UnitSystem units,
                            double longest_side) {
  const Footprint& floor = view.layout.footprint;
  const double scale = longest_side / std::max(floor.width_m, floor.depth_m);
  const drawing::Box room{0, 0, floor.width_m * scale + drawing::map_left_room + drawing::map_right_room,
                          floor.depth_m * scale + drawing::map_top_room + drawing::map_foot_room};
  return {room.width, room.height, "PPFD map, far wall at the top", [=, &record, &view](drawing::Canvas& canvas) {
            drawing::MapScene scene;
            scene.view = &view;
            scene.bench = &record.bench;
            scene.scale.range = range;
            scene.band = band;
            scene.units = units;
            scene.room_right = room.right();
            drawing::draw_map(canvas, drawing::fit_map(room, view.layout.footprint, true), scene);
          }};
}

drawing::Drawing values_figure(const Layout& layout, const std::vector<double>& ppfd, const drawing::ScaleRange& range,
                               const std::string& label) {
  const Footprint& floor = layout.footprint;
  const double scale = small_side / std::max(floor.width_m, floor.depth_m);
  const drawing::Box room{0, 0, floor.width_m * scale + 4, floor.depth_m * scale + 4};
  return {room.width, room.height, label, [=, &layout, &ppfd](drawing::Canvas& canvas) {
            evaluation::SweepView view;
            view.layout = layout, view.ppfd = ppfd;
            view.states.resize(ppfd.size());
            for (evaluation::StationState& state : view.states) state.kind = evaluation::StationState::Read;
            record::Bench bare;
            bare.width_m = layout.footprint.width_m, bare.depth_m = layout.footprint.depth_m;
            drawing::MapScene scene;
            scene.view = &view;
            scene.bench = &bare;
            scene.scale.range = range;
            scene.rulers = scene.key = false;
            scene.room_right = room.right();
            drawing::draw_map(canvas, drawing::fit_map(room.grown(-2), layout.footprint, false, 0), scene);
          }};
}

drawing::Drawing rings_figure(const SweepFigures& figures, const drawing::ScaleRange& range,
                              const std::optional<Band>& band, UnitSystem units) {
  const drawing::Box room{0, 0, chart_width, drawing::ring_bars_height(figures.rings.size()) + 4};
  return {room.width, room.height, "Mean PPFD of each ring from the wall inwards",
          [=, &figures](drawing::Canvas& canvas) {
            drawing::draw_ring_bars(canvas, room, figures.rings, range, band, units, figures.photoperiod_h);
          }};
}

drawing::Drawing area_curve_figure(const evaluation::SweepView& view, const std::optional<Band>& band,
                                   UnitSystem units) {
  return {chart_width, area_plot_height, "Area at or above each PPFD", [=, &view](drawing::Canvas& canvas) {
            const AreaCurve curve(Field(view.layout, view.ppfd).raster());
            double highest = 1;
            for (const double ppfd : view.ppfd)
              if (!std::isnan(ppfd)) highest = std::max(highest, ppfd);
            drawing::draw_area_plot(
                canvas, {0, 0, chart_width, area_plot_height},
                {&curve, std::max(view.layout.measured.area_m2(), 1e-9), drawing::round_range(0, highest),
                 band ? std::optional(band->low) : std::nullopt, units});
          }};
}

drawing::Drawing interval_figure(const drawing::IntervalAxis& axis, const Standing& standing, const std::string& label,
                                 bool chosen) {
  return {bar_width, bar_height, label,
          [axis, value = standing.value, expanded = standing.expanded(), chosen](drawing::Canvas& canvas) {
            drawing::draw_interval(canvas, {4, 0, bar_width - 8, bar_height}, axis, value, expanded,
                                   chosen ? drawing::BarRole::Chosen : drawing::BarRole::Plain);
          }};
}

}  // namespace sunbreak::report
