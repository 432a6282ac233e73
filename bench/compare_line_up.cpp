#include <fmt/format.h>

#include <chrono>
#include <cmath>
#include <filesystem>

#include "array_file.h"
#include "gathering/line_up_request.h"
#include "gathering/line_up_work.h"
#include "gathering/members.h"
#include "many_tests.h"
#include "peer.h"

using namespace sunbreak;
using bench::json;
namespace fs = std::filesystem;

namespace {

constexpr int tests = 2000, first_evaluated = 200, rounds = 9, peer_rounds = 3;

double milliseconds_since(std::chrono::steady_clock::time_point begun) {
  return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begun).count();
}

/// Standings as a table that NumPy can work on: values, own variances, bias, and a column for each source.
void add_table(bench::ArrayFile& arrays, const std::vector<Standing>& standings) {
  std::uint32_t sources = 0;
  for (const Standing& s : standings)
    for (const SharedPart& p : s.shared) sources = std::max(sources, p.source + 1);
  std::vector<double> value, own, bias, shared(standings.size() * sources, 0);
  for (std::size_t i = 0; i < standings.size(); ++i) {
    value.push_back(standings[i].value), own.push_back(standings[i].own_variance + standings[i].between_variance),
        bias.push_back(standings[i].bias);
    for (const SharedPart& p : standings[i].shared) shared[i * sources + p.source] = p.standard;
  }
  arrays.add("value", value, {value.size()});
  arrays.add("own", own, {own.size()});
  arrays.add("bias", bias, {bias.size()});
  arrays.add("shared", shared, {standings.size(), sources});
}

}  // namespace

/// 2,000 tests in a line-up: what the first evaluation takes, what opening from the cache and sorting by another figure
/// take, and the ranking with its intervals by ours and by NumPy on the same table.
int main(int argc, char** argv) {
  if (argc != 2) return 2;
  const fs::path folder = fs::temp_directory_path() / fmt::format("sunbreak-line-up-{}", getpid());
  fs::create_directory(folder);
  int status = 0;
  try {
    const fs::path book = folder / "many.sunbreak";
    bench::make_many_tests(book, tests);
    record::SavedLineUp asked;
    asked.figure = "mean_ppfd";
    const auto entrants_now = [&] { return gathering::entrants_of(*book::Book::read_beside(book)); };
    const auto entrants = entrants_now();
    const auto ready = gathering::ready_line_up(asked, entrants, {}).value();

    const std::vector<evaluation::Entrant> first(entrants.begin(), entrants.begin() + first_evaluated);
    gathering::EntryStore fresh;
    auto begun = std::chrono::steady_clock::now();
    gathering::fill_entries(first, ready.question, book, fresh, UnitSystem::Metric, {}, {}, 1);
    const double a_test_ms = milliseconds_since(begun) / first_evaluated;
    fmt::print("line-up-first-test {:.1f} 40.0 {:.1f}\n", a_test_ms, 40 / a_test_ms);
    gathering::EntryStore all;
    begun = std::chrono::steady_clock::now();
    gathering::fill_entries(entrants, ready.question, book, all);
    const double filled_ms = milliseconds_since(begun);

    std::vector<double> open_ms, sort_ms, ours_ms;
    std::unique_ptr<evaluation::LineUp> lineup;
    for (int round = 0; round < rounds; ++round) {
      gathering::EntryStore store;
      begun = std::chrono::steady_clock::now();
      const auto members_told = entrants_now();
      auto entries = gathering::kept_entries(members_told, ready.question, book, store);
      std::vector<evaluation::LineUpMember> members;
      for (std::size_t i = 0; i < entries.size(); ++i) {
        if (!entries[i]) throw std::runtime_error("an entry is not in the cache");
        members.push_back({members_told[i], entries[i]});
      }
      lineup = std::make_unique<evaluation::LineUp>(members, ready.terms);
      if (lineup->dominated().size() != members.size()) throw std::runtime_error("no word of dominance");
      open_ms.push_back(milliseconds_since(begun));
      evaluation::LineUpTerms other = ready.terms;
      other.figure = "lowest_over_mean";
      begun = std::chrono::steady_clock::now();
      entries = gathering::kept_entries(members_told, ready.question, book, store);
      const evaluation::LineUp sorted(std::move(members), other);
      sort_ms.push_back(milliseconds_since(begun));
      const auto standings = lineup->standings("mean_ppfd");
      begun = std::chrono::steady_clock::now();
      const Ranking ranking(standings, Better::More);
      ours_ms.push_back(milliseconds_since(begun));
    }
    const auto standings = lineup->standings("mean_ppfd");
    const Ranking ranking(standings, Better::More);
    const fs::path file = folder / "arrays";
    bench::ArrayFile arrays(file);
    add_table(arrays, standings);
    bench::Peer peer(argv[1]);
    peer.send(arrays.header());
    std::vector<double> theirs_ms;
    for (int round = 0; round < peer_rounds; ++round) {
      const json answer = peer.ask();
      theirs_ms.push_back(answer["ms"]);
      long low = 0, high = 0;
      for (int i = 0; i < tests; ++i) low += ranking.rank(i).low, high += ranking.rank(i).high;
      if (answer["low"].get<long>() != low || answer["high"].get<long>() != high)
        throw std::runtime_error(fmt::format("ranks differ: {} and {}", low, answer["low"].dump()));
    }
    fmt::print("line-up-2000 {:.2f} {:.1f} {:.1f}\n", bench::median(ours_ms), bench::median(theirs_ms),
               bench::median(theirs_ms) / bench::median(ours_ms));
    fmt::print("line-up-open-2000 {:.0f} 200 {:.1f}\n", bench::median(open_ms), 200 / bench::median(open_ms));
    fmt::print("line-up-sort-2000 {:.0f} 200 {:.1f}\n", bench::median(sort_ms), 200 / bench::median(sort_ms));
    fmt::print(stderr, "all {} tests on all cores: {:.1f} s\n", tests, filled_ms / 1000);
  } catch (const std::exception& e) {
    fmt::print(stderr, "line-up-2000: {}\n", e.what());
    status = 1;
  }
  fs::remove_all(folder);
  return status;
}
