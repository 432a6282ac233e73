#include <fmt/format.h>
#include <sys/resource.h>

#include <cstdlib>

#include "doors/doors.h"

using namespace sunbreak::doors;

/// `./sunbreak study doors`: 20,000 packages, 5,000 tables, logs, stairs and scenes, 2,000 lab books, built with the
/// sanitizers. Fixed seeds; what falls short is printed. With a part and a seed, that case alone, in this process.
int main(int argc, char** argv) {
  struct Part {
    const char* name;
    int cases;
    std::uint64_t seed;
    Case (*run)(Random&);
  };
  Tally tally;
  for (const Part& part : {Part{"packages", 20'000, 10'000'000, package_case},
                           Part{"texts", 5'000, 20'000'000, text_case}, Part{"books", 2'000, 30'000'000, book_case}}) {
    if (argc > 1 && std::string_view(argv[1]) != part.name) continue;
    if (argc > 2) {
      Random random(std::strtoull(argv[2], nullptr, 10));
      tally.add(part.run(random));
    } else {
      run_cases(tally, part.name, part.cases, part.seed, part.run);
    }
  }
  tally.print();
  rusage use{};
  getrusage(RUSAGE_CHILDREN, &use);
  fmt::print("most memory of a process: {} MB, the sanitizers' own among it\n", use.ru_maxrss / 1024);
  return tally.falls_short() ? 1 : 0;
}
