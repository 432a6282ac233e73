#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "paper/bench_papers.h"
#include "record/plan_grid.h"

namespace sunbreak::paper {
namespace {

using namespace drawing;

constexpr double strip_height = 64, gap = 16, tick = 10, short_tick = 5;

/// One piece of a strip: which stretch of the side it shows [m].
struct Piece {
  const char* side;
  int number;
  double from_m, to_m;
};

/// Along x or y: the places of stations, once each, and how long the side is.
std::vector<double> marks_of(const Layout& layout, bool across) {
  std::vector<double> marks;
  for (const Station& s : layout.stations) marks.push_back(across ? s.x_m : s.y_m);
  std::ranges::sort(marks);
  const auto again = std::ranges::unique(marks, [](double a, double b) { return std::abs(a - b) < 5e-4; });
  marks.erase(again.begin(), again.end());
  return marks;
}

void draw_piece(Canvas& canvas, const Piece& piece, const std::vector<double>& marks, UnitSystem units, double left,
                double top) {
  const Palette& c = canvas.colors();
  const auto x = [&](double m) { return left + (m - piece.from_m) * points_a_meter; };
  const double right = x(piece.to_m), foot = top + strip_height;
  canvas.outline({left, top, right - left, strip_height}, {c.quiet, 0.5, Dash::Dashed});
  // A ruler along the lower edge.
  const double unit_m = meters_per(surface_unit(units));
  for (int n = static_cast<int>(std::ceil(piece.from_m / unit_m - 1e-9)); n * unit_m <= piece.to_m + 1e-9; ++n) {
    const bool whole = n % (units == UnitSystem::Metric ? 10 : 6) == 0;
    canvas.line({x(n * unit_m), foot}, {x(n * unit_m), foot - (whole ? tick : short_tick)}, {c.quiet, 0.5});
    if (whole) canvas.text({x(n * unit_m) + 2, foot - 13, 30, 10}, Align::Left, std::to_string(n), {7, false, c.quiet});
  }
  for (std::size_t i = 0; i < marks.size(); ++i) {
    if (marks[i] < piece.from_m - 1e-9 || marks[i] > piece.to_m + 1e-9) continue;
    const double at = x(marks[i]);
    canvas.line({at, top}, {at, foot - tick - 6}, {c.ember, 1.2});
    const bool room_right = at + 40 < right;
    canvas.text({room_right ? at + 3 : at - 43, top + 4, 40, 12}, room_right ? Align::Left : Align::Right,
                std::to_string(i + 1), {10, true, c.ink});
    canvas.text({room_right ? at + 3 : at - 43, top + 18, 40, 10}, room_right ? Align::Left : Align::Right,
                fmt::format("{:.1f}", marks[i] / unit_m), {7, false, c.quiet});
  }
  canvas.text({left + 4, foot - 28, right - left - 8, 10}, Align::Right,
              fmt::format("{}, piece {}", piece.side, piece.number), {7, false, c.lake});
}

}  // namespace

Result<std::string> tape_strip_pdf(const record::TestRecord& record, UnitSystem units, const PaperSize& size) {
  const auto layout = lay_out(record::footprint_of(record.bench), record::grid_of(record.test));
  if (!layout) return layout.problem();
  const double piece_m = std::floor((size.width - 2 * margin) / points_a_meter / 0.01) * 0.01;
  std::vector<Piece> pieces;
  const Footprint& floor = layout.value().footprint;
  const auto cut = [&](const char* side, double length_m) {
    int number = 0;
    for (double from = 0; from < length_m - 1e-6; from += piece_m)
      pieces.push_back({side, ++number, from, std::min(from + piece_m, length_m)});
  };
  cut("across, from the left wall", floor.width_m);
  cut("deep, from the door", floor.depth_m);
  const std::vector<double> across = marks_of(layout.value(), true), deep = marks_of(layout.value(), false);
  const double first_top = margin + 96;
  const auto a_page = static_cast<std::size_t>((size.height - first_top - margin - foot_room) / (strip_height + gap));
  const std::string title = "Tape strip: " + record::title_of(record);
  std::vector<Page> pages;
  for (std::size_t from = 0; from < pieces.size(); from += a_page)
    pages.push_back([=, &pieces](Canvas& canvas) {
      draw_page_head(
          canvas, size, title,
          "Print at 100 %, not fitted to the page. Cut along the dashes, put the pieces of a side end to end, "
          "and fix them along the bench: a station stands at each thick mark.");
      const bool metric = units == UnitSystem::Metric;
      const double check = (metric ? 10 : 4) * meters_per(surface_unit(units)) * points_a_meter, y = margin + 74;
      canvas.line({margin, y}, {margin + check, y}, {canvas.colors().ink, 1});
      for (const double at : {margin, margin + check}) canvas.line({at, y - 5}, {at, y + 5}, {canvas.colors().ink, 1});
      canvas.text({margin + check + 8, y - 7, 260, 14}, Align::Left,
                  metric ? "this line is 10 cm: hold a ruler against it" : "this line is 4 in: hold a ruler against it",
                  {9, false, canvas.colors().ink});
      for (std::size_t n = from; n < std::min(from + a_page, pieces.size()); ++n)
        draw_piece(canvas, pieces[n], pieces[n].side[0] == 'a' ? across : deep, units, margin,
                   first_top + static_cast<double>(n - from) * (strip_height + gap));
    });
  return pdf_bytes(title, record.test.tested_on, size, pages);
}

}  // namespace sunbreak::paper
