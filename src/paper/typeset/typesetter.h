#pragma once

#include <memory>

#include "drawing/drawing.h"
#include "paper/typeset/lettered_words.h"
#include "paper/typeset/slices.h"

namespace sunbreak::paper {

/// A heading that can be turned to.
struct Heading {
  std::string words;
  int page = 1;
  double top_pt = 0;
};

/// Sets a page of markup in strips: headings, paragraphs, lists, tables, figures and pictures, as its style sheet has
/// them. Knows what our templates are made of, not HTML at large.
class Typesetter {
 public:
  /// `figures` are drawn for <img src="figure:N">; none is higher than `page_height` [px].
  Typesetter(const CairoCanvas& measure, const std::vector<drawing::Drawing>& figures, double page_height)
      : widths_(measure), figures_(figures), page_height_(page_height) {}

  /// The strips of a page so wide.
  Slices set(const Element& body, double width);
  /// Its headings, whose pages the contents tell when they are drawn.
  const std::shared_ptr<std::vector<Heading>>& headings() const { return headings_; }

 private:
  struct Cell {
    const Element* element = nullptr;
    std::size_t column = 0, columns = 1;
    Style style;
    bool right = false, unbroken = false;
  };
  struct Row {
    std::vector<Cell> cells;
    bool ruled = false;
  };
  struct TableLook {
    double pad_right = 16, pad_y = 4;
    bool boxed = false;
  };

  void set_block(const Element& e, const Style& style, double width, Slices& slices);
  void set_children(const Element& e, const Style& style, double width, Slices& slices);
  void set_words(const Words& words, double width, double indent, double space, Slices& slices, bool right = false);
  void set_heading(const Element& e, double width, Slices& slices);
  void set_contents(double width, Slices& slices);
  void set_image(const Element& e, double width, Slices& slices);
  void set_pictures(const Element& e, double width, Slices& slices);
  void set_table(const Element& e, double width, Slices& slices);
  void set_rows(const std::vector<Row>& rows, const std::vector<double>& columns, const TableLook& look, double width,
                Slices& slices);
  std::vector<double> column_widths(const std::vector<Row>& rows, std::size_t columns, double width,
                                    const TableLook& look, double& scale);
  std::pair<double, double> cell_widths(const Cell& cell);
  Slices row_slices(const Row& row, const std::vector<double>& columns, const TableLook& look, double width,
                    double page_height);

  WordWidths widths_;
  const std::vector<drawing::Drawing>& figures_;
  double page_height_;
  std::shared_ptr<std::vector<Heading>> headings_ = std::make_shared<std::vector<Heading>>();
  int next_heading_ = 0;
};

}  // namespace sunbreak::paper
