#include "core/spectrum/color.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

#include "core/spectrum/photon_bands.h"
#include "core/spectrum/standard_tables.h"

namespace sunbreak {
namespace {

struct LocusPoint {
  double temperature_k = 0, u = 0, v = 0;
};

/// The Planckian locus over color_range.
class Locus {
 public:
  Locus() {
    const SpectralCurve ruler(Spectrum{{color_range.from_nm, color_range.to_nm}, {1, 1}, SpectralScale::Power, false});
    ruler.each_node(color_range, table_step_nm, [&](double nm, double width) {
      const Tristimulus m = color_matching_at(nm);
      nodes_.push_back({nm, width * m[0], width * m[1], width * m[2]});
    });
    for (double t = lowest_cct_k / table_ratio; t < highest_cct_k * table_ratio * table_ratio; t *= table_ratio)
      table_.push_back(point(t));
  }

  LocusPoint point(double temperature_k) const {
    Tristimulus sums{};
    for (const auto& [nm, x, y, z] : nodes_) {
      const double power = planckian_power(temperature_k, nm);
      sums[0] += power * x;
      sums[1] += power * y;
      sums[2] += power * z;
    }
    const Chromaticity c = chromaticity(sums);
    return {temperature_k, c.u, c.v};
  }
  /// Its places every 2 % of temperature.
  const std::vector<LocusPoint>& table() const { return table_; }

 private:
  static constexpr double table_ratio = 1.02;
  std::vector<std::array<double, 4>> nodes_;
  std::vector<LocusPoint> table_;
};

const Locus& locus() {
  static const Locus one;
  return one;
}

/// The nearest place on the locus by three points of it of which the middle one is nearest: where the color is close to
/// the locus, by the triangle of the outer two; else by the parabola of distance over temperature.
ColorTemperature nearest(const std::array<LocusPoint, 3>& points, const Chromaticity& color) {
  std::array<double, 3> distance{};
  for (int i = 0; i < 3; ++i) distance[i] = std::hypot(color.u - points[i].u, color.v - points[i].v);
  const double base = std::hypot(points[2].u - points[0].u, points[2].v - points[0].v);
  const double along = (distance[0] * distance[0] - distance[2] * distance[2] + base * base) / (2 * base);
  const double height = std::sqrt(std::max(0.0, distance[0] * distance[0] - along * along));
  const double share = along / base;
  const double foot_v = points[0].v + share * (points[2].v - points[0].v);
  const double sign = color.v >= foot_v ? 1 : -1;
  if (height < 0.002)
    return {points[0].temperature_k + share * (points[2].temperature_k - points[0].temperature_k), sign * height};
  // d = a t² + b t + c through the three, t from the middle temperature for the sake of digits.
  const double t0 = points[0].temperature_k - points[1].temperature_k,
               t2 = points[2].temperature_k - points[1].temperature_k;
  const double rise0 = (distance[0] - distance[1]) / t0, rise2 = (distance[2] - distance[1]) / t2;
  const double a = (rise2 - rise0) / (t2 - t0), b = rise0 - a * t0;
  const double t = a > 0 ? -b / (2 * a) : 0;
  return {points[1].temperature_k + t, sign * (distance[1] + t * (b + a * t))};
}

}  // namespace

Tristimulus color_matching_at(double nm) {
  Tristimulus m{};
  for (std::size_t i = 0; i < 3; ++i) m[i] = table_value_cubic(color_matching[i], color_matching_from_nm, nm);
  return m;
}

Tristimulus tristimulus(const SpectralCurve& curve) {
  Tristimulus sums{};
  each_color_node(curve.straightened(), color_range, [&](double nm, double power) {
    const Tristimulus m = color_matching_at(nm);
    for (std::size_t i = 0; i < 3; ++i) sums[i] += power * m[i];
  });
  return sums;
}

Chromaticity chromaticity(const Tristimulus& t) {
  const double sum = t[0] + t[1] + t[2], mixed = t[0] + 15 * t[1] + 3 * t[2];
  return {t[0] / sum, t[1] / sum, 4 * t[0] / mixed, 6 * t[1] / mixed};
}

double planckian_power(double temperature_k, double nm) {
  constexpr double c2_nm_k = 1.4388e7;
  const double relative = nm / 560;
  return std::expm1(c2_nm_k / (560 * temperature_k)) /
         (std::pow(relative, 5) * std::expm1(c2_nm_k / (nm * temperature_k)));
}

std::optional<ColorTemperature> color_temperature(const Chromaticity& color) {
  if (!std::isfinite(color.u) || !std::isfinite(color.v)) return std::nullopt;
  const auto& table = locus().table();
  std::size_t best = 1;
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t i = 1; i + 1 < table.size(); ++i) {
    const double d = std::hypot(color.u - table[i].u, color.v - table[i].v);
    if (d < least) least = d, best = i;
  }
  if (least > largest_duv * 1.1) return std::nullopt;
  ColorTemperature found = nearest({table[best - 1], table[best], table[best + 1]}, color);
  for (const double ratio : {1.004, 1.0008}) {
    const double t = std::clamp(found.cct_k, lowest_cct_k, highest_cct_k);
    found = nearest({locus().point(t / ratio), locus().point(t), locus().point(t * ratio)}, color);
  }
  if (!(std::fabs(found.duv) <= largest_duv) || !(found.cct_k >= lowest_cct_k && found.cct_k <= highest_cct_k))
    return std::nullopt;
  return found;
}

double lux_per_ppfd(const SpectralCurve& curve) {
  if (!curve.covers(ppfd_range)) return std::numeric_limits<double>::quiet_NaN();
  const double photons = curve.photon_integral(ppfd_range) * umol_per_joule_nm;
  const double lux = luminous_efficacy_lm_w * tristimulus(curve)[1];
  return photons > 0 && lux >= 0 ? lux / photons : std::numeric_limits<double>::quiet_NaN();
}

}  // namespace sunbreak
