#include "core/uncertainty/budget.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numbers>
#include <random>

#include "core/checks/reading_views.h"
#include "core/figures/figure_table.h"
#include "core/quantity/normal_deviates.h"
#include "core/quantity/student.h"
#include "core/sweep/field.h"
#include "core/uncertainty/grid_sampling.h"
#include "core/uncertainty/station_slopes.h"
#include "core/uncertainty/symmetric_light.h"
#include "core/uncertainty/unread_light.h"

namespace sunbreak {
namespace {

constexpr double usual_coverage_factor = 2;
/// Draws of the random parts: what they spread a figure by is then known to 5 % of itself, and to 7 % of a sweep so
/// dense that these parts are the lesser ones.
constexpr int draws_of_most = 200, draws_of_dense = 100;
constexpr int draws_of_unread = 100;
constexpr std::size_t dense_stations = 1000;
constexpr int draws_together = 4;  ///< of so many one is drawn apart too: it only tells the two parts' shares
constexpr double coverage_step_m = 0.02;

constexpr std::uint64_t seed = 20260321;  ///< the same draws each time a budget is worked out

using Values = std::vector<double>;

/// Works figures out anew for readings that are a little off.
class Refigure {
 public:
  explicit Refigure(const BudgetQuestion& q)
      : q_(q), band_(q.context.target), context_(q.context), raster_(*q.layout, q.layout->measured, coverage_step_m) {
    context_.target.reset();
    context_.nominal_sizes.clear();
  }

  Values operator()(std::span<const double> ppfd) const { return with_power(ppfd, context_.power_w); }

  Values with_power(std::span<const double> ppfd, std::optional<double> power_w) const {
    FigureContext context = context_;
    context.power_w = power_w;
    const auto f = sweep_figures(*q_.layout, ppfd, context);
    if (!f) return Values(figures().size(), unread);
    FigureSource source(*q_.layout, ppfd, *f);
    source.in_band_share = in_band_share(ppfd);
    return figure_values(source);
  }

  double in_band_share(std::span<const double> ppfd) const {
    return band_ && q_.layout->is_lattice() ? sunbreak::in_band_share(raster_, ppfd, *band_) : unread;
  }

 private:
  const BudgetQuestion& q_;
  std::optional<Band> band_;
  FigureContext context_;
  RasterPlan raster_;
};

/// Half the distance between the figures with an error to one side and to the other.
Values half_distance(const Values& above, const Values& below) {
  Values half;
  for (std::size_t k = 0; k < above.size(); ++k) {
    const double size = std::abs(above[k] - below[k]) / 2;
    half.push_back(std::isfinite(size) ? size : 0);
  }
  return half;
}

/// An error that multiplies each reading by 1 ± `relative(station)`.
template <typename Relative>
Values pattern(const BudgetQuestion& q, const Refigure& refigure, Relative relative) {
  std::vector<double> above(q.ppfd.begin(), q.ppfd.end()), below = above;
  for (std::size_t i = 0; i < above.size(); ++i) {
    const double size = relative(i);
    above[i] *= 1 + size;
    below[i] *= 1 - size;
  }
  return half_distance(refigure(above), refigure(below));
}

/// 0 in the middle, 1 at the station farthest from it: the light there comes in at the lowest angles.
std::vector<double> obliqueness(const Layout& layout) {
  std::vector<double> share;
  for (const Station& s : layout.stations)
    share.push_back(std::hypot(s.x_m - layout.footprint.width_m / 2, s.y_m - layout.footprint.depth_m / 2));
  const double farthest = share.empty() ? 0 : *std::max_element(share.begin(), share.end());
  for (double& s : share) s = farthest > 0 ? s / farthest : 0;
  return share;
}

/// Mean and spread of each figure over draws, about what it is without the error.
struct DrawnSpread {
  explicit DrawnSpread(std::size_t figures) : sum(figures), squares(figures) {}
  Values sum, squares;
  int count = 0;
  void add(const Values& drawn, const Values& base) {
    ++count;
    for (std::size_t k = 0; k < base.size(); ++k) {
      const double off = drawn[k] - base[k];
      if (!std::isfinite(off)) continue;
      sum[k] += off;
      squares[k] += off * off;
    }
  }
  double mean(std::size_t k) const { return count > 0 ? sum[k] / count : 0; }
  double sd(std::size_t k) const {
    return count > 1 ? std::sqrt(std::max(0.0, squares[k] / count - mean(k) * mean(k)) * count / (count - 1)) : 0;
  }
};

/// Pairs of normal deviates for draw after draw: one table of them, gone through in other steps by each draw, since to
/// make them anew costs more than all that is done with them. The table's mean is 0 and its spread 1 exactly.
class DrawnPairs {
 public:
  explicit DrawnPairs(int draw)
      : at_(static_cast<std::size_t>(draw) * 40503), step_(2 * static_cast<std::size_t>(draw) + 1) {}

  const std::pair<double, double>& next() { return table()[(at_ += step_) & (size - 1)]; }

 private:
  static constexpr std::size_t size = 1 << 16;

  static const std::vector<std::pair<double, double>>& table() {
    static const std::vector<std::pair<double, double>> pairs = [] {
      NormalDeviates normal(seed);
      std::vector<std::pair<double, double>> made(size);
      for (auto& pair : made) pair = normal.two();
      standardize(made, &std::pair<double, double>::first);
      standardize(made, &std::pair<double, double>::second);
      return made;
    }();
    return pairs;
  }
  static void standardize(std::vector<std::pair<double, double>>& pairs, double std::pair<double, double>::*which) {
    double sum = 0, squares = 0;
    for (const auto& pair : pairs) sum += pair.*which, squares += pair.*which * (pair.*which);
    const double mean = sum / size, sd = std::sqrt(squares / size - mean * mean);
    for (auto& pair : pairs) pair.*which = (pair.*which - mean) / sd;
  }

  std::size_t at_, step_;
};

/// What reading noise and the stations' places do, drawn together and apart.
struct RandomParts {
  Values repeatability, position, bias;
};

/// What each reading scatters by, relative to it.
std::vector<double> scatter_of(const BudgetQuestion& q, std::span<const StationSlope> slopes) {
  std::vector<double> scatter;
  for (const StationSlope& s : slopes)
    scatter.push_back(std::hypot(q.repeatability.value, q.position_m.value * s.x, q.position_m.value * s.y));
  return scatter;
}

/// The readings without their noise.
std::vector<double> expected_of(const BudgetQuestion& q) {
  return q.expected_ppfd.empty() ? expected_light(*q.layout, q.ppfd).ppfd : q.expected_ppfd;
}

/// The light that noise is drawn about: of a symmetric fixture where the readings allow it, otherwise a smooth surface.
std::vector<double> noiseless(const BudgetQuestion& q, std::vector<double> expected) {
  const std::vector<double> scatter = scatter_of(q, relative_slopes(*q.layout, expected));
  return symmetric_light(*q.layout, q.ppfd, scatter).value_or(std::move(expected));
}

/// What the stations that were not read do to each figure: what it would be with all of them, less what it is, in the
/// mean; and the spread of that.
struct UnreadPart {
  Values shift, spread;
};

UnreadPart unread_part(const BudgetQuestion& q, const Refigure& refigure, const Values& values,
                       const UnreadLight& unread_light) {
  UnreadPart part{Values(values.size(), 0), Values(values.size(), 0)};
  if (!unread_light.exists()) return part;
  DrawnSpread all(values.size());
  for (int draw = 0; draw < draws_of_unread && !q.stop.stop_requested(); ++draw)
    all.add(refigure(unread_light.drawn(draw)), values);
  for (std::size_t k = 0; k < values.size(); ++k)
    if (std::isfinite(values[k])) part.shift[k] = all.mean(k), part.spread[k] = all.sd(k);
  return part;
}

RandomParts random_parts(const BudgetQuestion& q, const Refigure& refigure, const std::vector<double>& expected) {
  if (q.repeatability.value == 0 && q.position_m.value == 0) {
    const Values none(figures().size(), 0);
    return {none, none, none};
  }
  const std::vector<double> light = noiseless(q, expected);
  const std::vector<StationSlope> slope = relative_slopes(*q.layout, light);
  const Values base = refigure(light);
  DrawnSpread both(base.size()), noise = both, place = both;
  // A place that is off along both axes at once moves the reading as one deviate along the slope does.
  std::vector<double> noise_size, place_size;
  for (std::size_t i = 0; i < light.size(); ++i) {
    noise_size.push_back(light[i] * q.repeatability.value);
    place_size.push_back(light[i] * q.position_m.value * std::hypot(slope[i].x, slope[i].y));
  }
  std::vector<double> drawn(light.size());
  const int draws = light.size() > dense_stations ? draws_of_dense : draws_of_most;
  for (int draw = 0; draw < draws && !q.stop.stop_requested(); ++draw) {
    const auto off_by = [&](double with_noise, double with_place) {
      DrawnPairs pairs(draw);
      for (std::size_t i = 0; i < light.size(); ++i) {
        const auto& [noise_deviate, place_deviate] = pairs.next();
        drawn[i] = light[i] + with_noise * noise_size[i] * noise_deviate + with_place * place_size[i] * place_deviate;
      }
      return std::span<const double>(drawn);
    };
    both.add(refigure(off_by(1, 1)), base);
    if (draw % draws_together != 0) continue;
    noise.add(refigure(off_by(1, 0)), base);
    place.add(refigure(off_by(0, 1)), base);
  }
  RandomParts parts;
  for (std::size_t k = 0; k < base.size(); ++k) {
    // Together they spread a figure less than apart where it is an extreme; each keeps its part of the whole.
    const double apart = std::hypot(noise.sd(k), place.sd(k)), share = apart > 0 ? both.sd(k) / apart : 0;
    parts.repeatability.push_back(share * noise.sd(k));
    parts.position.push_back(share * place.sd(k));
    parts.bias.push_back(both.mean(k));
  }
  return parts;
}

/// Whether a lattice is dense enough for its two halves to tell what lies between stations.
bool has_half_grids(const Layout& layout) { return layout.is_lattice() && layout.columns >= 4 && layout.rows >= 4; }

/// To which power a figure goes with the area mean; 0: it does not.
int power_of_the_mean(const Figure& f) {
  return f.sampling == Figure::Sampling::WithMean ? 1 : f.sampling == Figure::Sampling::AgainstMean ? -1 : 0;
}

/// What the spacing of the stations leaves open, with the noise that the half grids show anyway taken out. Lowest,
/// highest and the center are of stations and have none; their ratios to the mean take the mean's. `light` is the
/// readings, with what is likely where none are.
Values grid_sampling(const BudgetQuestion& q, const Refigure& refigure, std::span<const double> light,
                     const Values& values, const Values& noise, double of_mean) {
  Values result(values.size(), 0);
  const Layout& layout = *q.layout;
  if (!has_half_grids(layout)) return result;
  const HalfGrids halves = half_grids(layout, light);
  const Values difference = q.averaged ? result : half_distance(refigure(halves.first), refigure(halves.second));
  const auto beyond_noise = [&](double size, std::size_t k) {
    return std::sqrt(std::max(0.0, size * size - noise[k] * noise[k]));
  };
  const double of_share = std::abs(refigure.in_band_share(filled(layout, halves.first)) -
                                   refigure.in_band_share(filled(layout, halves.second))) /
                          2;
  for (std::size_t k = 0; k < values.size(); ++k) {
    const Figure& f = figures()[k];
    if (f.sampling == Figure::Sampling::HalfGrids) result[k] = beyond_noise(difference[k], k);
    if (power_of_the_mean(f) != 0 && std::isfinite(values[k])) result[k] = of_mean * std::abs(values[k]);
    if (f.sampling == Figure::Sampling::Field && std::isfinite(of_share)) result[k] = beyond_noise(of_share, k);
  }
  return result;
}

/// Of light at all stations, or of the readings among them.
MeanSampling mean_sampling(const BudgetQuestion& q, std::span<const double> light, std::span<const double> expected) {
  const Layout& layout = *q.layout;
  MeanSampling found{0, -edge_term(layout, light)};
  if (!has_half_grids(layout)) return found;
  const HalfGrids halves = half_grids(layout, light);
  const double mean = area_mean(layout, light),
               difference = std::abs(area_mean(layout, halves.first) - area_mean(layout, halves.second)) / 2 / mean;
  const std::vector<double> scatter = scatter_of(q, relative_slopes(layout, expected));
  double noise = 0, weights = 0;
  for (std::size_t i = 0; i < q.ppfd.size(); ++i)
    if (!std::isnan(q.ppfd[i])) {
      noise += std::pow(layout.stations[i].weight * q.ppfd[i] * scatter[i], 2);
      weights += layout.stations[i].weight;
    }
  found.standard = std::sqrt(std::max(0.0, difference * difference - noise / (weights * weights) / (mean * mean)));
  return found;
}

/// The footprint's sides are known to `edge_m` each: so is its area, and what is worked out with it.
Values edges(const BudgetQuestion& q, const Values& values) {
  Values result(values.size(), 0);
  const Rectangle& area = q.layout->measured;
  const double relative = q.edge_m.value * std::hypot(1 / area.width_m, 1 / area.depth_m);
  for (std::size_t k = 0; k < values.size(); ++k)
    if (figures()[k].goes_with_area && std::isfinite(values[k])) result[k] = relative * std::abs(values[k]);
  return result;
}

Values of_power(const BudgetQuestion& q, const Refigure& refigure) {
  if (!q.context.power_w) return Values(figures().size(), 0);
  return half_distance(refigure.with_power(q.ppfd, *q.context.power_w * (1 + q.power.value)),
                       refigure.with_power(q.ppfd, *q.context.power_w * (1 - q.power.value)));
}

/// Student's factors by the effective degrees of freedom (Welch and Satterthwaite).
void find_factors(Budget& budget) {
  constexpr double many = 1000;
  for (std::size_t k = 0; k < budget.standard.size(); ++k) {
    double unsure = 0;
    for (const Contribution& c : budget.contributions) unsure += std::pow(c.standard[k], 4) / c.term.freedom;
    const double freedom = unsure > 0 ? std::pow(budget.standard[k], 4) / unsure : many;
    budget.factor.push_back(freedom < many ? coverage_factor(freedom) : usual_coverage_factor);
  }
}

}  // namespace

Budget uncertainty_budget(const BudgetQuestion& q) {
  const Refigure refigure(q);
  Budget budget;
  budget.values = refigure(q.ppfd);
  const std::vector<double> expected = expected_of(q);
  const RandomParts random = random_parts(q, refigure, expected);
  const UnreadLight unread_light(*q.layout, q.ppfd, scatter_of(q, relative_slopes(*q.layout, expected)));
  const UnreadPart not_read = unread_part(q, refigure, budget.values, unread_light);
  const std::vector<double> light =
      unread_light.exists() ? unread_light.filled() : Values(q.ppfd.begin(), q.ppfd.end());
  const MeanSampling of_mean = q.averaged ? *q.averaged : mean_sampling(q, light, expected);
  const std::vector<double> oblique = obliqueness(*q.layout);
  const auto at = [](const std::vector<double>& list, std::size_t i) {
    return i < list.size() && std::isfinite(list[i]) ? list[i] : 0;
  };
  const auto add = [&](std::string_view id, std::string_view label, const InputQuantity& term, bool shared,
                       Values standard, bool in_meters = false) {
    budget.contributions.push_back({id, label, term, in_meters, shared, std::move(standard)});
  };
  const auto whole = [&](const InputQuantity& term) {
    return pattern(q, refigure, [&](std::size_t) { return term.value; });
  };
  add("calibration", "Sensor calibration", q.calibration, true, whole(q.calibration));
  add("spectral", "Spectral response", q.spectral, true, whole(q.spectral));
  add("cosine", "Cosine response", q.cosine, true,
      pattern(q, refigure, [&](std::size_t i) { return q.cosine.value * oblique[i]; }));
  add("repeatability", "Repeatability of a reading", q.repeatability, false, random.repeatability);
  add("height", "Height", q.height_m, false,
      pattern(q, refigure, [&](std::size_t i) { return q.height_m.value * at(q.slope_per_m, i); }), true);
  add("position", "Place of a station", q.position_m, false, random.position, true);
  add("drift", "Drift during the walk", q.drift, false,
      pattern(q, refigure, [&](std::size_t i) { return q.drift.value * at(q.walked, i); }));
  Values noise;
  for (std::size_t k = 0; k < budget.values.size(); ++k)
    noise.push_back(std::hypot(random.repeatability[k], random.position[k]));
  add("grid", "Grid sampling", {0, Origin::Measured, "difference between the full grid and its two half grids"}, false,
      grid_sampling(q, refigure, light, budget.values, noise, of_mean.standard));
  if (unread_light.exists())
    add("unread", "What was not read", {0, Origin::Measured, "the light that the readings leave possible there"}, false,
        not_read.spread);
  if (q.level.value > 0) add("level", "Prediction of all light", q.level, false, whole(q.level));
  if (q.pattern.value > 0)
    add("pattern", "Prediction of its pattern", q.pattern, false,
        pattern(q, refigure, [&](std::size_t i) { return q.pattern.value * at(q.pattern_shape, i); }));
  add("power", "Power meter", q.power, true, of_power(q, refigure));
  add("edges", "Footprint edges", q.edge_m, true, edges(q, budget.values), true);
  budget.bias = random.bias;
  for (std::size_t k = 0; k < budget.values.size(); ++k)
    if (std::isfinite(budget.values[k]))
      budget.bias[k] += power_of_the_mean(figures()[k]) * of_mean.bias * budget.values[k];
  for (std::size_t k = 0; k < budget.values.size(); ++k) {
    double squares = 0;
    for (const Contribution& c : budget.contributions) squares += c.standard[k] * c.standard[k];
    budget.standard.push_back(std::sqrt(squares));
    budget.bias[k] -= not_read.shift[k];
  }
  if (unread_light.exists()) budget.unread_shift = not_read.shift;
  find_factors(budget);
  return budget;
}

MeanSampling sampling_of_mean(const BudgetQuestion& q) { return mean_sampling(q, q.ppfd, expected_of(q)); }

double scatter_at(const BudgetQuestion& q, int station) {
  return scatter_of(q, relative_slopes(*q.layout, expected_of(q)))[static_cast<std::size_t>(station)];
}

double Budget::expanded(std::string_view id) const {
  const int k = figure_index(id);
  if (k < 0 || !std::isfinite(values[k])) return unread;
  return factor[k] * standard[k] + std::abs(bias[k]);
}

std::optional<EstimatedFigure> Budget::whole(std::string_view id) const {
  const int k = figure_index(id);
  if (k < 0 || unread_shift.empty() || !std::isfinite(values[k])) return {};
  return EstimatedFigure{values[k] + unread_shift[k], factor[k] * standard[k] + std::abs(bias[k] + unread_shift[k])};
}

double Budget::relative(std::string_view id) const {
  const int k = figure_index(id);
  return k < 0 ? unread : expanded(id) / std::abs(values[k]);
}

const Contribution* Budget::largest(std::string_view id) const {
  const int k = figure_index(id);
  const Contribution* found = nullptr;
  if (k < 0) return found;
  for (const Contribution& c : contributions)
    if (c.standard[k] > (found ? found->standard[k] : 0)) found = &c;
  return found;
}

double ratio_uncertainty(const Budget& a, const Budget& b, std::string_view id) {
  return ratio_uncertainty(a, b, id, [&](std::string_view contribution) {
    return std::ranges::any_of(a.contributions, [&](const Contribution& c) { return c.id == contribution && c.shared; })
               ? 1.0
               : 0.0;
  });
}

double ratio_uncertainty(const Budget& a, const Budget& b, std::string_view id,
                         const std::function<double(std::string_view contribution)>& shared) {
  const int k = figure_index(id);
  if (k < 0) return unread;
  const auto relative = [k](const Budget& of, std::string_view contribution) {
    const auto found = std::ranges::find(of.contributions, contribution, &Contribution::id);
    return found == of.contributions.end() ? 0 : found->standard[k] / std::abs(of.values[k]);
  };
  double squares = 0;
  for (const Contribution& c : a.contributions) {
    const double ra = relative(a, c.id), rb = relative(b, c.id);
    squares += ra * ra + rb * rb - 2 * shared(c.id) * ra * rb;
  }
  for (const Contribution& c : b.contributions)
    if (std::ranges::find(a.contributions, c.id, &Contribution::id) == a.contributions.end())
      squares += std::pow(relative(b, c.id), 2);
  return std::max(a.factor[k], b.factor[k]) * std::sqrt(squares) +
         std::abs(a.bias[k] / a.values[k] - b.bias[k] / b.values[k]);
}

}  // namespace sunbreak
