#include "workbook/book_writer.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdlib>

#include "core/quantity/lower_case.h"
#include "core/visible.h"
#include "exchange/files/read_file.h"

namespace sunbreak::workbook {
namespace {

namespace fs = std::filesystem;

constexpr std::size_t longest_name = 31, longest_text = 32000;  ///< in a sheet's name and a cell (ECMA-376, Excel)
constexpr std::uint8_t a4 = 9;
constexpr int light_steps = 64;
constexpr double head_height = 32;

/// The first bytes of a text, never part of a character.
std::string beginning(std::string_view text, std::size_t most) {
  if (text.size() <= most) return std::string(text);
  std::size_t end = most;
  while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80) --end;
  return std::string(text.substr(0, end)) + "…";
}

std::string plain_text(std::string_view text) { return beginning(visible(std::string(text)), longest_text); }

}  // namespace

std::string cell_name(int row, int column) {
  std::string letters;
  for (int c = column; c >= 0; c = c / 26 - 1) letters.insert(letters.begin(), static_cast<char>('A' + c % 26));
  return letters + std::to_string(row + 1);
}

std::string range_name(const std::string& sheet, int first_row, int first_column, int last_row, int last_column) {
  return fmt::format("'{}'!{}:{}", sheet, cell_name(first_row, first_column), cell_name(last_row, last_column));
}

lxw_worksheet* BookWriter::sheet(std::string_view wanted) {
  std::string name;
  for (const char c : visible_line(wanted))
    if (std::string_view("[]:*?/\\',").find(c) == std::string_view::npos) name += c;
  if (name.empty()) name = "Sheet";
  const auto numbered = [&](int number) {
    const std::string tail = number == 0 ? "" : fmt::format(" {}", number + 1);
    // Bytes are no fewer than characters.
    std::string head =
        name.size() + tail.size() > longest_name ? beginning(name, longest_name - tail.size() - 3) : name;
    return head + tail;
  };
  int number = 0;
  while (!taken_.insert(lower_case(numbered(number))).second) ++number;
  const std::string own = numbered(number);
  lxw_worksheet* sheet = workbook_add_worksheet(book_, own.c_str());
  names_[sheet] = own;
  // On paper a sheet is one page wide.
  worksheet_set_landscape(sheet);
  worksheet_set_paper(sheet, a4);
  worksheet_fit_to_pages(sheet, 1, 0);
  return sheet;
}

lxw_worksheet* BookWriter::table(std::string_view name, std::string_view title,
                                 std::initializer_list<ColumnHead> heads) {
  lxw_worksheet* made = sheet(name);
  text(made, 0, 0, title, Look::Title);
  int column = 0;
  for (const ColumnHead& h : heads) {
    text(made, table_head_row, column, h.words, Look::Head);
    worksheet_set_column(made, static_cast<lxw_col_t>(column), static_cast<lxw_col_t>(column), h.width, nullptr);
    ++column;
  }
  worksheet_set_row(made, table_head_row, head_height, nullptr);
  worksheet_freeze_panes(made, table_head_row + 1, 0);
  return made;
}

lxw_format* BookWriter::format(Look look, int decimals) {
  auto& known = formats_[{look, decimals}];
  if (known) return known;
  known = workbook_add_format(book_);
  if (look == Look::Title) format_set_bold(known), format_set_font_size(known, 14);
  if (look == Look::Head)
    format_set_bold(known), format_set_bottom(known, LXW_BORDER_THIN), format_set_text_wrap(known);
  if (look == Look::Wrapped) format_set_text_wrap(known), format_set_align(known, LXW_ALIGN_VERTICAL_TOP);
  if (look == Look::Quiet) format_set_font_color(known, 0x5C686C);
  if (look == Look::Input) format_set_bg_color(known, 0xFFF3D6);
  if (decimals >= 0)
    format_set_num_format(known,
                          decimals == 0 ? "0" : ("0." + std::string(static_cast<std::size_t>(decimals), '0')).c_str());
  return known;
}

void BookWriter::text(lxw_worksheet* sheet, int row, int column, std::string_view words, Look look) {
  worksheet_write_string(sheet, static_cast<lxw_row_t>(row), static_cast<lxw_col_t>(column), plain_text(words).c_str(),
                         format(look, as_it_comes));
}

void BookWriter::number(lxw_worksheet* sheet, int row, int column, double value, int decimals, Look look) {
  if (!std::isfinite(value)) return;
  worksheet_write_number(sheet, static_cast<lxw_row_t>(row), static_cast<lxw_col_t>(column), value,
                         format(look, decimals));
}

void BookWriter::formula(lxw_worksheet* sheet, int row, int column, const std::string& formula, double value,
                         int decimals) {
  worksheet_write_formula_num(sheet, static_cast<lxw_row_t>(row), static_cast<lxw_col_t>(column), formula.c_str(),
                              format(Look::Plain, decimals), value);
}

void BookWriter::light(lxw_worksheet* sheet, int row, int column, double ppfd, const drawing::ScaleRange& range) {
  if (!std::isfinite(ppfd)) return;
  const int step = std::clamp(static_cast<int>(std::lround(range.share(ppfd) * light_steps)), 0, light_steps);
  lxw_format*& look = light_formats_[step];
  if (!look) {
    const drawing::Rgb ground = drawing::light_color(static_cast<double>(step) / light_steps),
                       ink = drawing::ink_on(ground);
    const auto packed = [](const drawing::Rgb& c) {
      return static_cast<lxw_color_t>((c.red << 16) | (c.green << 8) | c.blue);
    };
    look = workbook_add_format(book_);
    format_set_bg_color(look, packed(ground));
    format_set_font_color(look, packed(ink));
    format_set_align(look, LXW_ALIGN_CENTER);
    format_set_num_format(look, "0");
  }
  worksheet_write_number(sheet, static_cast<lxw_row_t>(row), static_cast<lxw_col_t>(column), ppfd, look);
}

Result<std::string> written_book(const std::string& title, const std::function<void(BookWriter&)>& fill) {
  const auto refused = [](const std::string& why) {
    return Problem{"the workbook cannot be put together: " + why, "nothing was written",
                   "look at the room and the rights of the folder for temporary files"};
  };
  std::error_code error;
  std::string folder = (fs::temp_directory_path(error) / "sunbreak-XXXXXX").string();
  if (error || !mkdtemp(folder.data())) return refused("the folder for temporary files cannot be used");
  const fs::path file = fs::path(folder) / "book.xlsx";
  lxw_workbook_options options{};
  options.tmpdir = folder.data();
  lxw_workbook* book = workbook_new_opt(file.c_str(), &options);
  std::string name = plain_text(title), by = "Sunbreak";
  lxw_doc_properties properties{};
  properties.title = name.data(), properties.comments = by.data();
  properties.created = 1;  // equal content gives equal bytes
  BookWriter writer(book);
  fill(writer);
  workbook_set_properties(book, &properties);
  const lxw_error closed = workbook_close(book);
  auto bytes = exchange::read_back(file, exchange::most_package_bytes);
  const bool read = closed == LXW_NO_ERROR && bytes;
  fs::remove_all(folder, error);
  if (!read) return refused(closed == LXW_NO_ERROR ? "it could not be read back" : lxw_strerror(closed));
  return std::move(bytes.value());
}

}  // namespace sunbreak::workbook
