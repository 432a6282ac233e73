#include "core/settle/surest.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {

constexpr double as_likely = 0.005;
/// So many of a height's settings at which the rule is met are looked at more closely.
constexpr std::size_t looked_at = 7;

/// How much there is to either side before a rule is no longer met, in shares of the light: under 0 where it is not.
double slack(const SettleRequest& request, const AreaLight& f) {
  const ServingMargins m = margins(request.rule, request.band, f);
  const double size = std::max(f.mean, 1e-9);
  return std::min(m.to_too_dim, m.to_too_bright) / (request.rule.kind == ServingRule::Kind::Share ? 1 : size);
}

}  // namespace

Result<SettlePoint> surest(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop) {
  struct Place {
    const std::shared_ptr<const SettleHeight>* height;
    const SettleSetting* setting;
    double slack;
  };
  std::optional<Place> nearest;
  std::optional<SettlePoint> best;
  const auto consider = [&](const Place& place) {
    SettlePoint p = point_at(maps, request, *place.height, *place.setting);
    if (!best || p.chance > best->chance + as_likely ||
        (p.chance > best->chance - as_likely && effort(p.setting) < effort(best->setting)))
      best = std::move(p);
  };
  for (const auto& height : maps.heights) {
    if (stop.stop_requested()) break;
    if (!request.limits.allows_height(height->height_m)) continue;
    std::vector<Place> met;
    for (const SettleSetting& setting : maps.steps) {
      const AreaLight f = settle_figures(*height, setting, request.band);
      if (!request.limits.allows(setting, f)) continue;
      const Place place{&height, &setting, slack(request, f)};
      if (!nearest || place.slack > nearest->slack) nearest = place;
      if (judged(request.rule, request.band, f).met()) met.push_back(place);
    }
    // The one with the most to either side, and some of the others.
    if (met.empty()) continue;
    consider(*std::ranges::max_element(met, {}, &Place::slack));
    const std::size_t step = std::max<std::size_t>(1, met.size() / looked_at);
    for (std::size_t i = 0; i < met.size(); i += step) consider(met[i]);
  }
  if (!nearest)
    return Problem{"no height and setting lies within the limits", "there is nothing to choose from",
                   "widen the limits, or walk a height"};
  if (!best) consider(*nearest);
  return *best;
}

AreaLight off_by(AreaLight f, double factor, double share) {
  for (double AreaLight::*figure : {&AreaLight::mean, &AreaLight::edge, &AreaLight::center, &AreaLight::corners,
                                    &AreaLight::lowest, &AreaLight::highest})
    f.*figure *= factor;
  f.highest *= 1 - share, f.lowest *= 1 + share;
  return f;
}

double places_beside_edge(const SettleErrors& errors) { return 2 * std::hypot(errors.radial, errors.local); }

bool may_be_met(const SettleMaps& maps, const SettleRequest& request) {
  const bool by_share = request.rule.kind == ServingRule::Kind::Share;
  for (const auto& height : maps.heights) {
    if (!request.limits.allows_height(height->height_m)) continue;
    for (const SettleSetting& setting : maps.steps) {
      const double off = 2 * std::hypot(height->errors.together, maps.shared_sd, setting.light_sd);
      for (const double factor : {1.0, 1 - off, 1 + off}) {
        SettleSetting brighter = setting;
        if (by_share) brighter.light_factor *= factor;
        AreaLight f = settle_figures(*height, brighter, request.band);
        if (!by_share) f = off_by(f, factor, places_beside_edge(height->errors));
        if (request.limits.allows(setting, f) && judged(request.rule, request.band, f).met()) return true;
      }
    }
  }
  return false;
}

}  // namespace sunbreak
