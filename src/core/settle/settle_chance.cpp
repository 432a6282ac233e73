#include "core/settle/settle_chance.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

#include "core/quantity/normal_quantile.h"
#include "core/settle/settle_kernel.h"

namespace sunbreak {
namespace {

/// What one draw is off by, in standard deviations.
struct Draw {
  double shared, together, dimmer, radial, lowest, highest;
};

/// Spread evenly over all parts at once, so that few go a long way: multiples of powers of the number g with
/// g⁷ = g + 1, less their whole parts.
const std::array<Draw, settle_draws>& draws() {
  static const std::array<Draw, settle_draws> list = [] {
    constexpr double g = 1.1127756842787055;
    std::array<Draw, settle_draws> made{};
    double step = 1;
    for (double Draw::*part :
         {&Draw::shared, &Draw::together, &Draw::dimmer, &Draw::radial, &Draw::lowest, &Draw::highest}) {
      step /= g;
      for (std::size_t d = 0; d < made.size(); ++d) {
        const double at = 0.5 + step * static_cast<double>(d + 1);
        made[d].*part = normal_quantile(at - std::floor(at));
      }
    }
    return made;
  }();
  return list;
}

/// Figures as they would be if a draw were true. Shares are counted where they are asked for.
class Drawn {
 public:
  Drawn(double shared_sd, const SettleHeight& height, const SettleSetting& setting, const Band& band)
      : shared_sd_(shared_sd),
        height_(height),
        setting_(setting),
        band_(band),
        known_(settle_figures(height, setting, band)),
        nearer_(height.patterns[static_cast<std::size_t>(setting.upper_share > 0.5 ? setting.upper : setting.lower)]) {}

  const AreaLight& known() const { return known_; }

  AreaLight at(const Draw& d, bool with_shares) const {
    const SettleErrors& e = height_.errors;
    const double all = 1 + shared_sd_ * d.shared + e.together * d.together + setting_.light_sd * d.dimmer;
    const double radial = e.radial * d.radial;
    AreaLight f;
    f.mean = known_.mean * all;
    f.edge = known_.edge * (all + radial * nearer_.edge_radial);
    // Means of a few stations.
    f.center = known_.center * (all - radial + e.local / 2 * d.highest);
    f.corners = known_.corners * (all + 2 * radial + e.local / 2 * d.lowest);
    f.lowest = known_.lowest * (all + radial * nearer_.lowest_radial + e.local * d.lowest);
    f.highest = known_.highest * (all + radial * nearer_.highest_radial + e.local * d.highest);
    if (!with_shares) return f;
    // Of the nearer pattern, which for a share is as good as the mix.
    const double unit = known_.mean / nearer_.mean;
    const auto count = static_cast<double>(nearer_.lit.size());
    const Counted c =
        count_in_sum(nearer_.lit.data(), nearer_.radial.data(), static_cast<float>(radial / all), nearer_.lit.size(),
                     static_cast<float>(band_.low / (unit * all)), static_cast<float>(band_.high / (unit * all)));
    f.too_bright = c.above_high / count;
    f.in_band = (c.at_least_low - c.above_high) / count;
    f.too_dim = 1 - c.at_least_low / count;
    return f;
  }

 private:
  double shared_sd_;
  const SettleHeight& height_;
  const SettleSetting& setting_;
  Band band_;
  AreaLight known_;
  const SettlePattern& nearer_;
};

double half_width(std::vector<double> values) {
  std::sort(values.begin(), values.end());
  constexpr double outside = 0.0228;  // beyond k = 2 on either side
  const auto at = [&](double share) {
    const double place = share * static_cast<double>(values.size()) - 0.5;
    const auto low = static_cast<std::size_t>(place);
    return values[low] + (place - static_cast<double>(low)) * (values[low + 1] - values[low]);
  };
  return (at(1 - outside) - at(outside)) / 2;
}

}  // namespace

double likely_in_band(const Band& band, double shared_sd, const SettleHeight& height, const SettleSetting& setting) {
  // Gauss and Hermite, five places.
  constexpr std::pair<double, double> places[] = {{0, 8.0 / 15},
                                                  {1.3556261799742659, 0.2220759220056126},
                                                  {-1.3556261799742659, 0.2220759220056126},
                                                  {2.8569700138728056, 0.0112574113277207},
                                                  {-2.8569700138728056, 0.0112574113277207}};
  const double sd = std::hypot(shared_sd, height.errors.together, setting.light_sd);
  double likely = 0;
  for (const auto& [at, weight] : places) {
    const double all = 1 + sd * at;
    likely += weight * settle_figures(height, setting, {band.low / all, band.high / all}).in_band;
  }
  return likely;
}

double chance_of(const ServingRule& rule, const Band& band, const SettleLimits& limits, double shared_sd,
                 const SettleHeight& height, const SettleSetting& setting) {
  const Drawn drawn(shared_sd, height, setting, band);
  int met = 0;
  for (const Draw& d : draws()) {
    const AreaLight f = drawn.at(d, rule.kind == ServingRule::Kind::Share);
    met += judged(rule, band, f).met() && (!limits.max_ppfd || f.highest <= *limits.max_ppfd);
  }
  return static_cast<double>(met) / settle_draws;
}

SettleExpanded expanded_of(const Band& band, double shared_sd, const SettleHeight& height, const SettleSetting& setting,
                           bool with_shares) {
  const Drawn drawn(shared_sd, height, setting, band);
  std::vector<AreaLight> all;
  for (const Draw& d : draws()) all.push_back(drawn.at(d, with_shares));
  const auto of = [&](double AreaLight::*figure) {
    std::vector<double> values;
    for (const AreaLight& f : all) values.push_back(f.*figure);
    return half_width(std::move(values));
  };
  std::vector<double> ratios;
  for (const AreaLight& f : all) ratios.push_back(f.lowest_over_mean());
  return {of(&AreaLight::mean),   of(&AreaLight::edge),    of(&AreaLight::center),  of(&AreaLight::corners),
          of(&AreaLight::lowest), of(&AreaLight::highest), of(&AreaLight::in_band), half_width(std::move(ratios))};
}

}  // namespace sunbreak
