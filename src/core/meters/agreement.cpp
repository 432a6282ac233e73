#include "core/meters/agreement.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <vector>

#include "core/linear/least_squares.h"
#include "core/meters/few_pairs.h"
#include "core/quantity/student.h"
#include "core/quantity/uncertain_text.h"

namespace sunbreak {
namespace {

constexpr std::size_t fewest_compared = 5;
constexpr double limits_at = 1.959964, naming_chance = 0.01;
constexpr double smallest_angle_pct = 1, smallest_level_pct = 1, most_scatter_pct = 10;
constexpr double unknown_uncertainty = 0.05;
constexpr std::size_t most_groups = 400;

double mean_of(const std::vector<double>& values) {
  return std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
}

/// The line of y over x: its slope, the slope's standard deviation, what is left.
struct Regression {
  double slope = 0, slope_sd = 0, rest_sd = 0, freedom = 0;
};

Regression regress(const std::vector<double>& x, const std::vector<double>& y) {
  LeastSquares line(2);
  for (std::size_t i = 0; i < x.size(); ++i) line.add({{1, x[i]}}, y[i]);
  line.solve();
  Regression r;
  r.slope = line.x()[1];
  r.freedom = static_cast<double>(x.size() - 2);
  double squares = 0;
  for (std::size_t i = 0; i < x.size(); ++i) squares += std::pow(y[i] - line.at({{1, x[i]}}), 2);
  r.rest_sd = std::sqrt(squares / r.freedom);
  r.slope_sd = r.rest_sd * std::sqrt(line.inverse(1, 1));
  return r;
}

bool significant(const Regression& r) {
  return std::fabs(r.slope) > student_quantile(1 - naming_chance / 2, r.freedom) * r.slope_sd;
}

/// How far out each station lies: 0 in the middle of all, 1 at the outermost, by the square of the distance.
std::optional<std::vector<double>> outwards(const std::vector<SensorPair>& pairs) {
  double x = 0, y = 0;
  for (const SensorPair& pair : pairs) {
    if (!pair.place) return std::nullopt;
    x += pair.place->x_m / static_cast<double>(pairs.size());
    y += pair.place->y_m / static_cast<double>(pairs.size());
  }
  std::vector<double> out;
  for (const SensorPair& pair : pairs)
    out.push_back(std::pow(pair.place->x_m - x, 2) + std::pow(pair.place->y_m - y, 2));
  const auto [least, most] = std::minmax_element(out.begin(), out.end());
  const double farthest = *most;
  if (!(farthest > 1e-6) || *least > 0.5 * farthest || pairs.size() < 8) return std::nullopt;
  for (double& square : out) square /= farthest;
  return out;
}

struct Line {
  double constant = 0, proportion = 1;
};

/// Weighted Deming regression for errors in proportion to the light, alike for both: weights by the squared mean of
/// what both are taken to have seen, a few rounds. Source: Linnet, Clin. Chem. 39 (1993).
Line deming(const std::vector<SensorPair>& pairs, std::size_t groups, std::size_t without) {
  Line line;
  for (int round = 0; round < 8; ++round) {
    double sum = 0, mean_x = 0, mean_y = 0;
    std::vector<double> weights(pairs.size(), 0);
    for (std::size_t i = 0; i < pairs.size(); ++i) {
      if (i % groups == without) continue;
      const double x = pairs[i].first, y = pairs[i].second;
      // The light that both saw, by the present line.
      const double seen =
          std::max(1e-9, (x + line.proportion * (y - line.constant)) / (1 + line.proportion * line.proportion));
      const double level = std::max(1e-9, (seen + line.constant + line.proportion * seen) / 2);
      weights[i] = 1 / (level * level);
      sum += weights[i];
      mean_x += weights[i] * x;
      mean_y += weights[i] * y;
    }
    mean_x /= sum;
    mean_y /= sum;
    double xx = 0, yy = 0, xy = 0;
    for (std::size_t i = 0; i < pairs.size(); ++i) {
      const double dx = pairs[i].first - mean_x, dy = pairs[i].second - mean_y;
      xx += weights[i] * dx * dx;
      yy += weights[i] * dy * dy;
      xy += weights[i] * dx * dy;
    }
    if (!(std::fabs(xy) > 1e-300)) return {};
    line.proportion = (yy - xx + std::sqrt((yy - xx) * (yy - xx) + 4 * xy * xy)) / (2 * xy);
    line.constant = mean_y - line.proportion * mean_x;
  }
  return line;
}

/// Its intervals by leaving out one pair at a time, or where there are very many one group of them at a time.
void find_deming(const std::vector<SensorPair>& pairs, Agreement& told) {
  const std::size_t groups = std::min(pairs.size(), most_groups);
  const Line all = deming(pairs, groups, groups);
  const auto n = static_cast<double>(groups);
  std::vector<double> constants, proportions;
  for (std::size_t group = 0; group < groups; ++group) {
    const Line without = deming(pairs, groups, group);
    constants.push_back(n * all.constant - (n - 1) * without.constant);
    proportions.push_back(n * all.proportion - (n - 1) * without.proportion);
  }
  const auto interval = [&](double value, const std::vector<double>& pseudo) {
    double squares = 0;
    const double mean = mean_of(pseudo);
    for (const double p : pseudo) squares += (p - mean) * (p - mean);
    const double half = coverage_factor(n - 2) * std::sqrt(squares / (n - 1) / n);
    return Estimate{value, value - half, value + half};
  };
  told.constant = interval(all.constant, constants);
  told.proportion = interval(all.proportion, proportions);
}

/// Limits of agreement with their intervals: the mean's and the deviation's put together (MOVER: Zou, Stat. Methods
/// Med. Res. 22, 2013).
void find_limits(double mean, double sd, double mean_se, double freedom, Agreement& told) {
  const double t = coverage_factor(freedom) * mean_se;
  const double sd_low = sd * std::sqrt(freedom / chi_squared_quantile(2, freedom)),
               sd_high = sd * std::sqrt(freedom / chi_squared_quantile(-2, freedom));
  const double inner = std::hypot(t, limits_at * (sd - sd_low)), outer = std::hypot(t, limits_at * (sd_high - sd));
  const double low = mean - limits_at * sd, high = mean + limits_at * sd;
  told.low_limit_pct = {low, low - outer, low + inner};
  told.high_limit_pct = {high, high - inner, high + outer};
}

std::string shown(const Estimate& e) { return fmt::format("{:+.1f} % ({:+.1f} to {:+.1f} %)", e.value, e.low, e.high); }

void judge(double uncertainty_first, double uncertainty_second, Agreement& told) {
  const bool known = std::isfinite(uncertainty_first) && std::isfinite(uncertainty_second);
  const double both = 200 * std::hypot(std::isfinite(uncertainty_first) ? uncertainty_first : unknown_uncertainty,
                                       std::isfinite(uncertainty_second) ? uncertainty_second : unknown_uncertainty);
  const Estimate& mean = told.mean_difference_pct;
  const double half = (mean.high - mean.low) / 2;
  const std::string difference =
      std::max(std::fabs(mean.value), half) < 0.05
          ? "The second reads within 0.1 % of the first"
          : fmt::format("The second reads {} {} than the first by {} %",
                        std::fabs(mean.value) < half ? "perhaps" : "surely", mean.value < 0 ? "less" : "more",
                        uncertain_text(std::fabs(mean.value), half, 1));
  if (told.angle) {
    told.verdict = AgreementVerdict::Angle;
    told.words = fmt::format(
        "{}, and towards the edge the ratio changes by {}: one of the two weighs light from the side wrong{}. No one "
        "factor mends that.",
        difference, shown(*told.edge_pct),
        told.level ? ", or is not linear, for the edge is also where the light is lowest" : "");
  } else if (told.level) {
    told.verdict = AgreementVerdict::Level;
    told.words = fmt::format(
        "{}, and the ratio changes with the light: second = {:.1f} + {:.3f} · first. One of the two is not linear, or "
        "has a dark reading that was not taken off. No one factor mends that.",
        difference, told.constant.value, told.proportion.value);
  } else if (told.high_limit_pct.value - told.low_limit_pct.value > 2 * most_scatter_pct) {
    told.verdict = AgreementVerdict::Scatter;
    told.words = fmt::format(
        "{}, and single readings differ by {:+.1f} to {:+.1f} %: too much for one to stand in for "
        "the other. Put both on the same place, level, and read again.",
        difference, told.low_limit_pct.value, told.high_limit_pct.value);
  } else if (std::fabs(mean.value) <= std::hypot(both, half)) {
    told.verdict = AgreementVerdict::Agree;
    told.words = fmt::format("{}: within the ±{:.1f} % that both are uncertain by{}.", difference, both,
                             known ? "" : " (5 % was taken where it is not stated)");
  } else {
    told.verdict = AgreementVerdict::Factor;
    told.words = fmt::format(
        "{}: more than the ±{:.1f} % that both are uncertain by{}. The second times {:.4f} reads as "
        "the first.",
        difference, both, known ? "" : " (5 % was taken where it is not stated)", 1 / told.ratio.value);
  }
}

}  // namespace

Result<Agreement> agreement(const std::vector<SensorPair>& pairs, double uncertainty_first, double uncertainty_second) {
  if (pairs.size() < fewest_compared)
    return too_few_pairs(pairs.size(), "five are the fewest that tell a difference from scatter",
                         "read more places or levels with both");
  for (const SensorPair& pair : pairs)
    if (!(pair.first > 0 && pair.second > 0 && pair.first < 1e5 && pair.second < 1e5))
      return Problem{fmt::format("A pair is {:g} and {:g}", pair.first, pair.second),
                     "both have to be above zero and such as light can be", "take the pair out or read it again"};
  const auto n = static_cast<double>(pairs.size());
  Agreement told;
  std::vector<double> log_ratio, level;
  for (const SensorPair& pair : pairs) {
    told.differences_pct.push_back(200 * (pair.second - pair.first) / (pair.second + pair.first));
    log_ratio.push_back(std::log(pair.second / pair.first));
    level.push_back(std::log(std::sqrt(pair.first * pair.second)));
  }
  const std::vector<double>& difference = told.differences_pct;
  const double mean = mean_of(difference);
  // What goes with place or level is told as such; the mean's interval is of what is left then.
  double squares = 0;
  for (const double d : difference) squares += (d - mean) * (d - mean);
  double noise = std::sqrt(squares / (n - 1)), freedom = n - 1;
  told.scatter_pct = noise;
  if (const auto out = outwards(pairs)) {
    const Regression r = regress(*out, difference);
    const double half = coverage_factor(r.freedom) * r.slope_sd;
    told.edge_pct = Estimate{r.slope, r.slope - half, r.slope + half};
    told.angle = significant(r) && std::fabs(r.slope) >= smallest_angle_pct;
    if (told.angle) noise = r.rest_sd, freedom = r.freedom;
  }
  const auto [lowest, highest] = std::minmax_element(level.begin(), level.end());
  const double reach = *highest - *lowest;
  if (reach > std::log(1.3) && n >= 6) {
    const double middle = mean_of(level);
    for (double& one : level) one -= middle;
    const Regression r = regress(level, difference);
    told.level = significant(r) && std::fabs(r.slope) * reach >= smallest_level_pct;
    if (told.level && !told.angle) noise = r.rest_sd, freedom = r.freedom;
  }
  const double half = coverage_factor(freedom) * noise / std::sqrt(n), ratio = std::exp(mean_of(log_ratio));
  told.mean_difference_pct = {mean, mean - half, mean + half};
  told.ratio = {ratio, ratio * std::exp(-half / 100), ratio * std::exp(half / 100)};
  find_limits(mean, told.scatter_pct, told.scatter_pct / std::sqrt(n), n - 1, told);
  find_deming(pairs, told);
  judge(uncertainty_first, uncertainty_second, told);
  return told;
}

CarriedCalibration carried_calibration(const Agreement& a, double factor_second, double uncertainty_first) {
  const double added = (a.ratio.high - a.ratio.low) / 4 / a.ratio.value;
  return {factor_second / a.ratio.value,
          std::hypot(std::isfinite(uncertainty_first) ? uncertainty_first : unknown_uncertainty, added), added};
}

}  // namespace sunbreak
