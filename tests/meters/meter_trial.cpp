#include "meters/meter_trial.h"

#include <algorithm>
#include <cmath>
#include <random>
#include <vector>

#include "core/meters/agreement.h"
#include "core/meters/check_lamp.h"
#include "core/meters/lux_factor.h"
#include "core/quantity/normal_deviates.h"
#include "core/spectrum/color.h"
#include "spectrum/made_spectra.h"

namespace sunbreak::test {
namespace {

double between(NormalDeviates& chance, double low, double high) { return low + (high - low) * chance.uniform(); }

bool inside(const Estimate& e, double truth) { return e.low <= truth && truth <= e.high; }

}  // namespace

LuxTrial lux_trial(int fits, std::uint64_t seed) {
  NormalDeviates chance(seed);
  LuxTrial trial;
  for (int f = 0; f < fits; ++f) {
    const int n = 6 + static_cast<int>(between(chance, 0, 15));
    const double k = between(chance, 0.011, 0.032), lowest = between(chance, 1000, 8000), span = between(chance, 4, 25),
                 noise = between(chance, 0.003, 0.02), floor = between(chance, 0.3, 2);
    const int kind = f % 4, scatter = f % 3;
    const double highest = lowest * span;
    const double intercept = kind == 2 ? between(chance, 2, 20) * (chance.uniform() < 0.5 ? -0.5 : 1) : 0;
    const double bend = kind == 3 ? between(chance, 0.03, 0.15) * (chance.uniform() < 0.5 ? -1 : 1) : 0;
    const double curve = k * bend / (highest - lowest);
    const auto truth = [&](double lux) { return intercept + k * lux + curve * lux * (lux - lowest); };
    std::vector<LuxPair> pairs;
    double seen_lowest = highest, seen_highest = lowest;
    for (int i = 0; i < n; ++i) {
      const double lux = lowest * std::pow(span, i < 2 ? i : chance.uniform());
      const double relative = scatter == 1 ? 0 : noise, level = scatter == 0 ? 0 : floor;
      pairs.push_back({lux, truth(lux) * (1 + relative * chance()) + level * chance()});
      seen_lowest = std::min(seen_lowest, lux);
      seen_highest = std::max(seen_highest, lux);
    }
    if (std::any_of(pairs.begin(), pairs.end(), [](const LuxPair& p) { return p.ppfd <= 0; })) continue;
    const auto fitted = lux_factor(pairs);
    if (!fitted) continue;
    const LuxFactor& told = fitted.value();
    if (kind < 2) {
      trial.k.count(std::fabs(told.k - k) <= told.k_expanded);
      trial.k_of_scatter[scatter].count(std::fabs(told.k - k) <= told.k_expanded);
      trial.plain_holds.count(told.holds());
    }
    if (kind <= 2) {
      trial.intercept.count(std::fabs(told.intercept - intercept) <= told.intercept_expanded);
      trial.slope.count(std::fabs(told.slope_with_intercept - k) <= told.slope_expanded);
    }
    if (kind == 2 && std::fabs(intercept) > 3 * told.intercept_expanded) trial.intercept_found.count(!told.holds());
    if (kind == 3) {
      const double least = k + curve * (seen_lowest - lowest), most = k + curve * (seen_highest - lowest);
      const double true_bend = most / least - 1;
      trial.bend.count(std::fabs(told.bend - true_bend) <= told.bend_expanded);
      if (std::fabs(true_bend) > 3 * told.bend_expanded) trial.curve_found.count(!told.holds());
    }
  }
  // Lamps by chance: the wrong spectrum is one whose factor is over 3 % off.
  std::mt19937_64 lamps(seed);
  for (int i = 0; i < fits; ++i) {
    const auto lamp = [&](int kind) {
      const Light light = kind == 0   ? white_led(lamps)
                          : kind == 1 ? grow_led(lamps)
                          : kind == 2 ? fluorescent(lamps)
                                      : sodium(lamps);
      return SpectralCurve(sampled(light, every(2)));
    };
    const SpectralCurve fitted_under = lamp(i % 4), here = lamp(i / 4 % 4);
    const auto match = spectrum_match(fitted_under, here);
    if (!match) continue;
    const double off = std::fabs(lux_per_ppfd(fitted_under) / lux_per_ppfd(here) - 1);
    if (off > 0.03) trial.wrong_spectrum_refused.count(lux_factor_refused(match, true, 1000, 500, 5000).has_value());
    const auto again =
        spectrum_match(here, SpectralCurve(sampled([&](double nm) { return here.value(nm); }, every(5))));
    trial.same_spectrum_taken.count(!lux_factor_refused(again, false, 1000, 500, 5000));
  }
  return trial;
}

AgreementTrial agreement_trial(int cases, std::uint64_t seed) {
  NormalDeviates chance(seed);
  AgreementTrial trial;
  for (int c = 0; c < cases; ++c) {
    const int side = 4 + static_cast<int>(between(chance, 0, 7));
    const double ratio = between(chance, 0.9, 1.1), noise = between(chance, 0.002, 0.01);
    const int kind = c % 3;  // none, angle, constant
    const double angle = kind == 1 ? between(chance, 0.03, 0.1) * (chance.uniform() < 0.5 ? -1 : 1) : 0;
    const double constant = kind == 2 ? between(chance, 2, 15) : 0;
    const double fall = between(chance, 0.2, 0.7);
    std::vector<SensorPair> pairs;
    double mean = 0, log_ratio = 0;
    std::vector<double> exact;
    for (int row = 0; row < side; ++row)
      for (int column = 0; column < side; ++column) {
        const double x = (column + 0.5) / side - 0.5, y = (row + 0.5) / side - 0.5;
        const double most = 2 * std::pow(0.5 - 0.5 / side, 2), out = (x * x + y * y) / most;
        const double light = 900 * (1 - fall * out);
        const double first = light, second = constant + ratio * light * (1 + angle * (out - 0.5));
        exact.push_back(200 * (second - first) / (second + first));
        mean += exact.back();
        log_ratio += std::log(second / first);
        pairs.push_back({first * (1 + noise * chance()), second * (1 + noise * chance()), Place{x, y}});
      }
    const double n = static_cast<double>(pairs.size());
    mean /= n;
    const auto compared = agreement(pairs, 0.02, 0.03);
    if (!compared) continue;
    const Agreement& told = compared.value();
    trial.mean.count(inside(told.mean_difference_pct, mean));
    trial.ratio.count(inside(told.ratio, std::exp(log_ratio / n)));
    if (kind == 0) {
      const double sd = 100 * noise * std::sqrt(2.0);
      trial.low_limit.count(inside(told.low_limit_pct, mean - 1.959964 * sd));
      trial.high_limit.count(inside(told.high_limit_pct, mean + 1.959964 * sd));
      trial.angle_silent.count(!told.angle);
    }
    if (kind != 1) {
      trial.proportion.count(inside(told.proportion, ratio));
      trial.constant.count(inside(told.constant, constant));
    }
    if (kind != 2) {
      const double middle = ratio * (1 - angle * 0.5), edge = ratio * (1 + angle * 0.5);
      const double truth = 200 * (edge - 1) / (edge + 1) - 200 * (middle - 1) / (middle + 1);
      trial.edge.count(inside(*told.edge_pct, truth));
    }
    if (kind == 1) trial.angle_named.count(told.angle);
  }
  return trial;
}

ChartTrial chart_trial(int histories, std::uint64_t seed) {
  NormalDeviates chance(seed);
  ChartTrial trial;
  for (int h = 0; h < histories; ++h) {
    const double noise = between(chance, 0.002, 0.01), place_noise = 0.003;
    const auto reading = [&](double day, double moved, const char* lamp, const char* meter) {
      const double level = 500 * (1 + moved) * (1 + noise * chance());
      CheckReading r{day, lamp, meter, {}, 120 * (1 + 0.001 * chance())};
      for (const double share : {1.0, 0.8, 0.7}) r.light.push_back(level * share * (1 + place_noise * chance()));
      return r;
    };
    // A year in which nothing moves.
    std::vector<CheckReading> quiet;
    for (int day = 0; day < 250; ++day) quiet.push_back(reading(day, 0, "a", "m"));
    const LampChart chart = std::move(lamp_charts(quiet).value().front());
    std::size_t judged = quiet.size();
    bool alarm = false;
    for (std::size_t i = 5; i < quiet.size() && !alarm; ++i) {
      alarm = std::fabs(chart.deviate[i]) > ControlLimits().single_limit ||
              std::fabs(chart.ewma[i]) > ControlLimits().ewma_limit;
      judged = i + 1;
    }
    trial.quiet_days += static_cast<int>(judged) - 5;
    trial.false_alarms += alarm;
    // A move of 2 %, at once or over five days.
    const int begins = 25 + static_cast<int>(between(chance, 0, 100));
    const double sign = chance.uniform() < 0.5 ? -1 : 1;
    for (const bool ramp : {false, true}) {
      std::vector<CheckReading> moved;
      for (int day = 0; day < begins + 10; ++day)
        moved.push_back(reading(
            day, day < begins ? 0 : 0.02 * sign * (ramp ? std::min(1.0, (day - begins + 1) / 5.0) : 1), "a", "m"));
      const LampChart found = std::move(lamp_charts(moved).value().front());
      const bool in_time = found.move && found.move->found_at >= static_cast<std::size_t>(begins);
      if (found.move && !in_time) continue;  // a false alarm before: counted above
      (ramp ? trial.ramp_found : trial.step_found).count(in_time);
      if (in_time && !ramp) trial.step_size.count(std::fabs(found.move->change - 0.02 * sign) <= found.move->expanded);
    }
    // Who moved, told by a second lamp.
    const bool sensor = h % 2 == 0;
    std::vector<CheckReading> two;
    for (int day = 0; day < begins + 15; ++day)
      for (const char* lamp : {"a", "b"})
        two.push_back(reading(day, day >= begins && (sensor || lamp[0] == 'a') ? 0.03 * sign : 0, lamp, "m"));
    const auto charts = lamp_charts(two).value();
    const auto findings = lamp_findings(two, charts);
    trial.told_apart.count(findings.size() == 1 && findings[0].mover == (sensor ? Mover::Sensor : Mover::Lamp) &&
                           findings[0].who == (sensor ? "m" : "a"));
  }
  return trial;
}

}  // namespace sunbreak::test
