#include "book/changeset.h"

#define SQLITE_ENABLE_SESSION 1
#define SQLITE_ENABLE_PREUPDATE_HOOK 1
#include <sqlite3.h>

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
