#pragma once

#include <filesystem>
#include <memory>

#include "book/book.h"
#include "book/plan.h"
#include "book/test_rows.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::book {

/// A lab book in a folder of its own that goes with it.
class TemporaryBook {
 public:
  TemporaryBook() {
    std::string name = (std::filesystem::temp_directory_path() / "sunbreak-XXXXXX").string();
    folder_ = mkdtemp(name.data());
    open();
  }
  ~TemporaryBook() {
    close();
    std::filesystem::remove_all(folder_);
  }
  void open() { book_ = std::move(Book::open(file()).value()); }
  void close() { book_.reset(); }
  Book& operator*() { return *book_; }
  Book* operator->() { return book_.get(); }
  const std::filesystem::path& folder() const { return folder_; }
  std::filesystem::path file() const { return folder_ / "book.sunbreak"; }

  Id add_test() { return new_test(*book_); }
  TestRecord test_record(Id test) { return load_test(*book_, test).value(); }

  /// A new test's only sweep.
  Id add_sweep() {
    const TestRecord b = test_record(add_test());
    Id id = 0;
    book_->edit("sweep", [&](Edit& e) { id = sweep_for(e, b, b.rungs[0].id, b.stops[0].id).id; });
    return id;
  }
  void read(Id sweep, int station, double raw) {
    book_->edit("reading", [&](Edit& e) { e.accept({0, sweep, station, raw, "typed", utc_now()}); });
  }

 private:
  std::filesystem::path folder_;
  std::unique_ptr<Book> book_;
};

}  // namespace sunbreak::book
