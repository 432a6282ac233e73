#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>
#include <gtest/gtest.h>

#include <map>
#include <set>

#include "book/schema.h"
#include "temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::book;

namespace {

/// Type and "not null" of each column of each table.
std::map<std::string, std::string> columns_of(SQLite::Database& db) {
  std::map<std::string, std::string> columns;
  SQLite::Statement tables(db, "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'");
  while (tables.executeStep()) {
    const std::string table = tables.getColumn(0).getString();
    SQLite::Statement info(db, "SELECT name, type, \"notnull\" FROM pragma_table_info('" + table + "')");
    while (info.executeStep())
      columns[table + "." + info.getColumn(0).getString()] =
          info.getColumn(1).getString() + (info.getColumn(2).getInt() ? " NOT NULL" : "");
  }
  return columns;
}

/// A row in every table of an earlier book, by the columns it has: numbers 1, texts "t".
void fill(SQLite::Database& db) {
  std::map<std::string, std::map<std::string, std::string>> tables;
  for (const auto& [name, type] : columns_of(db)) {
    const auto dot = name.find('.');
    tables[name.substr(0, dot)][name.substr(dot + 1)] = type;
  }
  db.exec("PRAGMA foreign_keys = OFF");
  for (const auto& [table, columns] : tables) {
    if (table == "edit_log" || table == "crop_target") continue;
    std::string names, values;
    for (const auto& [column, type] : columns) {
      names += (names.empty() ? "" : ", ") + column;
      values += (values.empty() ? "" : ", ") + std::string(type.starts_with("TEXT")   ? "'t'"
                                                           : type.starts_with("BLOB") ? "x'00'"
                                                                                      : "1");
    }
    db.exec(fmt::format("INSERT INTO {}({}) VALUES({})", table, names, values));
  }
}

}  // namespace

TEST(Migration, ABookOfEveryEarlierSchemaBecomesWhatANewOneIs) {
  SQLite::Database fresh(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
  migrate(fresh);
  const auto wanted = columns_of(fresh);
  for (int version = 1; version < schema_version(); ++version) {
    TemporaryBook folder;
    folder.close();
    std::filesystem::remove(folder.file());
    std::map<std::string, std::string> before;
    {
      SQLite::Database old(folder.file().string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
      migrate(old, version);
      fill(old);
      before = columns_of(old);
    }
    folder.open();
    {
      SQLite::Database now(folder.file().string(), SQLite::OPEN_READONLY);
      EXPECT_EQ(columns_of(now), wanted) << "from schema " << version;
    }
    const TestRecord record = folder.test_record(1);
    EXPECT_EQ(record.fixture.name, "t") << version;
    EXPECT_EQ(record.readings.size(), 1u);
    EXPECT_EQ(record.placements.size(), 1u);
    EXPECT_EQ(record.wall_readings.size(), 1u);
    EXPECT_EQ(record.wall_readings[0].power_w, 1);
    // What came later holds what the kind says earlier rows hold.
    const Kind& test = kind_of<record::Test>();
    const std::set<std::string> moved{"unit_columns", "unit_spacing_x_m", "unit_tilt_deg"};  // were the fixture's
    for (const Column& c : test.columns)
      if (!before.contains("test." + c.name) && !moved.contains(c.name)) {
        EXPECT_EQ(c.get(&record.test), c.before) << "test." << c.name << " from schema " << version;
      }
    if (before.contains("fixture.unit_spacing_m")) {
      EXPECT_EQ(record.test.unit_spacing_x_m, 1) << version;
      EXPECT_EQ(record.test.unit_tilt_deg, 1) << version;
    }
    EXPECT_EQ(folder->all<CropTarget>().empty(), false) << "the shelf of targets is filled, from schema " << version;
  }
}

TEST(Migration, TheTablesHaveTheColumnsOfTheirKinds) {
  SQLite::Database fresh(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
  migrate(fresh);
  std::set<std::string> there;
  for (const auto& [name, type] : columns_of(fresh)) there.insert(name);
  std::set<std::string> described;
  for (const Kind& kind : kinds()) {
    for (const char* own : {".id", ".row_sum"}) described.insert(std::string(kind.name()) + own);
    for (const Column& c : kind.columns) described.insert(std::string(kind.name()) + "." + c.name);
  }
  std::erase_if(there, [](const std::string& name) {
    return name.starts_with("edit_log.") || name.starts_with("picture_file.") || name.starts_with("content_token.");
  });
  EXPECT_EQ(there, described);
}

TEST(Migration, ABookWhoseSchemaIsNotSaidIsLeftAsItIs) {
  TemporaryBook folder;
  const Id sweep = folder.add_sweep();
  folder.read(sweep, 0, 400);
  folder.close();
  const auto say_schema = [&](int version) {
    SQLite::Database db(folder.file().string(), SQLite::OPEN_READWRITE);
    db.exec(fmt::format("PRAGMA user_version = {}", version));
  };
  say_schema(0);
  EXPECT_FALSE(Book::open(folder.file()).ok()) << "a new book is not laid over it";
  say_schema(schema_version());
  folder.open();
  ASSERT_EQ(folder->all<Reading>().size(), 1u);
  EXPECT_EQ(folder->all<Reading>()[0].raw, 400);
}
