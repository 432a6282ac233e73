#include "damage.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "exchange/tables/cell_numbers.h"
#include "exchange/tables/text_decoding.h"

namespace sunbreak::damage {
namespace {

int below(Random& random, std::size_t count) { return static_cast<int>(random() % count); }
bool coin(Random& random) { return random() & 1; }

std::string number_text(double value, int decimals, char mark) {
  std::string text = fmt::format("{:.{}f}", value, decimals);
  std::replace(text.begin(), text.end(), '.', mark);
  return text;
}

std::string encoded(const std::string& utf8, int encoding) {
  switch (encoding) {
    case 1:
      return "\xEF\xBB\xBF" + utf8;
    case 2:
    case 3: {
      const bool little = encoding == 2;
      std::string bytes = little ? "\xFF\xFE" : "\xFE\xFF";
      for (const char c : utf8) {  // the tables are ASCII
        if (!little) bytes += '\0';
        bytes += c;
        if (little) bytes += '\0';
      }
      return bytes;
    }
    default:
      return utf8;
  }
}

std::vector<std::string> lines_of(const std::string& bytes) {
  std::vector<std::string> lines;
  std::size_t from = 0;
  for (std::size_t at; (at = bytes.find('\n', from)) != std::string::npos; from = at + 1)
    lines.push_back(bytes.substr(from, at + 1 - from));
  if (from < bytes.size()) lines.push_back(bytes.substr(from));
  return lines;
}

std::string joined(const std::vector<std::string>& lines) {
  std::string bytes;
  for (const std::string& line : lines) bytes += line;
  return bytes;
}

std::string long_text(const ValidTable& t, const Layout& layout, Random& random, char separator, char mark,
                      int decimals, const std::string& end) {
  std::string text;
  const bool header = coin(random);
  if (header) text += fmt::format("x (cm){0}y (cm){0}PPFD{1}", separator, end);
  for (std::size_t i = 0; i < layout.stations.size(); ++i)
    text += number_text(100 * layout.stations[i].x_m, 1, mark) + separator +
            number_text(100 * layout.stations[i].y_m, 1, mark) + separator + number_text(t.truth[i], decimals, mark) +
            end;
  return text;
}

std::string matrix_text(const ValidTable& t, const Layout& layout, Random& random, char separator, char mark,
                        int decimals, const std::string& end) {
  std::string text;
  const bool labels = coin(random);
  if (labels) {
    text += "y/x";
    for (const double x : layout.xs_m) text += separator + number_text(100 * x, 1, mark);
    text += end;
  }
  for (int row = layout.rows - 1; row >= 0; --row) {
    if (labels) text += number_text(100 * layout.ys_m[row], 1, mark) + separator;
    for (int column = 0; column < layout.columns; ++column)
      text +=
          (column ? std::string(1, separator) : "") + number_text(t.truth[layout.index(column, row)], decimals, mark);
    text += end;
  }
  return text;
}

/// The text of a cell, or nothing where the table has no such cell.
std::optional<std::string> cell_at(const exchange::Rows& cells, const exchange::CellPlace& place) {
  if (place.row < 1 || place.row > static_cast<int>(cells.size())) return {};
  const auto& row = cells[place.row - 1];
  if (place.column < 1 || place.column > static_cast<int>(row.size())) return {};
  return row[place.column - 1];
}

/// What a text says as a number, worked out without the importer.
std::optional<double> plain_number(std::string text, char mark) {
  if (mark == ',') std::replace(text.begin(), text.end(), ',', '.');
  char* end = nullptr;
  const double value = std::strtod(text.c_str(), &end);
  return text.empty() || *end != '\0' ? std::nullopt : std::optional(value);
}

/// Whether a draft's findings are among those that the sound table gave already.
bool says_no_more(const exchange::TableDraft& draft, const exchange::TableDraft& sound) {
  return std::all_of(draft.findings.begin(), draft.findings.end(), [&](const exchange::Finding& f) {
    return std::any_of(sound.findings.begin(), sound.findings.end(),
                       [&](const exchange::Finding& s) { return s.words == f.words; });
  });
}

}  // namespace

ValidTable make_valid(Random& random) {
  ValidTable t;
  t.context.footprint = {0.6 + 0.1 * below(random, 8), 0.6 + 0.1 * below(random, 8)};
  t.context.kind = coin(random) ? GridKind::Cells : GridKind::Nodes;
  const Grid grid{t.context.kind, 3 + below(random, 7), 3 + below(random, 7), 0, 0, {}};
  t.context.planned = grid;
  const Layout layout = lay_out(t.context.footprint, grid).value();
  const char mark = coin(random) ? '.' : ',';
  const char separator = mark == ',' ? (coin(random) ? ';' : '\t') : (coin(random) ? ',' : '\t');
  const int decimals = 1 + below(random, 2);
  for (std::size_t i = 0; i < layout.stations.size(); ++i) {
    const double scale = decimals == 1 ? 10 : 100;
    t.truth.push_back(std::round(scale * (100 + 1.0e-3 * static_cast<double>(random() % 900'000))) / scale);
  }
  const std::string end = coin(random) ? "\n" : "\r\n";
  const bool matrix = coin(random);
  const std::string text = matrix ? matrix_text(t, layout, random, separator, mark, decimals, end)
                                  : long_text(t, layout, random, separator, mark, decimals, end);
  t.bytes = encoded(text, below(random, 5));
  auto draft = exchange::read_sweep_table(t.bytes, t.context);
  if (!draft) throw std::runtime_error("a valid table was refused: " + draft.problem().sentence() + "\n" + text);
  t.draft = std::move(draft.value());
  for (std::size_t i = 0; i < t.truth.size(); ++i)
    if (!(t.draft.grid == grid) || t.draft.raw[i] != t.truth[i])
      throw std::runtime_error("a valid table was misread:\n" + text);
  return t;
}

Damage harm(const std::string& bytes, Random& random) {
  std::string b = bytes;
  auto lines = lines_of(bytes);
  const std::size_t at = random() % b.size(), line = random() % lines.size();
  const std::size_t length = 1 + random() % 12;
  switch (below(random, 13)) {
    case 0:
      b[at] = static_cast<char>(random());
      return {"byte changed", b};
    case 1:
      b[at] = static_cast<char>(b[at] ^ (1 << below(random, 8)));
      return {"bit flipped", b};
    case 2:
      b.erase(at, 1);
      return {"byte lost", b};
    case 3:
      b.insert(at, 1, static_cast<char>(random()));
      return {"byte added", b};
    case 4:
      b.erase(at, length);
      return {"stretch lost", b};
    case 5:
      b.insert(at, b.substr(random() % b.size(), length));
      return {"stretch copied in", b};
    case 6:
      b.resize(at);
      return {"cut short", b};
    case 7:
      lines.erase(lines.begin() + static_cast<std::ptrdiff_t>(line));
      return {"line lost", joined(lines)};
    case 8:
      lines.insert(lines.begin() + static_cast<std::ptrdiff_t>(line), lines[random() % lines.size()]);
      return {"line copied in", joined(lines)};
    case 9:
      std::swap(lines[line], lines[random() % lines.size()]);
      return {"lines swapped", joined(lines)};
    case 10: {
      static const char* const junk[] = {"n/a", "",    "-",     "#REF!", "1e9", "=1+1",       "\"", "\"\"\"", "12 34",
                                         "NaN", "inf", "1,2,3", "\n",    "\r",  "9999999999", ";",  "\t",     ","};
      b.replace(at, std::min(length, b.size() - at), junk[random() % std::size(junk)]);
      return {"cell overwritten", b};
    }
    case 11:
      std::replace(b.begin(), b.end(), b[at], static_cast<char>("0123456789.,;\t\n \"-"[random() % 18]));
      return {"character replaced throughout", b};
    default:
      for (std::size_t i = 0; i < 1 + length / 3; ++i) b[random() % b.size()] = static_cast<char>(random());
      return {"several bytes changed", b};
  }
}

Judgement judge(const ValidTable& valid, const std::string& damaged) {
  const auto read = exchange::read_sweep_table(damaged, valid.context);
  if (!read) return {Outcome::Refused, read.problem().sentence().empty() ? "refused without a word" : ""};
  const exchange::TableDraft& draft = read.value();
  bool any_missing = false;
  for (std::size_t i = 0; i < draft.raw.size(); ++i) {
    if (std::isnan(draft.raw[i])) {
      any_missing = true;
      continue;
    }
    const auto cell = cell_at(draft.cells, draft.sources[i]);
    const auto number = cell ? plain_number(*cell, draft.decimal_mark) : std::nullopt;
    if (!number || *number != draft.raw[i])
      return {Outcome::Misleading, fmt::format("station {} took {} from a cell that says '{}'", i, draft.raw[i],
                                               cell.value_or("(no cell)"))};
  }
  const bool silent = says_no_more(draft, valid.draft) && draft.decimal_mark == valid.draft.decimal_mark;
  if (!silent) return {Outcome::TakenWithFindings, {}};
  if (!(draft.grid == valid.draft.grid))
    return {Outcome::Misleading, "another grid than planned was taken without a word"};
  for (std::size_t i = 0; i < draft.raw.size(); ++i) {
    if (std::isnan(draft.raw[i]) || draft.raw[i] == valid.truth[i]) continue;
    const auto before = cell_at(valid.draft.cells, valid.draft.sources[i]),
               after = cell_at(draft.cells, draft.sources[i]);
    const bool in_place = draft.sources[i].row == valid.draft.sources[i].row &&
                          draft.sources[i].column == valid.draft.sources[i].column && before != after;
    const bool long_form = draft.form == exchange::TableForm::Long && valid.draft.form == exchange::TableForm::Long;
    if (!in_place && !long_form)
      return {Outcome::Misleading,
              fmt::format("station {} silently took the value of another: {} for {}", i, draft.raw[i], valid.truth[i])};
    if (long_form) {  // the row that names this place must say this value
      bool said = false;
      const auto& row = draft.cells[draft.sources[i].row - 1];
      for (const std::string& cell : row) said = said || plain_number(cell, draft.decimal_mark) == draft.raw[i];
      if (!said)
        return {Outcome::Misleading,
                fmt::format("station {} silently took {} from a row that does not say it", i, draft.raw[i])};
    }
  }
  return {any_missing ? Outcome::TakenWithFindings : Outcome::TakenInFull, {}};
}

}  // namespace sunbreak::damage
