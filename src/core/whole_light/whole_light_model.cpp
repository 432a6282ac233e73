#include "core/whole_light/whole_light_model.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {

constexpr double small_m = 4e-3, small_deg = 0.3, small_share = 0.015;

Room believed_room(const WholeLightQuestion& question) {
  Room room = question.room;
  for (std::size_t side = 0; side < faces.size(); ++side)
    set_reflectance(room.reflectance, faces[side], question.sides[side].value);
  return room;
}

}  // namespace

WholeLightModel::WholeLightModel(const WholeLightQuestion& question, const std::vector<double>& heights_m)
    : heights_m_(heights_m),
      parameters_(question, heights_m),
      room_(believed_room(question)),
      fixture_(question.outline),
      under_{question.room.width_m / 2, question.room.depth_m / 2, 0} {}

ModelPlaces WholeLightModel::places(std::vector<Vec3> list) const {
  ModelPlaces places{std::move(list), {}, {}};
  for (const Vec3& place : places.list) places.facing.add(place);
  places.gathering = room_.gathering(places.list);
  return places;
}

ModelLight WholeLightModel::light(const ModelPlaces& places, const Eigen::MatrixXd& reflected, const Hang& hang,
                                  const Eigen::VectorXd& values) const {
  ModelLight light{
      Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(places.list.size()), static_cast<Eigen::Index>(lobe_count)), {}};
  Eigen::MatrixXd received = Eigen::MatrixXd::Zero(room_.fine_patches(), static_cast<Eigen::Index>(lobe_count));
  for (int unit = 0; unit < fixture_.units(); ++unit) {
    const auto sources = fixture_.unit(unit, hang, under_);
    const double share = parameters_.share(values, unit) / fixture_.units();
    light.by_lobe += share * direct_by_lobe(sources, places.facing);
    received += share * room_.received(sources);
  }
  light.by_lobe.noalias() += reflected * received;
  return light;
}

Eigen::VectorXd WholeLightModel::light_of(const FitUnknowns& unknowns, const Hang& hang, const ModelPlaces& places,
                                          const Eigen::MatrixXd& reflected) const {
  const LobeFlux mix = mix_of(unknowns.flux);
  Eigen::VectorXd light = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(places.list.size()));
  Eigen::VectorXd received = Eigen::VectorXd::Zero(room_.fine_patches());
  for (int unit = 0; unit < fixture_.units(); ++unit) {
    const auto sources = fixture_.unit(unit, hang, under_);
    const double share = parameters_.share(unknowns.values, unit) / fixture_.units();
    light += share * direct_of_mix(sources, mix, places.facing);
    received += share * room_.received(sources, mix);
  }
  return light + reflected * received;
}

Eigen::MatrixXd WholeLightModel::light_of(const FitUnknowns& unknowns, std::span<const Hang> hangs,
                                          const ModelPlaces& places, const LobeRoom::Exchange& exchange) const {
  const LobeFlux mix = mix_of(unknowns.flux);
  const auto ways = static_cast<Eigen::Index>(hangs.size());
  Eigen::MatrixXd light = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(places.list.size()), ways);
  Eigen::MatrixXd received = Eigen::MatrixXd::Zero(room_.fine_patches(), ways);
  for (Eigen::Index way = 0; way < ways; ++way)
    for (int unit = 0; unit < fixture_.units(); ++unit) {
      const auto sources = fixture_.unit(unit, hangs[static_cast<std::size_t>(way)], under_);
      const double share = parameters_.share(unknowns.values, unit) / fixture_.units();
      light.col(way) += share * direct_of_mix(sources, mix, places.facing);
      received.col(way) += share * room_.received(sources, mix);
    }
  if (room_.reflects()) light += exchange.reflected(places.gathering, received);
  return light;
}

void WholeLightModel::add_slopes(ModelLight& light, const ModelPlaces& places, const Eigen::MatrixXd& reflected,
                                 const LobeRoom::Exchange& exchange, const Hang& hang, int height,
                                 const FitUnknowns& at) const {
  light.by_parameter = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(places.list.size()), parameters_.size());
  const LobeFlux mix = mix_of(at.flux);
  const int units = fixture_.units();
  const auto add = [&](FitParameter::Kind kind, int index, const Eigen::VectorXd& slope) {
    if (const Eigen::Index k = parameters_.find(kind, index); k >= 0) light.by_parameter.col(k) += slope;
  };
  Eigen::VectorXd received = Eigen::VectorXd::Zero(room_.fine_patches()), first;
  for (int unit = 0; unit < units; ++unit) {
    const double share = parameters_.share(at.values, unit) / units;
    struct Here {
      Eigen::VectorXd received, light;
    };
    const auto lit_by = [&](const Hang& way) {
      const auto sources = fixture_.unit(unit, way, under_);
      Here lit{room_.received(sources, mix, true), direct_of_mix(sources, mix, places.facing)};
      lit.light += reflected * lit.received;
      return lit;
    };
    const Here here = lit_by(hang);
    received += share * here.received;
    const auto slope = [&](auto change, double by) {
      Hang moved = hang;
      change(moved);
      return Eigen::VectorXd(share / by * (lit_by(moved).light - here.light));
    };
    const auto u = static_cast<std::size_t>(unit);
    add(FitParameter::Kind::OffsetX, 0, slope([](Hang& h) { h.x_m += small_m; }, small_m));
    add(FitParameter::Kind::OffsetY, 0, slope([](Hang& h) { h.y_m += small_m; }, small_m));
    const Eigen::VectorXd upward = slope([](Hang& h) { h.height_m += small_m; }, small_m);
    add(FitParameter::Kind::Datum, 0, upward);
    if (height >= 0) add(FitParameter::Kind::HeightShift, height, upward);
    add(FitParameter::Kind::Roll, parameters_.lean_of(unit),
        slope([&](Hang& h) { h.leans[u].roll_deg += small_deg; }, small_deg));
    add(FitParameter::Kind::Pitch, parameters_.lean_of(unit),
        slope([&](Hang& h) { h.leans[u].pitch_deg += small_deg; }, small_deg));
    add(FitParameter::Kind::Span, 0, slope([](Hang& h) { h.span += small_share; }, small_share));
    if (unit == 0)
      first = here.light / units;
    else
      add(FitParameter::Kind::Share, unit, here.light / units - first);
  }
  if (!room_.reflects()) return;
  for (std::size_t side = 0; side < faces.size(); ++side)
    if (parameters_.find(FitParameter::Kind::Side, static_cast<int>(side)) >= 0)
      add(FitParameter::Kind::Side, static_cast<int>(side),
          exchange.slope_of_side(faces[side], places.gathering, received));
}

}  // namespace sunbreak
