#include "book/connection.h"

#include <SQLiteCpp/Statement.h>
#include <fmt/format.h>
#include <sqlite3.h>

#include <cctype>
#include <map>
#include <set>

#include "book/schema.h"
#include "book/trouble.h"

namespace sunbreak::book {
namespace fs = std::filesystem;
namespace {

std::string uri_of(const fs::path& file) {
  std::string uri = "file:";
  for (const char c : file.string())
    uri += std::isalnum(static_cast<unsigned char>(c)) || std::string_view("/-_.~").find(c) != std::string_view::npos
               ? std::string(1, c)
               : fmt::format("%{:02X}", static_cast<unsigned char>(c));
  return uri;
}

using Columns = std::map<std::string, std::set<std::string>>;  // of each table

/// Plain columns alone: not those that are computed or hidden.
Columns columns_of(const SQLite::Database& db) {
  Columns columns;
  SQLite::Statement query(db,
                          "SELECT m.name, c.name FROM sqlite_schema m JOIN pragma_table_xinfo(m.name) c "
                          "WHERE m.type = 'table' AND m.name NOT LIKE 'sqlite\\_%' ESCAPE '\\' AND c.hidden = 0");
  while (query.executeStep()) columns[query.getColumn(0).getString()].insert(query.getColumn(1).getString());
  return columns;
}

Columns own_columns(int schema) {
  SQLite::Database own(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
  migrate(own, schema);
  return columns_of(own);
}

}  // namespace

std::unique_ptr<SQLite::Database> connect(const std::string& name, int flags, int busy_ms) {
  auto db = std::make_unique<SQLite::Database>(name, flags, busy_ms);
  for (const auto& [setting, on] :
       {std::pair{SQLITE_DBCONFIG_DEFENSIVE, 1}, std::pair{SQLITE_DBCONFIG_TRUSTED_SCHEMA, 0},
        std::pair{SQLITE_DBCONFIG_ENABLE_TRIGGER, 0}, std::pair{SQLITE_DBCONFIG_ENABLE_VIEW, 0},
        std::pair{SQLITE_DBCONFIG_ENABLE_LOAD_EXTENSION, 0}})
    if (sqlite3_db_config(db->getHandle(), setting, on, nullptr) != SQLITE_OK) throw SQLite::Exception(db->getHandle());
  return db;
}

std::unique_ptr<SQLite::Database> connect_read_only(const fs::path& file, int flags) {
  const auto plain = [&] {
    auto db = connect(file.string(), flags);
    db->execAndGet("SELECT count(*) FROM sqlite_master");
    return db;
  };
  try {
    return plain();
  } catch (const SQLite::Exception& e) {
    if (e.getErrorCode() != SQLITE_CANTOPEN && e.getErrorCode() != SQLITE_READONLY) throw;
    std::error_code error;
    const fs::path log = file.string() + "-wal";
    if (const auto log_size = fs::file_size(log, error); !error && log_size > 0)
      throw BookTrouble(
          {fmt::format("the last changes of the lab book {} are in {}, which cannot be read where it lies",
                       file.string(), log.string()),
           "without them it would not be what it was",
           "copy both to a folder of your own and open the lab book there"});
    return connect(uri_of(file) + "?immutable=1", flags | SQLITE_OPEN_URI);
  }
}

std::optional<std::string> foreign_schema(const SQLite::Database& db, int schema) {
  // What the file itself brings is named before any of its tables is looked at.
  SQLite::Statement acts(db,
                         "SELECT CASE WHEN type IN ('trigger', 'view') THEN type ELSE 'computed table' END, name "
                         "FROM sqlite_schema WHERE type IN ('trigger', 'view') OR (type = 'table' AND rootpage = 0)");
  if (acts.executeStep())
    return fmt::format("it brings a {} of its own, '{}'", acts.getColumn(0).getString(), acts.getColumn(1).getString());
  static const Columns newest = own_columns(schema_version());
  const Columns own = schema == schema_version() ? newest : own_columns(schema), found = columns_of(db);
  for (const auto& [table, columns] : own) {
    const auto there = found.find(table);
    if (there == found.end()) return fmt::format("its table {} is not there", table);
    for (const std::string& column : columns)
      if (!there->second.contains(column)) return fmt::format("its table {} has no column {}", table, column);
  }
  return {};
}

}  // namespace sunbreak::book
