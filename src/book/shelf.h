#pragma once

#include <algorithm>
#include <string>
#include <vector>

#include "book/book.h"
#include "core/text/natural_order.h"

namespace sunbreak::book {

/// What stands on the shelf of a kind, by name as a person would look for it. `also` is a further SQL condition:
/// " AND kind = 'wall'".
template <typename Record>
std::vector<Record> on_shelf(const Book& book, const std::string& also = "") {
  auto rows = book.all<Record>("WHERE removed = 0" + also + " ORDER BY id");
  std::ranges::stable_sort(rows, natural_before, &Record::name);
  return rows;
}

}  // namespace sunbreak::book
