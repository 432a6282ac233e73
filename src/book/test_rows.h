#pragma once

#include <optional>
#include <string>
#include <vector>

#include "book/book.h"
#include "record/picture_files.h"

namespace sunbreak::book {

/// Reads a test with all that hangs on it; nothing where there is no such test.
std::optional<TestRecord> load_test(const Book& book, Id test_id);

/// What is needed of a sweep to lay it out and correct it, without the rest of its test; nothing where there is no such
/// sweep.
std::optional<TestRecord> load_sweep(const Book& book, Id sweep_id);

/// The test that one says it repeats, as it comes; nothing where it says none, or this lab book has not got it.
std::optional<TestRecord> earlier_test(const Book& book, const Test& retest);

/// Tests of fixtures that are such lamps as the fixture of a test is claimed to stand in for, as they come; empty where
/// nothing of the kind is claimed, or none was tested.
std::vector<TestRecord> lamps_claimed(const Book& book, const TestRecord& test);

/// Makes a test a retest of another, `unit` being "same" or "another"; or of none, where `earlier_id` is 0.
void make_retest(Edit& edit, const Book& book, Test test, Id earlier_id, const std::string& unit);

/// All lux factors of the shelf, each with the name that the fixture it was found under has now.
std::vector<FittedLuxFactor> lux_factors_on_shelf(const Book& book);

/// How many stations of a test are read or declared missing: how large it is, told without reading it.
int readings_of(const Book& book, Id test_id);

/// Brings a test's record to what the book holds after a change, reading only what it touched; one that is narrowed to
/// a configuration stays so. False, and the record is of no use, where the test is gone.
bool refresh_test(TestRecord& record, const Book& book, const Change& change);

/// Adds a test with all that hangs on it under new ids, as one edit, with the files of its pictures. A fixture, bench
/// or meter that the book has already, alike in all that is told of it, stays the one it is. Returns the new test's id.
Id add_test(Book& book, const TestRecord& record, const std::string& label, const PictureFiles& pictures = {});

}  // namespace sunbreak::book
