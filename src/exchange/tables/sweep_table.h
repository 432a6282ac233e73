#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/bench/grid.h"
#include "core/quantity/display.h"
#include "core/quantity/length.h"
#include "core/result.h"
#include "exchange/tables/delimited.h"

namespace sunbreak::exchange {

/// long: one row a reading (x, y, value); matrix: the table lies as the stations do.
enum class TableForm { Long, Matrix };

/// What the user has chosen; what is left open is worked out from the table and said.
struct TableOptions {
  std::optional<TableForm> form;
  std::optional<char> separator, decimal_mark;
  std::optional<bool> first_row_is_far;  ///< matrix; by its labels, or else true
  std::optional<LengthUnit> place_unit;  ///< long, where the header names none
  /// Long: which columns hold places and light, each by its title or its number from 1; one named makes the form long.
  std::optional<std::string> x_column, y_column, value_column;

  bool names_columns() const { return x_column || y_column || value_column; }
};

/// Something the reader of a table noticed. Rows and columns count from 1; 0 stands for the whole row, column or table.
struct Finding {
  int row = 0, column = 0;
  bool refused = false;  ///< a cell or row was not taken
  std::string words;
};

/// What is said of a text without an end to its last line, as one that was cut short has: its last number may be a part
/// of one.
std::optional<Finding> cut_short(std::string_view text, std::size_t rows);

/// Where a station's value stands in the table, both from 1; row 0 where the station has none.
struct CellPlace {
  int row = 0, column = 0;
};

/// What a table was understood to say. Nothing is in the lab book yet.
struct TableDraft {
  std::string encoding;
  char separator = ',', decimal_mark = '.';
  TableForm form = TableForm::Matrix;
  Grid grid;
  Layout layout;
  std::vector<double> raw;         ///< one a station, NaN where the table gives none
  std::vector<CellPlace> sources;  ///< one a station
  std::vector<Finding> findings;
  std::vector<std::string> understood;  ///< in words, for the preview
  Rows cells;

  int readings() const;
};

struct TableContext {
  Footprint footprint;
  GridKind kind = GridKind::Cells;
  std::optional<double> margin_m;         ///< inset, matrix form
  std::optional<Grid> planned;            ///< said where the table's grid is another
  UnitSystem units = UnitSystem::Metric;  ///< of the words
  bool lux = false;                       ///< its readings are a lux meter's
};

/// Reads a table of PPFD readings [µmol m⁻² s⁻¹], or of lux. A cell that is not surely a number in range is a missing
/// station and a finding; a row of the wrong length is refused whole, since no one knows which of its cells is lost.
/// Refuses the table where nothing could be taken or its form makes no sense.
Result<TableDraft> read_sweep_table(std::string_view bytes, const TableContext& context,
                                    const TableOptions& options = {});

}  // namespace sunbreak::exchange
