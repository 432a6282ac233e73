#include "evaluation/lineup/entrant.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <sstream>

#include "core/quantity/lower_case.h"
#include "core/quantity/number.h"
#include "evaluation/lineup/way_light.h"
#include "record/claim_kinds.h"
#include "record/configurations.h"
#include "record/fact_sheet.h"

namespace sunbreak::evaluation {
namespace {

constexpr std::array<std::string_view, 9> bounded{"price", "watts", "width",  "depth", "area",
                                                  "year",  "grade", "height", "power"};

/// Known of what was worked out only.
bool is_of_entry(std::string_view what) { return what == "power" || what == "height" || what == "grade"; }

std::optional<double> grade_number(std::string_view word) {
  const std::string lower = lower_case(word);
  if (lower == "spot") return 0;
  if (lower == "working") return 1;
  if (lower == "benchmark") return 2;
  return {};
}

std::optional<double> value_of(std::string_view what, const Entrant& e, const LineUpEntry* entry) {
  if (what == "price") return e.cost;
  if (what == "watts") return e.claimed_w;
  if (what == "width") return 100 * e.width_m;
  if (what == "depth") return 100 * e.depth_m;
  if (what == "area") return e.width_m * e.depth_m;
  if (what == "year") return parse_number(std::string_view(e.tested_on).substr(0, 4));
  if (!entry || entry->none) return {};
  if (what == "power") return entry->power_w;
  if (what == "height") return 100 * entry->height_m;
  if (what == "grade" && entry->facts.grade) return static_cast<double>(*entry->facts.grade);
  return {};
}

}  // namespace

Entrant entrant_of(const TestRecord& r) {
  Entrant e;
  e.test_id = r.test.id, e.configuration_id = r.configuration_id;
  e.title = title_of(r);
  if (!r.configurations.empty()) e.title += " · " + configuration_name(r, r.configuration_id);
  e.tester = r.test.tested_by, e.tested_on = r.test.tested_on;
  e.fixture = r.fixture.name, e.maker = r.fixture.maker, e.kind = r.fixture.kind, e.obtained = r.fixture.obtained;
  e.bench = r.bench.name, e.walls = walls_words(r.bench);
  if (const Meter* sensor = r.meter(r.test.sensor_id)) e.sensor = sensor->name;
  e.facts = r.fixture.emitters;
  for (const BoxFact& fact : r.box_facts)
    if (!fact.words.empty()) e.facts += fmt::format(" {}: {}", fact.name, fact.words);
  e.currency = r.fixture.currency, e.cost = cost_of(r.fixture);
  for (const Claim& claim : claims_of(r))
    if (claim.kind == "power_w" && claim.value && !e.claimed_w) e.claimed_w = claim.value;
  e.width_m = r.bench.width_m, e.depth_m = r.bench.depth_m;
  for (const Rung& rung : r.rungs)
    if (!rung.extra) e.walked_heights_m.push_back(rung.height_m);
  e.target_name = r.test.target_name, e.target = {r.test.target_low_ppfd, r.test.target_high_ppfd};
  e.photoperiod_h = r.test.photoperiod_h;
  e.simulated = r.test.simulated, e.altered = r.test.altered;
  e.mark = r.test.mark, e.retest_of = r.test.retest_of, e.serial = r.fixture.serial;
  return e;
}

Result<EntrantFilter> EntrantFilter::parse(const std::string& text) {
  EntrantFilter filter;
  std::istringstream words(text);
  for (std::string word; words >> word;) {
    const auto at = word.find_first_of("<>=");
    if (at == std::string::npos) {
      filter.words_.push_back(lower_case(word));
      continue;
    }
    Bound bound;
    bound.what = lower_case(word.substr(0, at));
    const bool with_equal = at + 1 < word.size() && word[at + 1] == '=' && word[at] != '=';
    bound.how = word[at] == '<'   ? (with_equal ? Bound::AtMost : Bound::Less)
                : word[at] == '>' ? (with_equal ? Bound::AtLeast : Bound::More)
                                  : Bound::Equal;
    const std::string rest = word.substr(at + (with_equal ? 2 : 1));
    const auto number = bound.what == "grade" ? grade_number(rest) : parse_number(rest);
    if (std::ranges::find(bounded, bound.what) == bounded.end() || !number)
      return Problem{
          fmt::format("'{}' is no condition that is known", word), "",
          "write words to be found, or bounds such as price<200, watts>=100, area<=0.8 (m²), width<100 (cm), "
          "year=2026, grade>=working"};
    bound.number = *number;
    filter.bounds_.push_back(std::move(bound));
  }
  return filter;
}

bool EntrantFilter::words_found(const Entrant& e) const {
  if (words_.empty()) return true;
  const std::string told = lower_case(
      fmt::format("{} {} {} {} {} {} {} {} {} {} {} {} {} {}", e.facts, e.title, e.fixture, e.maker, e.kind, e.bench,
                  e.walls, e.tester, e.tested_on, e.sensor, e.obtained, e.guest.empty() ? "own" : "guest " + e.guest,
                  e.simulated ? "simulated" : "measured", e.altered.empty() ? "" : "altered"));
  return std::ranges::all_of(words_, [&](const std::string& word) { return told.find(word) != std::string::npos; });
}

bool EntrantFilter::Bound::holds(double value) const {
  switch (how) {
    case Less:
      return value < number;
    case AtMost:
      return value <= number;
    case Equal:
      return value == number;
    case AtLeast:
      return value >= number;
    default:
      return value > number;
  }
}

bool EntrantFilter::lets(const Entrant& e, const LineUpEntry* entry) const {
  return words_found(e) && std::ranges::all_of(bounds_, [&](const Bound& b) {
           const auto value = value_of(b.what, e, entry);
           return value && b.holds(*value);
         });
}

bool EntrantFilter::may_let(const Entrant& e) const {
  return words_found(e) && std::ranges::all_of(bounds_, [&](const Bound& b) {
           const auto value = value_of(b.what, e, nullptr);
           return is_of_entry(b.what) || (value && b.holds(*value));
         });
}

}  // namespace sunbreak::evaluation
