#include "exchange/package/package_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>
#include <stdexcept>

#include "exchange/tables/utf8.h"

namespace sunbreak::exchange {

PackageTable::PackageTable(std::string_view table, const std::string& csv) : table_(table) {
  if (const auto bad = first_not_utf8(csv))
    throw std::runtime_error(fmt::format("{}.csv, line {}: bytes that are not UTF-8", table_,
                                         1 + std::count(csv.begin(), csv.begin() + std::ptrdiff_t(*bad), '\n')));
  rows_ = split_verbatim(csv);
  if (rows_.empty()) throw std::runtime_error(fmt::format("{}.csv is empty", table_));
  std::set<std::string> names;
  for (const std::string& name : rows_[0])
    if (!names.insert(name).second)
      throw std::runtime_error(fmt::format("{}.csv has two columns '{}'", table_, name.substr(0, 40)));
}

std::optional<std::size_t> PackageTable::find(const std::string& column) const {
  const auto found = std::find(rows_[0].begin(), rows_[0].end(), column);
  return found == rows_[0].end() ? std::nullopt : std::optional(static_cast<std::size_t>(found - rows_[0].begin()));
}

std::size_t PackageTable::at(const std::string& column) const {
  if (const auto found = find(column)) return *found;
  throw std::runtime_error(fmt::format("{}.csv has no column '{}'", table_, column));
}

bool PackageTable::next() {
  while (++row_ < rows_.size() && rows_[row_].empty()) {
  }
  if (row_ >= rows_.size()) return false;
  if (rows_[row_].size() != rows_[0].size())
    throw std::runtime_error(
        fmt::format("{}.csv, row {}: {} cells, not {}", table_, row(), rows_[row_].size(), rows_[0].size()));
  return true;
}

void PackageTable::refuse(std::size_t at) const {
  throw std::runtime_error(fmt::format("{}.csv, row {}, column {}: '{}' cannot be read", table_, row(), rows_[0][at],
                                       cell(at).substr(0, 40)));
}

}  // namespace sunbreak::exchange
