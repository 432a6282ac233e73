#include <fmt/format.h>
#include <sys/resource.h>

#include "doors/doors.h"

using namespace sunbreak::doors;

/// `./sunbreak study doors`: 20,000 packages, 5,000 tables, logs, stairs and scenes, 2,000 lab books, built with the
/// sanitizers. Fixed seeds; what falls short is printed.
int main(int argc, char** argv) {
  const Part parts[] = {{"packages", 20'000, 10'000'000, package_case},
                        {"texts", 5'000, 20'000'000, text_case},
                        {"books", 2'000, 30'000'000, book_case}};
  const int status = run_trial(parts, argc, argv);
  rusage use{};
  getrusage(RUSAGE_CHILDREN, &use);
  fmt::print("most memory of a process: {} MB, the sanitizers' own among it\n", use.ru_maxrss / 1024);
  return status;
}
