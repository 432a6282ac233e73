#include <fmt/format.h>
#include <unistd.h>

#include "book/book.h"

using namespace sunbreak;

/// Takes readings into a lab book one after another and says each on stdout once it is kept, until it is killed.
/// Arguments: lab book, sweep id, first value. What is kept is a sixteenth of it, so that it stays light that can be.
int main(int argc, char** argv) {
  if (argc != 4) return 2;
  auto book = book::Book::open(argv[1]);
  if (!book) {
    fmt::print(stderr, "{}\n", book.problem().sentence());
    return 3;
  }
  const record::Id sweep = std::atoll(argv[2]);
  for (long long value = std::atoll(argv[3]);; ++value) {
    book.value()->edit("reading", [&](book::Edit& e) {
      e.accept({0, sweep, static_cast<int>(value % 144), static_cast<double>(value) / 16, "typed", book::utc_now()});
    });
    const std::string line = fmt::format("{}\n", value);
    if (write(STDOUT_FILENO, line.data(), line.size()) < 0) return 0;
  }
}
