#include "book/test_rows.h"

#include <fmt/format.h>

#include "record/renumber.h"

namespace sunbreak::book {
namespace {

/// The SQL condition that holds for the rows of a kind that belong to the test ?1.
std::string within_test(const Kind& kind) {
  if (kind.name() == "test") return "id = ?1";
  if (const Column* parent = kind.parent()) {
    if (parent->refers_to == "test") return parent->name + " = ?1";
    return fmt::format("{} IN (SELECT id FROM {} WHERE {})", parent->name, parent->refers_to,
                       within_test(*kind_named(parent->refers_to)));
  }
  std::string named;  // what stands by itself belongs to the tests that name it
  for (const Column& column : kind_of<Test>().columns)
    if (column.refers_to == kind.name())
      named += fmt::format("{}SELECT {} FROM test WHERE id = ?1", named.empty() ? "" : " UNION ", column.name);
  return fmt::format("id IN ({})", named);
}

}  // namespace

std::optional<TestRecord> load_test(const Book& book, Id test_id) {
  if (!book.find<Test>(test_id)) return {};
  TestRecord record;
  for (TableRows& rows : tables_of(record))
    book.read(rows.kind(), fmt::format("WHERE {} ORDER BY {}", within_test(rows.kind()), rows.kind().facts.order),
              test_id, [&] { return rows.add(); });
  return record;
}

Id add_test(Book& book, const TestRecord& record, const std::string& label) {
  TestRecord copy = record;
  book.edit(label, [&](Edit& edit) {
    renumber(copy, [&](const Kind& kind, void* row) {
      kind.id(row) = 0;
      return edit.add(kind, row);
    });
  });
  return copy.test.id;
}

}  // namespace sunbreak::book
