#include "core/meters/check_lamp.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include "core/quantity/normal_quantile.h"
#include "core/quantity/student.h"
#include "core/quantity/uncertain_text.h"

namespace sunbreak {
namespace {

constexpr double odd_watts_share = 0.01;
constexpr double odd_shape_sds = 4, least_shape_sd = 0.003;
constexpr double alike_sds = 3;  ///< moves seen by two are one move where they differ by less
constexpr double smallest_move = 0.003;
constexpr std::size_t most_charts = 200;
const double unknown = std::numeric_limits<double>::quiet_NaN();

struct LampSpread {
  double mean = 0, sd = 0;
};

/// Mean and standard deviation of any stretch of a history, by running sums: a long one takes no longer. Values are
/// small and near each other, so that the sums keep their digits.
class Spreads {
 public:
  explicit Spreads(const std::vector<double>& values) : sums_(values.size() + 1), squares_(values.size() + 1) {
    for (std::size_t i = 0; i < values.size(); ++i) {
      sums_[i + 1] = sums_[i] + values[i];
      squares_[i + 1] = squares_[i] + values[i] * values[i];
    }
  }
  std::size_t size() const { return sums_.size() - 1; }
  LampSpread of(std::size_t from, std::size_t to) const {
    const auto n = static_cast<double>(to - from);
    const double mean = (sums_[to] - sums_[from]) / n;
    const double rest = squares_[to] - squares_[from] - n * mean * mean;
    return {mean, n > 1 ? std::sqrt(std::max(0.0, rest / (n - 1))) : 0};
  }

 private:
  std::vector<double> sums_, squares_;
};

constexpr double least_sd = 5e-4;  ///< where readings are alike to the last digit

/// A value among all before it as a normal deviate: Student's t of a new value from n others, by its chance.
double deviate_from(const Spreads& history, double value, std::size_t before) {
  const LampSpread usual = history.of(0, before);
  const auto n = static_cast<double>(before);
  const double t = (value - usual.mean) / (std::max(usual.sd, least_sd) * std::sqrt(1 + 1 / n));
  const double chance = student_below(-std::fabs(t), n - 1);
  const double z = chance > 1e-15 ? -normal_quantile(chance) : 8;
  return t < 0 ? -z : z;
}

/// The likeliest moment of a step: the cut that leaves the least behind, after two readings at least.
std::size_t likeliest_cut(const Spreads& history) {
  const std::size_t to = history.size();
  std::size_t best = to - 1;
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t cut = 2; cut < to; ++cut) {
    const double before = history.of(0, cut).sd, after = history.of(cut, to).sd;
    const double rest =
        before * before * static_cast<double>(cut - 1) + after * after * static_cast<double>(to - cut - 1);
    if (rest < least) least = rest, best = cut;
  }
  return best;
}

ChartMove move_at(const Spreads& history, std::size_t cut) {
  const LampSpread before = history.of(0, cut), after = history.of(cut, history.size());
  const auto n = static_cast<double>(cut), m = static_cast<double>(history.size() - cut);
  const double freedom = std::max(1.0, n + m - 2);
  const double sd = std::sqrt(((n - 1) * before.sd * before.sd + (m - 1) * after.sd * after.sd) / freedom);
  ChartMove move;
  move.since = cut;
  move.change = std::expm1(after.mean - before.mean);
  move.expanded = coverage_factor(freedom) * sd * std::sqrt(1 / n + 1 / m);
  return move;
}

void watch(LampChart& chart, const ControlLimits& limits) {
  const auto& level = chart.level;
  const Spreads history(level);
  chart.deviate.assign(level.size(), unknown);
  chart.ewma.assign(level.size(), unknown);
  double mean = 0, kept = 1;
  std::optional<std::size_t> found;
  for (std::size_t i = chart_learns_from; i < level.size(); ++i) {
    // After an alarm the history before it stays the measure.
    chart.deviate[i] = deviate_from(history, level[i], found.value_or(i));
    const double w = limits.ewma_weight;
    mean = w * chart.deviate[i] + (1 - w) * mean;
    kept *= (1 - w) * (1 - w);
    chart.ewma[i] = mean / std::sqrt(w / (2 - w) * (1 - kept));
    if (!found && (std::fabs(chart.deviate[i]) > limits.single_limit || std::fabs(chart.ewma[i]) > limits.ewma_limit))
      found = i;
  }
  const std::size_t in_control = found ? likeliest_cut(history) : level.size();
  const LampSpread usual = history.of(0, in_control);
  chart.center = usual.mean;
  chart.sd = std::max(usual.sd, least_sd);
  if (!found) return;
  ChartMove move = move_at(history, in_control);
  move.found_at = std::max(*found, move.since);
  // A single odd day after which the light is as before is no move.
  const bool back =
      level.size() > *found + 3 && std::fabs(move.change) < 2 * move.expanded && std::fabs(chart.ewma.back()) < 1;
  if (!back && std::fabs(move.change) >= smallest_move) chart.move = move;
}

std::string day_words(double day) { return fmt::format("reading of day {:g}", day); }

}  // namespace

Result<std::vector<LampChart>> lamp_charts(const std::vector<CheckReading>& readings, const ControlLimits& limits) {
  std::vector<LampChart> charts;
  std::map<std::pair<std::string, std::string>, std::size_t> known;
  for (std::size_t i = 0; i < readings.size(); ++i) {
    const CheckReading& r = readings[i];
    if (r.light.empty())
      return Problem{fmt::format("The {} holds no light", day_words(r.day)), "there is nothing to chart",
                     "give the light at the center at least"};
    for (const double light : r.light)
      if (!(light > 0 && light < 1e5))
        return Problem{fmt::format("The {} holds {:g} µmol/m²/s", day_words(r.day), light),
                       "light of a check lamp is above zero", "take the reading out or read it again"};
    if (r.watts && !(*r.watts > 0 && *r.watts < 1e6))
      return Problem{fmt::format("The {} holds {:g} W", day_words(r.day), *r.watts), "a lit lamp draws watts",
                     "leave watts out where they were not read"};
    const auto [place, is_new] = known.emplace(std::pair{r.lamp, r.meter}, charts.size());
    if (is_new) {
      if (charts.size() == most_charts)
        return Problem{fmt::format("The readings are of over {} pairs of a lamp and a meter", most_charts),
                       "nobody reads as many lamps each day", "check that lamps and meters stand in their columns"};
      charts.emplace_back();
      charts.back().lamp = r.lamp;
      charts.back().meter = r.meter;
    }
    LampChart* chart = &charts[place->second];
    if (!chart->readings.empty() && readings[chart->readings.front()].light.size() != r.light.size())
      return Problem{fmt::format("The {} has {} stations, where others have {}", day_words(r.day), r.light.size(),
                                 readings[chart->readings.front()].light.size()),
                     "they cannot be compared", "read the same stations each time"};
    chart->readings.push_back(i);
  }
  for (LampChart& chart : charts) {
    std::stable_sort(chart.readings.begin(), chart.readings.end(),
                     [&](std::size_t a, std::size_t b) { return readings[a].day < readings[b].day; });
    const CheckReading& first = readings[chart.readings.front()];
    // Shape: how far the stations' ratios to the first reading are from each other.
    std::vector<double> shape;
    for (const std::size_t i : chart.readings) {
      double sum = 0, low = std::numeric_limits<double>::infinity(), high = -low;
      for (std::size_t k = 0; k < first.light.size(); ++k) {
        const double ratio = std::log(readings[i].light[k] / first.light[k]);
        sum += ratio;
        low = std::min(low, ratio);
        high = std::max(high, ratio);
      }
      chart.level.push_back(sum / static_cast<double>(first.light.size()));
      shape.push_back(high - low);
    }
    watch(chart, limits);
    const Spreads shapes(shape);
    double watts = 0;
    std::size_t with_watts = 0;
    for (std::size_t i = 0; i < chart.readings.size(); ++i) {
      const CheckReading& r = readings[chart.readings[i]];
      if (i >= chart_learns_from) {
        const LampSpread usual = shapes.of(0, i);
        if (shape[i] - usual.mean > odd_shape_sds * std::max(usual.sd, least_shape_sd)) chart.odd_shape.push_back(i);
      }
      if (!r.watts) continue;
      if (with_watts >= 3 && std::fabs(*r.watts / (watts / static_cast<double>(with_watts)) - 1) > odd_watts_share)
        chart.odd_watts.push_back(i);
      else
        watts += *r.watts, ++with_watts;
    }
  }
  return charts;
}

std::vector<LampFinding> lamp_findings(const std::vector<CheckReading>& readings,
                                       const std::vector<LampChart>& charts) {
  std::vector<LampFinding> findings;
  const auto day_of = [&](const LampChart& c) { return readings[c.readings[c.move->since]].day; };
  // What a chart says of the light since a day that another chart found.
  const auto change_since = [&](const LampChart& c, double day) -> std::optional<ChartMove> {
    if (c.move) return c.move;
    std::size_t cut = 0;
    while (cut < c.readings.size() && readings[c.readings[cut]].day < day) ++cut;
    if (cut < 2 || cut >= c.readings.size()) return std::nullopt;
    return move_at(Spreads(c.level), cut);
  };
  const auto alike = [](const ChartMove& a, const ChartMove& b) {
    return std::fabs(a.change - b.change) < alike_sds / 2 * std::hypot(a.expanded, b.expanded);
  };
  for (const LampChart& chart : charts) {
    if (!chart.move) continue;
    const double day = day_of(chart);
    std::optional<bool> others_by_meter, others_of_lamp;  // whether they saw the same move
    for (const LampChart& other : charts) {
      if (&other == &chart || (other.meter != chart.meter && other.lamp != chart.lamp)) continue;
      const auto seen = change_since(other, day);
      if (!seen) continue;
      auto& told = other.meter == chart.meter ? others_by_meter : others_of_lamp;
      told = told.value_or(true) && alike(*seen, *chart.move);
    }
    LampFinding f;
    f.change = chart.move->change;
    f.expanded = chart.move->expanded;
    f.since_day = day;
    const bool sensor = (others_by_meter && *others_by_meter) || (others_of_lamp && !*others_of_lamp);
    const bool lamp = (others_of_lamp && *others_of_lamp) || (others_by_meter && !*others_by_meter);
    f.mover = sensor && lamp ? Mover::Both : sensor ? Mover::Sensor : lamp ? Mover::Lamp : Mover::NotTold;
    f.who = f.mover == Mover::Lamp ? chart.lamp : chart.meter;
    // One finding for each that moved, by the chart that is surest of it.
    const auto told = std::find_if(findings.begin(), findings.end(), [&](const LampFinding& other) {
      return other.mover == f.mover && other.who == f.who && f.mover != Mover::NotTold;
    });
    const bool in_shape = chart.odd_shape.empty() || chart.odd_shape.back() < chart.move->since;
    const bool same_watts = chart.odd_watts.empty() || chart.odd_watts.back() < chart.move->since;
    const std::string moved = uncertain_text(100 * std::fabs(f.change), 100 * f.expanded, 1, "%");
    const char* way = f.change < 0 ? "less" : "more";
    if (f.mover == Mover::Sensor)
      f.words = fmt::format(
          "'{}' reads {} {} than before: other lamps show the same, or another meter does not. Have it "
          "calibrated, or correct what it has read since.",
          f.who, moved, way);
    else if (f.mover == Mover::Lamp)
      f.words = fmt::format("'{}' gives {} {} light than before, and the sensor is as it was. Start its chart anew.",
                            f.who, moved, way);
    else
      f.words = fmt::format(
          "'{}' reads {} {} of '{}' than before. Whether the sensor has drifted or the lamp has aged is "
          "not told: read a second lamp, or this one with a second meter.",
          chart.meter, moved, way, chart.lamp);
    if (!in_shape)
      f.words += " The stations do not go together as before: see first whether lamp and sensor stand in their places.";
    if (!same_watts) f.words += " The lamp also draws other watts than before: see first how it is driven.";
    if (told == findings.end())
      findings.push_back(f);
    else if (f.expanded < told->expanded)
      *told = f;
  }
  return findings;
}

DriftCorrection drift_correction(const LampFinding& finding) {
  return {1 / (1 + finding.change), finding.expanded / 2};
}

}  // namespace sunbreak
