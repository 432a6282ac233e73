#include "core/settle/settle_maker.h"

#include <algorithm>
#include <cmath>
#include <future>
#include <utility>

#include "core/whole_light/whole_light_fit.h"

namespace sunbreak {
namespace {

constexpr double same_height_m = 1e-6;

/// A coarser lattice, for what is smooth.
constexpr int coarse_cells = 8;

/// What the model leaves open of the light together and of the edge beside it.
class ModelErrors {
 public:
  ModelErrors(const BetweenHeights& between, const Rectangle& area, const Rectangle& edge_line) {
    std::vector<Vec3> places;
    const auto at = [&](double x, double y) {
      places.push_back({area.left_m + x * area.width_m, area.front_m + y * area.depth_m, 0});
    };
    const auto middle = [](int i) { return (i + 0.5) / coarse_cells; };
    for (int j = 0; j < coarse_cells; ++j)
      for (int i = 0; i < coarse_cells; ++i) at(middle(i), middle(j));
    const std::size_t cells = places.size();
    for (const double side : {0.0, 1.0})
      for (int i = 0; i < coarse_cells; ++i)
        for (const auto& [x, y] : {std::pair(middle(i), side), std::pair(side, middle(i))})
          places.push_back({edge_line.left_m + x * edge_line.width_m, edge_line.front_m + y * edge_line.depth_m, 0});
    const std::size_t edge = places.size() - cells;
    mean_.assign(places.size(), 0);
    edge_.assign(places.size(), 0);
    std::fill_n(mean_.begin(), cells, 1.0 / static_cast<double>(cells));
    std::fill_n(edge_.rbegin(), edge, 1.0 / static_cast<double>(edge));
    light_ = between.at_places(std::move(places));
  }
  SettleErrors at(double height_m) const {
    // What a room of patches leaves of an error right beside a wall.
    constexpr double beside_walls = 0.006;
    const double mean = light_->mean_expanded(height_m, mean_) / 2, edge = light_->mean_expanded(height_m, edge_) / 2;
    return {mean, std::sqrt(std::max(edge * edge - mean * mean, 0.0) + beside_walls * beside_walls), 0};
  }

 private:
  std::vector<double> mean_, edge_;
  std::unique_ptr<const LightAtPlaces> light_;
};

}  // namespace

std::vector<double> settle_heights_m(const std::pair<double, double>& reach_m, std::vector<double> measured_m,
                                     double step_m) {
  std::vector<double> heights = std::move(measured_m);
  std::sort(heights.begin(), heights.end());
  heights.erase(std::unique(heights.begin(), heights.end()), heights.end());
  const std::size_t room = most_settle_heights - std::min(heights.size(), most_settle_heights / 2);
  const double range = reach_m.second - reach_m.first;
  const double steps = std::ceil(range / step_m / static_cast<double>(room));
  const double step = step_m * std::max(steps, 1.0);
  std::vector<double> extra;
  for (double k = std::ceil(reach_m.first / step - 1e-9); k * step <= reach_m.second + same_height_m; ++k)
    if (k > 0 &&
        std::none_of(heights.begin(), heights.end(), [&](double h) { return std::abs(h - k * step) < same_height_m; }))
      extra.push_back(k * step);
  heights.insert(heights.end(), extra.begin(), extra.end());
  std::sort(heights.begin(), heights.end());
  return heights;
}

SettleMaker::SettleMaker(const WholeLightQuestion& question, const BetweenHeights& between, const Rectangle& area,
                         std::vector<WalkedLight> walked)
    : question_(question),
      between_(between),
      walked_(std::move(walked)),
      lattice_(
          settle_lattice(area, asked_places(area, question.sweeps.front().layout, between.way() == BetweenWay::Model))),
      light_(between.at_places(lattice_.places)) {
  const auto [low, high] = between.reach_m();
  const std::vector<double> measured = heights_of(question);
  std::vector<double> asked{measured.front(), (measured.front() + measured.back()) / 2, measured.back()};
  if (high - measured.back() > same_height_m) asked.push_back(high);
  if (measured.front() - low > same_height_m && low > 0) asked.push_back(low);
  std::sort(asked.begin(), asked.end());
  asked.erase(std::unique(asked.begin(), asked.end()), asked.end());
  if (between.way() == BetweenWay::Model) {
    const ModelErrors model(between, area, lattice_.plan.edge_line());
    for (const double height : asked) errors_.push_back({height, model.at(height)});
  } else {
    for (const double height : asked) errors_.push_back({height, cubic_errors(height)});
  }
  for (ErrorsAt& e : errors_) e.errors.local = between.errors_at(e.height_m).scatter_sd;
}

/// Without a model: how far heights that were left out were missed, or, of too few, how far two ways of interpolating
/// differ, of the mean and of the edge.
SettleErrors SettleMaker::cubic_errors(double height_m) const {
  constexpr double least = 0.01;
  const std::size_t places = lattice_.places.size();
  const double together = between_.mean_sd_of(*light_, lattice_.plan.mean_weights(places), height_m),
               edge = between_.mean_sd_of(*light_, lattice_.plan.edge_weights(places), height_m);
  if (!std::isfinite(together)) return {least, 0, 0};
  return {std::hypot(together, least), std::isfinite(edge) ? std::abs(edge - together) : 0, 0};
}

SettleErrors SettleMaker::errors_at(double height_m) const {
  std::size_t above = 0;
  while (above < errors_.size() && errors_[above].height_m < height_m) ++above;
  if (above == 0) return errors_.front().errors;
  if (above == errors_.size()) return errors_.back().errors;
  const ErrorsAt &a = errors_[above - 1], &b = errors_[above];
  const double share = (height_m - a.height_m) / (b.height_m - a.height_m);
  const auto mix = [&](double SettleErrors::*part) { return std::lerp(a.errors.*part, b.errors.*part, share); };
  return {mix(&SettleErrors::together), mix(&SettleErrors::radial), mix(&SettleErrors::local)};
}

SettleMaker::Heights SettleMaker::heights(std::vector<double> heights_m, double near_m, std::stop_token stop,
                                          const std::function<void(const Heights&)>& on_more) const {
  std::stable_sort(heights_m.begin(), heights_m.end(),
                   [&](double a, double b) { return std::abs(a - near_m) < std::abs(b - near_m); });
  const std::vector<double> measured = heights_of(question_);
  const auto work = [&](std::span<const double> some) {
    Heights done;
    if (stop.stop_requested()) return done;
    auto light = light_->at(some);
    for (std::size_t h = 0; h < some.size(); ++h) {
      const bool known = std::none_of(light[h].front().begin(), light[h].front().end(),
                                      [](double ppfd) { return !(ppfd > 0) || !std::isfinite(ppfd); });
      if (!known) continue;
      // A setting that was walked at too few heights for a pattern of its own has the first one's.
      for (auto& pattern : light[h])
        if (std::any_of(pattern.begin(), pattern.end(), [](double ppfd) { return !(ppfd > 0); }))
          pattern = light[h].front();
      SettleHeight height = settle_height(lattice_, some[h], std::move(light[h]), errors_at(some[h]), walked_);
      height.beyond = some[h] < measured.front() - same_height_m || some[h] > measured.back() + same_height_m;
      done.push_back(std::make_shared<const SettleHeight>(std::move(height)));
    }
    return done;
  };
  // Few at a time, so that what is nearest is there soon.
  constexpr std::size_t at_once = 6;
  Heights all;
  for (std::size_t first = 0; first < heights_m.size() && !stop.stop_requested(); first += 2 * at_once) {
    const std::span<const double> rest(heights_m.data() + first, std::min(2 * at_once, heights_m.size() - first));
    const std::size_t half = (rest.size() + 1) / 2;
    auto beside = std::async(std::launch::async, work, rest.subspan(half));
    for (Heights part : {work(rest.first(half)), beside.get()}) all.insert(all.end(), part.begin(), part.end());
    std::sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a->height_m < b->height_m; });
    if (on_more) on_more(all);
  }
  return all;
}

}  // namespace sunbreak
