#include "core/settle/settle_solver.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>

#include "core/settle/surest.h"

namespace sunbreak {
namespace {

/// A search over all heights and steps that the limits allow.
class Search {
 public:
  Search(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop)
      : maps_(maps), request_(request), stop_(std::move(stop)) {}

  struct Place {
    const std::shared_ptr<const SettleHeight>* height;
    std::size_t step;
    AreaLight figures;
  };

  /// Calls `visit` with each; it says whether to go on at this height.
  void each(const std::function<bool(const Place&)>& visit) const {
    for (const auto& height : maps_.heights) {
      if (stop_.stop_requested()) return;
      if (!request_.limits.allows_height(height->height_m)) continue;
      for (std::size_t k = 0; k < maps_.steps.size(); ++k) {
        const Place place{&height, k, settle_figures(*height, maps_.steps[k], request_.band)};
        if (request_.limits.allows(maps_.steps[k], place.figures) && !visit(place)) break;
      }
    }
  }

  SettlePoint point(const Place& place) const {
    return point_at(maps_, request_, *place.height, maps_.steps[place.step]);
  }

  std::string words_of(const Place& place) const {
    return fmt::format("{} and {:.4g} %", length_text((*place.height)->height_m, request_.told_in),
                       maps_.steps[place.step].percent);
  }

  bool is_sure(const ServingRule& rule, const SettleHeight& height, const SettleSetting& setting) const {
    return chance_of(rule, request_.band, request_.limits, maps_.shared_sd, height, setting) >= request_.sure;
  }

  /// The dimmest of a height's settings between two steps at which `good` holds, which it does at the upper one.
  SettleSetting dimmest(std::size_t upper, const std::function<bool(const SettleSetting&)>& good) const {
    const SettleSetting& above = maps_.steps[upper];
    if (upper == 0) return above;
    const SettleSetting& below = maps_.steps[upper - 1];
    double low = 0, high = 1;
    for (int i = 0; i < 14; ++i) (good(blended(below, above, (low + high) / 2)) ? high : low) = (low + high) / 2;
    return blended(below, above, high);
  }

  /// The best by `worth`, and of those as good within `alike` the one with the least effort; nothing where none is
  /// `fit`, which is asked last.
  std::optional<SettlePoint> best(const std::function<double(const Place&)>& worth, double alike,
                                  const std::function<bool(const Place&)>& fit) const {
    double most = -INFINITY;
    each([&](const Place& place) {
      if (const double here = worth(place); here > most && fit(place)) most = here;
      return true;
    });
    std::optional<Place> chosen;
    each([&](const Place& place) {
      if (worth(place) >= most - alike &&
          (!chosen || effort(maps_.steps[place.step]) < effort(maps_.steps[chosen->step])) && fit(place))
        chosen = place;
      return true;
    });
    if (!chosen) return {};
    return point(*chosen);
  }

  const SettleMaps& maps() const { return maps_; }
  const SettleRequest& request() const { return request_; }

 private:
  const SettleMaps& maps_;
  const SettleRequest& request_;
  std::stop_token stop_;
};

/// The figure that says for a rule whether there is light enough, and how it is told.
struct EnoughBy {
  ServingRule::Kind kind;
  double AreaLight::*figure;
  const char* words;
  double shown = 1;
};
constexpr EnoughBy enough_by[] = {
    {ServingRule::Kind::Edge, &AreaLight::edge, "the edge reads {:.0f} µmol/m²/s"},
    {ServingRule::Kind::Every, &AreaLight::lowest, "the dimmest place reads {:.0f} µmol/m²/s"},
    {ServingRule::Kind::Share, &AreaLight::in_band, "{:.0f} % of the area is in band", 100},
    {ServingRule::Kind::Mean, &AreaLight::mean, "the mean is {:.0f} µmol/m²/s"},
    {ServingRule::Kind::Corners, &AreaLight::corners, "the corners read {:.0f} µmol/m²/s"},
    {ServingRule::Kind::Center, &AreaLight::center, "the center reads {:.0f} µmol/m²/s"}};

/// Why no way meets the rule.
Problem none_meets(const Search& search) {
  const SettleRequest& request = search.request();
  const EnoughBy& enough =
      *std::find_if(std::begin(enough_by), std::end(enough_by), [&](auto& e) { return e.kind == request.rule.kind; });
  bool any = false, dim = true, bright = true;
  double surest = 0;
  std::optional<Search::Place> brightest, dimmest;
  search.each([&](const Search::Place& place) {
    const ServingVerdict v = judged(request.rule, request.band, place.figures);
    any = true;
    dim = dim && v.too_dim, bright = bright && v.too_bright;
    if (v.met()) surest = std::max(surest, search.point(place).chance);
    if (!brightest || place.figures.*enough.figure > brightest->figures.*enough.figure) brightest = place;
    if (!dimmest || place.figures.highest < dimmest->figures.highest) dimmest = place;
    return true;
  });
  if (!any)
    return {"no height and setting lies within the limits", "there is nothing to choose from", "widen the limits"};
  if (surest > 0)
    return {fmt::format("where the rule is met it holds with a chance of {} at most", chance_text(surest)),
            fmt::format("{:.0f} % are asked for", 100 * request.sure),
            "ask for less, widen the band, or make the readings surer: a calibrated sensor, another height"};
  if (dim && !bright)
    return {fmt::format("too dim everywhere: at best, at {}, {}", search.words_of(*brightest),
                        fmt::format(fmt::runtime(enough.words), enough.shown * (brightest->figures.*enough.figure))),
            "no height and setting within reach and limits gives enough light",
            "choose a lower target, a smaller area, or measure lower"};
  if (bright && !dim)
    return {fmt::format("too bright everywhere: at {} the brightest place still reads {:.0f} µmol/m²/s",
                        search.words_of(*dimmest), dimmest->figures.highest),
            "no height and setting within reach and limits is dim enough",
            "choose a higher target, dim further, or measure higher"};
  return {"too uneven: where the dimmest places have enough light, the brightest have too much",
          "no height and setting within reach and limits meets the rule",
          "choose a smaller area, a wider band or another rule, or measure higher"};
}

Problem nothing_known() {
  return {"no light is known between heights", "there is nothing to choose from", "walk a height first"};
}

}  // namespace

SettlePoint point_at(const SettleMaps& maps, const SettleRequest& request,
                     const std::shared_ptr<const SettleHeight>& height, const SettleSetting& setting) {
  return {height, setting, settle_figures(*height, setting, request.band),
          chance_of(request.rule, request.band, request.limits, maps.shared_sd, *height, setting)};
}

Result<SettlePoint> fewest_watts(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop) {
  if (maps.heights.empty() || maps.steps.empty()) return nothing_known();
  const Search search(maps, request, std::move(stop));
  const bool known =
      std::any_of(maps.steps.begin(), maps.steps.end(), [](const SettleSetting& s) { return s.power_w.has_value(); });
  if (!known)
    return Problem{"no watts are on record", "what takes the fewest is not known",
                   "note the watts of a sweep on Walk, or run the dimmer's stair on Warm-up"};
  std::optional<SettlePoint> best;
  search.each([&](const Search::Place& place) {
    const SettleSetting& step = maps.steps[place.step];
    if (!step.power_w) return true;
    // What is between this step and the one below may still take less.
    if (best && *step.power_w > *best->setting.power_w &&
        (place.step == 0 || maps.steps[place.step - 1].power_w.value_or(0) >= *best->setting.power_w))
      return false;
    const auto good = [&](const SettleSetting& setting) {
      const AreaLight f = settle_figures(**place.height, setting, request.band);
      // A center is met by aiming at it, not at the lower end of what still counts.
      if (request.rule.kind == ServingRule::Kind::Center && f.center < request.rule.ppfd) return false;
      return judged(request.rule, request.band, f).met() && request.limits.allows(setting, f) &&
             search.is_sure(request.rule, **place.height, setting);
    };
    if (!good(step)) return true;
    SettleSetting setting = maps.free_dimmer ? search.dimmest(place.step, good) : step;
    if (!setting.power_w) setting = step;
    if (!best || *setting.power_w < *best->setting.power_w) best = point_at(maps, request, *place.height, setting);
    return false;
  });
  if (!best) return none_meets(search);
  return *best;
}

Result<SettlePoint> widest(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop) {
  if (maps.heights.empty() || maps.steps.empty()) return nothing_known();
  const Search search(maps, request, std::move(stop));
  constexpr double alike = 0.002;
  const auto best = search.best(
      [&](const Search::Place& place) {
        return likely_in_band(request.band, maps.shared_sd, **place.height, maps.steps[place.step]);
      },
      alike, [](const Search::Place& place) { return place.figures.in_band > 0; });
  if (!best)
    return Problem{"no place of the area is in band anywhere", "there is nothing to cover",
                   "choose another target or wider limits"};
  return *best;
}

Result<SettlePoint> most_even(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop) {
  if (maps.heights.empty() || maps.steps.empty()) return nothing_known();
  const Search search(maps, request, std::move(stop));
  constexpr double alike = 0.003;
  const ServingRule mean{ServingRule::Kind::Mean, 0, 0};
  const auto best = search.best([](const Search::Place& place) { return place.figures.lowest_over_mean(); }, alike,
                                [&](const Search::Place& place) {
                                  return judged(mean, request.band, place.figures).met() &&
                                         search.is_sure(mean, **place.height, maps.steps[place.step]);
                                });
  if (!best) {
    SettleRequest asked = request;
    asked.rule = mean;
    return none_meets(Search(maps, asked, {}));
  }
  return *best;
}

Result<SettlePoint> lacking_least(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop) {
  if (maps.heights.empty() || maps.steps.empty()) return nothing_known();
  const Search search(maps, request, std::move(stop));
  constexpr double alike_share = 0.002, alike_short = 0.002;
  const auto short_of = [&](const AreaLight& f) { return std::max(0.0, 1 - f.edge / request.band.low); };
  double most = 0, least_short = INFINITY;
  search.each([&](const Search::Place& place) {
    most = std::max(most, place.figures.in_band);
    return true;
  });
  search.each([&](const Search::Place& place) {
    if (place.figures.in_band >= most - alike_share) least_short = std::min(least_short, short_of(place.figures));
    return true;
  });
  std::optional<Search::Place> chosen;
  search.each([&](const Search::Place& place) {
    if (place.figures.in_band >= most - alike_share && short_of(place.figures) <= least_short + alike_short &&
        (!chosen || effort(maps.steps[place.step]) < effort(maps.steps[chosen->step])))
      chosen = place;
    return true;
  });
  if (!chosen)
    return Problem{"no height and setting lies within the limits", "there is nothing to choose from",
                   "widen the limits"};
  return search.point(*chosen);
}

Result<BestWay> best_way(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop) {
  if (auto fewest = fewest_watts(maps, request, stop)) return BestWay{std::move(fewest.value()), true, true};
  if (auto likely = surest(maps, request, stop)) {
    const SettlePoint& p = likely.value();
    if (judged(request.rule, request.band, p.figures).met()) return BestWay{p, true, p.chance >= request.sure};
  }
  auto nearest = lacking_least(maps, request, std::move(stop));
  if (!nearest) return nearest.problem();
  return BestWay{std::move(nearest.value()), false, false};
}

SettleAnswers settle(const SettleMaps& maps, const SettleRequest& request, std::stop_token stop) {
  SettleAnswers answers{
      fewest_watts(maps, request, stop), widest(maps, request, stop), most_even(maps, request, stop), {}};
  if (!answers.fewest_watts)
    if (auto way = best_way(maps, request, stop)) answers.instead = std::move(way.value());
  return answers;
}

SettleSetting blended(const SettleSetting& a, const SettleSetting& b, double share) {
  const auto mix = [&](double from, double to) { return from + share * (to - from); };
  SettleSetting s = share < 0.5 ? a : b;
  s.percent = mix(a.percent, b.percent);
  s.light_factor = mix(a.light_factor, b.light_factor);
  s.light_sd = mix(a.light_sd, b.light_sd);
  s.power_w = a.power_w && b.power_w ? std::optional(mix(*a.power_w, *b.power_w)) : std::nullopt;
  // Between the same two walked settings, whichever of both names them.
  const bool a_between = a.lower != a.upper, b_between = b.lower != b.upper;
  s.lower = b_between ? b.lower : a.lower;
  s.upper = a_between ? a.upper : b.upper;
  const double from = a_between ? a.upper_share : 0, to = b_between ? b.upper_share : s.lower == s.upper ? 0 : 1;
  s.upper_share = mix(from, to);
  return s;
}

std::optional<SettleSetting> setting_at(const SettleMaps& maps, double percent) {
  constexpr double rounding = 1e-9;
  for (std::size_t k = 0; k < maps.steps.size(); ++k) {
    const SettleSetting& step = maps.steps[k];
    if (std::abs(step.percent - percent) <= rounding) return step;
    if (k > 0 && percent < step.percent && percent > maps.steps[k - 1].percent) {
      const SettleSetting& below = maps.steps[k - 1];
      return blended(below, step, (percent - below.percent) / (step.percent - below.percent));
    }
  }
  return {};
}

std::optional<SettleSetting> setting_of_power(const SettleMaps& maps, double power_w) {
  for (std::size_t k = 0; k < maps.steps.size(); ++k) {
    const SettleSetting& step = maps.steps[k];
    if (!step.power_w || *step.power_w < power_w) continue;
    if (*step.power_w == power_w) return step;
    if (k == 0 || !maps.steps[k - 1].power_w) return {};
    const SettleSetting& below = maps.steps[k - 1];
    return blended(below, step, (power_w - *below.power_w) / (*step.power_w - *below.power_w));
  }
  return {};
}

SettleMaps at_height(const SettleMaps& maps, double height_m) {
  SettleMaps one = maps;
  const auto nearest = std::min_element(maps.heights.begin(), maps.heights.end(), [&](const auto& a, const auto& b) {
    return std::abs(a->height_m - height_m) < std::abs(b->height_m - height_m);
  });
  one.heights = nearest == maps.heights.end() ? decltype(one.heights){} : decltype(one.heights){*nearest};
  return one;
}

SettleMaps within(const SettleMaps& maps, const SettleLimits& limits) {
  SettleMaps some = maps;
  std::erase_if(some.heights, [&](const auto& height) { return !limits.allows_height(height->height_m); });
  return some;
}

SettleMaps at_setting(const SettleMaps& maps, const SettleSetting& setting) {
  SettleMaps one = maps;
  one.settings = one.steps = {setting};
  return one;
}

}  // namespace sunbreak
