#include "paper/typeset/typesetter.h"

#include <algorithm>
#include <charconv>
#include <cmath>

#include "drawing/png.h"
#include "pictures/pixels.h"

namespace sunbreak::paper {

using namespace drawing;

namespace {

constexpr double list_indent = 20, paragraph_space = 8, picture_side = 360, picture_gap = 16;
constexpr int picture_pixels = 900;

bool is_inline(const Element& e) {
  return e.name.empty() || e.name == "span" || e.name == "b" || e.name == "i" || e.name == "a" || e.name == "br" ||
         e.name == "strong";
}
bool is_blank(const Element& e) { return e.name.empty() && e.text.find_first_not_of(" \n\r\t") == std::string::npos; }

double number_of(const std::string& text) {
  double value = 0;
  std::from_chars(text.data(), text.data() + text.size(), value);
  return value;
}

Style style_of_paragraph(const Element& e, Style style) {
  if (e.has_class("lead") || e.has_class("foot") || e.has_class("quiet")) style.tone = Style::Tone::Quiet;
  if (e.has_class("notice")) style.tone = Style::Tone::Ember;
  if (e.has_class("aside") || e.name == "figcaption") style.px = 12, style.tone = Style::Tone::Quiet;
  return style;
}

Slice rule_of(double width, double thick, double below) {
  Slice s;
  s.height = thick + below;
  s.stays_with_next = true;
  s.draw = [width, thick](CairoCanvas& c, double left, double top) {
    c.fill({left, top, width, thick}, c.colors().rule);
  };
  return s;
}

void collect_headings(const Element& e, std::vector<Heading>& headings) {
  if (e.name == "h2" && !e.attribute("id").empty()) headings.push_back({e.words()});
  for (const Element& child : e.children) collect_headings(child, headings);
}

}  // namespace

Slices Typesetter::set(const Element& body, double width) {
  collect_headings(body, *headings_);
  Slices slices;
  set_children(body, {}, width, slices);
  return slices;
}

void Typesetter::set_children(const Element& e, const Style& style, double width, Slices& slices) {
  Words words;
  const auto end_words = [&] {
    if (!words.empty()) set_words(words, width, 0, 0, slices);
    words.clear();
  };
  for (const Element& child : e.children) {
    if (is_inline(child)) {
      if (!is_blank(child) || !words.empty()) take_words(Element{"span", "", {}, {child}}, style, words);
      continue;
    }
    end_words();
    set_block(child, style, width, slices);
  }
  end_words();
}

void Typesetter::set_block(const Element& e, const Style& style, double width, Slices& slices) {
  if (e.name == "script" || e.name == "style") return;
  if (e.name == "h1" || e.name == "h2" || e.name == "h3") return set_heading(e, width, slices);
  if (e.name == "img") return set_image(e, width, slices);
  if (e.name == "table") return set_table(e, width, slices);
  if (e.name == "p" && e.has_class("contents")) return set_contents(width, slices);
  if (e.name == "div" && e.has_class("pictures")) return set_pictures(e, width, slices);
  if (e.name == "p" || e.name == "figcaption" || e.name == "li") {
    const bool bullet = e.name == "li", told = e.has_class("told");
    Words words;
    for (const Element& child : e.children) {
      Style own = style_of_paragraph(e, style);
      if (told && child.name == "b") own.px = 22;
      take_words(Element{"span", "", {}, {child}}, own, words);
    }
    const std::size_t first = slices.size();
    const bool before_map = e.has_class("before-map");
    set_words(words, width - (bullet ? list_indent : 0), bullet ? list_indent : 0, bullet ? 3 : paragraph_space,
              slices);
    for (std::size_t i = first; before_map && i < slices.size(); ++i) slices[i].stays_with_next = true;
    if (bullet && slices.size() > first)
      slices[first].draw = [draw = slices[first].draw, style](CairoCanvas& c, double left, double top) {
        c.text({left + 5, top, 10, style.px * 1.36}, Align::Left, "•", style.lettering(c.colors()));
        draw(c, left, top);
      };
    return;
  }
  if (e.name == "svg") return;  // figures come apart
  set_children(e, style, width, slices);
}

void Typesetter::set_words(const Words& words, double width, double indent, double space, Slices& slices, bool right) {
  const std::size_t first = slices.size();
  for (Line& line : lines_of(words, width, widths_)) {
    Slice s;
    s.height = line.height;
    s.draw = [line = std::move(line), indent, width, right](CairoCanvas& c, double left, double top) {
      const double at = left + indent + (right ? width - line.width : 0);
      for (const Line::Part& part : line.parts)
        c.text({at + part.left, top + line.height - 1.36 * part.style.px, width, 1.36 * part.style.px}, Align::Left,
               part.text, part.style.lettering(c.colors()));
    };
    slices.push_back(std::move(s));
  }
  if (slices.size() == first) return;
  slices[first].space_before = space;
  if (slices.size() - first > 1) {
    slices[first].stays_with_next = true;
    slices[slices.size() - 2].stays_with_next = true;
  }
}

void Typesetter::set_heading(const Element& e, double width, Slices& slices) {
  Style style;
  style.bold = true;
  style.px = e.name == "h1" ? 28 : e.name == "h3" || e.has_class("small") ? 14 : e.has_class("configuration") ? 22 : 18;
  const std::size_t first = slices.size();
  if (e.name == "h2" && !e.has_class("small"))
    slices.push_back(rule_of(width, e.has_class("configuration") ? 3 : 1, 12));
  Words words;
  take_words(e, style, words);
  const std::size_t of_words = slices.size();
  set_words(words, width, 0, 0, slices);
  if (slices.size() == of_words) return slices.resize(first);
  slices[first].space_before = e.name == "h1" ? 0 : e.name == "h2" && !e.has_class("small") ? 30 : 14;
  for (std::size_t i = first; i < slices.size(); ++i) slices[i].stays_with_next = true;
  if (e.name == "h2" && !e.attribute("id").empty()) slices[first].heading = next_heading_++;
}

void Typesetter::set_contents(double width, Slices& slices) {
  constexpr double column_gap = 32, row_height = 17;
  const Style style{12, false, Style::Tone::Ink};
  const std::size_t count = headings_->size(), rows = (count + 1) / 2;
  const double column = (width - column_gap) / 2;
  for (std::size_t row = 0; row < rows; ++row) {
    Slice s;
    s.height = row_height;
    s.space_before = row == 0 ? 16 : 0;
    s.draw = [this, row, rows, count, column, style, headings = headings_](CairoCanvas& c, double left, double top) {
      for (const std::size_t n : {row, row + rows}) {
        if (n >= count || (n == row + rows && n < rows)) continue;
        const Heading& h = (*headings)[n];
        const Box room{left + (n == row ? 0 : column + column_gap), top, column, row_height};
        const std::string page = std::to_string(h.page);
        const double number = widths_.of(page, style) + 8;
        std::vector<Line> lines = lines_of({{h.words, style, Word::Before::Nothing}}, column - number - 8, widths_);
        const std::string words = lines.empty() ? std::string() : lines.front().parts.front().text;
        const double end = room.left + widths_.of(words, style) + 8;
        c.text(room, Align::Left, words, style.lettering(c.colors()));
        c.text(room, Align::Right, page, style.lettering(c.colors()));
        c.line({end, room.center().y + 4}, {room.right() - number, room.center().y + 4},
               {c.colors().rule, 1, Dash::Dotted});
        c.link(room, h.page, h.top_pt);
      }
    };
    slices.push_back(std::move(s));
  }
}

void Typesetter::set_image(const Element& e, double width, Slices& slices) {
  const std::string source = e.attribute("src");
  Slice s;
  s.space_before = paragraph_space;
  constexpr std::string_view jpeg = "data:image/jpeg;base64,", figure = "figure:";
  if (source.starts_with(figure)) {
    const auto n = static_cast<std::size_t>(number_of(source.substr(figure.size())));
    if (n >= figures_.size()) return;
    const Drawing& drawn = figures_[n];
    const double scale = std::min({1.0, width / drawn.width, (page_height_ - 60) / drawn.height});
    s.height = drawn.height * scale;
    s.draw = [&drawn, scale](CairoCanvas& c, double left, double top) {
      c.scaled({left, top}, scale, [&] { drawn.draw(c); });
    };
    slices.push_back(std::move(s));
    return;
  }
  if (!source.starts_with(jpeg)) return;
  auto bytes = from_base64(std::string_view(source).substr(jpeg.size()));
  const auto read = bytes ? pictures::pixels_of(*bytes, picture_pixels) : Result<pictures::Rgb8>(Problem{});
  if (!read || read.value().width == 0) return;
  const pictures::Rgb8& rgb = read.value();
  auto pixels = std::make_shared<Pixels>();
  pixels->columns = rgb.width, pixels->rows = rgb.height;
  for (std::size_t i = 0; i + 2 < rgb.bytes.size(); i += 3)
    pixels->argb.push_back(0xFF000000u | std::uint32_t(rgb.bytes[i]) << 16 | std::uint32_t(rgb.bytes[i + 1]) << 8 |
                           rgb.bytes[i + 2]);
  pixels->jpeg = rgb.width == number_of(e.attribute("width")) ? *bytes : pictures::jpeg_of(rgb);
  const double scale = std::min(std::min(width, picture_side) / rgb.width, picture_side / rgb.height);
  s.height = rgb.height * scale;
  s.draw = [pixels, wide = rgb.width * scale, high = s.height](CairoCanvas& c, double left, double top) {
    c.pixels({left, top, wide, high}, *pixels);
  };
  slices.push_back(std::move(s));
}

void Typesetter::set_pictures(const Element& e, double width, Slices& slices) {
  std::vector<const Element*> figures;
  for (const Element& child : e.children)
    if (child.name == "figure") figures.push_back(&child);
  const std::size_t in_row = width > 1.6 * picture_side && figures.size() > 1 ? 2 : 1;
  const double column = (width - picture_gap * static_cast<double>(in_row - 1)) / static_cast<double>(in_row);
  for (std::size_t at = 0; at < figures.size(); at += in_row) {
    std::vector<Slice> beside;
    Slice row;
    row.space_before = paragraph_space;
    for (std::size_t i = at; i < std::min(at + in_row, figures.size()); ++i) {
      Slices own;
      set_children(*figures[i], {}, column, own);
      beside.push_back(together(std::move(own)));
      row.height = std::max(row.height, beside.back().height);
    }
    row.draw = [beside = std::move(beside), column](CairoCanvas& c, double left, double top) {
      for (const Slice& one : beside) {
        one.draw(c, left, top);
        left += column + picture_gap;
      }
    };
    slices.push_back(std::move(row));
  }
}

}  // namespace sunbreak::paper
