#include "settle/study_bench.h"

#include <algorithm>
#include <cmath>
#include <random>

namespace sunbreak::trial {
namespace {

constexpr int truth_cells = 40;
constexpr double lowest_pct = 20;

using Random = std::mt19937_64;
double drawn(Random& random, double low, double high) {
  return std::uniform_real_distribution<double>(low, high)(random);
}

/// The settings of a stair of five stops, each read with an error.
std::vector<SettleSetting> settings_of(const TrueDimmer& dimmer, std::size_t count, Random& random) {
  constexpr double read_sd = 0.003;
  std::normal_distribution<double> error(1, read_sd);
  std::vector<double> percent, light, power;
  for (const double at : {20, 40, 60, 80, 100}) {
    percent.push_back(at);
    light.push_back(at == 100 ? 1 : dimmer.light(at) * error(random));
    power.push_back(dimmer.power_w(at));
  }
  const MonotoneCubic light_at = MonotoneCubic::through(percent, light).value(),
                      power_at = MonotoneCubic::through(percent, power).value();
  std::vector<SettleSetting> settings;
  for (std::size_t k = 0; k < count; ++k) {
    const double at = lowest_pct + (100 - lowest_pct) * static_cast<double>(k) / static_cast<double>(count - 1);
    settings.push_back({at, light_at.at(at), at == 100 ? 0 : 0.004, power_at.at(at), 0, 0, 0});
  }
  return settings;
}

Layout asked(const SettleBench& bench) {
  return asked_places(bench.area, bench.bench.question.sweeps.front().layout, false);
}

}  // namespace

double TrueDimmer::light(double percent) const { return std::pow(percent / 100, light_power); }
double TrueDimmer::power_w(double percent) const {
  return full_w * (standby_share + (1 - standby_share) * std::pow(light(percent), watts_power));
}

Truth::Truth(const SettleBench& bench)
    : bench_(bench), model_(bench.bench.room), told_(settle_lattice(bench.area, asked(bench))) {
  const Rectangle& a = bench.area;
  places_ = told_.places;
  const auto middle = [](int i) { return (i + 0.5) / truth_cells; };
  for (int j = 0; j < truth_cells; ++j)
    for (int i = 0; i < truth_cells; ++i)
      places_.push_back({a.left_m + middle(i) * a.width_m, a.front_m + middle(j) * a.depth_m, 0});
  stations_ = model_.stations(places_);
}

const std::vector<double>& Truth::light(double height_m) const {
  for (const auto& [height, light] : known_)
    if (height == height_m) return *light;
  const Prediction p =
      model_.predict(hung_emitters(bench_.bench.lamp, bench_.bench.hang, bench_.bench.room, height_m), stations_);
  auto light = std::make_unique<std::vector<double>>();
  for (std::size_t i = 0; i < places_.size(); ++i) light->push_back(p.direct[i] + p.reflected[i]);
  known_.emplace_back(height_m, std::move(light));
  return *known_.back().second;
}

AreaLight Truth::at(double height_m, double percent, const Band& band) const {
  std::vector<double> ppfd = light(height_m);
  for (double& e : ppfd) e *= bench_.dimmer.light(percent);
  AreaLight f = told_.plan.light(std::span(ppfd).first(told_.places.size()));
  add_shares(f, told_.cells, std::span(ppfd).first(told_.places.size()), band);
  return f;
}

double Truth::in_band_between_stations(double height_m, double percent, const Band& band) const {
  const auto cells = std::span(light(height_m)).subspan(told_.places.size());
  const double factor = bench_.dimmer.light(percent);
  const auto in = std::count_if(cells.begin(), cells.end(),
                                [&](double e) { return factor * e >= band.low && factor * e <= band.high; });
  return static_cast<double>(in) / static_cast<double>(cells.size());
}

SettleBench settle_bench(std::uint64_t seed, int number) {
  // Of the benches for trials of the fit, those with two to four heights.
  constexpr int family = 12;
  const int place = number / 6 * family + 2 + number % 6;
  SettleBench s;
  s.bench = light_bench(seed, place, false, false);
  std::seed_seq sequence{seed, static_cast<std::uint64_t>(number), std::uint64_t{77}};
  Random random(sequence);
  s.calibration_sd = drawn(random, 0.005, 0.015);
  s.calibration_error = s.calibration_sd * std::normal_distribution<double>()(random);
  for (FitSweep& sweep : s.bench.question.sweeps)
    for (double& ppfd : sweep.ppfd) ppfd *= 1 + s.calibration_error;
  s.dimmer = {s.bench.lamp.ppf_umol_s / drawn(random, 2.0, 3.0), drawn(random, 0.01, 0.05), drawn(random, 0.9, 1.15),
              drawn(random, 1, 1.1)};
  const double w = s.bench.room.width_m, d = s.bench.room.depth_m;
  s.area = number % 3 == 0 ? Rectangle{0.1 * w, 0.1 * d, 0.8 * w, 0.8 * d} : Rectangle{0, 0, w, d};
  s.steps = settings_of(s.dimmer, 241, random);
  for (std::size_t k = 0; k < s.steps.size(); k += 4) s.settings.push_back(s.steps[k]);
  // A target about what it can do at one of its heights.
  const Truth truth(s);
  const auto& heights = s.bench.heights_m;
  const double height = drawn(random, heights.front(), heights.back());
  const AreaLight full = truth.at(height, 100, {});
  const double dimmed = drawn(random, 0.35, 0.95);
  s.band.low = dimmed * full.edge;
  s.band.high = std::max(drawn(random, 0.95, 1.4) * dimmed * full.highest, 1.2 * s.band.low);
  constexpr ServingRule::Kind kinds[] = {ServingRule::Kind::Edge,   ServingRule::Kind::Edge, ServingRule::Kind::Share,
                                         ServingRule::Kind::Edge,   ServingRule::Kind::Mean, ServingRule::Kind::Every,
                                         ServingRule::Kind::Corners};
  s.rule.kind = kinds[number % 7];
  if (s.rule.kind == ServingRule::Kind::Share) {
    s.rule.share = drawn(random, 0.7, 0.95);
    s.band = {drawn(random, 0.5, 0.9) * dimmed * full.mean, drawn(random, 1.4, 1.8) * dimmed * full.mean};
  }
  if (s.rule.kind == ServingRule::Kind::Every) s.band.low = dimmed * full.lowest;
  if (s.rule.kind == ServingRule::Kind::Corners) s.rule.ppfd = dimmed * full.corners;
  return s;
}

}  // namespace sunbreak::trial
