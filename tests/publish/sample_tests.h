#pragma once

#include <vector>

#include "book/sample_book.h"

namespace sunbreak {

/// The tests of the sample lab book, with all configurations.
inline const std::vector<record::TestRecord>& sample_tests() {
  static const std::vector<record::TestRecord> tests = [] {
    const auto book = std::move(book::Book::open(book::sample_book_file(), book::Book::Mode::ReadOnly).value());
    std::vector<record::TestRecord> all;
    for (const record::Test& test : book->all<record::Test>("WHERE removed = 0"))
      all.push_back(book::load_test(*book, test.id).value());
    return all;
  }();
  return tests;
}

/// A folder that goes with its owner.
class TemporaryFolder {
 public:
  TemporaryFolder() {
    std::string name = (std::filesystem::temp_directory_path() / "sunbreak-publish-XXXXXX").string();
    path_ = mkdtemp(name.data());
  }
  ~TemporaryFolder() { std::filesystem::remove_all(path_); }
  TemporaryFolder(const TemporaryFolder&) = delete;
  const std::filesystem::path& path() const { return path_; }

 private:
  std::filesystem::path path_;
};

}  // namespace sunbreak
