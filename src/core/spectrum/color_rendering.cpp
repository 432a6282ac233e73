#include "core/spectrum/color_rendering.h"

#include <algorithm>
#include <cmath>

#include "core/spectrum/standard_tables.h"

namespace sunbreak {
namespace {

constexpr double daylight_from_k = 5000, daylight_to_k = 25000;
constexpr WavelengthRange test_color_range{380, 780};

struct Uv {
  double u = 0, v = 0;
};

/// The light's own color, and that of the fourteen test colors in it with their Y where its own is 100.
struct Lit {
  Uv light;
  std::array<Uv, 14> colors;
  std::array<double, 14> luminance{};
};

/// `each_node(visit)` calls `visit(nm, power · width)` over the wavelengths of the test colors.
template <typename EachNode>
Lit lit_by(EachNode each_node) {
  Tristimulus white{};
  std::array<Tristimulus, 14> seen{};
  each_node([&](double nm, double power) {
    const Tristimulus m = color_matching_at(nm);
    for (std::size_t i = 0; i < 3; ++i) white[i] += power * m[i];
    for (std::size_t k = 0; k < seen.size(); ++k) {
      const double lit = power * table_value_cubic(test_colors[k], test_colors_from_nm, nm);
      for (std::size_t i = 0; i < 3; ++i) seen[k][i] += lit * m[i];
    }
  });
  Lit lit;
  const Chromaticity own = chromaticity(white);
  lit.light = {own.u, own.v};
  for (std::size_t k = 0; k < seen.size(); ++k) {
    const Chromaticity c = chromaticity(seen[k]);
    lit.colors[k] = {c.u, c.v};
    lit.luminance[k] = 100 * seen[k][1] / white[1];
  }
  return lit;
}

double c_of(Uv p) { return (4 - p.u - 10 * p.v) / p.v; }
double d_of(Uv p) { return (1.708 * p.v + 0.404 - 1.481 * p.u) / p.v; }

/// A color seen in the test light as an eye adapted to the reference would see it.
Uv adapted(Uv color, Uv test, Uv reference) {
  const double c = c_of(reference) / c_of(test) * c_of(color), d = d_of(reference) / d_of(test) * d_of(color);
  const double below = 16.518 + 1.481 * c - d;
  return {(10.872 + 0.404 * c - 4 * d) / below, 5.520 / below};
}

struct Uvw {
  double u = 0, v = 0, w = 0;
};

Uvw uvw(Uv color, double luminance, Uv reference) {
  const double w = 25 * std::cbrt(luminance) - 17;
  return {13 * w * (color.u - reference.u), 13 * w * (color.v - reference.v), w};
}

}  // namespace

double daylight_power(double cct_k, double nm) {
  const double t = 1000 / cct_k;
  const double x = cct_k <= 7000 ? ((-4.6070 * t + 2.9678) * t + 0.09911) * t + 0.244063
                                 : ((-2.0064 * t + 1.9018) * t + 0.24748) * t + 0.237040;
  const double y = (-3.000 * x + 2.870) * x - 0.275;
  const double below = 0.0241 + 0.2562 * x - 0.7341 * y;
  const double m1 = (-1.3515 - 1.7703 * x + 5.9114 * y) / below, m2 = (0.0300 - 31.4424 * x + 30.0717 * y) / below;
  const auto component = [&](std::size_t i) { return table_value(daylight_components[i], daylight_from_nm, nm); };
  return component(0) + m1 * component(1) + m2 * component(2);
}

std::optional<ColorRendering> color_rendering(const SpectralCurve& curve,
                                              const std::optional<ColorTemperature>& temperature) {
  if (!temperature || temperature->cct_k > daylight_to_k) return std::nullopt;
  const double cct_k = temperature->cct_k;
  const Lit test = lit_by([&](auto visit) { each_color_node(curve.straightened(), test_color_range, visit); });
  const SpectralCurve ruler(
      Spectrum{{test_color_range.from_nm, test_color_range.to_nm}, {1, 1}, SpectralScale::Power, false});
  const Lit reference = lit_by([&](auto visit) {
    ruler.each_node(test_color_range, table_step_nm, [&](double nm, double width) {
      visit(nm, width * (cct_k < daylight_from_k ? planckian_power(cct_k, nm) : daylight_power(cct_k, nm)));
    });
  });
  ColorRendering told;
  told.color_difference = std::hypot(test.light.u - reference.light.u, test.light.v - reference.light.v);
  for (std::size_t k = 0; k < told.r.size(); ++k) {
    const Uvw seen = uvw(adapted(test.colors[k], test.light, reference.light), test.luminance[k], reference.light);
    const Uvw wanted = uvw(reference.colors[k], reference.luminance[k], reference.light);
    const double difference = std::hypot(seen.u - wanted.u, seen.v - wanted.v, seen.w - wanted.w);
    if (!std::isfinite(difference)) return std::nullopt;
    told.r[k] = 100 - 4.6 * difference;
    if (k < 8) told.ra += told.r[k] / 8;
  }
  return told;
}

}  // namespace sunbreak
