#include "paper/stills.h"

#include <cairo.h>
#include <fmt/format.h>

#include <cmath>
#include <functional>

#include "core/figures/figure_table.h"
#include "drawing/map_drawing.h"
#include "drawing/png.h"
#include "evaluation/read_sweeps.h"
#include "paper/cairo_canvas.h"
#include "paper/pages.h"

namespace sunbreak::paper {
namespace {

using namespace drawing;
using evaluation::Evaluation;

/// Stills are drawn in points of which a picture is 360 high, whatever its shape: the smallest letters are then 9 high.
constexpr double height_points = 360, edge = 12, foot_height = 14;
constexpr int least_points = 9;
constexpr std::size_t most_claims = 7, most_sentences = 3;

struct Frame {
  StillShape shape;
  double width;
  bool tall() const { return shape == StillShape::Tall; }
};

/// A picture of what `draw` puts on a canvas of the frame's points.
Result<std::string> picture(const Frame& frame, const Palette& palette, const std::function<void(Canvas&)>& draw) {
  const StillSize size = size_of(frame.shape);
  cairo_surface_t* surface = cairo_image_surface_create(CAIRO_FORMAT_RGB24, size.width, size.height);
  cairo_t* target = cairo_create(surface);
  const double scale = size.height / height_points;
  cairo_scale(target, scale, scale);
  {
    CairoCanvas canvas(target, scale, palette);
    canvas.fill({0, 0, frame.width + 1, height_points + 1}, palette.panel);
    draw(canvas);
  }
  cairo_destroy(target);
  cairo_surface_flush(surface);
  const cairo_status_t status = cairo_surface_status(surface);
  Pixels pixels{size.width, size.height};
  if (status == CAIRO_STATUS_SUCCESS) {
    const auto* rows = reinterpret_cast<const std::uint32_t*>(cairo_image_surface_get_data(surface));
    const int stride = cairo_image_surface_get_stride(surface) / 4;
    pixels.argb.reserve(static_cast<std::size_t>(size.width) * static_cast<std::size_t>(size.height));
    for (int row = 0; row < size.height; ++row)
      for (int column = 0; column < size.width; ++column)
        pixels.argb.push_back(rows[std::ptrdiff_t(row) * stride + column] | 0xFF000000u);
  }
  cairo_surface_destroy(surface);
  if (status != CAIRO_STATUS_SUCCESS)
    return Problem{fmt::format("a picture could not be made: {}", cairo_status_to_string(status)),
                   "nothing was written", "close other programs, and try again"};
  return png(pixels);
}

void draw_foot(Canvas& c, const Frame& frame, const record::TestRecord& b) {
  std::string words = b.test.simulated ? "sample data, computed" : b.test.tested_by;
  if (!b.test.tested_on.empty()) words += (words.empty() ? "" : " · ") + b.test.tested_on;
  c.text({edge, height_points - foot_height - 4, frame.width - 2 * edge, foot_height}, Align::Left,
         fitted(c, words, least_points, false, frame.width - 2 * edge), {least_points, false, c.colors().quiet});
}

/// A heading in as many lines as it takes, and a line below; returns where they end.
double draw_heading(Canvas& c, const Frame& frame, const std::string& title, const std::string& below) {
  const int points = frame.tall() ? 15 : 20;
  const double width = frame.width - 2 * edge;
  double y = edge;
  c.text({edge, y, width, points * 1.3}, Align::Left, fitted(c, title, points, true, width),
         {points, true, c.colors().ink});
  y += points * 1.4;
  const int small = frame.tall() ? 10 : 12;
  for (const std::string& line : wrapped(c, below, small, width)) {
    c.text({edge, y, width, small * 1.3}, Align::Left, line, {small, false, c.colors().quiet});
    y += small * 1.35;
  }
  return y + 4;
}

/// The light scale as a bar with its ends.
void draw_scale(Canvas& c, const Box& room, const ScaleRange& range) {
  const std::string low = fmt::format("{:g}", range.low), high = fmt::format("{:g} µmol/m²/s", range.high);
  const double left = c.text_width(low, least_points, false) + 5, right = c.text_width(high, least_points, false) + 5;
  const Box bar{room.left + left, room.top + 2, std::max(20.0, room.width - left - right), room.height - 4};
  constexpr int steps = 64;
  for (int i = 0; i < steps; ++i)
    c.fill({bar.left + bar.width * i / steps, bar.top, bar.width / steps + 0.4, bar.height},
           light_color((i + 0.5) / steps));
  c.text({room.left, room.top, left, room.height}, Align::Left, low, {least_points, false, c.colors().quiet});
  c.text({bar.right() + 5, room.top, right, room.height}, Align::Left, high, {least_points, false, c.colors().quiet});
}

void draw_sweep_map(Canvas& c, const Box& room, const record::TestRecord& b, const evaluation::SweepView& view,
                    const ScaleRange& range, bool numbers, UnitSystem units) {
  MapScene scene;
  scene.view = &view;
  scene.bench = &b.bench;
  scene.scale.range = range;
  scene.units = units;
  scene.rulers = scene.key = false;
  scene.numbers = numbers;
  scene.room_right = room.right();
  draw_map(c, fit_map(room, view.layout.footprint, false, 0), scene);
}

/// The five figures that are told of a sweep, as label and value.
std::vector<std::pair<std::string, std::string>> told_figures(const Evaluation& evaluation, record::Id sweep,
                                                              const evaluation::SweepView& view, UnitSystem units) {
  std::vector<std::pair<std::string, std::string>> told;
  const SweepFigures* of = evaluation.figures(sweep);
  const Budget* budget = evaluation.budget(sweep);
  if (!of || !budget) return told;
  const FigureSource source(view.layout, view.ppfd, *of);
  for (const char* id : {"mean_ppfd", "lowest_over_mean", "canopy_efficacy_umol_j", "dli_mean_mol_m2_d", "power_w"}) {
    const Figure& f = figure(id);
    const double value = f.value(source);
    if (!std::isfinite(value)) continue;
    std::string words = shown_value(f, value, units);
    if (const double expanded = budget->expanded(f.id); std::isfinite(expanded))
      words += " " + shown_uncertainty(f, value, expanded, units);
    told.emplace_back(
        std::string(f.label) + (shown_unit(f, units).empty() ? "" : ", " + std::string(shown_unit(f, units))), words);
  }
  return told;
}

void draw_sweep(Canvas& c, const Frame& frame, const Evaluation& evaluation, const record::Sweep& sweep,
                const evaluation::SweepView& view, const ScaleRange& range, UnitSystem units) {
  const record::TestRecord& b = evaluation.record();
  std::string below = evaluation::sweep_name(b, sweep, units);
  if (sweep.power_w) below += fmt::format(", {:.0f} W", *sweep.power_w);
  const double top = draw_heading(c, frame, b.fixture.name, below);
  const double bottom = height_points - foot_height - 8, scale_height = 13;
  const auto told = told_figures(evaluation, sweep.id, view, units);
  const double map_width = frame.tall() ? frame.width - 2 * edge : frame.shape == StillShape::Wide ? 340 : 196;
  const double map_height = frame.tall() ? std::min(map_width, bottom - top - 156) : bottom - top - scale_height - 4;
  draw_sweep_map(c, {edge, top, map_width, map_height}, b, view, range, true, units);
  draw_scale(c, {edge, top + map_height + 2, map_width, scale_height}, range);
  if (frame.tall()) {
    double y = top + map_height + scale_height + 6;
    const double step = std::min(28.0, (bottom - y) / static_cast<double>(std::max<std::size_t>(1, told.size())));
    for (const auto& [label, value] : told) {
      c.text({edge, y, map_width, 12}, Align::Left, fitted(c, label, least_points, false, map_width),
             {least_points, false, c.colors().quiet});
      c.text({edge, y + 12, map_width, 14}, Align::Left, value, {11, true, c.colors().ink});
      y += step;
    }
    return;
  }
  const double left = edge + map_width + 16, width = frame.width - left - edge;
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

void draw_all_sweeps(Canvas& c, const Frame& frame, const Evaluation& evaluation, const ScaleRange& range,
                     UnitSystem units) {
  const record::TestRecord& b = evaluation.record();
  const auto sweeps = evaluation::read_sweeps(evaluation);
  const double top = draw_heading(c, frame, b.fixture.name, "Mean PPFD of every height and setting, one light scale");
  const Box room{edge, top, frame.width - 2 * edge, height_points - foot_height - 26 - top};
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
    draw_sweep_map(c, {cell.left, cell.top, cell.width, cell.height - words_height}, b, *view, range, false, units);
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
  draw_scale(c, {edge, height_points - foot_height - 22, std::min(320.0, frame.width - 2 * edge), 13}, range);
}

void draw_claims(Canvas& c, const Frame& frame, const record::TestRecord& b, const evaluation::Audit& audit) {
  const double top = draw_heading(c, frame, b.fixture.name, "What the maker claims, held against what was measured");
  const double bottom = height_points - foot_height - 8, width = frame.width - 2 * edge;
  const std::size_t shown = std::min(most_claims, audit.claims.size());
  const double step = std::min(frame.tall() ? 46.0 : 38.0, (bottom - top) / static_cast<double>(shown));
  double y = top;
  for (std::size_t i = 0; i < shown; ++i) {
    const evaluation::AuditedClaim& a = audit.claims[i];
    const Verdict v = a.judgement.verdict;
    const Rgb ink = v == Verdict::Short || v == Verdict::Contradicted ? c.colors().ember : c.colors().ink;
    const std::string verdict = verdict_words(a.judgement);
    const double verdict_width = std::min(width * 0.55, c.text_width(verdict, 11, true));
    c.text({edge, y, width - verdict_width - 8, 14}, Align::Left,
           fitted(c, a.label, 11, true, width - verdict_width - 8), {11, true, c.colors().ink});
    c.text({edge, y, width, 14}, Align::Right, fitted(c, verdict, 11, true, verdict_width + 1), {11, true, ink});
    std::string line = "claimed " + a.claimed_words;
    if (!a.measured_words.empty()) line += ", measured " + a.measured_words;
    c.text({edge, y + 14, width, 12}, Align::Left, fitted(c, line, least_points, false, width),
           {least_points, false, c.colors().quiet});
    y += step;
  }
}

void draw_title(Canvas& c, const Frame& frame, const Evaluation& evaluation, const evaluation::Audit* audit) {
  const record::TestRecord& b = evaluation.record();
  const double width = frame.width - 2 * edge;
  double y = frame.tall() ? 60 : 50;
  const int points = frame.tall() ? 20 : 34;
  for (const std::string& line : wrapped(c, b.fixture.name, points, width)) {
    c.text({edge, y, width, points * 1.3}, Align::Left, line, {points, true, c.colors().ink});
    y += points * 1.3;
  }
  const auto lines = [&](const std::string& words, int size, const Rgb& ink) {
    for (const std::string& line : wrapped(c, words, size, width)) {
      if (y > height_points - foot_height - 26) return;
      c.text({edge, y, width, size * 1.35}, Align::Left, line, {size, false, ink});
      y += size * 1.4;
    }
    y += 6;
  };
  lines(b.fixture.kind.empty() ? b.fixture.maker : b.fixture.kind, frame.tall() ? 12 : 15, c.colors().quiet);
  std::size_t told = 0;
  if (audit)
    for (const evaluation::VerdictWords& w : audit->words)
      if (!w.struck && told++ < most_sentences) lines(w.sentence, frame.tall() ? 11 : 14, c.colors().ink);
  if (const auto grade = evaluation.grade())
    lines(fmt::format("Evidence: {} grade", name(*grade)), frame.tall() ? 10 : 12, c.colors().lake);
}

}  // namespace

Result<std::vector<Still>> stills(const Evaluation& evaluation, const evaluation::Audit* audit, StillShape shape,
                                  UnitSystem units, const Palette& palette) {
  const StillSize size = size_of(shape);
  const Frame frame{shape, height_points * size.width / size.height};
  const record::TestRecord& b = evaluation.record();
  const auto light = evaluation.light_range();
  const ScaleRange range = light ? round_range(light->first, light->second) : ScaleRange{};
  std::vector<Still> made;
  std::optional<Problem> problem;
  const auto add = [&](std::string name, std::string alt, const std::function<void(Canvas&)>& draw) {
    if (problem) return;
    auto png = picture(frame, palette, [&](Canvas& c) {
      draw(c);
      draw_foot(c, frame, b);
    });
    if (png)
      made.push_back({std::move(name), std::move(png.value()), std::move(alt)});
    else
      problem = png.problem();
  };
  add("title", fmt::format("{}: title of its light test.", b.fixture.name),
      [&](Canvas& c) { draw_title(c, frame, evaluation, audit); });
  const auto sweeps = evaluation::read_sweeps(evaluation);
  for (const auto& [sweep, view] : sweeps) {
    std::string alt =
        fmt::format("{} at {}: map of PPFD from above. ", b.fixture.name, evaluation::sweep_name(b, *sweep, units));
    for (const auto& [label, value] : told_figures(evaluation, sweep->id, *view, units))
      alt += fmt::format("{}: {}. ", label, value);
    const record::Rung& rung = *b.rung(sweep->rung_id);
    const record::Stop& stop = *b.stop(sweep->stop_id);
    std::string name = length_text(rung.height_m, units) + "-" + short_number(stop.percent, 1);
    for (char& ch : name)
      if (ch == ' ' || ch == '.') ch = '-';
    add(std::move(name), std::move(alt),
        [&, sweep = sweep, view = view](Canvas& c) { draw_sweep(c, frame, evaluation, *sweep, *view, range, units); });
  }
  if (sweeps.size() > 1)
    add("all-sweeps",
        fmt::format("{}: maps of {} heights and settings on one light scale.", b.fixture.name, sweeps.size()),
        [&](Canvas& c) { draw_all_sweeps(c, frame, evaluation, range, units); });
  if (audit && !audit->claims.empty()) {
    std::string alt = fmt::format("{}: the maker's claims. ", b.fixture.name);
    for (const evaluation::AuditedClaim& a : audit->claims)
      alt += fmt::format("{}: {}. ", a.label, verdict_words(a.judgement));
    add("claims", std::move(alt), [&](Canvas& c) { draw_claims(c, frame, b, *audit); });
  }
  if (problem) return *problem;
  return made;
}

}  // namespace sunbreak::paper
