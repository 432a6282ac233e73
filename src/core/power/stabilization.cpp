#include "core/power/stabilization.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/uncertain_text.h"

namespace sunbreak {
namespace {

/// How much a fit says is still to come, in percent. Below a tenth no log is read so well that its fit would tell:
/// lamps wander by more.
std::string to_come(const DecayFit& fit) {
  constexpr double least_told = 0.001;
  if (std::abs(fit.remaining_share) + 2 * fit.remaining_sd < least_told) return "under 0.1";
  return uncertain_text(100 * std::abs(fit.remaining_share), 200 * fit.remaining_sd, 1);
}

constexpr double average_s = 300;
/// How likely it may be that more than 1 % is still to come. A short log can hide a slow lamp.
constexpr double chance_when_short = 0.002, chance = 0.1, short_s = 45 * 60;
constexpr int fewest_readings = 3, fewest_for_a_fit = 12;
/// Scatter that is no reading noise any more: of the readings about their average, and of the average itself.
constexpr double swing_share = 0.1, average_sd_share = 0.01;
constexpr double prediction_sd_share = 0.04, past_half = 0.5, edge_s = 1;

/// The averages whose stretch lies in the last 30 minutes.
std::vector<Block> last_averages(std::span<const TimedValue> log) {
  std::vector<Block> all = blocks_of(log, average_s);
  const double from_s = log.back().time_s - stabilization_window_s - edge_s;
  std::erase_if(all, [&](const Block& b) { return b.time_s < from_s; });
  return all;
}

/// What the readings of the last 30 minutes do about their averages.
struct Scatter {
  double lowest = INFINITY, highest = -INFINITY;
  double mean = 0;
  double share = 0;          ///< standard deviation about the five-minute averages, over the mean
  double average_share = 0;  ///< standard uncertainty of an average, over the mean
  bool swings() const { return share > swing_share || average_share > average_sd_share; }
};

Scatter scatter_of(std::span<const TimedValue> log) {
  const double end_s = log.back().time_s;
  Scatter s;
  double squares = 0, sum = 0;
  std::size_t count = 0, averages = 0;
  for (std::size_t end = log.size(); end > 0;) {
    const double ago = std::floor((end_s - log[end - 1].time_s) / average_s);
    if (end_s - log[end - 1].time_s > stabilization_window_s + edge_s) break;
    std::size_t begin = end;
    double total = 0;
    while (begin > 0 && std::floor((end_s - log[begin - 1].time_s) / average_s) == ago) total += log[--begin].value;
    const double mean = total / static_cast<double>(end - begin);
    for (std::size_t i = begin; i < end; ++i) {
      squares += (log[i].value - mean) * (log[i].value - mean);
      s.lowest = std::min(s.lowest, log[i].value), s.highest = std::max(s.highest, log[i].value);
    }
    sum += total, count += end - begin, ++averages;
    end = begin;
  }
  s.mean = sum / static_cast<double>(count);
  if (count > averages) {
    s.share = std::sqrt(squares / static_cast<double>(count - averages)) / std::abs(s.mean);
    s.average_share = s.share / std::sqrt(static_cast<double>(count) / static_cast<double>(averages));
  }
  return s;
}

/// How much the averages of the window differ, less what their noise makes of so many of them.
double change_of(const std::vector<Block>& averages, double noise_share_of_a_minute) {
  double lowest = INFINITY, highest = -INFINITY, sum = 0;
  for (const Block& b : averages) lowest = std::min(lowest, b.mean), highest = std::max(highest, b.mean), sum += b.mean;
  const double mean = sum / static_cast<double>(averages.size());
  // The range of six normal deviates is under four standard deviations nineteen times in twenty.
  const double noise = 4 * noise_share_of_a_minute / std::sqrt(average_s / 60);
  const double range = (highest - lowest) / mean;
  return std::sqrt(std::max(range * range - noise * noise, 0.0));
}

/// When both rules will hold, from the log's end [s]: the fall in 30 minutes and the fall to come each under 0.5 %.
std::optional<double> prediction(const DecayFit& fit, double since_start_s) {
  const double tau = fit.time_constant_s;
  const double window_factor = std::max(1.0, std::expm1(stabilization_window_s / tau));
  const double wait_s = fit.time_until_s(stabilized_share / window_factor);
  // The uncertainty of the rest to come moves the moment by τ · σ/rest; τ's own is in it, since both are of one
  // mixture.
  const double rest = std::abs(fit.remaining_share);
  if (!(rest > 0) || rest > past_half * std::abs(fit.fall_share)) return {};
  if (tau * fit.remaining_sd / rest > prediction_sd_share * (since_start_s + wait_s)) return {};
  return std::max(wait_s, stabilization_window_s - fit.undisturbed_s);
}

std::string minutes(double seconds) { return fmt::format("{:.0f} min", std::ceil(seconds / 60)); }

}  // namespace

StabilizationVerdict stabilized(std::span<const TimedValue> log) {
  StabilizationVerdict v;
  if (log.empty()) {
    v.words = "There is no reading yet.";
    return v;
  }
  const double span_s = log.back().time_s - log.front().time_s;
  const Scatter scatter = scatter_of(log);
  if (!(scatter.mean > 0)) {
    v.state = StabilizationState::Dark;
    v.words = scatter.lowest == 0 && scatter.highest == 0
                  ? "Nothing to judge: the last readings are all zero."
                  : fmt::format("Nothing to judge: the last readings are {:.4g} in the mean.", scatter.mean);
    return v;
  }
  if (static_cast<int>(log.size()) >= fewest_for_a_fit) v.fit = fit_decay(log);
  if (v.fit && !(v.fit->end_value > 0 && std::isfinite(v.fit->remaining_share))) v.fit.reset();
  if (v.fit) {
    v.stabilizes_in_s = prediction(*v.fit, span_s);
    if (v.fit->start_s <= log.front().time_s + average_s) v.fall_since_on = v.fit->fall_share;
  }
  const std::vector<Block> averages = last_averages(log);
  const auto in_window = std::count_if(log.begin(), log.end(), [&](const TimedValue& t) {
    return t.time_s >= log.back().time_s - stabilization_window_s - edge_s;
  });
  const bool covered = span_s >= stabilization_window_s - edge_s && in_window >= fewest_readings &&
                       averages.front().time_s <= log.back().time_s - stabilization_window_s + 2 * average_s;
  if (!covered) {
    v.words = fmt::format("Too early to say: the rule looks at 30 min, and the log has {}.", minutes(span_s));
    if (v.fit)
      v.words += fmt::format(" By the fit, a {} of {:.1f} % is still to come.",
                             v.fit->remaining_share >= 0 ? "fall" : "rise", 100 * std::abs(v.fit->remaining_share));
    return v;
  }
  v.change_in_window = change_of(averages, v.fit ? v.fit->noise_share : 0);
  if (v.fit) v.change_in_window = std::max(v.change_in_window, std::abs(v.fit->window_change));
  if (scatter.swings()) {
    v.state = StabilizationState::Moving;
    v.stabilizes_in_s.reset();
    v.words = fmt::format("Not settled: the readings swing between {:.4g} and {:.4g} (± {:.0f} % about their average).",
                          scatter.lowest, scatter.highest, 200 * scatter.share);
    return v;
  }
  const bool still = v.change_in_window <= stabilized_share;
  const bool little_to_come = !v.fit || (std::abs(v.fit->remaining_share) <= stabilized_share &&
                                         v.fit->chance_of_much <= (span_s < short_s ? chance_when_short : chance));
  // A disturbance less than half an hour ago begins the wait anew.
  const bool undisturbed = !v.fit || v.fit->undisturbed_s >= stabilization_window_s - 2 * average_s;
  v.state = still && little_to_come && undisturbed ? StabilizationState::Stabilized : StabilizationState::Moving;
  const std::string change = fmt::format("{:.1f} % in 30 min", 100 * v.change_in_window);
  if (v.state == StabilizationState::Stabilized) {
    v.words = fmt::format("Settled: {}", change);
    v.words += v.fit ? fmt::format(", {} % still to come.", to_come(*v.fit))
                     : std::string(", by the 30-minute rule alone; too few readings to tell what is still to come.");
    v.stabilizes_in_s.reset();
    return v;
  }
  // The line may be flat by now while the last 30 minutes still hold how it got there.
  v.words =
      fmt::format("Still {}{}: {}", v.fit && v.fit->remaining_share < 0 ? "rising" : "falling",
                  little_to_come && undisturbed && v.fit ? " by the 30-minute rule, though flat by now" : "", change);
  if (v.fit) v.words += fmt::format(", {} % to come", to_come(*v.fit));
  v.words += !undisturbed        ? "; something changed less than half an hour ago."
             : v.stabilizes_in_s ? fmt::format("; settled in about {}.", minutes(*v.stabilizes_in_s))
                                 : std::string(".");
  return v;
}

StabilizationVerdict later_of(const StabilizationVerdict& light, const StabilizationVerdict& watts) {
  const bool light_later =
      light.state < watts.state || (light.state == watts.state && light.stabilizes_in_s >= watts.stabilizes_in_s);
  StabilizationVerdict later = light_later ? light : watts;
  later.words = (light_later ? "Light: " : "Watts: ") + later.words;
  return later;
}

}  // namespace sunbreak
