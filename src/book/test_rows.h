#pragma once

#include <optional>
#include <string>

#include "book/book.h"

namespace sunbreak::book {

/// Reads a test with all that hangs on it; nothing where there is no such test.
std::optional<TestRecord> load_test(const Book& book, Id test_id);

/// How many stations of a test are read or declared missing: how large it is, told without reading it.
int readings_of(const Book& book, Id test_id);

/// Brings a test's record to what the book holds after a change, reading only what it touched. False, and the record
/// is of no use, where the test is gone.
bool refresh_test(TestRecord& record, const Book& book, const Change& change);

/// Adds a test with all that hangs on it under new ids, as one edit. Returns the new test's id.
Id add_test(Book& book, const TestRecord& record, const std::string& label);

}  // namespace sunbreak::book
