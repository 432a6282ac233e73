#include "paper/typeset/lettered_words.h"

#include <algorithm>

namespace sunbreak::paper {
namespace {

constexpr double line_share = 1.36;
constexpr int measured_px = 100;  ///< widths are proportional to size
constexpr double longest_unbroken_px = 220;

bool is_space(char c) { return c == ' ' || c == '\n' || c == '\t' || c == '\r'; }

Style style_within(const Element& e, Style style) {
  if (e.name == "b" || e.name == "strong") style.bold = true;
  if (e.has_class("label")) style.px = 12, style.tone = Style::Tone::Quiet;
  if (e.has_class("aside")) style.px = 12, style.tone = Style::Tone::Quiet;
  if (e.has_class("sure")) style.tone = Style::Tone::Quiet;
  if (e.name == "span" && style.tone == Style::Tone::Quiet && e.attributes.empty()) style.px = 11;
  return style;
}

/// How many first bytes of a text are whole characters no wider than `width`, one at least.
std::size_t that_fit(const std::string& text, const Style& style, double width, WordWidths& widths) {
  std::size_t end = 0;
  double taken = 0;
  while (end < text.size()) {
    std::size_t next = end + 1;
    while (next < text.size() && (static_cast<unsigned char>(text[next]) & 0xC0) == 0x80) ++next;
    taken += widths.of(text.substr(end, next - end), style);
    if (end > 0 && taken > width) break;
    end = next;
  }
  return end;
}

}  // namespace

drawing::Lettering Style::lettering(const drawing::Palette& colors) const {
  return {px, bold, tone == Tone::Ink ? colors.ink : tone == Tone::Quiet ? colors.quiet : colors.ember};
}

double WordWidths::of(const std::string& text, const Style& style) {
  auto [at, is_new] = of_style(style).try_emplace(text, 0);
  if (is_new) at->second = canvas_.text_width(text, measured_px, style.bold);
  return at->second * style.px / measured_px;
}

void take_words(const Element& e, const Style& style, Words& words) {
  if (e.name == "br") {
    words.push_back({"", style, Word::Before::LineEnd});
    return;
  }
  if (!e.name.empty()) {
    for (const Element& child : e.children) take_words(child, style_within(child, style), words);
    return;
  }
  bool spaced = false;
  std::string word;
  const auto end_word = [&] {
    if (!word.empty()) words.push_back({std::move(word), style, spaced ? Word::Before::Space : Word::Before::Nothing});
    word.clear();
  };
  for (const char c : e.text) {
    if (!is_space(c)) {
      word += c;
      continue;
    }
    end_word();
    spaced = true;
  }
  end_word();
  // A space at the end belongs to the word that follows.
  if (spaced && !e.text.empty() && is_space(e.text.back())) words.push_back({"", style, Word::Before::Space});
}

std::vector<Line> lines_of(const Words& words, double width, WordWidths& widths) {
  std::vector<Line> lines(1);
  bool space = false;
  const auto end_line = [&] {
    lines.emplace_back();
    space = false;
  };
  const auto add = [&](const std::string& text, const Style& style, double wide, double gap) {
    Line& line = lines.back();
    if (!line.parts.empty() && line.parts.back().style == style)
      line.parts.back().text += (gap > 0 ? " " : "") + text;
    else
      line.parts.push_back({line.width + gap, text, style});
    line.width += gap + wide;
    line.height = std::max(line.height, line_share * style.px);
  };
  for (const Word& word : words) {
    if (word.before == Word::Before::LineEnd) {
      lines.back().height = std::max(lines.back().height, line_share * word.style.px);
      end_line();
    }
    space = space || word.before == Word::Before::Space;
    std::string rest = word.text;
    while (!rest.empty()) {
      const double wide = widths.of(rest, word.style);
      const double gap = space && !lines.back().parts.empty() ? widths.of(" ", word.style) : 0;
      if (lines.back().width + gap + wide <= width + 0.01) {
        add(rest, word.style, wide, gap);
        break;
      }
      if (wide <= width && !lines.back().parts.empty()) {
        end_line();
        continue;
      }
      const double left = width - lines.back().width - gap;
      if (!lines.back().parts.empty() && left < width / 4) {
        end_line();
        continue;
      }
      const std::size_t fit = that_fit(rest, word.style, left, widths);
      const std::string first = rest.substr(0, fit);
      add(first, word.style, widths.of(first, word.style), gap);
      rest.erase(0, fit);
      if (!rest.empty()) end_line();
    }
    if (!word.text.empty()) space = false;
  }
  while (lines.size() > 1 && lines.back().parts.empty()) lines.pop_back();
  if (lines.back().parts.empty() && lines.back().height == 0) lines.pop_back();
  return lines;
}

std::pair<double, double> most_and_least_width(const Words& words, WordWidths& widths) {
  double most = 0, least = 0, line = 0;
  for (const Word& word : words) {
    if (word.before == Word::Before::LineEnd) line = 0;
    const double wide = widths.of(word.text, word.style);
    if (word.before == Word::Before::Space && line > 0) line += widths.of(" ", word.style);
    line += wide;
    most = std::max(most, line);
    least = std::max(least, std::min(wide, longest_unbroken_px));
  }
  return {most, least};
}

}  // namespace sunbreak::paper
