#include <SQLiteCpp/Statement.h>
#include <fmt/format.h>

#include <map>

#include "book/book.h"
#include "book/row_mapping.h"

namespace sunbreak::book {
namespace {

/// The record that a row is in the end part of: a test, or what stands on a shelf. Where a row between them is gone,
/// that is as far as it can be told.
std::pair<const Kind*, Id> owner_of(const SQLite::Database& db, const Kind* kind, Id id) {
  while (const Column* parent = kind->parent()) {
    SQLite::Statement query(db, fmt::format("SELECT {} FROM {} WHERE id = ?", parent->name, kind->name()));
    query.bind(1, id);
    if (!query.executeStep()) break;
    id = query.getColumn(0).getInt64();
    kind = kind_named(parent->refers_to);
  }
  return {kind, id};
}

/// "test 3 'Ostler at 60'" or "meter 2".
std::string owner_words(const SQLite::Database& db, const Kind& kind, Id id) {
  std::string words = fmt::format("{} {}", kind.name(), id);
  if (!kind.column("name")) return words;
  SQLite::Statement query(db, fmt::format("SELECT name FROM {} WHERE id = ?", kind.name()));
  query.bind(1, id);
  if (query.executeStep() && query.getColumn(0).getBytes() > 0)
    words += fmt::format(" '{}'", query.getColumn(0).getString());
  return words;
}

}  // namespace

std::string Book::damage_words(const std::stop_token& stop) const {
  std::map<std::pair<const Kind*, Id>, int> owners;
  for (const auto& [name, id] : damaged_rows(*db_, stop)) ++owners[owner_of(*db_, kind_named(name), id)];
  if (owners.empty()) return {};
  constexpr std::size_t most_named = 4;
  std::string words;
  std::size_t named = 0;
  for (const auto& [owner, rows] : owners)
    if (named++ < most_named)
      words += fmt::format("{}{} ({} {})", words.empty() ? "" : ", ", owner_words(*db_, *owner.first, owner.second),
                           rows, rows == 1 ? "row" : "rows");
  if (owners.size() > most_named) words += fmt::format(" and {} more", owners.size() - most_named);
  const auto backup = newest_sound_backup(file_);
  return fmt::format(
      "The lab book's file has changed by itself or by another program. Not as it was written: {}. What that would "
      "enter "
      "is set apart and in no figure. {}",
      words,
      backup ? fmt::format("The newest backup of before is {}.", backup->string())
             : "No backup of before was found beside it.");
}

}  // namespace sunbreak::book
