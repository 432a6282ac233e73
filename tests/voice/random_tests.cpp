#include <fmt/format.h>

#include <cstdint>
#include <string>

#include "audit/simulated_audit.h"
#include "book/test_rows.h"

/// Writes a lab book of tests drawn anew, walked and with claims: the test of a number is the same for ever.
///
///     random_tests BOOK FIRST COUNT
int main(int argc, char** argv) {
  using namespace sunbreak;
  if (argc != 4) return 2;
  constexpr std::uint64_t seed = 20261201;
  auto book = book::Book::open(argv[1]);
  if (!book) {
    fmt::print(stderr, "{}\n", book.problem().sentence());
    return 1;
  }
  const int first = std::stoi(argv[2]), count = std::stoi(argv[3]);
  for (int number = first; number < first + count; ++number) {
    trial::AuditBench bench = trial::audit_bench(seed, number);
    for (const trial::PlantedClaim& planted : trial::plant_claims(bench, seed, number)) {
      record::Claim claim = planted.claim;
      claim.id = static_cast<record::Id>(bench.record.claims.size()) + 1;
      claim.fixture_id = bench.record.fixture.id;
      bench.record.claims.push_back(std::move(claim));
    }
    // A card with a row at each walked height, at full.
    for (const record::Rung& rung : bench.record.rungs) {
      record::CardRow row;
      row.id = static_cast<record::Id>(bench.record.card_rows.size()) + 1, row.test_id = bench.record.test.id;
      row.stage = fmt::format("stage {}", row.id), row.low_ppfd = 100.0 * static_cast<double>(row.id);
      row.high_ppfd = 3 * row.low_ppfd, row.height_m = rung.height_m, row.percent = 100;
      bench.record.card_rows.push_back(std::move(row));
    }
    bench.record.test.name = fmt::format("Random {}", number);
    bench.record.fixture.name = fmt::format("fixture {}", number);
    const record::Id test = book::add_test(*book.value(), bench.record, "a random test");
    fmt::print("{}\n", test);
  }
  return 0;
}
