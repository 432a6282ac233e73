#include "core/optics/room_light.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/optics/mutual_areas.h"
#include "core/optics/room_patches.h"
#include "core/optics/smooth_plane.h"

namespace sunbreak {
namespace {

constexpr PatchCounts coarse_counts{12, 16};
constexpr int cut = 3;

struct Side {
  double reflectance = 0;
  PatchGrid coarse, fine;
  std::size_t first_coarse = 0, first_fine = 0;  ///< in the lists of all reflecting sides
  FacingPlaces fine_middles;
  std::vector<Interpolation> from_coarse;  ///< one a fine patch
};

/// Adds direct light to a side's fine patches. What hangs straight down lights nothing above itself; the rows of a
/// wall's patches run upward, so that its part is the first of them.
void add_direct_to(const Side& side, std::span<const Emitter> emitters, std::span<double> ppfd) {
  const PatchGrid& grid = side.fine;
  for (const Emitter& e : emitters) {
    std::size_t lit = grid.size();
    if (e.direction == straight_down && grid.face.axis == 2 && grid.face.high) continue;
    if (e.direction == straight_down && grid.face.axis != 2) {
      std::size_t rows = 0;
      while (rows < grid.v_count() && grid.v_edges_m[rows] < e.place_m.z) ++rows;
      lit = rows * grid.u_count();
    }
    add_direct_ppfd({&e, 1}, side.fine_middles, ppfd.first(lit));
  }
}

/// From so many places in one plane on, what the sides send there is interpolated; and how well that has to hold at
/// places where both are worked out, as a share of the light.
constexpr std::size_t many_places = 8000, places_compared = 101;
constexpr int plane_lines = 64;
constexpr double interpolation_error = 1e-3;

bool in_one_plane(std::span<const Vec3> places) {
  return std::all_of(places.begin(), places.end(), [&](const Vec3& p) { return p.z == places.front().z; });
}

}  // namespace

struct RoomLight::Parts {
  Room room;
  std::vector<Side> sides;  ///< those that reflect
  std::size_t coarse_count = 0, fine_count = 0;
  Eigen::LLT<Eigen::MatrixXd> exchange;  ///< of diag(area / reflectance) − area · form factor

  void factor();
};

/// What the sides receive and send back: irradiance by direct light and by exchange, radiosity of the fine patches.
struct RoomLight::Radiosity {
  std::vector<double> fine_direct, fine_radiosity, coarse_radiosity;
};

void RoomLight::Parts::factor() {
  if (coarse_count == 0) return;
  std::vector<PatchGrid> grids;
  for (const Side& side : sides) grids.push_back(side.coarse);
  Eigen::MatrixXd system = -mutual_areas(grids, 3);
  for (const Side& side : sides)
    for (std::size_t p = 0; p < side.coarse.size(); ++p) {
      const auto i = static_cast<Eigen::Index>(side.first_coarse + p);
      system(i, i) += side.coarse.area_m2(p) / side.reflectance;
    }
  exchange.compute(system);
}

RoomLight::RoomLight(const Room& room) : parts_(std::make_unique<Parts>()) {
  parts_->room = room;
  for (const Face& face : faces) {
    const double reflectance = reflectance_of(room, face);
    if (reflectance <= 0) continue;
    Side side{reflectance,
              patch_grid(room, face, coarse_counts),
              patch_grid(room, face, coarse_counts, cut),
              parts_->coarse_count,
              parts_->fine_count,
              {},
              {}};
    side.fine_middles.normal = side.fine.normal();
    for (std::size_t p = 0; p < side.fine.size(); ++p) {
      const Vec3 middle = side.fine.middle(p);
      side.fine_middles.add(middle);
      const double at[3] = {middle.x, middle.y, middle.z};
      side.from_coarse.push_back(interpolation(side.coarse, at[side.fine.u_axis()], at[side.fine.v_axis()]));
    }
    parts_->coarse_count += side.coarse.size();
    parts_->fine_count += side.fine.size();
    parts_->sides.push_back(std::move(side));
  }
  parts_->factor();
}

RoomLight::~RoomLight() = default;
RoomLight::RoomLight(RoomLight&&) noexcept = default;
RoomLight& RoomLight::operator=(RoomLight&&) noexcept = default;
const Room& RoomLight::room() const { return parts_->room; }

void RoomLight::fill_factors(const Vec3& place, std::span<double> factors) const {
  std::fill(factors.begin(), factors.end(), 0);
  for (const Side& side : parts_->sides)
    if (!(side.fine.face == Face{2, false}))
      add_form_factors(place, 2, true, side.fine, 1, factors.subspan(side.first_fine, side.fine.size()));
}

StationFactors RoomLight::stations(std::span<const Vec3> places) const {
  StationFactors result;
  for (const Vec3& place : places) result.places_.add(place);
  result.factors_.resize(places.size() * parts_->fine_count);
  std::vector<double> row(parts_->fine_count);
  for (std::size_t s = 0; s < places.size(); ++s) {
    fill_factors(places[s], row);
    std::copy(row.begin(), row.end(), result.factors_.begin() + static_cast<std::ptrdiff_t>(s * row.size()));
  }
  return result;
}

Prediction RoomLight::predict_once(std::span<const Emitter> emitters, std::span<const Vec3> places) const {
  FacingPlaces facing;
  for (const Vec3& place : places) facing.add(place);
  Prediction prediction{std::vector<double>(places.size(), 0), std::vector<double>(places.size(), 0)};
  add_direct_ppfd(emitters, facing, prediction.direct);
  if (parts_->fine_count == 0) return prediction;
  const Radiosity r = solve(emitters);
  std::vector<double> row(parts_->fine_count);
  const auto reflected_at = [&](const Vec3& place) {
    fill_factors(place, row);
    return std::inner_product(row.begin(), row.end(), r.fine_radiosity.begin(), 0.0);
  };
  if (places.size() >= many_places && in_one_plane(places)) {
    const auto [left, right] =
        std::minmax_element(places.begin(), places.end(), [](auto& a, auto& b) { return a.x < b.x; });
    const auto [front, back] =
        std::minmax_element(places.begin(), places.end(), [](auto& a, auto& b) { return a.y < b.y; });
    const SmoothPlane plane(left->x, right->x, front->y, back->y, plane_lines, [&](double x, double y) {
      return reflected_at({x, y, places.front().z});
    });
    const auto near_enough = [&](std::size_t s) {
      const double exact = reflected_at(places[s]);
      return std::abs(plane.at(places[s].x, places[s].y) - exact) <=
             interpolation_error * (exact + prediction.direct[s]);
    };
    bool holds = true;
    for (std::size_t i = 0; holds && i < places_compared; ++i)
      holds = near_enough(i * (places.size() - 1) / (places_compared - 1));
    if (holds) {
      for (std::size_t s = 0; s < places.size(); ++s) prediction.reflected[s] = plane.at(places[s].x, places[s].y);
      return prediction;
    }
  }
  for (std::size_t s = 0; s < places.size(); ++s) prediction.reflected[s] = reflected_at(places[s]);
  return prediction;
}

RoomLight::Radiosity RoomLight::solve(std::span<const Emitter> emitters) const {
  Radiosity r;
  r.fine_direct.assign(parts_->fine_count, 0);
  r.fine_radiosity.assign(parts_->fine_count, 0);
  r.coarse_radiosity.assign(parts_->coarse_count, 0);
  if (parts_->coarse_count == 0) return r;
  Eigen::VectorXd received = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(parts_->coarse_count));
  for (const Side& side : parts_->sides) {
    add_direct_to(side, emitters, std::span(r.fine_direct).subspan(side.first_fine, side.fine.size()));
    const std::size_t fine_across = side.fine.u_count(), coarse_across = side.coarse.u_count();
    for (std::size_t p = 0; p < side.fine.size(); ++p) {
      const std::size_t u = p % fine_across / cut, v = p / fine_across / cut;
      received[static_cast<Eigen::Index>(side.first_coarse + v * coarse_across + u)] +=
          r.fine_direct[side.first_fine + p] * side.fine.area_m2(p);
    }
  }
  const Eigen::VectorXd radiosity = parts_->exchange.solve(received);
  std::copy(radiosity.begin(), radiosity.end(), r.coarse_radiosity.begin());
  for (const Side& side : parts_->sides) {
    std::vector<double> exchanged(side.coarse.size());
    for (std::size_t p = 0; p < side.coarse.size(); ++p) {
      const auto i = static_cast<Eigen::Index>(side.first_coarse + p);
      exchanged[p] = radiosity[i] / side.reflectance - received[i] / side.coarse.area_m2(p);
    }
    for (std::size_t p = 0; p < side.fine.size(); ++p) {
      double by_exchange = 0;
      for (int k = 0; k < 4; ++k)
        by_exchange += side.from_coarse[p].weight[k] * exchanged[side.from_coarse[p].patch[k]];
      r.fine_radiosity[side.first_fine + p] = side.reflectance * (r.fine_direct[side.first_fine + p] + by_exchange);
    }
  }
  return r;
}

Prediction RoomLight::predict(std::span<const Emitter> emitters, const StationFactors& stations) const {
  const std::size_t count = stations.places_.size();
  Prediction prediction{std::vector<double>(count, 0), std::vector<double>(count, 0)};
  add_direct_ppfd(emitters, stations.places_, prediction.direct);
  if (parts_->fine_count == 0) return prediction;
  const Radiosity r = solve(emitters);
  using Matrix = Eigen::Matrix<float, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
  const Eigen::Map<const Matrix> factors(stations.factors_.data(), static_cast<Eigen::Index>(count),
                                         static_cast<Eigen::Index>(parts_->fine_count));
  const Eigen::VectorXf radiosity =
      Eigen::Map<const Eigen::VectorXd>(r.fine_radiosity.data(), static_cast<Eigen::Index>(parts_->fine_count))
          .cast<float>();
  const Eigen::VectorXf reflected = factors * radiosity;
  std::copy(reflected.begin(), reflected.end(), prediction.reflected.begin());
  return prediction;
}

ModelArrays RoomLight::arrays() const {
  ModelArrays a;
  for (const Side& side : parts_->sides)
    for (std::size_t p = 0; p < side.fine.size(); ++p) {
      const std::size_t u = p % side.fine.u_count() / cut, v = p / side.fine.u_count() / cut;
      a.fine_middles.push_back(side.fine.middle(p));
      a.fine_normals.push_back(side.fine.normal());
      a.fine_areas_m2.push_back(side.fine.area_m2(p));
      a.fine_reflectances.push_back(side.reflectance);
      a.coarse_of_fine.push_back(static_cast<int>(side.first_coarse + v * side.coarse.u_count() + u));
      for (int k = 0; k < 4; ++k) {
        a.neighbors.push_back(static_cast<int>(side.first_coarse + side.from_coarse[p].patch[k]));
        a.neighbor_weights.push_back(side.from_coarse[p].weight[k]);
      }
    }
  for (const Side& side : parts_->sides)
    for (std::size_t p = 0; p < side.coarse.size(); ++p) {
      a.coarse_areas_m2.push_back(side.coarse.area_m2(p));
      a.coarse_reflectances.push_back(side.reflectance);
    }
  const Eigen::MatrixXd system = parts_->exchange.reconstructedMatrix();
  a.exchange.assign(system.data(), system.data() + system.size());
  return a;
}

double RoomLight::absorbed_umol_s(std::span<const Emitter> emitters) const {
  const Radiosity r = solve(emitters);
  double absorbed = 0;
  for (const Side& side : parts_->sides)
    for (std::size_t p = 0; p < side.coarse.size(); ++p)
      absorbed += (1 - side.reflectance) / side.reflectance * r.coarse_radiosity[side.first_coarse + p] *
                  side.coarse.area_m2(p);
  return absorbed;
}

}  // namespace sunbreak
