#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "exchange/tables/delimited.h"

namespace sunbreak::exchange {

/// How this table writes numbers.
struct NumberRule {
  char decimal_mark = '.';
  /// Every fraction in the table has three digits and whole numbers stand beside them: "1.234" may well be 1234.
  bool doubtful_thousands = false;
  std::string doubtful_example;
  bool lux = false;  ///< its readings are a lux meter's: beyond what any PPFD is
  bool raw =
      false;  ///< as the meter shows them, its dark offset still in them: what is kept of them is judged corrected
};

/// The mark that more of the cells read as numbers with; a point where both do alike.
char guess_decimal_mark(const Rows& cells);

/// `chosen`: the user said so, which ends any doubt about thousands.
NumberRule number_rule(const Rows& cells, char decimal_mark, bool chosen);

/// A cell as a number, by the rule; nothing for a doubtful one.
std::optional<double> cell_number(std::string_view cell, const NumberRule& rule);

/// A cell as a reading as its meter shows it, PPFD or lux, or why it is none, in words that follow the cell's place
/// ("'n/a' is not a number").
struct CellReading {
  std::optional<double> ppfd;
  std::string refusal;
};
CellReading cell_reading(std::string_view cell, const NumberRule& rule);

}  // namespace sunbreak::exchange
