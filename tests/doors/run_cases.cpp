#include <fmt/format.h>
#include <sys/resource.h>
#include <sys/time.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <cstdio>
#include <cstdlib>

#include "doors/doors.h"

namespace sunbreak::doors {
namespace {

constexpr int cases_a_process = 250, seconds_a_case = 10;
constexpr std::size_t shortcomings_kept = 12;

const char* words(Outcome outcome) {
  switch (outcome) {
    case Outcome::RefusedWithPlace:
      return "refused, place named";
    case Outcome::Taken:
      return "taken";
    case Outcome::SetApart:
      return "set apart";
    case Outcome::RefusedWithoutPlace:
      return "REFUSED WITHOUT PLACE";
    case Outcome::RefusedSound:
      return "SOUND, YET REFUSED";
    case Outcome::TookImpossible:
      return "TOOK THE IMPOSSIBLE";
  }
  return "";
}

/// Ends this process where a case computes for longer than it may, or, waiting for something, takes six times as long:
/// how much of the processor others leave it is not the case's doing.
void limit_case() {
  const itimerval computing{{0, 0}, {seconds_a_case, 0}};
  setitimer(ITIMER_PROF, &computing, nullptr);
  alarm(6 * seconds_a_case);
}

bool short_of(Outcome outcome) {
  return outcome == Outcome::RefusedWithoutPlace || outcome == Outcome::RefusedSound ||
         outcome == Outcome::TookImpossible;
}

}  // namespace

void Tally::add(const Case& c) {
  ++families[c.family][c.outcome];
  if (!short_of(c.outcome)) return;
  if (std::count(shortcomings.begin(), shortcomings.end(), '\n') < static_cast<std::ptrdiff_t>(shortcomings_kept))
    shortcomings += fmt::format("{}: {}: {}\n", c.family, words(c.outcome), c.what);
}

bool Tally::falls_short() const {
  if (!died.empty()) return true;
  for (const auto& [family, outcomes] : families)
    for (const auto& [outcome, count] : outcomes)
      if (short_of(outcome)) return true;
  return false;
}

void Tally::print() const {
  for (const auto& [family, outcomes] : families)
    for (const auto& [outcome, count] : outcomes) fmt::print("{:<34} {:<24} {:>7}\n", family, words(outcome), count);
  for (const auto& [family, count] : died) fmt::print("{:<34} {:<24} {:>7}\n", family, "CRASHED OR HUNG", count);
  fmt::print("{}", shortcomings);
}

void run_cases(Tally& tally, const std::string& name, int cases, std::uint64_t seed, Case (*run)(Random&)) {
  for (int done = 0; done < cases;) {
    const int now = std::min(cases_a_process, cases - done);
    int ends[2];
    if (pipe(ends) != 0) return;
    const pid_t child = fork();
    if (child == 0) {
      close(ends[0]);
      FILE* out = fdopen(ends[1], "w");
      for (int i = 0; i < now; ++i) {
        Random random(seed + static_cast<std::uint64_t>(done + i));
        limit_case();
        const Case c = run(random);
        std::string what = c.what.substr(0, 400);
        for (char& letter : what)
          if (letter == '\n' || letter == '\t' || letter == '\0') letter = ' ';
        fmt::print(out, "{}\t{}\t{}\n", c.family, static_cast<int>(c.outcome), what);
        std::fflush(out);
      }
      std::fclose(out);
      _exit(0);
    }
    close(ends[1]);
    FILE* in = fdopen(ends[0], "r");
    int told = 0;
    char line[1024];
    while (std::fgets(line, sizeof line, in)) {
      std::string text(line);
      const auto first = text.find('\t'), second = text.find('\t', first + 1);
      if (second == std::string::npos) continue;
      ++told;
      tally.add({text.substr(0, first), text.substr(second + 1, text.size() - second - 2),
                 static_cast<Outcome>(std::atoi(text.c_str() + first + 1))});
    }
    std::fclose(in);
    int status = 0;
    waitpid(child, &status, 0);
    if (told < now) {
      ++tally.died[name];
      const std::string how = !WIFSIGNALED(status) ? fmt::format("code {}", WEXITSTATUS(status))
                              : WTERMSIG(status) == SIGALRM || WTERMSIG(status) == SIGPROF
                                  ? "over time"
                                  : fmt::format("signal {}", WTERMSIG(status));
      tally.shortcomings += fmt::format("{}: the case of seed {} ended the process ({})\n", name,
                                        seed + static_cast<std::uint64_t>(done + told), how);
      ++told;  // the one that ended it
    }
    done += told;
  }
}

int run_trial(std::span<const Part> parts, int argc, char** argv) {
  Tally tally;
  for (const Part& part : parts) {
    if (argc > 1 && std::string_view(argv[1]) != part.name) continue;
    if (argc > 2) {
      Random random(std::strtoull(argv[2], nullptr, 10));
      tally.add(part.run(random));
    } else {
      run_cases(tally, part.name, part.cases, part.seed, part.run);
    }
  }
  tally.print();
  return tally.falls_short() ? 1 : 0;
}

}  // namespace sunbreak::doors
