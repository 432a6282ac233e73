#include "exchange/package/audit_tables.h"

#include <fmt/format.h>

#include <cmath>

#include "exchange/package/csv_writer.h"

namespace sunbreak::exchange {
namespace {

using evaluation::VerdictWords;

std::string finite_cell(double value) { return std::isfinite(value) ? number_cell(value) : std::string(); }

}  // namespace

void append_audit(std::string& csv, const evaluation::Audit& audit, const std::string& configuration) {
  for (const auto& a : audit.claims)
    csv +=
        fmt::format("{},{},{},{},{},{},{},{},{},{},{},{},{},{}\r\n", configuration, quoted_cell(a.slot),
                    quoted_cell(a.claim.kind), finite_cell(a.claimed), finite_cell(a.claimed_to), quoted_cell(a.unit),
                    finite_cell(a.measured), finite_cell(a.measured_to), finite_cell(a.expanded),
                    finite_cell(a.judgement.difference_pct), finite_cell(a.judgement.chance),
                    quoted_cell(verdict_id(a.judgement.verdict)), quoted_cell(a.reason), quoted_cell(a.lifts));
}

void append_verdict(std::string& csv, const evaluation::Audit& audit, const std::string& configuration) {
  for (const VerdictWords& w : audit.words) {
    if (w.struck) continue;
    const auto& tied = w.tied_to();
    csv += fmt::format("{},{},{},{},{},{},{},{}\r\n", configuration, quoted_cell(w.slot), aspect_id(w.aspect),
                       quoted_cell(w.sentence), quoted_cell(tied.figure), finite_cell(tied.value),
                       quoted_cell(tied.unit), w.own ? "true" : "false");
  }
}

}  // namespace sunbreak::exchange
