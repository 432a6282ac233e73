#include "book/change.h"

#include <SQLiteCpp/Statement.h>
#include <fmt/format.h>

#include <map>
#include <optional>

#include "book/changeset.h"

namespace sunbreak::book {
namespace {

/// Finds which test a record is part of, also where the records between them went with the same change.
class Owners {
 public:
  explicit Owners(SQLite::Database& db) : db_(db) {}

  void note(const Kind& kind, Id id, Id parent) { noted_[{&kind, id}] = parent; }

  /// The id that a record's parent column holds; nothing where neither the change nor the book tells.
  std::optional<Id> parent_of(const Kind& kind, Id id) {
    if (const auto found = noted_.find({&kind, id}); found != noted_.end()) return found->second;
    SQLite::Statement query(db_, fmt::format("SELECT {} FROM {} WHERE id = ?", kind.parent()->name, kind.name()));
    query.bind(1, id);
    if (!query.executeStep()) return {};
    return noted_[{&kind, id}] = query.getColumn(0).getInt64();
  }

 private:
  SQLite::Database& db_;
  std::map<std::pair<const Kind*, Id>, Id> noted_;
};

}  // namespace

Change change_of(SQLite::Database& db, const std::string& changeset) {
  Change change;
  Owners owners(db);
  for (const ChangedRow& row : rows_of(db, changeset)) {
    const Kind* kind = kind_named(row.table);
    if (!kind) continue;
    change.rows.push_back({kind, row.id});
    if (row.parent) owners.note(*kind, row.id, *row.parent);
  }
  for (const Change::Row& row : change.rows) {
    const Kind* kind = row.kind;
    std::optional<Id> id = row.id;
    if (kind->name() == "sweep") change.sweeps.insert(row.id);
    while (kind && id && kind->parent()) {
      const Kind* parent = kind_named(kind->parent()->refers_to);
      id = owners.parent_of(*kind, *id);
      if (id && parent->name() == "sweep") change.sweeps.insert(*id);
      kind = parent;
    }
    if (kind && kind->name() == "test") {
      if (id) change.tests.insert(*id);
    } else {
      change.shelves.insert(row.kind->name());
    }
  }
  return change;
}

}  // namespace sunbreak::book
