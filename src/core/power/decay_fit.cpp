#include "core/power/decay_fit.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <vector>

namespace sunbreak {
namespace {

constexpr double block_s = 60, shortest_s = 15 * 60, shortest_restart_s = 30 * 60, change_window_s = 30 * 60,
                 shortest_tau_s = 90, longest_tau_s = 3 * 3600;
constexpr int taus = 72, fewest_blocks = 6;
constexpr double restart_step_s = 300;
constexpr double disturbed = 1.4;  ///< largest run of residuals, over what noise and wander make of as many
constexpr double least_noise_share = 2e-5;
constexpr double least_step_share = 2.5e-3;  ///< smaller ones do not begin the wait anew
constexpr double wander_share =
    3e-3;  ///< what mains and room add to a minute's mean in the long run: no disturbance yet

/// The least-squares fit v∞ + A·x + S·(before the step) to the blocks for one τ, x = exp(−(t − t₀)/τ).
struct Curve {
  double tau_s = 0, step_at_s = 0;  ///< no step where it lies before the first block
  double end_value = 0, amplitude = 0, step = 0, squares = INFINITY;
  double start_s = 0, x_end = 0;
  double variance_of_rest = 0;  ///< of A·x_end, in units of one mean's variance

  double at(double time_s) const {
    return end_value + amplitude * std::exp(-(time_s - start_s) / tau_s) + (time_s < step_at_s ? step : 0);
  }
};

Curve curve_for(std::span<const Block> blocks, double end_s, double tau_s, double step_at_s) {
  Curve c{tau_s, step_at_s};
  c.start_s = blocks.front().time_s;
  c.x_end = std::exp(-(end_s - c.start_s) / tau_s);
  const bool steps = step_at_s > c.start_s;
  double n = 0, x1 = 0, xx = 0, y1 = 0, xy = 0, h1 = 0, hx = 0, hy = 0;
  for (const Block& b : blocks) {
    const double x = std::exp(-(b.time_s - c.start_s) / tau_s);
    n += 1, x1 += x, xx += x * x, y1 += b.mean, xy += x * b.mean;
    if (steps && b.time_s < step_at_s) h1 += 1, hx += x, hy += b.mean;
  }
  Eigen::Matrix3d normal;
  normal << n, x1, h1, x1, xx, hx, h1, hx, steps ? h1 : 1;
  const Eigen::LDLT<Eigen::Matrix3d> solver(normal);
  if (solver.rcond() < 1e-10) return c;
  const Eigen::Vector3d found = solver.solve(Eigen::Vector3d(y1, xy, hy));
  c.end_value = found[0], c.amplitude = found[1], c.step = found[2];
  c.squares = 0;
  for (const Block& b : blocks) c.squares += std::pow(b.mean - c.at(b.time_s), 2);
  c.variance_of_rest = c.x_end * c.x_end * solver.solve(Eigen::Vector3d::UnitY())[1];
  return c;
}

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
  const double correlation = squares > 0 ? std::clamp(products / squares, 0.0, 0.85) : 0;
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

/// One curve a τ, for a step at one moment.
std::vector<Curve> curves_for(std::span<const Block> blocks, double end_s, double step_at_s) {
  std::vector<Curve> curves;
  for (int i = 0; i < taus; ++i)
    curves.push_back(curve_for(blocks, end_s,
                               shortest_tau_s * std::pow(longest_tau_s / shortest_tau_s, i / (taus - 1.0)), step_at_s));
  return curves;
}

const Curve& best_of(const std::vector<Curve>& curves) {
  return *std::min_element(curves.begin(), curves.end(),
                           [](const Curve& a, const Curve& b) { return a.squares < b.squares; });
}

/// The curves with the step where it explains most; the moment is sought coarsely, then around the best.
std::vector<Curve> curves_with_a_step(std::span<const Block> blocks, double end_s) {
  const double first_s = blocks.front().time_s + 2 * block_s, last_s = end_s - 2 * block_s;
  std::vector<Curve> best;
  const auto seek = [&](double from_s, double to_s, double every_s) {
    for (double at_s = from_s; at_s <= to_s; at_s += every_s) {
      std::vector<Curve> curves = curves_for(blocks, end_s, at_s);
      if (best.empty() || best_of(curves).squares < best_of(best).squares) best = std::move(curves);
    }
  };
  seek(first_s, last_s, std::max(restart_step_s, (last_s - first_s) / 24));
  const double around_s = best_of(best).step_at_s, width_s = std::max(restart_step_s, (last_s - first_s) / 24);
  seek(std::max(first_s, around_s - width_s), std::min(last_s, around_s + width_s), std::max(block_s, width_s / 8));
  return best;
}

/// Every τ counts by its likelihood; what is still to come and its spread are those of the mixture.
std::optional<DecayFit> mixture_of(std::span<const Block> blocks, double end_s, const std::vector<Curve>& curves,
                                   double noise_variance) {
  const Curve& best = best_of(curves);
  if (!std::isfinite(best.squares) || !(best.end_value > 0)) return {};
  const double scatter = best.squares / std::max(static_cast<double>(blocks.size()) - 3, 1.0);
  const double variance = correlation_factor(blocks, best) *
                          std::max({scatter, noise_variance, std::pow(least_noise_share * best.end_value, 2)});
  double weights = 0, change = 0, rest = 0, rest_squares = 0, tau_log = 0, end_value = 0, amplitude = 0;
  for (const Curve& c : curves) {
    if (!(c.end_value > 0) || !std::isfinite(c.squares)) continue;
    const double weight = std::exp(-(c.squares - best.squares) / (2 * variance));
    const double share = c.amplitude * c.x_end / c.end_value;
    const double window_s = std::min(change_window_s, end_s - c.start_s);
    change += weight * share * std::expm1(window_s / c.tau_s);
    weights += weight;
    rest += weight * share;
    rest_squares += weight * (share * share + c.variance_of_rest * variance / (c.end_value * c.end_value));
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
  const bool steps = std::abs(best.step) > least_step_share * best.end_value;
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
  for (double start_s = all.front().time_s;; start_s += restart_step_s) {
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
    std::vector<Curve> curves = curves_for(blocks, end_s, -INFINITY);
    if (!plain(best_of(curves)) && start_s == all.front().time_s) curves = curves_with_a_step(blocks, end_s);
    latest = mixture_of(blocks, end_s, curves, noise_variance);
    if (latest && plain(best_of(curves))) return latest;
  }
}

}  // namespace sunbreak
