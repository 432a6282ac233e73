#include "core/optics/room_light.h"

#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <future>
#include <numeric>
#include <optional>

#include "core/linear/cholesky.h"
#include "core/linear/dense_kernel.h"
#include "core/optics/grid_interpolation.h"
#include "core/optics/mutual_areas.h"
#include "core/optics/room_patches.h"
#include "core/optics/smooth_plane.h"

namespace sunbreak {
namespace {

constexpr PatchCounts coarse_counts{12, 16};
constexpr int finer_cut = 3;

struct Side {
  double reflectance = 0;
  PatchGrid coarse, fine;
  std::size_t first_coarse = 0, first_fine = 0;  ///< in the lists of all reflecting sides
  std::optional<RoughPlaces> fine_middles;
  std::vector<std::size_t> coarse_of_fine;
  GridInterpolation from_coarse;
};

/// How many of a side's fine patches an emitter can light, from the first on. What hangs straight down lights nothing
/// above itself; the rows of a wall's patches run upward, so that its part is the first of them.
std::size_t lit_by(const Side& side, const Emitter& e) {
  const PatchGrid& grid = side.fine;
  if (!(e.direction == straight_down)) return grid.size();
  if (grid.face.axis == 2) return grid.face.high ? 0 : grid.size();
  const auto above = std::lower_bound(grid.v_edges_m.begin(), grid.v_edges_m.end() - 1, e.place_m.z);
  return static_cast<std::size_t>(above - grid.v_edges_m.begin()) * grid.u_count();
}

/// From so many places in one plane on, what the sides send there is interpolated; and how well that has to hold at
/// places where both are worked out, as a share of the light.
constexpr std::size_t many_places = 8000, places_compared = 101;
constexpr int plane_lines = 64;
/// Emitters times places from which on a second thread is worth its beginning.
constexpr std::size_t work_worth_a_thread = 1'000'000;
constexpr double interpolation_error = 1e-3;

bool in_one_plane(std::span<const Vec3> places) {
  return std::all_of(places.begin(), places.end(), [&](const Vec3& p) { return p.z == places.front().z; });
}

}  // namespace

struct RoomLight::Parts {
  Room room;
  std::vector<Side> sides;  ///< those that reflect
  std::size_t coarse_count = 0, fine_count = 0;
  Cholesky exchange;  ///< of diag(area / reflectance) − area · form factor

  void factor();
};

/// What the sides receive and send back.
struct RoomLight::Radiosity {
  std::vector<float> fine_direct;  ///< PPFD of the fine patches by direct light
  std::vector<std::size_t> lit;    ///< of each side: how many of its fine patches have any, from the first on
  std::vector<double> coarse_radiosity;
  std::vector<float> coarse_exchanged;  ///< what coarse patches send of all other light
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
  exchange = Cholesky(std::move(system));
}

RoomLight::RoomLight(const Room& room) : parts_(std::make_unique<Parts>()) {
  parts_->room = room;
  for (const Face& face : faces) {
    const double reflectance = reflectance_of(room, face);
    if (reflectance <= 0) continue;
    const PatchGrid coarse = patch_grid(room, face, coarse_counts),
                    fine = patch_grid(room, face, coarse_counts, finer_cut);
    Side side{reflectance, coarse, fine, parts_->coarse_count, parts_->fine_count, {}, {}, {coarse, fine}};
    FacingPlaces middles{side.fine.normal(), {}, {}, {}};
    for (std::size_t p = 0; p < side.fine.size(); ++p) {
      middles.add(side.fine.middle(p));
      side.coarse_of_fine.push_back(p / side.fine.u_count() / finer_cut * side.coarse.u_count() +
                                    p % side.fine.u_count() / finer_cut);
    }
    side.fine_middles.emplace(middles);
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
  result.rough_places_.emplace(result.places_);
  result.factors_.resize(places.size() * parts_->fine_count);
  result.coarse_factors_.resize(places.size() * parts_->coarse_count);
  std::vector<double> row(parts_->fine_count), coarse(parts_->coarse_count);
  for (std::size_t s = 0; s < places.size(); ++s) {
    fill_factors(places[s], row);
    std::fill(coarse.begin(), coarse.end(), 0);
    for (const Side& side : parts_->sides)
      side.from_coarse.add_to_coarse(std::span(row).subspan(side.first_fine, side.fine.size()),
                                     std::span(coarse).subspan(side.first_coarse, side.coarse.size()));
    std::copy(row.begin(), row.end(), result.factors_.begin() + static_cast<std::ptrdiff_t>(s * row.size()));
    std::copy(coarse.begin(), coarse.end(),
              result.coarse_factors_.begin() + static_cast<std::ptrdiff_t>(s * coarse.size()));
  }
  return result;
}

Prediction RoomLight::predict_once(std::span<const Emitter> emitters, std::span<const Vec3> places) const {
  FacingPlaces facing;
  for (const Vec3& place : places) facing.add(place);
  Prediction prediction{std::vector<double>(places.size(), 0), std::vector<double>(places.size(), 0)};
  add_direct_ppfd(emitters, facing, prediction.direct);
  if (parts_->fine_count == 0) return prediction;
  const std::vector<double> radiosity = fine_radiosity(solve(emitters));
  std::vector<double> row(parts_->fine_count);
  const auto reflected_at = [&](const Vec3& place) {
    fill_factors(place, row);
    return std::inner_product(row.begin(), row.end(), radiosity.begin(), 0.0);
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
  r.coarse_radiosity.assign(parts_->coarse_count, 0);
  r.coarse_exchanged.assign(parts_->coarse_count, 0);
  if (parts_->coarse_count == 0) return r;
  Eigen::VectorXd received = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(parts_->coarse_count));
  for (const Side& side : parts_->sides) {
    const auto direct = std::span(r.fine_direct).subspan(side.first_fine, side.fine.size());
    std::size_t most = 0;
    for (const Emitter& e : emitters) {
      const std::size_t lit = lit_by(side, e);
      add_direct_ppfd({&e, 1}, *side.fine_middles, direct.first(lit));
      most = std::max(most, lit);
    }
    r.lit.push_back(most);
    for (std::size_t p = 0; p < most; ++p)
      received[static_cast<Eigen::Index>(side.first_coarse + side.coarse_of_fine[p])] +=
          static_cast<double>(direct[p]) * side.fine.area_m2(p);
  }
  const Eigen::VectorXd radiosity = parts_->exchange.solve(received);
  std::copy(radiosity.begin(), radiosity.end(), r.coarse_radiosity.begin());
  for (const Side& side : parts_->sides)
    for (std::size_t p = 0; p < side.coarse.size(); ++p) {
      const auto i = static_cast<Eigen::Index>(side.first_coarse + p);
      r.coarse_exchanged[side.first_coarse + p] =
          static_cast<float>(radiosity[i] - side.reflectance * received[i] / side.coarse.area_m2(p));
    }
  return r;
}

/// Of each fine patch: what it sends of its direct light, and of all other as its coarse neighbors do.
std::vector<double> RoomLight::fine_radiosity(const Radiosity& r) const {
  std::vector<double> radiosity(parts_->fine_count);
  for (const Side& side : parts_->sides)
    for (std::size_t p = 0; p < side.fine.size(); ++p) {
      const Interpolation around = side.from_coarse.at(p);
      double exchanged = 0;
      for (int k = 0; k < 4; ++k)
        exchanged += around.weight[k] * static_cast<double>(r.coarse_exchanged[side.first_coarse + around.patch[k]]);
      radiosity[side.first_fine + p] =
          side.reflectance * static_cast<double>(r.fine_direct[side.first_fine + p]) + exchanged;
    }
  return radiosity;
}

Prediction RoomLight::predict(std::span<const Emitter> emitters, const StationFactors& stations) const {
  const std::size_t count = stations.places_.size();
  // The two halves of the work know nothing of each other: with much to do another thread takes one.
  const bool much = emitters.size() * (count + parts_->fine_count) > work_worth_a_thread;
  const auto how = much ? std::launch::async : std::launch::deferred;
  auto sides = std::async(how, [&] { return solve(emitters); });
  std::vector<float> direct(count, 0);
  add_direct_ppfd(emitters, *stations.rough_places_, direct);
  Prediction prediction{{direct.begin(), direct.end()}, std::vector<double>(count, 0)};
  const Radiosity r = sides.get();
  if (parts_->fine_count == 0) return prediction;
  const std::size_t half = much ? count / 2 : count;
  auto second = std::async(how, [&] { gather(stations, r, half, std::span(prediction.reflected).subspan(half)); });
  gather(stations, r, 0, std::span(prediction.reflected).first(half));
  second.get();
  return prediction;
}

/// The sides' light at stations from the `first` on.
void RoomLight::gather(const StationFactors& stations, const Radiosity& r, std::size_t first,
                       std::span<double> reflected) const {
  const std::size_t coarse = parts_->coarse_count, fine = parts_->fine_count;
  const float* const by_fine = stations.factors_.data() + first * fine;
  std::vector<float> light(reflected.size(), 0), sent;
  const auto add = [&](std::size_t patches, const float* factors, std::size_t all_patches, const float* exitance) {
    dense_kernels().add_rows(light.size(), patches, factors, all_patches, exitance, light.data());
  };
  add(coarse, stations.coarse_factors_.data() + first * coarse, coarse, r.coarse_exchanged.data());
  // The floor sends nothing to stations on it, and what is dark sends nothing either.
  for (std::size_t s = 0; s < parts_->sides.size(); ++s) {
    const Side& side = parts_->sides[s];
    if (side.fine.face == Face{2, false} || r.lit[s] == 0) continue;
    const auto direct = std::span(r.fine_direct).subspan(side.first_fine, r.lit[s]);
    sent.assign(direct.begin(), direct.end());
    for (float& e : sent) e *= static_cast<float>(side.reflectance);
    add(sent.size(), by_fine + side.first_fine, fine, sent.data());
  }
  std::copy(light.begin(), light.end(), reflected.begin());
}

ModelArrays RoomLight::arrays() const {
  ModelArrays a;
  for (const Side& side : parts_->sides)
    for (std::size_t p = 0; p < side.fine.size(); ++p) {
      a.fine_middles.push_back(side.fine.middle(p));
      a.fine_normals.push_back(side.fine.normal());
      a.fine_areas_m2.push_back(side.fine.area_m2(p));
      a.fine_reflectances.push_back(side.reflectance);
      a.coarse_of_fine.push_back(static_cast<int>(side.first_coarse + side.coarse_of_fine[p]));
      const Interpolation around = side.from_coarse.at(p);
      for (int k = 0; k < 4; ++k) {
        a.neighbors.push_back(static_cast<int>(side.first_coarse + around.patch[k]));
        a.neighbor_weights.push_back(around.weight[k]);
      }
    }
  for (const Side& side : parts_->sides)
    for (std::size_t p = 0; p < side.coarse.size(); ++p) {
      a.coarse_areas_m2.push_back(side.coarse.area_m2(p));
      a.coarse_reflectances.push_back(side.reflectance);
    }
  const Eigen::MatrixXd system = parts_->exchange.matrix();
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
