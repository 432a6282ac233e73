#include "book/changeset.h"

#define SQLITE_ENABLE_SESSION 1
#define SQLITE_ENABLE_PREUPDATE_HOOK 1
#include <sqlite3.h>

#include <SQLiteCpp/Statement.h>

#include <map>
#include <memory>
#include <stdexcept>

#include "record/kinds.h"

namespace sunbreak::book {
namespace {

void check(int code, const char* doing) {
  if (code != SQLITE_OK) throw std::runtime_error(std::string(doing) + ": " + sqlite3_errstr(code));
}

struct FreeBySqlite {
  void operator()(void* memory) const { sqlite3_free(memory); }
};
using Buffer = std::unique_ptr<void, FreeBySqlite>;

}  // namespace

std::string record_changeset(SQLite::Database& db, const std::function<void()>& change) {
  sqlite3_session* raw = nullptr;
  check(sqlite3session_create(db.getHandle(), "main", &raw), "watch the lab book");
  const std::unique_ptr<sqlite3_session, void (*)(sqlite3_session*)> session(raw, sqlite3session_delete);
  for (const record::Kind& kind : record::kinds())
    if (kind.facts.undoable) check(sqlite3session_attach(session.get(), kind.facts.name), "watch a table");
  change();
  int size = 0;
  void* bytes = nullptr;
  check(sqlite3session_changeset(session.get(), &size, &bytes), "note the change");
  const Buffer owned(bytes);
  return {static_cast<const char*>(bytes), static_cast<std::size_t>(size)};
}

namespace {

/// Where a column stands in its table; the id is always the first.
int place_of(SQLite::Database& db, const std::string& table, const std::string& column) {
  SQLite::Statement query(db, "SELECT cid FROM pragma_table_info(?) WHERE name = ?");
  query.bind(1, table);
  query.bind(2, column);
  return query.executeStep() ? query.getColumn(0).getInt() : -1;
}

std::optional<std::int64_t> whole_number(sqlite3_value* value) {
  if (!value || sqlite3_value_type(value) != SQLITE_INTEGER) return {};
  return sqlite3_value_int64(value);
}

}  // namespace

std::vector<ChangedRow> rows_of(SQLite::Database& db, const std::string& changeset) {
  sqlite3_changeset_iter* raw = nullptr;
  check(sqlite3changeset_start(&raw, static_cast<int>(changeset.size()), const_cast<char*>(changeset.data())),
        "look at the change");
  const std::unique_ptr<sqlite3_changeset_iter, int (*)(sqlite3_changeset_iter*)> iter(raw, sqlite3changeset_finalize);
  std::vector<ChangedRow> rows;
  std::map<std::string, int, std::less<>> parent_places;
  while (sqlite3changeset_next(raw) == SQLITE_ROW) {
    const char* table = nullptr;
    int columns = 0, operation = 0;
    check(sqlite3changeset_op(raw, &table, &columns, &operation, nullptr), "look at the change");
    auto place = parent_places.find(std::string_view(table));
    if (place == parent_places.end()) {
      const record::Kind* kind = record::kind_named(table);
      const record::Column* parent = kind ? kind->parent() : nullptr;
      place = parent_places.emplace(table, parent ? place_of(db, table, parent->name) : -1).first;
    }
    const auto value_at = operation == SQLITE_INSERT ? sqlite3changeset_new : sqlite3changeset_old;
    sqlite3_value* value = nullptr;
    ChangedRow row{table, 0, {}};
    check(value_at(raw, 0, &value), "look at the change");
    row.id = whole_number(value).value_or(0);
    value = nullptr;
    if (place->second >= 0 && value_at(raw, place->second, &value) == SQLITE_OK) row.parent = whole_number(value);
    rows.push_back(std::move(row));
  }
  return rows;
}

void apply_changeset(SQLite::Database& db, const std::string& changeset, bool inverted) {
  std::string bytes = changeset;
  if (inverted) {
    int size = 0;
    void* inverse = nullptr;
    check(sqlite3changeset_invert(static_cast<int>(bytes.size()), bytes.data(), &size, &inverse),
          "turn the change round");
    const Buffer owned(inverse);
    bytes.assign(static_cast<const char*>(inverse), static_cast<std::size_t>(size));
  }
  const auto give_up = [](void*, int, sqlite3_changeset_iter*) { return SQLITE_CHANGESET_ABORT; };
  check(sqlite3changeset_apply(db.getHandle(), static_cast<int>(bytes.size()), bytes.data(), nullptr, give_up, nullptr),
        "apply the change");
}

}  // namespace sunbreak::book
