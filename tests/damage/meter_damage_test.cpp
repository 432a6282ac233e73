#include <fmt/format.h>
#include <unistd.h>

#include <cstdlib>

#include "meter_damage.h"

using namespace sunbreak;

/// Damaged spectra and tables of pairs from a fixed seed, 3,000 in the tests and 20,000 in the study; each has ten
/// seconds. Built with the sanitizers, whose reports also end it.
int main(int argc, char** argv) {
  const int cases = argc > 1 ? std::atoi(argv[1]) : 3'000;
  damage::Random random(20261129);
  int refused = 0, with_findings = 0, in_full = 0;
  for (int i = 0; i < cases; ++i) {
    alarm(10);
    const damage::ValidMeterFile valid = damage::make_valid_meter_file(random);
    if (const auto whole = damage::judge(valid, valid.bytes); whole.outcome != damage::Outcome::TakenInFull) {
      fmt::print(stderr, "case {} is not taken in full before any damage: {}\n{}\n", i, whole.why, valid.bytes);
      return 1;
    }
    const damage::Damage damaged = damage::harm(valid.bytes, random);
    const damage::Judgement judgement = damage::judge(valid, damaged.bytes);
    refused += judgement.outcome == damage::Outcome::Refused;
    with_findings += judgement.outcome == damage::Outcome::TakenWithFindings;
    in_full += judgement.outcome == damage::Outcome::TakenInFull;
    if (judgement.outcome == damage::Outcome::Misleading) {
      fmt::print(stderr, "case {} ({}): {}\n--- before\n{}\n--- after\n{}\n", i, damaged.kind, judgement.why,
                 valid.bytes, damaged.bytes);
      return 1;
    }
  }
  fmt::print("{} damaged spectra and pairs: {} refused, {} taken with findings, {} taken in full, none misleading\n",
             cases, refused, with_findings, in_full);
  return refused > 0 && with_findings > 0 && in_full > 0 ? 0 : 1;
}
