#include <fmt/format.h>
#include <unistd.h>

#include <cstdlib>

#include "damage.h"

using namespace sunbreak;

/// 12,000 random damages from a fixed seed; each has ten seconds. Built with the sanitizers, whose reports also end it.
int main(int argc, char** argv) {
  const int cases = argc > 1 ? std::atoi(argv[1]) : 12'000;
  damage::Random random(20260314);
  int refused = 0, with_findings = 0, in_full = 0;
  for (int i = 0; i < cases; ++i) {
    alarm(10);
    const damage::ValidTable valid = damage::make_valid(random);
    const damage::Damage damaged = damage::harm(valid.bytes, random);
    const damage::Judgement judgement = damage::judge(valid, damaged.bytes);
    refused += judgement.outcome == damage::Outcome::Refused;
    with_findings += judgement.outcome == damage::Outcome::TakenWithFindings;
    in_full += judgement.outcome == damage::Outcome::TakenInFull;
    if (judgement.outcome == damage::Outcome::Misleading || !judgement.why.empty()) {
      fmt::print(stderr, "case {} ({}): {}\n--- before\n{}\n--- after\n{}\n", i, damaged.kind, judgement.why,
                 valid.bytes, damaged.bytes);
      return 1;
    }
  }
  fmt::print("{} damaged tables: {} refused, {} taken with findings, {} taken in full, none misleading\n", cases,
             refused, with_findings, in_full);
  return refused > 0 && with_findings > 0 && in_full > 0 ? 0 : 1;
}
