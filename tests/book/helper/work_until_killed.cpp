#include <fmt/format.h>
#include <unistd.h>

#include "book/book.h"
#include "book/log_edits.h"
#include "book/plan.h"
#include "book/test_rows.h"
#include "evaluation/evaluation.h"
#include "exchange/files/new_file.h"
#include "exchange/package/data_package.h"
#include "exchange/package/zip_archive.h"
#include "record/utc.h"

using namespace sunbreak;

namespace {

/// Says on stdout that something was kept; whoever listens is gone: so is this.
void acknowledge(long long number) {
  const std::string line = fmt::format("{}\n", number);
  if (write(STDOUT_FILENO, line.data(), line.size()) < 0) _exit(0);
}

record::LogSample sample_of(long long number) {
  record::LogSample s;
  s.time_s = 1'773'480'000.0 + static_cast<double>(number);
  s.light_raw = 560;
  return s;
}

}  // namespace

/// Does one kind of work after another on a lab book and says each on stdout once it is kept, until it is killed.
/// Arguments: lab book, typing | importing | recording | publishing, test id, sweep id, first number. The number is
/// found again in what was kept: sixteen times a reading, an imported test's door, a sample's second, a file's name.
int main(int argc, char** argv) {
  if (argc != 6) return 2;
  const std::filesystem::path file = argv[1];
  const std::string work = argv[2];
  const record::Id test_id = std::atoll(argv[3]), sweep = std::atoll(argv[4]);
  auto opened = book::Book::open(file);
  if (!opened) {
    fmt::print(stderr, "{}\n", opened.problem().sentence());
    return 3;
  }
  book::Book& lab = *opened.value();
  const record::TestRecord test = book::load_test(lab, test_id).value();
  std::optional<book::LogRecorder> recorder;
  const std::string package = work == "publishing" ? exchange::zip_bytes(exchange::make_package(test)) : std::string();
  for (long long number = std::atoll(argv[5]);; ++number) {
    if (work == "typing") {
      lab.edit("reading", [&](book::Edit& e) {
        e.accept({0, sweep, static_cast<int>(number % 36), static_cast<double>(number) / 16, "typed", book::utc_now()});
      });
    } else if (work == "importing") {
      record::TestRecord brought = test;
      brought.fixture.notes = std::to_string(number);
      book::add_test(lab, brought, "bring in");
    } else if (work == "recording") {
      if (!recorder || recorder->samples().size() >= 40) recorder.emplace(lab, test, "live");
      recorder->add(sample_of(number));
      recorder->keep();
    } else if (const auto problem =
                   exchange::write_new_file(file.parent_path() / fmt::format("{}.zip", number), package)) {
      fmt::print(stderr, "{}\n", problem->sentence());
      return 4;
    }
    acknowledge(number);
  }
}
