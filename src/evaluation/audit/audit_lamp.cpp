#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/lower_case.h"
#include "core/uncertainty/budget.h"
#include "evaluation/audit/audited_test.h"
#include "evaluation/heat_by_state.h"
#include "evaluation/light_words.h"
#include "evaluation/shared_parts.h"
#include "record/claim_kinds.h"

namespace sunbreak::evaluation {
namespace {

constexpr double same_watts = 0.15, same_size = 0.02, same_height = 0.1;

/// The watts a lamp is called by: its badge, or what was read.
std::optional<double> nominal_watts(const TestRecord& record) {
  for (const Claim& claim : record.claims)
    if (claim.kind == "power_w" && claim.value) return claim.value;
  for (const Sweep& sweep : record.sweeps)
    if (sweep.power_w) return sweep.power_w;
  return {};
}

/// A sweep at full, with its height.
struct FullSweep {
  const Sweep* sweep = nullptr;
  double height_m = 0, ppf = 0;
};

std::vector<FullSweep> full_sweeps(const Evaluation& evaluation) {
  std::vector<FullSweep> all;
  const TestRecord& record = evaluation.record();
  double full = 0;
  for (const Stop& stop : record.stops)
    if (!stop.extra && stop.percent <= 100.5) full = std::max(full, stop.percent);
  for (const Sweep& sweep : record.sweeps) {
    const Rung* rung = record.rung(sweep.rung_id);
    const Stop* stop = record.stop(sweep.stop_id);
    const SweepFigures* figures = evaluation.figures(sweep.id);
    if (rung && stop && figures && !sweep.confirms && std::abs(stop->percent - full) < 0.05)
      all.push_back({&sweep, rung->height_m, figures->ppf_umol_s});
  }
  return all;
}

/// The two sweeps that are compared: at the most alike heights, or each where it brings the most to the footprint.
std::optional<std::pair<FullSweep, FullSweep>> counterparts(const Evaluation& a, const Evaluation& b) {
  const auto ours = full_sweeps(a), theirs = full_sweeps(b);
  if (ours.empty() || theirs.empty()) return {};
  std::optional<std::pair<FullSweep, FullSweep>> nearest;
  double least = same_height;
  for (const FullSweep& x : ours)
    for (const FullSweep& y : theirs)
      if (const double apart = std::abs(x.height_m / y.height_m - 1); apart < least) least = apart, nearest = {x, y};
  if (nearest) return nearest;
  return std::pair{*std::ranges::max_element(ours, {}, &FullSweep::ppf),
                   *std::ranges::max_element(theirs, {}, &FullSweep::ppf)};
}

/// Why two tests' light on the footprint may not be held against each other; empty where it may.
std::string unlike(const TestRecord& a, const TestRecord& b) {
  const auto differ = [](double x, double y) { return std::abs(x / y - 1) > same_size; };
  if (differ(a.bench.width_m, b.bench.width_m) || differ(a.bench.depth_m, b.bench.depth_m))
    return "it was walked on another footprint";
  if (a.bench.wall_left != b.bench.wall_left || a.bench.wall_right != b.bench.wall_right ||
      a.bench.wall_front != b.bench.wall_front || a.bench.wall_back != b.bench.wall_back)
    return "it was walked within other walls";
  return {};
}

}  // namespace

bool is_lamp_kind(const Fixture& fixture, const std::string& kind) {
  const std::string named = lower_case(fixture.name + " " + fixture.kind + " " + fixture.emitters);
  std::string word;
  bool any = false;
  for (const char c : lower_case(kind) + " ") {
    if (c != ' ') {
      word += c;
      continue;
    }
    if (!word.empty() && word != "lamp") {
      if (named.find(word) == std::string::npos) return false;
      any = true;
    }
    word.clear();
  }
  return any;
}

void audit_equivalent(const AuditedTest& test, AuditedClaim& a) {
  a.unit = "% of that lamp's light";
  a.claimed = 100;
  if (a.claim.says.empty() || a.claim.says == "lamp")
    return not_testable(a, "Which kind of lamp is meant is not said.", "note the kind of lamp that is meant");
  const Evaluation* lamp = nullptr;
  std::string others;
  for (const auto& other : test.context().others) {
    const TestRecord& record = other->record();
    if (record.test.id == test.record().test.id && record.fixture.id == test.record().fixture.id) continue;
    if (!is_lamp_kind(record.fixture, a.claim.says)) continue;
    const auto watts = nominal_watts(record);
    if (watts && std::abs(*watts / *a.claim.value - 1) <= same_watts) {
      lamp = other.get();
      if (unlike(test.record(), record).empty()) break;
    } else {
      others += fmt::format("{}{}", others.empty() ? "" : ", ", record.fixture.name);
    }
  }
  if (!lamp)
    return not_testable(a,
                        fmt::format("No test of a {} lamp of about {:.0f} W is in the lab book{}.", a.claim.says,
                                    *a.claim.value, others.empty() ? "" : "; of that kind there is " + others),
                        "test such a lamp on this bench");
  if (const std::string why = unlike(test.record(), lamp->record()); !why.empty())
    return not_testable(a, fmt::format("{} is such a lamp, but {}.", lamp->record().fixture.name, why),
                        "test that lamp on this bench");
  const auto pair = counterparts(test.evaluation(), *lamp);
  const Budget *ours = nullptr, *theirs = nullptr;
  if (pair)
    ours = test.evaluation().budget(pair->first.sweep->id, test.stop()),
    theirs = lamp->budget(pair->second.sweep->id, test.stop());
  if (!ours || !theirs) return not_testable(a, "One of the two has no sweep at full.", "walk a height at full");
  const double ratio = pair->first.ppf / pair->second.ppf,
               relative = ratio_uncertainty(
                   *ours, *theirs, "mean_ppfd",
                   shared_parts(test.record(), *pair->first.sweep, lamp->record(), *pair->second.sweep));
  a.measured = 100 * ratio, a.expanded = 100 * ratio * relative;
  a.measured_words = found_text({a.measured, a.expanded}, 0, a.unit);
  judge(a, {});
  const auto even = [](const Evaluation& e, const FullSweep& s) {
    return e.figures(s.sweep->id)->evenness.lowest_over_mean;
  };
  a.reason = fmt::format(
      "Against {}, {} and {}, both at full: PPF on the footprint {:.0f} beside {:.0f} µmol/s; lowest ÷ "
      "mean {:.2f} beside {:.2f}",
      lamp->record().fixture.name, length_text(pair->first.height_m, test.units()),
      length_text(pair->second.height_m, test.units()), pair->first.ppf, pair->second.ppf,
      even(test.evaluation(), pair->first), even(*lamp, pair->second));
  if (pair->first.sweep->power_w && pair->second.sweep->power_w)
    a.reason += fmt::format("; {:.0f} beside {:.0f} W", *pair->first.sweep->power_w, *pair->second.sweep->power_w);
  const auto rows = heat_rows(test.record(), test.units()), their_rows = heat_rows(lamp->record(), test.units());
  const auto hot = hottest_of_fixture(rows), their_hot = hottest_of_fixture(their_rows);
  if (hot && their_hot)
    a.reason += fmt::format("; hottest surface {:.0f} beside {:.0f} {}", shown_temperature(hot->celsius, test.units()),
                            shown_temperature(their_hot->celsius, test.units()), temperature_unit(test.units()));
  a.reason += ".";
}

}  // namespace sunbreak::evaluation
