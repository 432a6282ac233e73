#pragma once

#include <string>
#include <unordered_map>
#include <vector>

#include "paper/cairo_canvas.h"
#include "paper/typeset/markup_tree.h"

namespace sunbreak::paper {

/// How words are set [px of the page].
struct Style {
  enum class Tone { Ink, Quiet, Ember };
  int px = 14;
  bool bold = false;
  Tone tone = Tone::Ink;
  bool operator==(const Style&) const = default;

  drawing::Lettering lettering(const drawing::Palette& colors) const;
};

/// A word and what is before it.
struct Word {
  enum class Before { Nothing, Space, LineEnd };
  std::string text;
  Style style;
  Before before = Before::Nothing;
};
using Words = std::vector<Word>;

/// A line of words, parts of one style together.
struct Line {
  struct Part {
    double left = 0;
    std::string text;
    Style style;
  };
  std::vector<Part> parts;
  double width = 0, height = 0;
};

/// Widths of words, each measured once.
class WordWidths {
 public:
  explicit WordWidths(const CairoCanvas& canvas) : canvas_(canvas) {}
  double of(const std::string& text, const Style& style);

 private:
  const CairoCanvas& canvas_;
  std::unordered_map<std::string, double> known_[2];
  std::unordered_map<std::string, double>& of_style(const Style& style) { return known_[style.bold ? 1 : 0]; }
};

/// Puts the words of inline content at the end of `words`.
void take_words(const Element& inline_content, const Style& style, Words& words);

/// Words in lines no wider than `width`; words that are wider are broken between letters.
std::vector<Line> lines_of(const Words& words, double width, WordWidths& widths);

/// The widths that words take in one line a stated line end, and at least: that of their longest.
std::pair<double, double> most_and_least_width(const Words& words, WordWidths& widths);

}  // namespace sunbreak::paper
