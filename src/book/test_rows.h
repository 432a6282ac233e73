#pragma once

#include <optional>
#include <string>

#include "book/book.h"

namespace sunbreak::book {

/// Reads a test with all that hangs on it; nothing where there is no such test.
std::optional<TestRecord> load_test(const Book& book, Id test_id);

/// Adds a test with all that hangs on it under new ids, as one edit. Returns the new test's id.
Id add_test(Book& book, const TestRecord& record, const std::string& label);

}  // namespace sunbreak::book
