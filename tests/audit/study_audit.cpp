#include <fmt/format.h>

#include <cmath>
#include <cstdlib>
#include <map>
#include <mutex>
#include <thread>

#include "audit/simulated_audit.h"
#include "evaluation/crop_targets.h"

using namespace sunbreak;
using namespace sunbreak::trial;

namespace {

constexpr std::uint64_t study_seed = 20'261'128;
constexpr int tests = 400;
constexpr double most_false = 0.05, least_found = 0.95, intervals_off = 2;

/// What came of the claims of one kind and plant.
struct Tally {
  int claims = 0, called = 0, confirmed = 0, apart = 0, not_testable = 0;
  int far = 0, far_called = 0;  ///< off by twice the interval or more
};

bool is_called(Verdict v) { return v == Verdict::Short || v == Verdict::Over || v == Verdict::Contradicted; }

void add(Tally& t, const evaluation::AuditedClaim& a, const PlantedClaim& planted) {
  ++t.claims;
  const Verdict v = a.judgement.verdict;
  t.called += is_called(v);
  t.confirmed += v == Verdict::Confirmed;
  t.apart += v == Verdict::NotToldApart;
  t.not_testable += v == Verdict::NotTestable;
  if (!planted.is_true && v != Verdict::NotTestable &&
      std::abs(planted.claimed - planted.truth) >= intervals_off * a.expanded) {
    ++t.far;
    t.far_called += is_called(v);
  }
}

}  // namespace

/// Claims planted on simulated tests, and what the audit makes of them. An argument is another seed.
int main(int argc, char** argv) {
  const std::uint64_t seed = argc > 1 ? std::strtoull(argv[1], nullptr, 10) : study_seed;
  std::map<std::pair<std::string, std::string>, Tally> tallies;
  std::mutex adding;
  evaluation::AuditContext context;
  context.targets = evaluation::shipped_targets();
  const auto work = [&](int first) {
    for (int n = first; n < tests; n += 2) {
      AuditBench b = audit_bench(seed, n);
      const auto planted = plant_claims(b, seed, n);
      for (const PlantedClaim& c : planted) b.record.claims.push_back(c.claim);
      const auto evaluation = evaluation::evaluate(b.record);
      const evaluation::Audit audit = evaluation::audit(*evaluation, context);
      const std::lock_guard hold(adding);
      for (std::size_t i = 0; i < planted.size(); ++i)
        add(tallies[{planted[i].claim.kind, planted[i].plant + (planted[i].is_true && planted[i].plant != "true" &&
                                                                        planted[i].plant != "driver left out, said so"
                                                                    ? ", true here"
                                                                    : "")}],
            audit.claims[i], planted[i]);
    }
  };
  std::thread other(work, 1);
  work(0);
  other.join();

  fmt::print("seed {}, {} tests\n\n{:16} {:26} {:>6} {:>9} {:>9} {:>9} {:>9} {:>10}\n", seed, tests, "kind", "planted",
             "claims", "confirmed", "not apart", "called", "untested", "far, found");
  int true_claims = 0, false_calls = 0, far = 0, found = 0;
  for (const auto& [key, t] : tallies) {
    const auto& [kind, planted] = key;
    const bool is_true = planted == "true" || planted == "driver left out, said so" || planted.ends_with("true here");
    if (is_true) true_claims += t.claims - t.not_testable, false_calls += t.called;
    far += t.far, found += t.far_called;
    fmt::print("{:16} {:26} {:>6} {:>9} {:>9} {:>9} {:>9} {:>10}\n", kind, planted, t.claims, t.confirmed, t.apart,
               t.called, t.not_testable, is_true ? "" : fmt::format("{}/{}", t.far_called, t.far));
  }
  const double false_share = static_cast<double>(false_calls) / true_claims,
               found_share = static_cast<double>(found) / far;
  fmt::print("\nof {} true claims {} were called short, over or contradicted: {:.1f} % (at most {:.0f})\n", true_claims,
             false_calls, 100 * false_share, 100 * most_false);
  fmt::print("of {} claims off by twice the interval {} were: {:.1f} % (at least {:.0f})\n", far, found,
             100 * found_share, 100 * least_found);
  return false_share <= most_false && found_share >= least_found ? 0 : 1;
}
