#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/bench/walk_order.h"
#include "core/quantity/length.h"
#include "core/walk/walk_course.h"
#include "evaluation/test_checks.h"
#include "paper/bench_papers.h"
#include "record/plan_grid.h"

namespace sunbreak::paper {
namespace {

using namespace drawing;

constexpr int most_a_side = 12, number_points = 7, mark_points = 7;
constexpr double largest_cell = 60, marks_room = 34, list_row = 20, reference_box = 74, reference_row = 30;

/// "45.0" in the unit of the tape.
std::string tape_mark(double m, UnitSystem units) {
  return fmt::format("{:.{}f}", from_m(m, surface_unit(units)), units == UnitSystem::Metric ? 1 : 2);
}

struct Part {
  int first_column, columns, first_row, rows;
};

/// Lattices in parts of at most 12 × 12.
std::vector<Part> parts_of(const Layout& layout) {
  std::vector<Part> parts;
  for (int row = 0; row < layout.rows; row += most_a_side)
    for (int column = 0; column < layout.columns; column += most_a_side)
      parts.push_back(
          {column, std::min(most_a_side, layout.columns - column), row, std::min(most_a_side, layout.rows - row)});
  return parts;
}

/// A walk as Walk asks for it: each station's number, from 1, and after which of them the reference is read once more.
struct NumberedWalk {
  std::vector<int> numbers;
  std::vector<int> references_after;
};

NumberedWalk numbered_walk(const record::TestRecord& record, const Layout& layout) {
  NumberedWalk walk{std::vector<int>(layout.stations.size(), 0), {}};
  int number = 0;
  for (const WalkStep& step :
       undisturbed_walk(layout, evaluation::walk_of(record.test, layout), record.test.reference_every)) {
    if (step.turn == Turn::Reference)
      walk.references_after.push_back(number);
    else
      walk.numbers[static_cast<std::size_t>(step.station)] = ++number;
  }
  return walk;
}

/// The boxes for the reference read once more: so many a row, and what the rows take of the page.
struct ReferenceRoom {
  int a_row = 1;
  double height = 0;
};

ReferenceRoom reference_room(const PaperSize& size, const NumberedWalk& walk) {
  ReferenceRoom room{std::max(1, static_cast<int>((size.width - 2 * margin) / reference_box)), 0};
  const int count = static_cast<int>(walk.references_after.size());
  if (count > 0) room.height = 16 + (count + room.a_row - 1) / room.a_row * reference_row;
  return room;
}

void draw_references(Canvas& canvas, const PaperSize& size, const Layout& layout, const NumberedWalk& walk,
                     double top) {
  if (walk.references_after.empty()) return;
  const Palette& c = canvas.colors();
  const ReferenceRoom room = reference_room(size, walk);
  const int reference = walk.numbers[static_cast<std::size_t>(reference_station(layout))];
  canvas.text({margin, top, size.width - 2 * margin, 12}, Align::Left,
              fmt::format("Reference: station {} read once more, as it falls due", reference), {9, true, c.ink});
  for (std::size_t i = 0; i < walk.references_after.size(); ++i) {
    const auto at = static_cast<int>(i);
    const Box box{margin + at % room.a_row * reference_box, top + 14 + at / room.a_row * reference_row,
                  reference_box - 6, reference_row - 4};
    canvas.outline(box, {c.quiet, 0.6});
    canvas.text({box.left + 3, box.top + 1, box.width - 6, 10}, Align::Left,
                fmt::format("after {}", walk.references_after[i]), {number_points, false, c.quiet});
  }
}

void draw_blanks(Canvas& canvas, const PaperSize& size, double top) {
  const char* blanks[] = {"Date", "Time begun", "Watts at the wall", "Minutes since switch-on", "Sensor", "By"};
  const double width = (size.width - 2 * margin) / 3;
  for (int i = 0; i < 6; ++i) {
    const double left = margin + (i % 3) * width, y = top + (i / 3) * 22;
    const double words = canvas.text_width(blanks[i], 9, false);
    canvas.text({left, y, words, 14}, Align::Left, blanks[i], {9, false, canvas.colors().ink});
    canvas.line({left + words + 6, y + 13}, {left + width - 10, y + 13}, {canvas.colors().quiet, 0.6});
  }
}

void draw_lattice(Canvas& canvas, const PaperSize& size, const Layout& layout, const NumberedWalk& walk,
                  const Part& part, UnitSystem units, double top) {
  const Palette& c = canvas.colors();
  const double room = size.width - 2 * margin - marks_room,
               deep = size.height - top - margin - foot_room - 40 - reference_room(size, walk).height;
  const double cell = std::min({largest_cell, room / part.columns, deep / part.rows});
  const double left = margin + marks_room;
  for (int r = 0; r < part.rows; ++r) {
    const int row = part.first_row + part.rows - 1 - r;  // the far wall is on top
    const double y = top + r * cell;
    canvas.text({margin, y, marks_room - 6, cell}, Align::Right,
                tape_mark(layout.ys_m[static_cast<std::size_t>(row)], units), {mark_points, false, c.ink});
    for (int k = 0; k < part.columns; ++k) {
      const int column = part.first_column + k;
      const Box box{left + k * cell, y, cell, cell};
      canvas.outline(box, {c.quiet, 0.6});
      const int number = walk.numbers[static_cast<std::size_t>(layout.index(column, row))];
      canvas.text({box.left + 3, box.top + 1, cell - 6, 10}, Align::Left, std::to_string(number),
                  {number_points, number == 1, c.quiet});
    }
  }
  const double below = top + part.rows * cell + 2;
  for (int k = 0; k < part.columns; ++k)
    canvas.text({left + k * cell, below, cell, 10}, Align::Center,
                tape_mark(layout.xs_m[static_cast<std::size_t>(part.first_column + k)], units),
                {mark_points, false, c.ink});
  canvas.text({left, below + 12, part.columns * cell, 12}, Align::Center,
              units == UnitSystem::Metric ? "door side · tape marks in cm from the left wall and from the door"
                                          : "door side · tape marks in inches from the left wall and from the door",
              {8, false, c.quiet});
  draw_references(canvas, size, layout, walk, below + 32);
}

void draw_list(Canvas& canvas, const PaperSize& size, const Layout& layout, const std::vector<int>& numbers,
               UnitSystem units, std::size_t from, std::size_t to, double top) {
  const Palette& c = canvas.colors();
  std::vector<std::size_t> in_order(layout.stations.size());
  for (std::size_t i = 0; i < numbers.size(); ++i) in_order[static_cast<std::size_t>(numbers[i] - 1)] = i;
  const double width = size.width - 2 * margin;
  for (std::size_t n = from; n < to; ++n) {
    const Station& s = layout.stations[in_order[n]];
    const double y = top + static_cast<double>(n - from) * list_row;
    canvas.text({margin, y, 30, list_row}, Align::Right, std::to_string(n + 1), {9, false, c.quiet});
    canvas.text({margin + 40, y, 180, list_row}, Align::Left, fitted(canvas, s.name, 10, false, 175),
                {10, false, c.ink});
    canvas.text({margin + 225, y, 130, list_row}, Align::Left,
                tape_mark(s.x_m, units) + " across, " + tape_mark(s.y_m, units) + " deep", {9, false, c.quiet});
    canvas.line({margin + 370, y + list_row - 4}, {margin + width, y + list_row - 4}, {c.quiet, 0.6});
  }
}

}  // namespace

Result<std::string> station_sheet_pdf(const record::TestRecord& record, UnitSystem units, const PaperSize& size) {
  const auto layout = lay_out(record::footprint_of(record.bench), record::grid_of(record.test));
  if (!layout) return layout.problem();
  const Layout& stations = layout.value();
  const NumberedWalk walk = numbered_walk(record, stations);
  std::vector<Page> pages;
  const std::string title = record::title_of(record);
  for (const record::Rung& rung : record.rungs)
    for (const record::Stop& stop : record.stops) {
      if (rung.extra) continue;
      const std::string where =
          fmt::format("hung at {}, dimmer at {} %", length_text(rung.height_m, units), short_number(stop.percent, 1));
      const auto head = [title, where, size](Canvas& canvas, const std::string& beside) {
        const double top = draw_page_head(canvas, size, title,
                                          "Station sheet, " + where + beside +
                                              ". Read in the order of the numbers, level, nobody in the light; lamps "
                                              "glare and get hot.");
        draw_blanks(canvas, size, top);
        return top + 58;
      };
      if (!stations.is_lattice()) {
        constexpr std::size_t rows_a_page = 30;
        for (std::size_t from = 0; from < stations.stations.size(); from += rows_a_page)
          pages.push_back([=, &stations, &walk](Canvas& canvas) {
            draw_list(canvas, size, stations, walk.numbers, units, from,
                      std::min(from + rows_a_page, stations.stations.size()), head(canvas, ""));
          });
        continue;
      }
      const std::vector<Part> parts = parts_of(stations);
      for (const Part& part : parts)
        pages.push_back([=, &stations, &walk, several = parts.size() > 1](Canvas& canvas) {
          const std::string beside =
              several
                  ? fmt::format(", columns {} to {} from the left, rows {} to {} from the door", part.first_column + 1,
                                part.first_column + part.columns, part.first_row + 1, part.first_row + part.rows)
                  : "";
          draw_lattice(canvas, size, stations, walk, part, units, head(canvas, beside));
        });
    }
  if (pages.empty())
    return Problem{"the plan has no height or no dimmer setting", "there is nothing to walk", "plan them in Rig"};
  return pdf_bytes("Station sheet: " + title, record.test.tested_on, size, pages);
}

}  // namespace sunbreak::paper
