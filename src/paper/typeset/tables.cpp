#include <algorithm>
#include <charconv>
#include <cmath>
#include <numeric>

#include "paper/typeset/typesetter.h"

namespace sunbreak::paper {

using namespace drawing;

namespace {

constexpr double smallest_scale = 0.6;  ///< of a table that is too wide; wider ones break words or columns

bool has_blocks(const Element& cell) {
  return std::ranges::any_of(cell.children, [](const Element& e) {
    return e.name == "img" || e.name == "p" || e.name == "div" || e.name == "table";
  });
}

void gather_rows(const Element& e, std::vector<const Element*>& rows) {
  for (const Element& child : e.children) {
    if (child.name == "tr") rows.push_back(&child);
    if (child.name == "tbody" || child.name == "thead") gather_rows(child, rows);
  }
}

std::size_t span_of(const Element& cell) {
  const std::string text = cell.attribute("colspan");
  std::size_t span = 1;
  std::from_chars(text.data(), text.data() + text.size(), span);
  return std::max<std::size_t>(1, span);
}

bool is_head(const Element& row) {
  std::size_t heads = 0;
  for (const Element& cell : row.children) {
    if (cell.name == "td" && !cell.words().empty()) return false;
    heads += cell.name == "th";
  }
  return heads > 1;
}

}  // namespace

std::pair<double, double> Typesetter::cell_widths(const Cell& cell) {
  if (has_blocks(*cell.element)) {
    double most = 0, least = 0;
    for (const Element& child : cell.element->children) {
      if (child.name == "img") {
        const std::string text = child.attribute("width");
        double wide = 0;
        std::from_chars(text.data(), text.data() + text.size(), wide);
        most = std::max(most, wide), least = std::max(least, wide);
        continue;
      }
      Words words;
      take_words(child, cell.style, words);
      const auto [m, l] = most_and_least_width(words, widths_);
      // Beside a figure words take the room that it leaves.
      const double widest = cell.element->has_class("firstmap") ? 300 : m;
      most = std::max(most, std::min(m, widest)), least = std::max(least, l);
    }
    return {most, least};
  }
  Words words;
  take_words(*cell.element, cell.style, words);
  const auto [most, least] = most_and_least_width(words, widths_);
  constexpr double longest_unbroken = 260;
  return {most, cell.unbroken && most < longest_unbroken ? most : least};
}

std::vector<double> Typesetter::column_widths(const std::vector<Row>& rows, std::size_t columns, double width,
                                              const TableLook& look, double& scale) {
  std::vector<double> most(columns, 0), least(columns, 0);
  for (const Row& row : rows)
    for (const Cell& cell : row.cells) {
      if (cell.columns != 1) continue;
      const auto [m, l] = cell_widths(cell);
      most[cell.column] = std::max(most[cell.column], m + look.pad_right);
      least[cell.column] = std::max(least[cell.column], l + look.pad_right);
    }
  const double all_most = std::accumulate(most.begin(), most.end(), 0.0),
               all_least = std::accumulate(least.begin(), least.end(), 0.0);
  scale = 1;
  if (all_most <= width) return most;
  if (all_least > width) {
    scale = std::max(smallest_scale, width / all_least);
    // Still too wide: columns give up in proportion, and their words break.
    const double share = std::min(1.0, width / scale / all_least);
    for (double& w : least) w *= share;
    return least;
  }
  for (std::size_t i = 0; i < columns; ++i)
    least[i] += (most[i] - least[i]) * (width - all_least) / std::max(1e-9, all_most - all_least);
  return least;
}

Slices Typesetter::row_slices(const Row& row, const std::vector<double>& columns, const TableLook& look, double width,
                              double page_height) {
  struct Set {
    double left = 0, width = 0;
    Slices slices;
  };
  auto cells = std::make_shared<std::vector<Set>>();
  double height = 0;
  for (const Cell& cell : row.cells) {
    Set one;
    for (std::size_t i = 0; i < cell.column; ++i) one.left += columns[i];
    for (std::size_t i = cell.column; i < std::min(cell.column + cell.columns, columns.size()); ++i)
      one.width += columns[i];
    if (cell.columns > 1) one.width = std::max(one.width, width - one.left);
    const double room = std::max(8.0, one.width - look.pad_right);
    if (has_blocks(*cell.element)) {
      set_children(*cell.element, cell.style, room, one.slices);
    } else {
      Words words;
      take_words(*cell.element, cell.style, words);
      set_words(words, room, 0, 0, one.slices, cell.right);
    }
    if (!one.slices.empty()) one.slices.front().space_before = 0;
    height = std::max(height, height_of(one.slices));
    cells->push_back(std::move(one));
  }
  const auto strip = [&](std::vector<std::pair<std::size_t, std::size_t>> parts, double high, bool ruled) {
    Slice s;
    s.height = high + 2 * look.pad_y;
    s.draw = [cells, parts = std::move(parts), look, ruled, width, high](CairoCanvas& c, double left, double top) {
      if (ruled) c.fill({left, top, width, 1}, c.colors().rule);
      for (std::size_t i = 0; i < cells->size(); ++i) {
        const Set& cell = (*cells)[i];
        if (look.boxed) c.outline({left + cell.left, top, cell.width, high + 2 * look.pad_y}, {c.colors().rule, 0.8});
        double y = top + look.pad_y;
        for (std::size_t k = parts[i].first; k < parts[i].second; ++k) {
          const Slice& line = cell.slices[k];
          if (k > parts[i].first) y += line.space_before;
          if (line.draw) line.draw(c, left + cell.left + (look.boxed ? look.pad_right / 2 : 0), y);
          y += line.height;
        }
      }
    };
    return s;
  };
  std::vector<std::pair<std::size_t, std::size_t>> whole;
  for (const Set& cell : *cells) whole.emplace_back(0, cell.slices.size());
  const double most = page_height - 2 * look.pad_y;
  if (height <= most) return {strip(std::move(whole), height, row.ruled)};
  // Higher than a page: as many lines of each cell as a page takes.
  Slices slices;
  std::vector<std::size_t> from(cells->size(), 0);
  for (bool left = true; left;) {
    left = false;
    double high = 0;
    std::vector<std::pair<std::size_t, std::size_t>> parts;
    for (std::size_t i = 0; i < cells->size(); ++i) {
      const Slices& lines = (*cells)[i].slices;
      double y = 0;
      std::size_t k = from[i];
      while (k < lines.size() && (k == from[i] || y + lines[k].space_before + lines[k].height <= most))
        y += (k > from[i] ? lines[k].space_before : 0) + lines[k].height, ++k;
      parts.emplace_back(from[i], k);
      from[i] = k;
      left = left || k < lines.size();
      high = std::max(high, y);
    }
    slices.push_back(strip(std::move(parts), high, row.ruled && slices.empty()));
  }
  return slices;
}

void Typesetter::set_rows(const std::vector<Row>& rows, const std::vector<double>& columns, const TableLook& look,
                          double width, Slices& slices) {
  const bool headed = !rows.empty() && is_head(Element{"tr", "", {}, [&] {
                                                         std::vector<Element> cells;
                                                         for (const Cell& c : rows.front().cells)
                                                           cells.push_back(*c.element);
                                                         return cells;
                                                       }()});
  std::shared_ptr<Slices> above;
  double room = page_height_;
  for (std::size_t i = 0; i < rows.size(); ++i) {
    Slices own = row_slices(rows[i], columns, look, width, room);
    if (i == 0 && headed) {
      above = std::make_shared<Slices>(own);
      room -= height_of(own);
      for (Slice& s : own) s.stays_with_next = true;
    } else {
      for (Slice& s : own) s.above = above;
    }
    if (i == 0 && !own.empty()) own.front().space_before = 8;
    slices.insert(slices.end(), std::make_move_iterator(own.begin()), std::make_move_iterator(own.end()));
  }
}

void Typesetter::set_table(const Element& table, double width, Slices& slices) {
  const bool readings = table.has_class("readings"), figures = table.has_class("figures"),
             facts = table.has_class("facts"), audit = table.has_class("audit");
  TableLook look;
  if (readings) look = {10, 2, true};
  if (table.has_class("card")) look.pad_right = 9;
  std::vector<const Element*> elements;
  gather_rows(table, elements);
  std::vector<Row> rows;
  std::size_t columns = 0;
  for (const Element* tr : elements) {
    Row row;
    const bool reason = tr->has_class("reason");
    row.ruled = !rows.empty() && ((figures || facts || audit) && !reason);
    std::size_t at = 0;
    for (const Element& cell : tr->children) {
      if (cell.name != "td" && cell.name != "th") continue;
      Cell one;
      one.element = &cell;
      one.column = at;
      one.columns = span_of(cell);
      at += one.columns;
      if (cell.name == "th") one.style.tone = Style::Tone::Quiet;
      if (readings || table.has_class("card")) one.style.px = 12;
      if (reason) one.style.px = 12, one.style.tone = Style::Tone::Quiet;
      if (cell.has_class("n") || cell.has_class("plain") || cell.has_class("bad") || cell.has_class("group"))
        one.style.bold = true;
      if (cell.has_class("bad")) one.style.tone = Style::Tone::Ember;
      if (cell.has_class("group")) one.style.tone = Style::Tone::Quiet;
      one.right = readings || cell.has_class("r") || (cell.has_class("n") && !audit);
      one.unbroken = (figures || readings) && !cell.has_class("where") && cell.name == "td";
      row.cells.push_back(one);
    }
    columns = std::max(columns, at);
    rows.push_back(std::move(row));
  }
  if (columns == 0) return;
  double scale = 1;
  std::vector<double> widths = column_widths(rows, columns, width, look, scale);
  const auto set_scaled = [&](const std::vector<Row>& some, const std::vector<double>& its) {
    Slices own;
    set_rows(some, its, look, std::accumulate(its.begin(), its.end(), 0.0), own);
    const auto small = [scale](Slice& s) {
      if (scale == 1) return;
      s.height *= scale, s.space_before *= scale;
      s.draw = [draw = std::move(s.draw), scale](CairoCanvas& c, double left, double top) {
        c.scaled({left, top}, scale, [&] { draw(c, 0, 0); });
      };
    };
    std::shared_ptr<const Slices> above, small_above;
    for (Slice& s : own) {
      small(s);
      if (s.above && s.above != above) {
        above = s.above;
        Slices copies = *above;
        for (Slice& copy : copies) small(copy);
        small_above = std::make_shared<const Slices>(std::move(copies));
      }
      if (s.above) s.above = small_above;
    }
    slices.insert(slices.end(), std::make_move_iterator(own.begin()), std::make_move_iterator(own.end()));
  };
  double ignored = 1;
  const std::vector<double> full =
      readings ? column_widths(rows, columns, 1e9, look, ignored) : std::vector<double>(1, 0);
  if (std::accumulate(full.begin(), full.end(), 0.0) * smallest_scale <= width) return set_scaled(rows, widths);
  // Readings of many columns: in parts below each other, each with the row's own name.
  scale = smallest_scale;
  const double room = width / scale - full.front();
  for (std::size_t from = 1; from < columns;) {
    std::size_t to = from;
    double taken = 0;
    while (to < columns && (to == from || taken + full[to] <= room)) taken += full[to], ++to;
    std::vector<Row> part;
    std::vector<double> its{full.front()};
    its.insert(its.end(), full.begin() + static_cast<std::ptrdiff_t>(from),
               full.begin() + static_cast<std::ptrdiff_t>(to));
    for (const Row& row : rows) {
      Row some{{}, row.ruled};
      for (Cell cell : row.cells)
        if (cell.column == 0 || (cell.column >= from && cell.column < to)) {
          if (cell.column > 0) cell.column -= from - 1;
          some.cells.push_back(cell);
        }
      part.push_back(std::move(some));
    }
    set_scaled(part, its);
    from = to;
  }
}

}  // namespace sunbreak::paper
