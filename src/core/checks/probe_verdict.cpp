#include "core/checks/probe_verdict.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/bench/walk_order.h"
#include "core/checks/slipped_readings.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr double unlike_pct = 5, largest_shift_cm = 20, largest_lean_deg = 10;

std::string joined_with_and(std::vector<std::string> parts) {
  std::string text;
  for (std::size_t i = 0; i < parts.size(); ++i) text += (i == 0 ? "" : " and ") + parts[i];
  return text;
}

/// "right over left +5.2 %"; a difference that no percentage tells well, as how many times one reads the other.
std::string over(const char* one, const char* other, double pct) {
  constexpr double told_in_percent = 30, all_but_dark = 195;
  if (std::abs(pct) <= told_in_percent) return fmt::format("{} over {} {:+.1f} %", one, other, pct);
  const char *bright = pct > 0 ? one : other, *dim = pct > 0 ? other : one;
  if (std::abs(pct) >= all_but_dark) return fmt::format("the {} is all but dark beside the {}", dim, bright);
  // Of the mean of both.
  const double share = std::abs(pct) / 100;
  return fmt::format("the {} reads {:.1f} times the {}", bright, (2 + share) / (2 - share), dim);
}

const char* count_word(std::ptrdiff_t count) {
  constexpr const char* words[] = {"no", "one", "two", "three", "four", "five"};
  return words[std::clamp<std::ptrdiff_t>(count, 0, 5)];
}

}  // namespace

std::optional<ProbeBalance> probe_balance(const Layout& layout, std::span<const double> ppfd,
                                          const HangResponse& hang) {
  const auto probe = opening_probe(layout);
  if (probe.empty()) return {};
  const double far_left = ppfd[probe[0]], far_right = ppfd[probe[1]], near_right = ppfd[probe[2]],
               near_left = ppfd[probe[3]];
  const double mean = (far_left + far_right + near_right + near_left) / 4;
  if (!(mean > 0)) return {};
  return ProbeBalance{50 * (far_right + near_right - far_left - near_left) / mean - hang.expected_right_over_left_pct,
                      50 * (far_left + far_right - near_left - near_right) / mean - hang.expected_far_over_near_pct};
}

std::optional<ProbeVerdict> probe_verdict(const Layout& layout, std::span<const double> ppfd, const HangResponse& hang,
                                          UnitSystem units) {
  const auto b = probe_balance(layout, ppfd, hang);
  if (!b) return {};
  const auto probe = opening_probe(layout);
  for (const SlippedReading& odd : slipped_readings(layout, ppfd, hang.pattern))
    if (std::ranges::find(probe, odd.station) != probe.end()) return {};
  const auto read =
      std::ranges::count_if(probe, [&](int station) { return !std::isnan(ppfd[static_cast<std::size_t>(station)]); });
  const double x = b->right_over_left_pct, y = b->far_over_near_pct;
  const bool off_x = std::abs(x) > unlike_pct, off_y = std::abs(y) > unlike_pct;
  if (!off_x && !off_y)
    return ProbeVerdict{
        fmt::format("Corners agree: {}, {}. It hangs level and centered as far as {} readings can tell.",
                    over("right", "left", x), over("far", "near", y), count_word(read)),
        {}};
  const char* side_x = x > 0 ? "right" : "left";
  const char* side_y = y > 0 ? "far" : "near";
  const std::string bright = off_x && off_y ? fmt::format("{} {} corner", side_y, side_x)
                             : off_x        ? fmt::format("{} side", side_x)
                                            : fmt::format("{} side", side_y);
  std::vector<std::string> raises, moves;
  const auto advise = [&](double pct, double per_deg, double per_cm, double half_m, const char* side,
                          const char* other) {
    const double lean_deg = std::abs(pct / per_deg), shift_cm = std::abs(pct / per_cm);
    // A positive response says that the side which hangs low, or the fixture has moved to, is the brighter one.
    if (per_deg != 0 && lean_deg <= largest_lean_deg)
      raises.push_back(fmt::format("{} the {} side about {}", per_deg > 0 ? "raise" : "lower", side,
                                   length_text(2 * half_m * std::tan(lean_deg * std::numbers::pi / 180), units)));
    if (per_cm != 0 && shift_cm <= largest_shift_cm)
      moves.push_back(fmt::format("{} toward the {}", length_text(shift_cm / 100, units), other));
  };
  if (off_x)
    advise(x, hang.right_over_left_per_deg, hang.right_over_left_per_cm, hang.half_width_m, side_x,
           x > 0 ? "left" : "right");
  if (off_y)
    advise(y, hang.far_over_near_per_deg, hang.far_over_near_per_cm, hang.half_depth_m, side_y,
           y > 0 ? "door" : "far wall");
  std::string remedy = "set a level on it";
  if (!raises.empty()) remedy += fmt::format("; if it leans, {}", joined_with_and(raises));
  if (!moves.empty())
    remedy += fmt::format("; if it hangs level, move it {}", joined_with_and(moves));
  else if (raises.empty())
    remedy += " and measure it to the walls";
  Finding check{"off level or off center",
                Severity::Look,
                probe,
                fmt::format("the {} is brighter: {}, {}", bright, over("right", "left", x), over("far", "near", y)),
                "the whole sweep would be uneven by more than the fixture's own doing",
                remedy};
  return ProbeVerdict{
      fmt::format("The {} is brighter ({}, {}): {}.", bright, over("right", "left", x), over("far", "near", y), remedy),
      std::move(check)};
}

}  // namespace sunbreak
