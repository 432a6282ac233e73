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

ModelLight WholeLightModel::light(const ModelPlaces& places, const LobeRoom::Reflections& reflections, const Hang& hang,
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
  light.by_lobe += reflections.of(received);
  return light;
}

WholeLightModel::Direct WholeLightModel::direct(int unit, const LobeFlux& mix, std::span<const Hang> hangs,
                                                const ModelPlaces& places, bool rough) const {
  const auto ways = static_cast<Eigen::Index>(hangs.size());
  Direct direct{Eigen::MatrixXd(static_cast<Eigen::Index>(places.list.size()), ways),
                Eigen::MatrixXd(room_.fine_patches(), ways)};
  for (Eigen::Index way = 0; way < ways; ++way) {
    const auto sources = fixture_.unit(unit, hangs[static_cast<std::size_t>(way)], under_);
    direct.at_places.col(way) = direct_of_mix(sources, mix, places.facing);
    direct.at_patches.col(way) = room_.received(sources, mix, rough);
  }
  return direct;
}

Eigen::MatrixXd WholeLightModel::light_of(const FitUnknowns& unknowns, std::span<const Hang> hangs,
                                          const ModelPlaces& places, const LobeRoom::Exchange& exchange) const {
  const LobeFlux mix = mix_of(unknowns.flux);
  const auto ways = static_cast<Eigen::Index>(hangs.size());
  Eigen::MatrixXd light = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(places.list.size()), ways);
  Eigen::MatrixXd received = Eigen::MatrixXd::Zero(room_.fine_patches(), ways);
  for (int unit = 0; unit < fixture_.units(); ++unit) {
    const Direct by_unit = direct(unit, mix, hangs, places, false);
    const double share = parameters_.share(unknowns.values, unit) / fixture_.units();
    light += share * by_unit.at_places;
    received += share * by_unit.at_patches;
  }
  if (room_.reflects()) light += exchange.reflected(places.gathering, received);
  return light;
}

void WholeLightModel::add_slopes(ModelLight& light, const ModelPlaces& places, const LobeRoom::Reflections& reflections,
                                 const LobeRoom::Exchange& exchange, const Hang& hang, int height,
                                 const FitUnknowns& at) const {
  using Kind = FitParameter::Kind;
  light.by_parameter = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(places.list.size()), parameters_.size());
  const LobeFlux mix = mix_of(at.flux);
  const int units = fixture_.units();
  Eigen::VectorXd received = Eigen::VectorXd::Zero(room_.fine_patches()), first;
  for (int unit = 0; unit < units; ++unit) {
    const double share = parameters_.share(at.values, unit) / units;
    const auto u = static_cast<std::size_t>(unit);
    // As it hangs, and moved a little for each slope.
    std::vector<Hang> hangs{hang};
    struct Slope {
      Eigen::Index parameter, way;
      double step;
    };
    std::vector<Slope> slopes;
    const auto moved = [&](double step, double& (*part)(Hang&, std::size_t),
                           std::initializer_list<Eigen::Index> wanted) {
      const auto way = static_cast<Eigen::Index>(hangs.size());
      for (const Eigen::Index parameter : wanted)
        if (parameter >= 0) slopes.push_back({parameter, way, step});
      if (slopes.empty() || slopes.back().way != way) return;
      hangs.push_back(hang);
      part(hangs.back(), u) += step;
    };
    const Eigen::Index shift = height < 0 ? -1 : parameters_.find(Kind::HeightShift, height);
    const int lean = parameters_.lean_of(unit);
    moved(small_m, [](Hang& h, std::size_t) -> double& { return h.x_m; }, {parameters_.find(Kind::OffsetX)});
    moved(small_m, [](Hang& h, std::size_t) -> double& { return h.y_m; }, {parameters_.find(Kind::OffsetY)});
    moved(small_m, [](Hang& h, std::size_t) -> double& { return h.height_m; }, {parameters_.find(Kind::Datum), shift});
    moved(small_deg, [](Hang& h, std::size_t n) -> double& { return h.leans[n].roll_deg; },
          {parameters_.find(Kind::Roll, lean)});
    moved(small_deg, [](Hang& h, std::size_t n) -> double& { return h.leans[n].pitch_deg; },
          {parameters_.find(Kind::Pitch, lean)});
    moved(small_share, [](Hang& h, std::size_t) -> double& { return h.span; }, {parameters_.find(Kind::Span)});

    const Direct direct_light = direct(unit, mix, hangs, places, true);
    const Eigen::MatrixXd lit = direct_light.at_places + reflections.of(direct_light.at_patches);
    for (const Slope& slope : slopes)
      light.by_parameter.col(slope.parameter) += share / slope.step * (lit.col(slope.way) - lit.col(0));
    received += share * direct_light.at_patches.col(0);
    if (unit == 0)
      first = lit.col(0) / units;
    else if (const Eigen::Index k = parameters_.find(Kind::Share, unit); k >= 0)
      light.by_parameter.col(k) += lit.col(0) / units - first;
  }
  if (!room_.reflects()) return;
  const Eigen::MatrixXd by_side = exchange.slopes_of_sides(places.gathering, reflections, received);
  for (std::size_t g = 0; g < room_.sides().size(); ++g) {
    const auto side = std::find(faces.begin(), faces.end(), room_.sides()[g]) - faces.begin();
    if (const Eigen::Index k = parameters_.find(Kind::Side, static_cast<int>(side)); k >= 0)
      light.by_parameter.col(k) = by_side.col(static_cast<Eigen::Index>(g));
  }
}

}  // namespace sunbreak
