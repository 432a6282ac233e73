#include <fmt/format.h>

#include <cmath>

#include "evaluation/part_read.h"
#include "evaluation/read_sweeps.h"
#include "evaluation/told_figures.h"
#include "paper/still_frame.h"

namespace sunbreak::paper {
namespace {

using namespace drawing;
using evaluation::Evaluation;

/// The five figures that are told of a sweep, as label with unit and value.
std::vector<std::pair<std::string, std::string>> still_figures(const Evaluation& evaluation, record::Id sweep,
                                                               UnitSystem units) {
  constexpr std::string_view ids[] = {"mean_ppfd", "lowest_over_mean", "canopy_efficacy_umol_j", "dli_mean_mol_m2_d",
                                      "power_w"};
  std::vector<std::pair<std::string, std::string>> told;
  for (const evaluation::ToldFigure& f : evaluation::told_figures(evaluation, sweep, ids, units))
    told.emplace_back(std::string(f.label) + (f.unit.empty() ? "" : ", " + f.unit),
                      f.value + (f.sure.empty() ? "" : " " + f.sure));
  return told;
}

void draw_sweep(Canvas& c, const StillFrame& frame, const Evaluation& evaluation, const record::Sweep& sweep,
                const evaluation::SweepView& view, const ScaleRange& range, UnitSystem units) {
  const record::TestRecord& b = evaluation.record();
  std::string below = evaluation::sweep_name(b, sweep, units);
  if (sweep.power_w) below += fmt::format(", {:.0f} W", *sweep.power_w);
  if (const std::string part = evaluation::part_read_words(evaluation, sweep.id); !part.empty()) below += ", " + part;
  const double top = draw_still_heading(c, frame, b.fixture.name, below);
  const double bottom = still_height - still_foot - 8, scale_height = 13;
  const auto told = still_figures(evaluation, sweep.id, units);
  const double map_width = frame.tall() ? frame.width - 2 * still_edge : frame.shape == StillShape::Wide ? 340 : 196;
  const double map_height = frame.tall() ? std::min(map_width, bottom - top - 156) : bottom - top - scale_height - 4;
  draw_still_map(c, {still_edge, top, map_width, map_height}, b.bench, view, range, true, units);
  draw_still_scale(c, {still_edge, top + map_height + 2, map_width, scale_height}, range);
  if (frame.tall()) {
    double y = top + map_height + scale_height + 6;
    const double step = std::min(28.0, (bottom - y) / static_cast<double>(std::max<std::size_t>(1, told.size())));
    for (const auto& [label, value] : told) {
      c.text({still_edge, y, map_width, 12}, Align::Left, fitted(c, label, least_points, false, map_width),
             {least_points, false, c.colors().quiet});
      c.text({still_edge, y + 12, map_width, 14}, Align::Left, value, {11, true, c.colors().ink});
      y += step;
    }
    return;
  }
  const double left = still_edge + map_width + 16, width = frame.width - left - still_edge;
  const double step = std::min(52.0, (bottom - top) / static_cast<double>(std::max<std::size_t>(1, told.size())));
  const int points = frame.shape == StillShape::Wide ? 20 : 14;
  double y = top;
  for (const auto& [label, value] : told) {
    c.text({left, y, width, 14}, Align::Left, fitted(c, label, 10, false, width), {10, false, c.colors().quiet});
    c.text({left, y + 14, width, points * 1.3}, Align::Left, fitted(c, value, points, true, width),
           {points, true, c.colors().ink});
    y += step;
  }
}

void draw_all_sweeps(Canvas& c, const StillFrame& frame, const Evaluation& evaluation, const ScaleRange& range,
                     UnitSystem units) {
  const record::TestRecord& b = evaluation.record();
  const auto sweeps = evaluation::read_sweeps(evaluation);
  const double top =
      draw_still_heading(c, frame, b.fixture.name, "Mean PPFD of every height and setting, one light scale");
  const Box room{still_edge, top, frame.width - 2 * still_edge, still_height - still_foot - 26 - top};
  // A narrow picture has height and setting one over the other.
  const auto names = [&](const record::Sweep& sweep) -> std::vector<std::string> {
    if (!frame.tall()) return {evaluation::sweep_name(b, sweep, units)};
    return {length_text(b.rung(sweep.rung_id)->height_m, units),
            short_number(b.stop(sweep.stop_id)->percent, 1) + " %"};
  };
  const double words_height = frame.tall() ? 36 : 24;
  double longest = 0;
  for (const auto& [sweep, view] : sweeps)
    for (const std::string& name : names(*sweep)) longest = std::max(longest, c.text_width(name, least_points, false));
  // As many columns as make the maps largest and leave room for their names.
  const auto count = static_cast<double>(sweeps.size());
  int columns = 1;
  double best = 0;
  for (int k = 1; k <= static_cast<int>(sweeps.size()); ++k) {
    const double rows = std::ceil(count / k);
    const double side = std::min(room.width / k - 8, room.height / rows - words_height - 4);
    if (k > 1 && room.width / k - 8 < longest) break;
    if (side > best) best = side, columns = k;
  }
  const double rows = std::ceil(count / columns), wide = room.width / columns, high = room.height / rows;
  for (std::size_t i = 0; i < sweeps.size(); ++i) {
    const auto& [sweep, view] = sweeps[i];
    const Box cell{room.left + static_cast<double>(i % static_cast<std::size_t>(columns)) * wide,
                   room.top + std::floor(static_cast<double>(i) / columns) * high, wide - 8, high - 4};
    draw_still_map(c, {cell.left, cell.top, cell.width, cell.height - words_height}, b.bench, *view, range, false,
                   units);
    const SweepFigures* of = evaluation.figures(sweep->id);
    double y = cell.bottom() - words_height;
    for (const std::string& name : names(*sweep)) {
      c.text({cell.left, y, cell.width, 12}, Align::Center, fitted(c, name, least_points, false, cell.width),
             {least_points, false, c.colors().quiet});
      y += 12;
    }
    c.text({cell.left, y, cell.width, 12}, Align::Center, of ? fmt::format("{:.0f}", of->mean_ppfd) : "–",
           {10, true, c.colors().ink});
  }
  draw_still_scale(c, {still_edge, still_height - still_foot - 22, std::min(320.0, frame.width - 2 * still_edge), 13},
                   range);
}

}  // namespace

Result<std::vector<Still>> sweep_stills(const Evaluation& evaluation, StillShape shape, UnitSystem units,
                                        const Palette& palette) {
  const StillFrame frame(shape);
  const record::TestRecord& b = evaluation.record();
  const auto light = evaluation.light_range();
  const ScaleRange range = light ? round_range(light->first, light->second) : ScaleRange{};
  const std::string foot = still_foot_words(b);
  const auto sweeps = evaluation::read_sweeps(evaluation);
  std::vector<Still> made;
  for (const auto& [sweep, view] : sweeps) {
    std::string alt =
        fmt::format("{} at {}: map of PPFD from above. ", b.fixture.name, evaluation::sweep_name(b, *sweep, units));
    for (const auto& [label, value] : still_figures(evaluation, sweep->id, units))
      alt += fmt::format("{}: {}. ", label, value);
    std::string name =
        length_text(b.rung(sweep->rung_id)->height_m, units) + "-" + short_number(b.stop(sweep->stop_id)->percent, 1);
    for (char& ch : name)
      if (ch == ' ' || ch == '.') ch = '-';
    auto one = still(frame, palette, std::move(name), std::move(alt), foot, [&, sweep = sweep, view = view](Canvas& c) {
      draw_sweep(c, frame, evaluation, *sweep, *view, range, units);
    });
    if (!one) return one.problem();
    made.push_back(std::move(one.value()));
  }
  if (sweeps.size() > 1) {
    auto all =
        still(frame, palette, "all-sweeps",
              fmt::format("{}: maps of {} heights and settings on one light scale.", b.fixture.name, sweeps.size()),
              foot, [&](Canvas& c) { draw_all_sweeps(c, frame, evaluation, range, units); });
    if (!all) return all.problem();
    made.push_back(std::move(all.value()));
  }
  return made;
}

}  // namespace sunbreak::paper
