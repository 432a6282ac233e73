#include "made_light.h"

#include <cmath>
#include <numbers>

namespace sunbreak {
namespace {
constexpr double hood_softness_deg = 4;
}

MadeLight::MadeLight(double width_m, double depth_m, double mirror, std::vector<Glow> glows) {
  struct Image {
    double place, share;
  };
  const auto images = [mirror](double at, double size) {
    return std::vector<Image>{{at, 1},
                              {-at, mirror},
                              {2 * size - at, mirror},
                              {at + 2 * size, mirror * mirror},
                              {at - 2 * size, mirror * mirror}};
  };
  for (const Glow& g : glows)
    for (const Image& x : images(g.x_m, width_m))
      for (const Image& y : images(g.y_m, depth_m)) {
        Glow image = g;
        image.x_m = x.place, image.y_m = y.place, image.strength *= x.share * y.share;
        if (image.strength > 0) all_.push_back(image);
      }
}

double MadeLight::at(double x_m, double y_m, double height_m) const {
  double sum = 0;
  for (const Glow& g : all_) {
    const double dx = x_m - g.x_m, dy = y_m - g.y_m, aside = dx * dx + dy * dy, away = aside + height_m * height_m,
                 cosine = height_m / std::sqrt(away);
    double intensity = g.strength * std::pow(cosine, g.exponent) * (1 + g.wing * aside / away);
    if (g.hood_deg < 90) {
      const double angle = std::acos(cosine) * 180 / std::numbers::pi;
      intensity /= 1 + std::exp((angle - g.hood_deg) / hood_softness_deg);
    }
    sum += intensity * cosine / away;
  }
  return sum;
}

}  // namespace sunbreak
