#include "evaluation/hang_guides.h"

#include "core/optics/fixture_shapes.h"
#include "core/optics/room_lights.h"
#include "evaluation/rig_model.h"

namespace sunbreak::evaluation {
namespace {

constexpr int guided_heights = 48;
constexpr double lowest_guided_m = 0.05, under_the_ceiling_m = 0.05;

std::vector<double> heights_between(double low_m, double high_m) {
  std::vector<double> heights;
  for (int k = 0; k < guided_heights; ++k) heights.push_back(low_m + (high_m - low_m) * k / (guided_heights - 1));
  return heights;
}

}  // namespace

HangGuide described_guide(const Room& room, const FixtureOutline& fixture) {
  const auto lamp = nominal_fixture(fixture);
  const auto light = light_of(room);
  const Vec3 middle{room.width_m / 2, room.depth_m / 2, 0};
  const StationFactors factors = light->stations(std::span(&middle, 1));
  std::vector<double> heights = heights_between(lowest_guided_m, room.height_m - under_the_ceiling_m), ppfd;
  for (const double height : heights) {
    const Prediction p = light->predict(placed(lamp, middle + Vec3{0, 0, height}), factors);
    ppfd.push_back(p.direct[0] + p.reflected[0]);
  }
  return {std::move(heights), std::move(ppfd)};
}

HangGuide fitted_guide(const TestLight& light, double percent) {
  const Room& room = light.question().fit.room;
  const auto [low, high] = light.heights_m();
  const std::vector<double> heights = heights_between(low, high);
  const auto setting = light.setting(percent);
  std::vector<double> ppfd;
  if (!setting || high <= low) return {{}, {}};
  for (const auto& by_setting : light.between().at_places({{room.width_m / 2, room.depth_m / 2, 0}})->at(heights))
    ppfd.push_back(setting.value().light_factor * by_setting[static_cast<std::size_t>(setting.value().lower)].front());
  return {heights, std::move(ppfd)};
}

}  // namespace sunbreak::evaluation
