#include "cli/source_test.h"

#include <fmt/format.h>

#include <filesystem>
#include <iostream>

#include "book/test_rows.h"
#include "exchange/package/data_package.h"

namespace sunbreak::cli {

using book::Book;

namespace {

/// The test meant by a number or a name; without one, the only test there is.
Result<record::TestRecord> find_test(const Book& book, const std::string& wanted) {
  std::vector<record::Test> matches;
  for (const record::Test& test : book.all<record::Test>("WHERE removed = 0 ORDER BY id"))
    if (wanted.empty() || test.name == wanted || std::to_string(test.id) == wanted) matches.push_back(test);
  if (matches.empty())
    return Problem{fmt::format("the lab book holds no test '{}'", wanted), "", "see its tests with: sunbreak-cli list"};
  if (matches.size() > 1)
    return Problem{
        wanted.empty() ? "the lab book holds several tests" : fmt::format("several tests are called '{}'", wanted), "",
        "name one by its number from: sunbreak-cli list"};
  return *book::load_test(book, matches.front().id);
}

}  // namespace

Result<record::TestRecord> source_test(const std::string& file, const std::string& test) {
  if (std::filesystem::path(file).extension() == ".zip") return exchange::read_package_file(file);
  auto opened = Book::open(file, Book::Mode::ReadOnly);
  if (!opened) return opened.problem();
  auto found = find_test(*opened.value(), test);
  if (!opened.value()->notice().empty()) std::cerr << opened.value()->notice() << "\n";
  if (found)
    for (const record::Fault& fault : found.value().faults) std::cerr << "set apart: " << fault.words() << "\n";
  return found;
}

std::vector<record::CropTarget> source_targets(const std::string& file) {
  if (std::filesystem::path(file).extension() != ".zip")
    if (auto opened = Book::open(file, Book::Mode::ReadOnly)) return book::crop_targets(*opened.value());
  return evaluation::shipped_targets();
}

}  // namespace sunbreak::cli
