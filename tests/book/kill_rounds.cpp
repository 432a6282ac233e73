#include "book/kill_rounds.h"

#include <fmt/format.h>
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cmath>
#include <fstream>
#include <random>
#include <set>

#include "book/temporary_book.h"
#include "evaluation/wall_log.h"
#include "exchange/package/data_package.h"
#include "exchange/package/zip_archive.h"

namespace sunbreak::book {
namespace {

namespace fs = std::filesystem;

/// Starts the process, kills it after `microseconds`, and returns every number it said it kept.
std::vector<long long> run_and_kill(const std::vector<std::string>& arguments, int microseconds) {
  int pipe_ends[2];
  if (pipe(pipe_ends) != 0) return {};
  const pid_t child = fork();
  if (child == 0) {
    dup2(pipe_ends[1], STDOUT_FILENO);
    close(pipe_ends[0]);
    std::vector<char*> argv{const_cast<char*>(WORK_UNTIL_KILLED)};
    for (const std::string& a : arguments) argv.push_back(const_cast<char*>(a.c_str()));
    argv.push_back(nullptr);
    execv(WORK_UNTIL_KILLED, argv.data());
    _exit(127);
  }
  close(pipe_ends[1]);
  std::string said;
  char chunk[4096];
  // The clock starts with the first thing kept, so that the kill falls among the work and not in the start-up.
  if (const ssize_t n = read(pipe_ends[0], chunk, sizeof chunk); n > 0) said.append(chunk, static_cast<std::size_t>(n));
  usleep(static_cast<useconds_t>(microseconds));
  kill(child, SIGKILL);
  for (ssize_t n; (n = read(pipe_ends[0], chunk, sizeof chunk)) > 0;) said.append(chunk, static_cast<std::size_t>(n));
  close(pipe_ends[0]);
  waitpid(child, nullptr, 0);
  std::vector<long long> kept;
  for (std::size_t from = 0, at; (at = said.find('\n', from)) != std::string::npos; from = at + 1)
    kept.push_back(std::stoll(said.substr(from, at - from)));
  return kept;
}

/// Every number that is found again in the lab book or beside it; `broken` takes what is there by half.
std::set<long long> found_again(const std::string& work, const fs::path& file, Id test, std::string& broken) {
  std::set<long long> found;
  if (work == "publishing") {
    const std::string whole =
        exchange::zip_bytes(exchange::make_package(load_test(*Book::open(file).value(), test).value()));
    for (const auto& entry : fs::directory_iterator(file.parent_path())) {
      if (entry.path().extension() != ".zip" || entry.path().filename().string().starts_with('.')) continue;
      std::ifstream in(entry.path(), std::ios::binary);
      if (std::string(std::istreambuf_iterator<char>(in), {}) != whole)
        broken = entry.path().filename().string() + " is half a file";
      found.insert(std::stoll(entry.path().stem().string()));
    }
    return found;
  }
  auto opened = Book::open(file);
  if (!opened) {
    broken = opened.problem().sentence();
    return found;
  }
  Book& book = *opened.value();
  SQLite::Database raw(file.string(), SQLite::OPEN_READONLY);
  if (const auto sound = raw.execAndGet("PRAGMA integrity_check").getString(); sound != "ok") broken = sound;
  if (work == "typing")
    for (const Reading& r : book.all<Reading>()) found.insert(std::llround(16 * r.raw));
  if (work == "recording")
    for (const auto& s : evaluation::wall_log(load_test(book, test).value()).samples)
      found.insert(std::llround(s.time_s - 1'773'480'000.0));
  if (work == "importing")
    for (const record::Test& t : book.all<record::Test>()) {
      if (t.id == test) continue;
      const TestRecord brought = load_test(book, t.id).value();
      if (brought.placements.size() != 36 || brought.readings.size() != 36) broken = "half a test was brought in";
      found.insert(std::stoll(brought.fixture.notes));
    }
  return found;
}

}  // namespace

KillRounds work_and_kill(const std::string& work, int kills, unsigned seed) {
  TemporaryBook temporary;
  const Id sweep = temporary.add_sweep();
  const Id test = temporary->all<record::Test>().front().id;
  temporary->edit("readings", [&](Edit& e) {
    for (int i = 0; i < 36; ++i) e.accept({0, sweep, i, 400.0 + i, "typed", utc_now()});
  });
  temporary.close();
  KillRounds rounds;
  std::mt19937 random(seed);
  std::set<long long> acknowledged;
  long long next = 1;
  for (int round = 0; round < kills; ++round) {
    const auto kept = run_and_kill(
        {temporary.file().string(), work, std::to_string(test), std::to_string(sweep), std::to_string(next)},
        static_cast<int>(random() % 30'000));
    if (kept.empty()) {
      rounds.shortcoming = fmt::format("round {}: nothing was kept", round);
      return rounds;
    }
    ++rounds.kills;
    acknowledged.insert(kept.begin(), kept.end());
    // A reading is a sixteenth of its number, and light goes to 20 000; what was cut off may have used numbers.
    next = kept.back() + 100;
  }
  rounds.acknowledged = static_cast<long long>(acknowledged.size());
  const auto found = found_again(work, temporary.file(), test, rounds.shortcoming);
  for (const long long number : acknowledged)
    if (!found.contains(number)) rounds.shortcoming = fmt::format("{} was acknowledged and is gone", number);
  return rounds;
}

}  // namespace sunbreak::book
