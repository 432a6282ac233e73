#include "core/optics/lobe_room.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/linear/products.h"
#include "core/optics/form_factor.h"
#include "core/optics/grid_interpolation.h"
#include "core/optics/mutual_areas.h"

namespace sunbreak {
namespace {

constexpr int finer = 2;

/// The rule of Gauss and Legendre on [0, 1].
struct GaussRule {
  std::vector<double> places, weights;
  /// Of places times places.
  Eigen::VectorXd point_weights() const {
    Eigen::VectorXd all(static_cast<Eigen::Index>(places.size() * places.size()));
    Eigen::Index i = 0;
    for (const double a : weights)
      for (const double b : weights) all(i++) = a * b;
    return all;
  }
};
/// From the fewest places to the most, and how near, in meters, a lamp may be to a side for each.
const std::array<GaussRule, 4> rules{
    {{{0.5}, {1}},
     {{0.2113248654051871, 0.7886751345948129}, {0.5, 0.5}},
     {{0.1127016653792583, 0.5, 0.8872983346207417}, {5.0 / 18, 8.0 / 18, 5.0 / 18}},
     {{0.0694318442029737, 0.3300094782075719, 0.6699905217924281, 0.9305681557970263},
      {0.1739274225687269, 0.3260725774312731, 0.3260725774312731, 0.1739274225687269}}}};
constexpr double near_m = 0.22, very_near_m = 0.1;

LitPlaces first_of(const FacingPlaces& places, std::size_t count) {
  return {places.x_m.data(), places.y_m.data(), places.z_m.data(), std::min(count, places.size()), places.normal};
}

/// Adds the places of a rule on one patch.
void add_points(const PatchGrid& grid, std::size_t patch, const GaussRule& rule, FacingPlaces& places) {
  const std::size_t u = patch % grid.u_count(), v = patch / grid.u_count();
  const double u0 = grid.u_edges_m[u], du = grid.u_edges_m[u + 1] - u0;
  const double v0 = grid.v_edges_m[v], dv = grid.v_edges_m[v + 1] - v0;
  for (const double a : rule.places)
    for (const double b : rule.places) {
      double at[3];
      at[grid.face.axis] = grid.plane_m;
      at[grid.u_axis()] = u0 + a * du;
      at[grid.v_axis()] = v0 + b * dv;
      places.add({at[0], at[1], at[2]});
    }
}

/// No light of the sources goes higher than this within a room: what leans sends some of it above itself.
double highest_light_m(std::span<const LobeSource> sources, const Room& room) {
  double highest = 0;
  const double across = std::hypot(room.width_m, room.depth_m);
  for (const LobeSource& s : sources) {
    const double lean = std::hypot(s.axis.x, s.axis.y) / std::max(-s.axis.z, 1e-9);
    highest = std::max(highest, s.place_m.z + across * lean);
  }
  return highest;
}

/// Light of patches from that of their places, one patch after the other.
Eigen::VectorXd by_patch(const Eigen::Ref<const Eigen::VectorXd>& light, const Eigen::VectorXd& weights) {
  return turned_times(Eigen::Map<const Eigen::MatrixXd>(light.data(), weights.size(), light.size() / weights.size()),
                      weights);
}

std::array<double, lobe_count> weights_of(const LobeFlux& mix, std::size_t sources) {
  std::array<double, lobe_count> weights;
  for (std::size_t k = 0; k < lobe_count; ++k) weights[k] = mix[k] * lobe_peak(lobes[k]) / static_cast<double>(sources);
  return weights;
}

}  // namespace

Eigen::MatrixXd direct_by_lobe(std::span<const LobeSource> sources, const FacingPlaces& stations, std::size_t count) {
  const LitPlaces places = first_of(stations, count);
  Eigen::MatrixXd sums =
      Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(places.count), static_cast<Eigen::Index>(lobe_count));
  add_lobe_light(sources, places, sums.data());
  for (std::size_t k = 0; k < lobe_count; ++k)
    sums.col(static_cast<Eigen::Index>(k)) *= lobe_peak(lobes[k]) / static_cast<double>(sources.size());
  return sums;
}

Eigen::VectorXd direct_of_mix(std::span<const LobeSource> sources, const LobeFlux& mix, const FacingPlaces& stations,
                              std::size_t count) {
  const LitPlaces places = first_of(stations, count);
  Eigen::VectorXd sums = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(places.count));
  const auto weights = weights_of(mix, sources.size());
  add_mixed_light(sources, places, weights.data(), sums.data());
  return sums;
}

LobeRoom::LobeRoom(const Room& shape, const PatchCounts& counts) : shape_(shape) {
  std::vector<double> coarse_areas, fine_areas;
  for (const Face& face : faces) {
    if (reflectance_of(shape, face) <= 0) continue;
    sides_.push_back(face);
    const PatchGrid grid = patch_grid(shape, face, counts), fine = patch_grid(shape, face, counts, finer);
    Lit lit{std::vector<FacingPlaces>(rules.size(), {grid.normal(), {}, {}, {}}), coarse_count_, fine_count_};
    for (std::size_t p = 0; p < grid.size(); ++p) coarse_areas.push_back(grid.area_m2(p));
    for (std::size_t p = 0; p < fine.size(); ++p) {
      fine_areas.push_back(fine.area_m2(p));
      const std::size_t u = p % fine.u_count() / finer, v = p / fine.u_count() / finer;
      coarse_of_fine_.push_back(coarse_count_ + static_cast<Eigen::Index>(v * grid.u_count() + u));
      for (std::size_t r = 0; r < rules.size(); ++r) add_points(fine, p, rules[r], lit.by_rule[r]);
    }
    coarse_count_ += static_cast<Eigen::Index>(grid.size());
    fine_count_ += static_cast<Eigen::Index>(fine.size());
    lit_.push_back(std::move(lit));
    grids_.push_back(grid);
    fine_.push_back(fine);
  }
  coarse_areas_m2_ = Eigen::Map<Eigen::VectorXd>(coarse_areas.data(), coarse_count_);
  fine_areas_m2_ = Eigen::Map<Eigen::VectorXd>(fine_areas.data(), fine_count_);
  mutual_ = mutual_areas(grids_, 2);
}

LobeRoom::Gathering LobeRoom::gathering(std::span<const Vec3> stations) const {
  const auto count = static_cast<Eigen::Index>(stations.size());
  Gathering gathered{Eigen::MatrixXd::Zero(count, coarse_count_), Eigen::MatrixXd::Zero(count, fine_count_)};
  std::vector<double> row, coarse;
  for (std::size_t g = 0; g < grids_.size(); ++g) {
    const PatchGrid &fine = fine_[g], &grid = grids_[g];
    if (grid.face == Face{2, false}) continue;
    const GridInterpolation from_coarse(grid, fine);
    for (Eigen::Index s = 0; s < count; ++s) {
      row.assign(fine.size(), 0), coarse.assign(grid.size(), 0);
      add_form_factors(stations[static_cast<std::size_t>(s)], 2, true, fine, 1, row);
      from_coarse.add_to_coarse(row, coarse);
      for (std::size_t p = 0; p < fine.size(); ++p)
        gathered.fine(s, lit_[g].first_fine + static_cast<Eigen::Index>(p)) = row[p];
      for (std::size_t p = 0; p < grid.size(); ++p)
        gathered.coarse(s, lit_[g].first_coarse + static_cast<Eigen::Index>(p)) = coarse[p];
    }
  }
  return gathered;
}

std::size_t LobeRoom::rule_for(std::size_t side, std::span<const LobeSource> sources) const {
  const PatchGrid& grid = grids_[side];
  double nearest = INFINITY;
  for (const LobeSource& s : sources) {
    const double at = grid.face.axis == 0 ? s.place_m.x : grid.face.axis == 1 ? s.place_m.y : s.place_m.z;
    nearest = std::min(nearest, std::abs(at - grid.plane_m));
  }
  return nearest < very_near_m ? 3 : nearest < near_m ? 2 : 1;
}

Eigen::Index LobeRoom::patches_below(std::size_t side, double height_m) const {
  const PatchGrid& grid = fine_[side];
  if (grid.face.axis == 2)
    return grid.face.high && height_m <= shape_.height_m ? 0 : static_cast<Eigen::Index>(grid.size());
  std::size_t rows = 0;
  while (rows < grid.v_count() && grid.v_edges_m[rows] < height_m) ++rows;
  return static_cast<Eigen::Index>(rows * grid.u_count());
}

Eigen::MatrixXd LobeRoom::received(std::span<const LobeSource> sources, bool rough) const {
  Eigen::MatrixXd ppfd = Eigen::MatrixXd::Zero(fine_count_, static_cast<Eigen::Index>(lobe_count));
  const double highest = highest_light_m(sources, shape_);
  for (std::size_t g = 0; g < lit_.size(); ++g) {
    const std::size_t rule = rule_for(g, sources) - (rough ? 1 : 0);
    const Eigen::VectorXd weights = rules[rule].point_weights();
    const Eigen::Index count = patches_below(g, highest), points = weights.size();
    const Eigen::MatrixXd light =
        direct_by_lobe(sources, lit_[g].by_rule[rule], static_cast<std::size_t>(count * points));
    for (Eigen::Index k = 0; k < ppfd.cols(); ++k)
      ppfd.col(k).segment(lit_[g].first_fine, count) = by_patch(light.col(k), weights);
  }
  return ppfd;
}

Eigen::VectorXd LobeRoom::received(std::span<const LobeSource> sources, const LobeFlux& mix, bool rough) const {
  Eigen::VectorXd ppfd = Eigen::VectorXd::Zero(fine_count_);
  const double highest = highest_light_m(sources, shape_);
  for (std::size_t g = 0; g < lit_.size(); ++g) {
    const std::size_t rule = rule_for(g, sources) - (rough ? 1 : 0);
    const Eigen::VectorXd weights = rules[rule].point_weights();
    const Eigen::Index count = patches_below(g, highest), points = weights.size();
    const Eigen::VectorXd light =
        direct_of_mix(sources, mix, lit_[g].by_rule[rule], static_cast<std::size_t>(count * points));
    ppfd.segment(lit_[g].first_fine, count) = by_patch(light, weights);
  }
  return ppfd;
}

LobeRoomArrays LobeRoom::arrays(std::span<const Vec3> stations) const {
  constexpr std::size_t two_by_two = 1;
  LobeRoomArrays a;
  const Gathering gathered = gathering(stations);
  const auto rows_of = [](const Eigen::MatrixXd& m) {
    const Eigen::MatrixXd turned = m.transpose();
    return std::vector<double>(turned.data(), turned.data() + turned.size());
  };
  a.gathering_coarse = rows_of(gathered.coarse);
  a.gathering_fine = rows_of(gathered.fine);
  a.mutual_m2 = rows_of(mutual_);
  a.fine_areas_m2.assign(fine_areas_m2_.begin(), fine_areas_m2_.end());
  a.coarse_areas_m2.assign(coarse_areas_m2_.begin(), coarse_areas_m2_.end());
  for (const Eigen::Index p : coarse_of_fine_) a.coarse_of_fine.push_back(static_cast<int>(p));
  for (std::size_t g = 0; g < grids_.size(); ++g) {
    const FacingPlaces& places = lit_[g].by_rule[two_by_two];
    for (std::size_t i = 0; i < places.size(); ++i) {
      a.points.push_back({places.x_m[i], places.y_m[i], places.z_m[i]});
      a.normals.push_back(places.normal);
    }
    a.side_of_fine.insert(a.side_of_fine.end(), fine_[g].size(), static_cast<int>(g));
    a.side_of_coarse.insert(a.side_of_coarse.end(), grids_[g].size(), static_cast<int>(g));
  }
  return a;
}

LobeRoom::Exchange LobeRoom::exchange(const Room::Reflectance& reflectance) const {
  Exchange exchange;
  exchange.room_ = this;
  if (!reflects()) return exchange;
  Room room = shape_;
  room.reflectance = reflectance;
  exchange.coarse_reflectance_.resize(coarse_count_);
  exchange.fine_reflectance_.resize(fine_count_);
  for (std::size_t g = 0; g < grids_.size(); ++g) {
    const double r = reflectance_of(room, sides_[g]);
    exchange.coarse_reflectance_.segment(lit_[g].first_coarse, static_cast<Eigen::Index>(grids_[g].size()))
        .setConstant(r);
    exchange.fine_reflectance_.segment(lit_[g].first_fine, static_cast<Eigen::Index>(fine_[g].size())).setConstant(r);
  }
  Eigen::MatrixXd system = -mutual_;
  system.diagonal() += coarse_areas_m2_.cwiseQuotient(exchange.coarse_reflectance_);
  exchange.factored_ = Cholesky(std::move(system));
  return exchange;
}

Eigen::Index LobeRoom::lit_patches(std::size_t side, const Eigen::MatrixXd& received) const {
  auto count = static_cast<Eigen::Index>(fine_[side].size());
  while (count > 0 && (received.row(lit_[side].first_fine + count - 1).array() == 0).all()) --count;
  return count;
}

Eigen::MatrixXd LobeRoom::flux_on_coarse(const Eigen::MatrixXd& received) const {
  Eigen::MatrixXd flux = Eigen::MatrixXd::Zero(coarse_count_, received.cols());
  for (Eigen::Index lamp = 0; lamp < received.cols(); ++lamp)
    for (Eigen::Index p = 0; p < fine_count_; ++p)
      flux(coarse_of_fine_[static_cast<std::size_t>(p)], lamp) += received(p, lamp) * fine_areas_m2_(p);
  return flux;
}

// Most of a wall is above the lamp and dark: of fine patches only those that are lit are summed, here and below.
// Reflected light is what the fine patches send of their direct light, and what the coarse ones send of all other.
Eigen::MatrixXd LobeRoom::Exchange::reflected(const Gathering& gathering, const Eigen::MatrixXd& received) const {
  const Eigen::MatrixXd flux = room_->flux_on_coarse(received);
  const Eigen::MatrixXd later = factored_.solve_rows(flux.transpose()).transpose() -
                                coarse_reflectance_.cwiseQuotient(room_->coarse_areas_m2_).asDiagonal() * flux;
  Eigen::MatrixXd light = Eigen::MatrixXd::Zero(gathering.coarse.rows(), received.cols());
  add_product(1, gathering.coarse, later, light);
  for (std::size_t g = 0; g < room_->lit_.size(); ++g) {
    const Eigen::Index first = room_->lit_[g].first_fine, count = room_->lit_patches(g, received);
    if (count > 0)
      add_product(fine_reflectance_(first), gathering.fine.middleCols(first, count), received.middleRows(first, count),
                  light);
  }
  return light;
}

LobeRoom::Reflections LobeRoom::Exchange::reflections(const Gathering& gathering) const {
  Reflections made;
  made.room_ = room_;
  made.by_patch_ = gathering.fine * fine_reflectance_.asDiagonal();
  if (!room_->reflects()) return made;
  made.by_exitance_ = factored_.solve_rows(gathering.coarse);
  const Eigen::MatrixXd by_flux =
      made.by_exitance_ - gathering.coarse * coarse_reflectance_.cwiseQuotient(room_->coarse_areas_m2_).asDiagonal();
  for (Eigen::Index p = 0; p < room_->fine_count_; ++p)
    made.by_patch_.col(p) +=
        room_->fine_areas_m2_(p) * by_flux.col(room_->coarse_of_fine_[static_cast<std::size_t>(p)]);
  return made;
}

Eigen::MatrixXd LobeRoom::Reflections::of(const Eigen::MatrixXd& received) const {
  Eigen::MatrixXd ppfd = Eigen::MatrixXd::Zero(by_patch_.rows(), received.cols());
  for (std::size_t g = 0; g < room_->lit_.size(); ++g) {
    const Eigen::Index first = room_->lit_[g].first_fine, count = room_->lit_patches(g, received);
    add_product(1, by_patch_.middleCols(first, count), received.middleRows(first, count), ppfd);
  }
  return ppfd;
}

// Exitance e holds (diag(a / r) − M) e = flux, so that de/dr is the exchange of a e / r² from the side's own patches.
Eigen::MatrixXd LobeRoom::Exchange::slopes_of_sides(const Gathering& gathering, const Reflections& reflections,
                                                    const Eigen::VectorXd& received) const {
  const Eigen::VectorXd flux = room_->flux_on_coarse(received), exitance = factored_.solve(flux);
  Eigen::MatrixXd slopes(gathering.coarse.rows(), static_cast<Eigen::Index>(room_->sides_.size()));
  for (std::size_t g = 0; g < room_->sides_.size(); ++g) {
    const Eigen::Index first = room_->lit_[g].first_coarse, count = static_cast<Eigen::Index>(room_->grids_[g].size());
    const Eigen::Index first_fine = room_->lit_[g].first_fine, lit = room_->lit_patches(g, received);
    const auto areas = room_->coarse_areas_m2_.segment(first, count);
    const double r = coarse_reflectance_(first);
    slopes.col(static_cast<Eigen::Index>(g)) =
        times(reflections.by_exitance_.middleCols(first, count),
              areas.cwiseProduct(exitance.segment(first, count)) / (r * r)) -
        times(gathering.coarse.middleCols(first, count), flux.segment(first, count).cwiseQuotient(areas)) +
        times(gathering.fine.middleCols(first_fine, lit), received.segment(first_fine, lit));
  }
  return slopes;
}

}  // namespace sunbreak
