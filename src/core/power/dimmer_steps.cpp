#include "core/power/dimmer_steps.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/lower_case.h"
#include "core/quantity/number.h"

namespace sunbreak {
namespace {

constexpr double most_pct = 200, finest_step_pct = 0.1, rounding_pct = 1e-9;

/// The number that a mark ends with, its name before it.
std::optional<double> place_of(std::string_view mark) {
  mark = trimmed(mark);
  if (mark.ends_with('%')) mark = trimmed(mark.substr(0, mark.size() - 1));
  const auto blank = mark.find_last_of(" =:");
  const auto place = parse_number(blank == std::string_view::npos ? mark : mark.substr(blank + 1));
  return place && *place > 0 && *place <= most_pct ? place : std::nullopt;
}

}  // namespace

Result<DimmerSteps> parse_dimmer_steps(std::string_view text) {
  text = trimmed(text);
  DimmerSteps steps;
  if (text.empty()) return steps;
  if (lower_case(text) == "free") {
    steps.free = true;
    return steps;
  }
  const Problem unknown{fmt::format("'{}' are no steps of a dimmer", text), "where it can be set is not known",
                        "type free, a step such as 5 %, or its marks: 25, 50, 75, 100"};
  const bool list = text.find_first_of(",;") != std::string_view::npos;
  if (!list) {
    const auto step = place_of(text);
    if (!step || *step < finest_step_pct || *step > 100) return unknown;
    steps.step_pct = *step;
    return steps;
  }
  for (std::size_t from = 0; from <= text.size();) {
    const std::size_t to = std::min(text.find_first_of(",;", from), text.size());
    if (const auto mark = trimmed(text.substr(from, to - from)); !mark.empty()) {
      const auto place = place_of(mark);
      if (!place) return unknown;
      steps.marks_pct.push_back(*place);
    }
    from = to + 1;
  }
  std::sort(steps.marks_pct.begin(), steps.marks_pct.end());
  steps.marks_pct.erase(std::unique(steps.marks_pct.begin(), steps.marks_pct.end()), steps.marks_pct.end());
  if (steps.marks_pct.empty()) return unknown;
  return steps;
}

std::vector<double> settable_pct(const DimmerSteps& steps, double low_pct, double high_pct) {
  std::vector<double> places;
  if (steps.free) return places;
  const auto within = [&](double at) { return at >= low_pct - rounding_pct && at <= high_pct + rounding_pct; };
  if (!steps.marks_pct.empty()) {
    std::copy_if(steps.marks_pct.begin(), steps.marks_pct.end(), std::back_inserter(places), within);
    return places;
  }
  const auto first = std::lround(std::ceil(low_pct / steps.step_pct - rounding_pct));
  for (long k = first; within(static_cast<double>(k) * steps.step_pct); ++k)
    places.push_back(std::clamp(static_cast<double>(k) * steps.step_pct, low_pct, high_pct));
  return places;
}

}  // namespace sunbreak
