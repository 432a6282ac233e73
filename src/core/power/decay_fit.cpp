#include "core/power/decay_fit.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>
#include <optional>
#include <vector>

#include "core/linear/symmetric_solve.h"

namespace sunbreak {
namespace {

constexpr double block_s = 60, shortest_s = 15 * 60, shortest_restart_s = 30 * 60, change_window_s = 30 * 60,
                 shortest_tau_s = 90, longest_tau_s = 6 * 3600, usual_tau_s = 90 * 60;
constexpr double step_chance = 0.1, surely_stepped = 0.9, usual_step_share = 0.015;
constexpr int taus = 72, fewest_blocks = 6, most_finer = 3;
constexpr std::size_t most_steps_tried = 240;
constexpr double restart_step_s = 300, most_restarts = 40;
constexpr double disturbed = 1.4;  ///< largest run of residuals, over what noise and wander make of as many
constexpr double much_share = 0.01;
constexpr double least_noise_share = 2e-5;
constexpr double least_step_share = 2.5e-3;     ///< smaller ones do not begin the wait anew
constexpr double by_chance = 1.7;               ///< of a correlation of residuals, times the root of their number
constexpr double nothing_beside_the_best = 40;  ///< a likelihood's logarithm: 4e-18
constexpr double hardly_possible = 12;          ///< the same: 6e-6
constexpr double wander_share =
    3e-3;  ///< what mains and room add to a minute's mean in the long run: no disturbance yet

/// The least-squares fit v∞ + A·x + S·(before the step) to the blocks for one τ, x = exp(−(t − t₀)/τ).
struct Curve {
  double tau_s = 0, step_at_s = -INFINITY;
  double end_value = 0, amplitude = 0, step = 0, squares = INFINITY;
  double start_s = 0, x_end = 0;
  double variance_of_step = 0;
  double variance_of_rest = 0;  ///< of A·x_end, in units of one mean's variance

  double at(double time_s) const {
    return end_value + amplitude * std::exp(-(time_s - start_s) / tau_s) + (time_s < step_at_s ? step : 0);
  }
};

/// Time constants that are tried, in equal steps of their logarithm.
struct TauRange {
  double shortest_s = shortest_tau_s, longest_s = longest_tau_s;
  double at(int i) const { return shortest_s * std::pow(longest_s / shortest_s, i / (taus - 1.0)); }

  /// The part of it that the data leave possible, with a step more on either side.
  TauRange possible(const std::vector<Curve>& curves, double best_squares, double variance) const {
    const double step = std::pow(longest_s / shortest_s, 1 / (taus - 1.0));
    TauRange part{longest_s, shortest_s};
    for (const Curve& c : curves)
      if ((c.squares - best_squares) / (2 * variance) < hardly_possible)
        part = {std::min(part.shortest_s, c.tau_s), std::max(part.longest_s, c.tau_s)};
    return {std::max(part.shortest_s / step, shortest_s), std::min(part.longest_s * step, longest_s)};
  }
  bool much_narrower_than(const TauRange& other) const {
    return std::log(longest_s / shortest_s) < 0.5 * std::log(other.longest_s / other.shortest_s);
  }
};

/// All curves of one stretch of a log, by running sums: a step at any moment then costs no more than one solution of
/// three equations.
class Stretch {
 public:
  Stretch(std::span<const Block> blocks, double end_s, const TauRange& range) : blocks_(blocks), end_s_(end_s) {
    for (const Block& b : blocks) middle_ += b.mean / static_cast<double>(blocks.size());
    values_.push_back(0);
    for (const Block& b : blocks) {
      const double y = b.mean - middle_;
      values_.push_back(values_.back() + y);
      squares_ += y * y;
    }
    for (int i = 0; i < taus; ++i) {
      const double tau_s = range.at(i);
      OfTau& t = of_tau_[i];
      t.tau_s = tau_s;
      t.shape.push_back(0);
      for (const Block& b : blocks) {
        const double x = std::exp(-(b.time_s - blocks.front().time_s) / tau_s);
        t.shape.push_back(t.shape.back() + x);
        t.shape_squares += x * x;
        t.shape_values += x * (b.mean - middle_);
      }
    }
  }

  /// One curve a τ without a step.
  std::vector<Curve> curves() const {
    std::vector<Curve> all;
    for (const OfTau& t : of_tau_) all.push_back(curve(t, {}));
    return all;
  }

  /// One curve a τ for a step at every moment.
  std::vector<Curve> curves_with_a_step() const {
    std::vector<Curve> all;
    const std::size_t first = 2, last = blocks_.size() - 2;
    for (std::size_t at = first; at <= last; at += 1 + (last - first) / most_steps_tried)
      for (const OfTau& t : of_tau_) all.push_back(curve(t, at));
    return all;
  }

 private:
  struct OfTau {
    double tau_s = 0, shape_squares = 0, shape_values = 0;
    std::vector<double> shape;  ///< running sums of x
  };

  Curve curve(const OfTau& t, std::optional<std::size_t> step_at) const {
    Curve c{t.tau_s};
    c.start_s = blocks_.front().time_s;
    c.x_end = std::exp(-(end_s_ - c.start_s) / t.tau_s);
    const std::size_t before = step_at.value_or(0);
    if (step_at) c.step_at_s = blocks_[before].time_s;
    const double n = static_cast<double>(blocks_.size()), h = static_cast<double>(before), x = t.shape.back(),
                 hx = t.shape[before];
    const std::array<double, 9> normal{n, x, h, x, t.shape_squares, hx, h, hx, step_at ? h : 1};
    std::array<double, 9> factors = normal, inverse{1, 0, 0, 0, 1, 0, 0, 0, 1};
    if (!factor_symmetric(factors, 3)) return c;
    for (std::size_t row = 0; row < 3; ++row) solve_factored(factors, std::span(inverse).subspan(3 * row, 3));
    if (1 / (column_norm(normal, 3) * column_norm(inverse, 3)) < 1e-10) return c;
    const std::array<double, 3> right{values_.back(), t.shape_values, step_at ? values_[before] : 0};
    std::array<double, 3> found = right;
    solve_factored(factors, found);
    c.end_value = middle_ + found[0], c.amplitude = found[1], c.step = found[2];
    c.squares = std::max(squares_ - std::inner_product(found.begin(), found.end(), right.begin(), 0.0), 0.0);
    if (step_at) c.variance_of_step = inverse[8];
    c.variance_of_rest = c.x_end * c.x_end * inverse[4];
    return c;
  }

  std::span<const Block> blocks_;
  double end_s_, middle_ = 0, squares_ = 0;
  std::vector<double> values_;  ///< running sums of the means, less their middle
  std::array<OfTau, taus> of_tau_;
};

/// Variance of a block's mean by the differences of successive ones, which a slow fall hardly moves.
double successive_variance(std::span<const Block> blocks) {
  std::vector<double> squares;
  for (std::size_t i = 1; i < blocks.size(); ++i) squares.push_back(std::pow(blocks[i].mean - blocks[i - 1].mean, 2));
  if (squares.empty()) return 0;
  // The middle of them, so that a single step does not count: the median of χ² with one degree of freedom is 0.4549.
  const auto middle = squares.begin() + static_cast<std::ptrdiff_t>(squares.size() / 2);
  std::nth_element(squares.begin(), middle, squares.end());
  return *middle / 0.4549 / 2;
}

/// How much less a mean of neighbors tells than of as many independent ones: (1 + ρ) / (1 − ρ), ρ the correlation of
/// successive residuals.
double correlation_factor(std::span<const Block> blocks, const Curve& curve) {
  double squares = 0, products = 0, before = 0;
  for (std::size_t i = 0; i < blocks.size(); ++i) {
    const double rest = blocks[i].mean - curve.at(blocks[i].time_s);
    squares += rest * rest;
    if (i > 0) products += rest * before;
    before = rest;
  }
  if (!(squares > 0)) return 1;
  // What chance alone makes of so few residuals is no correlation yet; what is one, a fit leaves too little of.
  const double n = static_cast<double>(blocks.size()), seen = products / squares;
  const double correlation =
      std::clamp(seen * n < by_chance * std::sqrt(n) ? seen - 1 / std::sqrt(n) : seen + (1 + 3 * seen) / n, 0.0, 0.85);
  return (1 + correlation) / (1 - correlation);
}

/// The largest sum of residuals from the stretch's beginning on: small for noise, large where something changed.
double longest_run(std::span<const Block> blocks, const Curve& curve) {
  double sum = 0, largest = 0;
  for (const Block& b : blocks) {
    sum += b.mean - curve.at(b.time_s);
    largest = std::max(largest, std::abs(sum));
  }
  return largest;
}

const Curve& best_of(const std::vector<Curve>& curves) {
  return *std::min_element(curves.begin(), curves.end(),
                           [](const Curve& a, const Curve& b) { return a.squares < b.squares; });
}

/// What a mean scatters by about the best curve, as independent ones would that tell as much.
double variance_about(std::span<const Block> blocks, const Curve& best, double noise_variance) {
  const double scatter = best.squares / std::max(static_cast<double>(blocks.size()) - 3, 1.0);
  return correlation_factor(blocks, best) *
         std::max({scatter, noise_variance, std::pow(least_noise_share * best.end_value, 2)});
}

/// Every τ counts by its likelihood; what is still to come and its spread are those of the mixture.
std::optional<DecayFit> mixture_of(std::span<const Block> blocks, double end_s, const std::vector<Curve>& curves,
                                   double noise_variance) {
  const Curve& best = best_of(curves);
  if (!std::isfinite(best.squares) || !(best.end_value > 0)) return {};
  const double variance = variance_about(blocks, best, noise_variance);
  const double moments = std::max(1.0, static_cast<double>(curves.size()) / taus - 1);
  double weights = 0, change = 0, rest = 0, rest_squares = 0, tau_log = 0, end_value = 0, amplitude = 0, much = 0,
         stepped = 0;
  for (const Curve& c : curves) {
    if (!(c.end_value > 0) || !std::isfinite(c.squares)) continue;
    const double less_likely = (c.squares - best.squares) / (2 * variance);
    if (less_likely > nothing_beside_the_best) continue;
    double weight = std::pow(std::min(usual_tau_s / c.tau_s, 1.0), 2.6) * std::exp(-less_likely);
    if (std::isfinite(c.step_at_s))
      weight *= step_chance / moments *
                std::min(1.0, std::sqrt(c.variance_of_step * variance) / (usual_step_share * c.end_value));
    const double share = c.amplitude * c.x_end / c.end_value;
    const double window_s = std::min(change_window_s, end_s - c.start_s);
    change += weight * share * std::expm1(window_s / c.tau_s);
    weights += weight;
    rest += weight * share;
    const double share_variance = c.variance_of_rest * variance / (c.end_value * c.end_value);
    rest_squares += weight * (share * share + share_variance);
    const double scale = std::sqrt(2 * share_variance);
    much += weight * (std::erfc((much_share - share) / scale) + std::erfc((much_share + share) / scale)) / 2;
    if (std::isfinite(c.step_at_s) && std::abs(c.step) > least_step_share * c.end_value) stepped += weight;
    tau_log += weight * std::log(c.tau_s);
    end_value += weight * c.end_value;
    amplitude += weight * c.amplitude;
  }
  DecayFit fit;
  fit.start_s = blocks.front().time_s;
  fit.end_value = end_value / weights;
  fit.time_constant_s = std::exp(tau_log / weights);
  fit.fall_share = amplitude / weights / fit.end_value;
  fit.remaining_share = rest / weights;
  fit.window_change = change / weights;
  fit.remaining_sd = std::sqrt(std::max(rest_squares / weights - fit.remaining_share * fit.remaining_share, 0.0));
  fit.noise_share = std::sqrt(variance) / fit.end_value;
  fit.chance_of_much = much / weights;
  const bool steps = stepped > surely_stepped * weights;
  fit.undisturbed_s = end_s - (steps ? std::max(best.start_s, best.step_at_s) : best.start_s);
  return fit;
}

}  // namespace

double DecayFit::time_until_s(double share) const {
  const double now = std::abs(remaining_share);
  return now <= share ? 0 : time_constant_s * std::log(now / share);
}

std::optional<DecayFit> fit_decay(std::span<const TimedValue> log) {
  const std::vector<Block> all = blocks_of(log, block_s);
  if (all.empty()) return {};
  const double end_s = log.back().time_s;
  std::optional<DecayFit> latest;
  // From the whole log to ever later stretches, until one decay, perhaps with one step in it, describes what is left.
  for (double start_s = all.front().time_s;; start_s += std::max(restart_step_s, (end_s - start_s) / most_restarts)) {
    const auto from = std::find_if(all.begin(), all.end(), [&](const Block& b) { return b.time_s >= start_s - 1e-9; });
    const std::span<const Block> blocks(from, all.end());
    const double length_s = end_s - blocks.front().time_s;
    if (static_cast<int>(blocks.size()) < fewest_blocks || length_s < (latest ? shortest_restart_s : shortest_s))
      return latest;
    const double noise_variance = successive_variance(blocks);
    const auto plain = [&](const Curve& c) {
      return std::isfinite(c.squares) &&
             longest_run(blocks, c) <=
                 disturbed * std::sqrt(static_cast<double>(blocks.size()) *
                                       (noise_variance + std::pow(wander_share * c.end_value, 2)));
    };
    const auto curves_over = [&](const TauRange& range) {
      const Stretch stretch(blocks, end_s, range);
      std::vector<Curve> curves = stretch.curves();
      if (start_s == all.front().time_s) {
        const std::vector<Curve> with_a_step = stretch.curves_with_a_step();
        curves.insert(curves.end(), with_a_step.begin(), with_a_step.end());
      }
      return curves;
    };
    // A quiet log leaves less than the first steps of τ apart: then once more, in finer ones.
    TauRange range;
    std::vector<Curve> curves = curves_over(range);
    for (int finer = 0; finer < most_finer; ++finer) {
      const Curve& best = best_of(curves);
      if (!std::isfinite(best.squares)) break;
      const TauRange part = range.possible(curves, best.squares, variance_about(blocks, best, noise_variance));
      if (!part.much_narrower_than(range)) break;
      range = part;
      curves = curves_over(range);
    }
    latest = mixture_of(blocks, end_s, curves, noise_variance);
    if (latest && plain(best_of(curves))) return latest;
  }
}

}  // namespace sunbreak
