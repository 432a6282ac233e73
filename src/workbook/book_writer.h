#pragma once

#include <xlsxwriter.h>

#include <filesystem>
#include <functional>
#include <initializer_list>
#include <map>
#include <set>
#include <string>
#include <string_view>

#include "core/result.h"
#include "drawing/light_scale.h"

namespace sunbreak::workbook {

/// How a cell looks.
enum class Look { Plain, Title, Head, Quiet, Input, Wrapped };

/// Of a number that is shown as it comes.
inline constexpr int as_it_comes = -1;

/// A column of a table: its head, and how wide it is in characters.
struct ColumnHead {
  const char* words;
  double width = 14;
};

/// Where the heads of a table stand.
inline constexpr int table_head_row = 2;

/// A place in a sheet as formulas write it: row and column from 0 → "B3".
std::string cell_name(int row, int column);
/// "'60 cm 100 %'!B3:M14".
std::string range_name(const std::string& sheet, int first_row, int first_column, int last_row, int last_column);

/// A workbook being written: sheets with names of their own, texts that cannot be formulas, looks and light colors.
class BookWriter {
 public:
  explicit BookWriter(lxw_workbook* book) : book_(book) {}

  /// Adds a sheet; characters that a name may not have are left out, and one that is taken gets a number.
  lxw_worksheet* sheet(std::string_view wanted);
  /// A sheet of a title and a table's heads at table_head_row.
  lxw_worksheet* table(std::string_view name, std::string_view title, std::initializer_list<ColumnHead> heads);
  const std::string& name_of(lxw_worksheet* sheet) const { return names_.at(sheet); }
  lxw_workbook* book() { return book_; }

  void text(lxw_worksheet* sheet, int row, int column, std::string_view words, Look look = Look::Plain);
  /// Nothing where it is NaN. `decimals` are those shown.
  void number(lxw_worksheet* sheet, int row, int column, double value, int decimals, Look look = Look::Plain);
  /// With the value that it gives, for those who read without working it out.
  void formula(lxw_worksheet* sheet, int row, int column, const std::string& formula, double value, int decimals);
  /// A number on the color that the light scale has for it.
  void light(lxw_worksheet* sheet, int row, int column, double ppfd, const drawing::ScaleRange& range);

 private:
  lxw_format* format(Look look, int decimals);

  lxw_workbook* book_;
  std::map<lxw_worksheet*, std::string> names_;
  std::set<std::string> taken_;  ///< in lower case
  std::map<std::pair<Look, int>, lxw_format*> formats_;
  std::map<int, lxw_format*> light_formats_;
};

/// The bytes of a workbook that `fill` writes.
Result<std::string> written_book(const std::string& title, const std::function<void(BookWriter&)>& fill);

}  // namespace sunbreak::workbook
