#include <gtest/gtest.h>

#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>
#include <cmath>

#include <random>
#include <set>

#include "temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::evaluation;
using namespace sunbreak::book;

namespace {

/// Starts the process that takes readings, kills it after `microseconds`, and returns every value it said it kept.
std::vector<long long> run_and_kill(const std::string& file, Id sweep, long long first, int microseconds) {
  int pipe_ends[2];
  if (pipe(pipe_ends) != 0) return {};
  const pid_t child = fork();
  if (child == 0) {
    dup2(pipe_ends[1], STDOUT_FILENO);
    close(pipe_ends[0]);
    execl(ACCEPT_READINGS, ACCEPT_READINGS, file.c_str(), std::to_string(sweep).c_str(), std::to_string(first).c_str(),
          nullptr);
    _exit(127);
  }
  close(pipe_ends[1]);
  std::string said;
  char chunk[4096];
  // The clock starts with the first reading kept, so that the kill falls among readings and not in the start-up.
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

}  // namespace

TEST(Crash, EveryAcknowledgedReadingOutlivesAKill) {
  TemporaryBook temporary;
  const Id sweep = temporary.add_sweep();
  temporary.close();
  std::mt19937 random(7);
  std::set<long long> acknowledged;
  long long next = 1;
  for (int round = 0; round < 100; ++round) {
    const auto kept = run_and_kill(temporary.file().string(), sweep, next, static_cast<int>(random() % 30'000));
    ASSERT_FALSE(kept.empty()) << "round " << round;
    acknowledged.insert(kept.begin(), kept.end());
    next = kept.back() + 1'000;
  }
  auto book = Book::open(temporary.file());
  ASSERT_TRUE(book.ok()) << book.problem().sentence();
  SQLite::Database raw(temporary.file().string(), SQLite::OPEN_READONLY);
  EXPECT_EQ(raw.execAndGet("PRAGMA integrity_check").getString(), "ok");
  std::set<long long> found;
  for (const Reading& r : book.value()->all<Reading>()) found.insert(std::llround(16 * r.raw));
  for (const long long value : acknowledged)
    ASSERT_TRUE(found.contains(value)) << value << " was acknowledged and is gone";
  EXPECT_GT(acknowledged.size(), 300u);
}
