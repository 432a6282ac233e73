#include "core/optics/height_for_center.h"

#include "core/optics/fixture_shapes.h"

namespace sunbreak {

std::optional<double> height_for_center(const RoomLight& light, std::span<const Emitter> fixture, double ppfd,
                                        double low_m, double high_m) {
  constexpr int scan = 24;
  const Vec3 middle{light.room().width_m / 2, light.room().depth_m / 2, 0};
  const StationFactors factors = light.stations(std::span(&middle, 1));
  const std::vector<Emitter> emitters(fixture.begin(), fixture.end());
  const auto center = [&](double height_m) {
    const Prediction p = light.predict(placed(emitters, middle + Vec3{0, 0, height_m}), factors);
    return p.direct[0] + p.reflected[0];
  };
  // From the top down to the first height that is bright enough: between it and the one above lies the answer.
  if (center(high_m) > ppfd) return {};
  double above = high_m;
  for (int i = 1; i <= scan; ++i) {
    double below = high_m - (high_m - low_m) * i / scan;
    if (center(below) < ppfd) {
      above = below;
      continue;
    }
    while (above - below > 0.001) {
      const double half = (above + below) / 2;
      (center(half) < ppfd ? above : below) = half;
    }
    return (above + below) / 2;
  }
  return {};
}

}  // namespace sunbreak
