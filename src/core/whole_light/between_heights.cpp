#include "core/whole_light/between_heights.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/whole_light/cubic_light.h"
#include "core/whole_light/residual_pattern.h"
#include "core/whole_light/whole_light_fit.h"

namespace sunbreak {
namespace {

constexpr double beyond_with_model = 0.25, beyond_with_cubic = 0.10;

struct Deviations {
  double squares = 0, sum = 0, count = 0;
  void add(double read, double predicted) {
    if (std::isnan(read) || std::isnan(predicted) || predicted <= 0) return;
    const double off = read / predicted - 1;
    squares += off * off, sum += off, count += 1;
  }
  double rms() const { return count > 0 ? std::sqrt(squares / count) : unread; }
  double mean() const { return count > 0 ? sum / count : unread; }
};

/// Readings that a fit has named as odd are no test of a prediction.
bool is_odd(const WholeLight& found, std::size_t sweep, std::size_t station) {
  return std::any_of(found.odd.begin(), found.odd.end(), [&](const OddReading& o) {
    return o.sweep == static_cast<int>(sweep) && o.station == static_cast<int>(station);
  });
}

void leave_out_by_model(const WholeLightQuestion& question, const WholeLight& found, int height, LeftOutHeight& left,
                        const std::stop_token& stop) {
  const WholeLightModel& model = *found.model;
  WholeLightFit fit(question, found.model, height);
  FitUnknowns start = model.known.best;
  if (const Eigen::Index k = model.parameters().find(FitParameter::Kind::HeightShift, height); k >= 0)
    start.values(k) = 0;
  fit.run_from(start, stop);
  // Where the other heights alone would be refused there is nothing that predicts.
  if (!fit.form().fixes_whole_light()) return;
  std::vector<Residuals> residuals;
  for (const FitSweep& sweep : question.sweeps) residuals.emplace_back(sweep.ppfd.size(), unread);
  const Eigen::VectorXd fitted = fit.fitted();
  for (std::size_t i = 0; i < fit.rows().size(); ++i)
    if (const FitRow& row = fit.rows()[i]; row.trust > 0)
      residuals[static_cast<std::size_t>(row.sweep)][static_cast<std::size_t>(row.station)] =
          std::log(row.ppfd / fitted(static_cast<Eigen::Index>(i)));
  const auto left_sweep = std::find_if(question.sweeps.begin(), question.sweeps.end(),
                                       [&](const FitSweep& s) { return s.height_m == left.height_m; });
  const ResidualPattern pattern(question, std::move(residuals), left_sweep->ppfd.size(), left.height_m);
  const auto exchange = model.room().exchange(model.parameters().reflectance(fit.best().values));
  Deviations off;
  for (std::size_t s = 0; s < question.sweeps.size(); ++s) {
    const FitSweep& sweep = question.sweeps[s];
    if (sweep.height_m != left.height_m) continue;
    const std::vector<int> stations = fitted_stations(sweep.layout);
    std::vector<Vec3> list;
    for (const int i : stations)
      list.push_back({sweep.layout.stations[static_cast<std::size_t>(i)].x_m,
                      sweep.layout.stations[static_cast<std::size_t>(i)].y_m, 0});
    const ModelPlaces places = model.places(std::move(list));
    const Hang hang = model.parameters().hang_at(fit.best().values, left.height_m);
    const Eigen::VectorXd light = model.parameters().setting(fit.best().values, sweep.setting) *
                                  model.light_of(fit.best(), {&hang, 1}, places, exchange);
    for (std::size_t k = 0; k < stations.size(); ++k) {
      const auto station = static_cast<std::size_t>(stations[k]);
      if (!is_odd(found, s, station))
        off.add(sweep.ppfd[station],
                light(static_cast<Eigen::Index>(k)) * pattern.at(sweep.setting, left.height_m, station));
    }
  }
  left.rms = off.rms();
  left.mean = off.mean();
}

void leave_out_by_cubic(const WholeLightQuestion& question, const WholeLight& found, LeftOutHeight& left) {
  Deviations off;
  for (std::size_t s = 0; s < question.sweeps.size(); ++s) {
    const FitSweep& sweep = question.sweeps[s];
    if (sweep.height_m != left.height_m || sweep.ppfd.size() != question.sweeps.front().ppfd.size()) continue;
    const CubicLight cubic(question, sweep.setting, left.height_m);
    if (!cubic.between(left.height_m)) continue;
    for (std::size_t i = 0; i < sweep.ppfd.size(); ++i)
      if (!is_odd(found, s, i)) off.add(sweep.ppfd[i], cubic.of(i).at(left.height_m));
  }
  left.cubic_rms = off.rms();
  left.cubic_mean = off.mean();
}

/// Root of the mean square of those that are known; NaN where none is.
double together(const std::vector<LeftOutHeight>& all, double LeftOutHeight::*part) {
  double squares = 0, count = 0;
  for (const LeftOutHeight& left : all)
    if (!std::isnan(left.*part)) squares += left.*part * (left.*part), count += 1;
  return count > 0 ? std::sqrt(squares / count) : unread;
}

/// Where a height stands between two walked ones, by a shape that falls by one share for each cm, less where it stands
/// by one that falls with a power of the height. Light is somewhere between such shapes: near a wide fixture it falls
/// later, far from it sooner.
double shapes_apart(double low_m, double high_m, double height_m) {
  return (height_m - low_m) / (high_m - low_m) - std::log(height_m / low_m) / std::log(high_m / low_m);
}

}  // namespace

std::vector<LeftOutHeight> left_out_heights(const WholeLightQuestion& question, const WholeLight& found,
                                            const std::stop_token& stop) {
  const std::vector<double> heights = heights_of(question);
  std::vector<LeftOutHeight> all;
  if (heights.size() < 2) return all;
  for (std::size_t r = 0; r < heights.size() && !stop.stop_requested(); ++r) {
    LeftOutHeight& left = all.emplace_back();
    left.height_m = heights[r];
    if (found.fits) leave_out_by_model(question, found, static_cast<int>(r), left, stop);
    leave_out_by_cubic(question, found, left);
  }
  return all;
}

BetweenHeights::~BetweenHeights() = default;

BetweenHeights::BetweenHeights(const WholeLightQuestion& question, const WholeLight& found,
                               std::vector<LeftOutHeight> left_out)
    : question_(question), found_(found), left_out_(std::move(left_out)), heights_m_(heights_of(question)) {
  // Held against each other where both can answer.
  std::vector<LeftOutHeight> both;
  for (const LeftOutHeight& left : left_out_)
    if (!std::isnan(left.rms) && !std::isnan(left.cubic_rms)) both.push_back(left);
  if (!found.fits || (!both.empty() && together(both, &LeftOutHeight::rms) > together(both, &LeftOutHeight::cubic_rms)))
    way_ = BetweenWay::Cubic;
  if (question.sweeps.empty()) return;
  std::vector<Vec3> list;
  for (const Station& s : question.sweeps.front().layout.stations) list.push_back({s.x_m, s.y_m, 0});
  at_stations_ = at_places(std::move(list));
}

std::unique_ptr<const LightAtPlaces> BetweenHeights::at_places(std::vector<Vec3> places) const {
  return std::make_unique<const LightAtPlaces>(question_, found_, way_, std::move(places));
}

std::pair<double, double> BetweenHeights::reach_m() const {
  if (heights_m_.empty()) return {0, 0};
  const double beyond =
      (way_ == BetweenWay::Model ? beyond_with_model : beyond_with_cubic) * (heights_m_.back() - heights_m_.front());
  return {heights_m_.front() - beyond, heights_m_.back() + beyond};
}

std::optional<std::pair<double, double>> BetweenHeights::around(double height_m) const {
  if (heights_m_.size() < 2) return {};
  const auto above = std::ranges::upper_bound(heights_m_, height_m) - heights_m_.begin();
  const auto upper = static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(above, 1, std::ssize(heights_m_) - 1));
  return std::pair(heights_m_[upper - 1], heights_m_[upper]);
}

/// `fall`: of ln E, from the one height around it to the other.
double BetweenHeights::mean_sd_of_fall(double fall, double height_m) const {
  const double of_height = std::hypot(question_.height_sd_m, question_.datum_sd_m) / std::max(height_m, 0.05);
  const auto between = around(height_m);
  if (!between || std::isnan(fall)) return of_height;
  return std::hypot(of_height, fall * shapes_apart(between->first, between->second, height_m));
}

PredictionErrors BetweenHeights::errors_at(double height_m) const {
  const bool by_model = way_ == BetweenWay::Model;
  PredictionErrors errors;
  errors.left_out_rms = together(left_out_, by_model ? &LeftOutHeight::rms : &LeftOutHeight::cubic_rms);
  const double mean_off = together(left_out_, by_model ? &LeftOutHeight::mean : &LeftOutHeight::cubic_mean);
  const double rms = errors.left_out_rms, noise = question_.noise;
  errors.scatter_sd = std::isnan(rms) ? 2 * noise : std::sqrt(std::max(rms * rms - noise * noise, noise * noise / 4));
  if (!by_model && at_stations_)
    errors.mean_sd = mean_sd_of(*at_stations_, {}, height_m);
  else
    errors.mean_sd = std::isnan(mean_off) ? mean_sd_of_fall(unread, height_m) : mean_off;
  return errors;
}

double BetweenHeights::mean_sd_of(const LightAtPlaces& places, std::span<const double> weights, double height_m) const {
  if (const double off = together(left_out_, &LeftOutHeight::cubic_mean); !std::isnan(off)) return off;
  const auto between = around(height_m);
  if (!between) return mean_sd_of_fall(unread, height_m);
  const auto light = places.at(std::vector<double>{between->first, between->second});
  double low = 0, high = 0;
  for (std::size_t i = 0; i < light[0].front().size(); ++i) {
    const double weight = weights.empty() ? 1 : weights[i], at_low = light[0].front()[i], at_high = light[1].front()[i];
    if (std::isnan(at_low) || std::isnan(at_high)) continue;
    low += weight * at_low, high += weight * at_high;
  }
  return mean_sd_of_fall(std::log(low / high), height_m);
}

Result<PredictedSweep> BetweenHeights::at(double height_m, const BetweenSetting& setting, UnitSystem told_in) const {
  if (question_.sweeps.empty())
    return Problem{"no sweep has readings", "there is nothing to predict from", "walk a height"};
  constexpr double rounding_m = 1e-6;
  const auto [lowest, highest] = reach_m();
  if (height_m < lowest - rounding_m || height_m > highest + rounding_m)
    return Problem{fmt::format("{} is beyond what was measured ({} … {})", length_text(height_m, told_in),
                               length_text(heights_m_.front(), told_in), length_text(heights_m_.back(), told_in)),
                   "a prediction there would be a guess",
                   fmt::format("ask for {} … {}, or walk that height", length_text(lowest, told_in),
                               length_text(highest, told_in))};
  PredictedSweep p;
  p.way = way_;
  const std::vector<std::vector<double>> light = at_stations_->at({&height_m, 1}).front();
  const auto &low = light[static_cast<std::size_t>(setting.lower)],
             &high = light[static_cast<std::size_t>(setting.upper)];
  for (std::size_t i = 0; i < low.size(); ++i)
    p.ppfd.push_back(setting.light_factor * mixed(low[i], high[i], setting.upper_share));
  const PredictionErrors errors = errors_at(height_m);
  p.left_out_rms = errors.left_out_rms;
  p.mean_expanded = 2 * errors.mean_sd;
  p.station_expanded = 2 * std::hypot(errors.mean_sd, errors.scatter_sd);
  return p;
}

}  // namespace sunbreak
