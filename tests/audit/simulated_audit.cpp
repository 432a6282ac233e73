#include "audit/simulated_audit.h"

#include <algorithm>
#include <cmath>

#include "core/figures/nominal.h"
#include "core/figures/sweep_figures.h"
#include "core/optics/fixture_shapes.h"
#include "core/optics/room_lights.h"
#include "core/quantity/normal_deviates.h"
#include "core/whole_light/reference_rooms.h"
#include "evaluation/audit/floor_light.h"
#include "evaluation/crop_targets.h"
#include "evaluation/rig_model.h"
#include "record/claim_kinds.h"
#include "record/plan_grid.h"

namespace sunbreak::trial {
namespace {

using record::Claim;
using record::Id;

constexpr double calibration_pct = 1.5, spectral_pct = 1.0, cosine_pct = 0.7, wall_pct = 1.0;
constexpr double height_sd_m = 0.003, place_sd_m = 0.003, stated_noise = 0.006;

double between(NormalDeviates& draw, double low, double high) { return low + (high - low) * draw.uniform(); }

template <typename Choice>
const Choice& one_of(NormalDeviates& draw, const std::vector<Choice>& choices) {
  return choices[static_cast<std::size_t>(draw.uniform() * static_cast<double>(choices.size()))];
}

struct Shape {
  const char* name;
  std::vector<Emitter> emitters;
  double width_m, depth_m;
  int across, deep;
};

/// Emitters that give 1 µmol/s in all.
Shape shape(NormalDeviates& draw) {
  switch (static_cast<int>(4 * draw.uniform())) {
    case 0: {
      const double side = between(draw, 0.2, 0.45);
      return {"board", board(side, side, 10, 10, 1), side, side, 10, 10};
    }
    case 1: {
      const double width = between(draw, 0.5, 0.8);
      return {"bars", bars(5, width, width, 12, 1), width, width, 5, 12};
    }
    case 2: {
      const double exponent = between(draw, 1.3, 2.2);
      return {"lensed board", board(0.3, 0.3, 8, 8, 1, exponent), 0.3, 0.3, 8, 8};
    }
    default: {
      const double radius = between(draw, 0.08, 0.2);
      return {"round board", disc(radius, 5, 1), 2 * radius, 2 * radius, 8, 8};
    }
  }
}

std::vector<Vec3> places_of(const Layout& layout, double left_m = 0, double front_m = 0) {
  std::vector<Vec3> places;
  for (const Station& s : layout.stations) places.push_back({left_m + s.x_m, front_m + s.y_m, 0});
  return places;
}

}  // namespace

double AuditBench::light_factor(double percent) const { return std::pow(percent / 100, dim_power); }
double AuditBench::watts(double percent) const { return full_w * (0.03 + 0.97 * percent / 100); }

std::vector<double> true_ppfd(const AuditBench& b, const RoomLight& room, double height_m,
                              const std::vector<Vec3>& places) {
  const Prediction p = room.predict_once(
      placed(b.emitters, {room.room().width_m / 2, room.room().depth_m / 2, height_m}, b.ppf_umol_s), places);
  std::vector<double> light(places.size());
  for (std::size_t i = 0; i < light.size(); ++i) light[i] = p.direct[i] + p.reflected[i];
  return light;
}

AuditBench audit_bench(std::uint64_t seed, int number, Benches benches) {
  NormalDeviates draw(seed * 1'000'003 + static_cast<std::uint64_t>(number));
  AuditBench b;
  const Shape s = shape(draw);
  b.fixture = s.name, b.emitters = s.emitters;
  b.ppf_umol_s = between(draw, 150, 900);
  b.full_w = b.ppf_umol_s / between(draw, 1.7, 3.0);
  b.dim_power = between(draw, 0.9, 1.1);
  const std::string drawn = one_of(draw, std::vector<std::string>{"open", "open", "white", "reflective"}),
                    walls = benches == Benches::Open ? "open" : drawn;
  b.bench = walls;
  record::TestRecord& r = b.record;
  r.test.id = r.fixture.id = r.bench.id = 1;
  r.test.fixture_id = r.test.bench_id = 1;
  r.bench.width_m = r.bench.depth_m = one_of(draw, std::vector<double>{0.9, 1.0, 1.2});
  r.bench.height_m = 2;
  r.bench.wall_left = r.bench.wall_right = r.bench.wall_front = r.bench.wall_back = walls;
  b.room = evaluation::room_of(r.bench);
  r.fixture.name = s.name;
  r.fixture.width_m = s.width_m, r.fixture.depth_m = s.depth_m;
  r.fixture.emitters_across = s.across, r.fixture.emitters_deep = s.deep;
  r.test.columns = r.test.rows = 6;
  r.test.reference_every = 0;
  r.test.height_uncertainty_m = height_sd_m, r.test.position_uncertainty_m = place_sd_m;
  r.test.spectral_uncertainty_pct = spectral_pct, r.test.cosine_uncertainty_pct = cosine_pct;
  r.meters = {{1, "quantum", "Q", "2026-01-10", 1, 0, calibration_pct, 4000.0, 0.03, 0.02, "", false, 2},
              {2, "wall", "W", "2026-01-10", 1, 0, wall_pct, 3680.0, std::nullopt, std::nullopt, "", false, 2}};
  r.test.sensor_id = 1, r.test.wall_meter_id = 2;
  const double sensor = 1 + std::hypot(calibration_pct, spectral_pct, cosine_pct) / 100 * draw(),
               wall = 1 + wall_pct / 100 * draw();
  b.heights_m = draw.uniform() < 0.5 ? std::vector<double>{0.5, 0.3} : std::vector<double>{0.6, 0.4, 0.25};
  r.stops = {{1, 1, 100}};
  const auto room = light_of(b.room);
  const Layout layout = lay_out({r.bench.width_m, r.bench.depth_m}, record::grid_of(r.test)).value();
  Id reading = 0;
  for (std::size_t k = 0; k < b.heights_m.size(); ++k) {
    const Id id = static_cast<Id>(k + 1);
    r.rungs.push_back({id, 1, b.heights_m[k]});
    record::Sweep sweep{id, 1, id, 1, "cells", 6, 6};
    sweep.power_w = b.full_w * wall * (1 + 0.001 * draw());
    r.sweeps.push_back(sweep);
    std::vector<Vec3> places = places_of(layout);
    for (Vec3& p : places) p.x += place_sd_m * draw(), p.y += place_sd_m * draw();
    const auto light = true_ppfd(b, *room, b.heights_m[k] + height_sd_m * draw(), places);
    for (std::size_t i = 0; i < light.size(); ++i) {
      const double raw = light[i] * sensor * (1 + stated_noise * draw());
      r.readings.push_back({++reading, id, static_cast<int>(i), raw, "typed", ""});
      r.placements.push_back({reading, id, static_cast<int>(i), reading});
    }
  }
  Id stair_reading = 0;
  for (const double percent : {100.0, 75.0, 50.0, 25.0}) {
    const Id id = static_cast<Id>(r.stair_stops.size() + 1);
    r.stair_stops.push_back({id, 1, percent, b.watts(percent) * wall, {}, ""});
    for (const int station : {14, 21})
      r.stair_readings.push_back(
          {++stair_reading, id, station, 400 * b.light_factor(percent) * (1 + 0.002 * draw()), "typed"});
  }
  const auto targets = evaluation::shipped_targets();
  evaluation::set_target(r.test, *std::ranges::find(targets, std::string("young plants"), &record::CropTarget::name));
  return b;
}

namespace {

/// How far off a claim is planted.
struct Plant {
  std::string name = "true";
  double factor = 1;
};

Plant plant(NormalDeviates& draw) {
  const double u = draw.uniform(), sign = draw.uniform() < 0.75 ? 1 : -1;
  if (u < 0.4) return {};
  if (u < 0.6) return {"3 % off", 1 + 0.03 * sign};
  if (u < 0.8) return {"10 % off", 1 + 0.1 * sign};
  return {"30 % off", 1 + 0.3 * sign};
}

PlantedClaim numeric(const char* kind, double truth, const Plant& p) {
  PlantedClaim c;
  c.claim.kind = kind;
  c.claim.value = truth * p.factor;
  c.plant = p.name, c.is_true = p.factor == 1, c.truth = truth, c.claimed = *c.claim.value;
  return c;
}

PlantedClaim planted_map(const AuditBench& b, const RoomLight& room, NormalDeviates& draw) {
  PlantedClaim c;
  c.claim.kind = "map";
  const double side = between(draw, 0.4, 0.8), stated = (b.heights_m.front() + b.heights_m.back()) / 2;
  const bool another = draw.uniform() < 0.25;
  const Plant p = another ? Plant{"another height", 1} : plant(draw);
  const double made_at = another ? stated * between(draw, 0.6, 0.8) : stated;
  c.claim.width_m = c.claim.depth_m = side;
  c.claim.height_m = stated, c.claim.percent = 100;
  const Layout layout = lay_out({side, side}, Grid{GridKind::Cells, 5, 5, 0, 0, {}}).value();
  const double corner = (b.room.width_m - side) / 2;
  const auto places = places_of(layout, corner, corner);
  auto shown = true_ppfd(b, room, made_at, places);
  const double truth = area_mean(layout, true_ppfd(b, room, stated, places));
  for (double& e : shown) e *= p.factor;
  record::set_map(c.claim, 5, 5, shown);
  c.plant = p.name, c.is_true = p.name == "true", c.truth = truth, c.claimed = area_mean(layout, shown);
  return c;
}

/// The longest side of a square about the middle that is truly served, at heights that can be told and any setting.
double truly_served_m(const AuditBench& b, const Room& in, const Band& band) {
  const auto room = light_of(in);
  constexpr int cells = 12;  // as the bench is walked
  const Layout layout = lay_out({in.width_m, in.depth_m}, Grid{GridKind::Cells, cells, cells, 0, 0, {}}).value();
  const StationFactors stations = room->stations(places_of(layout));
  const double low = b.heights_m.back(), high = b.heights_m.front(), reach = 0.25 * (high - low);
  double widest = 0;
  for (double h = low - reach; h <= high + reach; h += 0.02) {
    const Prediction p = room->predict(placed(b.emitters, {in.width_m / 2, in.depth_m / 2, h}, b.ppf_umol_s), stations);
    std::vector<double> light(layout.stations.size());
    for (std::size_t i = 0; i < light.size(); ++i) light[i] = p.direct[i] + p.reflected[i];
    const auto served = [&](double side) {
      const Rectangle part = evaluation::centered({0, 0, in.width_m, in.depth_m}, side, side);
      const AreaLight at_full = AreaPlan(layout, part).light(light);
      // The dimmest setting that lights the edge; it goes down to 25 %.
      const double factor = std::max(band.low / at_full.edge, b.light_factor(25));
      return factor <= 1 && factor * at_full.highest <= band.high;
    };
    for (double side = widest + 0.01; side <= in.width_m + 1e-9; side += 0.01)
      if (served(side)) widest = side;
  }
  return widest;
}

std::optional<PlantedClaim> planted_coverage(const AuditBench& b, NormalDeviates& draw) {
  PlantedClaim c;
  c.claim.kind = "coverage";
  c.claim.stage = "young plants";
  const Band band{245, 400};
  const double here = truly_served_m(b, b.room, band), u = draw.uniform();
  if (here < 0.3) return {};
  double side = 0;
  if (u < 0.5) {
    c.plant = "true", side = here * between(draw, 0.75, 1);
  } else if (u < 0.75 || b.room.reflectance.left > 0) {
    const bool little = draw.uniform() < 0.5;
    c.plant = little ? "10 % off" : "30 % off";
    side = here * (little ? 1.1 : 1.3);
  } else {
    c.plant = "another tent";
    side = truly_served_m(b, white_tent({b.room.width_m, b.room.depth_m}), band);
  }
  if (side > b.room.width_m) return {};
  c.is_true = side <= here;
  c.claim.width_m = c.claim.depth_m = side;
  c.truth = 100 * here, c.claimed = 100 * side;
  return c;
}

}  // namespace

std::vector<PlantedClaim> plant_claims(const AuditBench& b, std::uint64_t seed, int number) {
  NormalDeviates draw(seed * 7'000'003 + 17 + static_cast<std::uint64_t>(number));
  const auto room = light_of(b.room);
  std::vector<PlantedClaim> all{numeric("power_w", b.full_w, plant(draw)),
                                numeric("ppf_umol_s", b.ppf_umol_s, plant(draw))};
  if (draw.uniform() < 0.3) {
    // Left out, and said so or not.
    const double share = between(draw, 0.06, 0.15);
    const bool said = draw.uniform() < 0.5;
    PlantedClaim c = numeric("efficacy_umol_j", b.efficacy(), {"driver left out", 1 / (1 - share)});
    c.claim.says = said ? "without driver" : "";
    c.is_true = said;
    if (said) c.plant = "driver left out, said so";
    all.push_back(c);
  } else {
    all.push_back(numeric("efficacy_umol_j", b.efficacy(), plant(draw)));
    all.back().claim.says = "with driver";
  }
  all.push_back(planted_map(b, *room, draw));
  if (auto coverage = planted_coverage(b, draw)) all.push_back(std::move(*coverage));
  record::Id id = 0;
  for (PlantedClaim& c : all) c.claim.id = ++id, c.claim.fixture_id = 1;
  return all;
}

}  // namespace sunbreak::trial
