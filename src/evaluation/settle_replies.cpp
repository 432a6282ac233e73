#include "evaluation/settle_replies.h"

#include <fmt/format.h>

#include <cmath>

#include "core/quantity/daily_light.h"
#include "core/settle/settle_questions.h"
#include "evaluation/settle_words.h"

namespace sunbreak::evaluation {
namespace {

SettleReply reply_of(const Problem& problem) { return {problem.sentence(), false, {}}; }

std::pair<double, double> place_of(const SettlePoint& p) { return {p.height->height_m, p.setting.percent}; }

/// How the rule fares at a point, in words.
std::string fares_words(const SettlePoint& p, UnitSystem units) {
  return fmt::format("{}: edge {:.0f}, mean {:.0f}, highest {:.0f} µmol/m²/s, {:.0f} % in band; holds with {}",
                     settle_place_words(p, units), p.figures.edge, p.figures.mean, p.figures.highest,
                     100 * p.figures.in_band, chance_text(p.chance));
}

/// At one setting: where the rule is met with the widest area in band, else where that is widest.
SettleReply at_watts(const SettleMaps& maps, const SettleRequest& request, double power_w, UnitSystem units) {
  const auto setting = setting_of_power(maps, power_w);
  if (!setting) {
    const auto low = maps.steps.front().power_w, high = maps.steps.back().power_w;
    return {low && high ? fmt::format("Known are {:.0f} to {:.0f} W.", *low, *high)
                        : "No watts are on record: note them on Walk, or run the stair on Warm-up.",
            false,
            {}};
  }
  const SettleMaps one = at_setting(maps, *setting);
  std::optional<SettlePoint> best;
  for (const auto& height : one.heights) {
    if (!request.limits.allows_height(height->height_m)) continue;
    SettlePoint p = point_at(one, request, height, *setting);
    const auto rank = [&](const SettlePoint& at) {
      return std::pair(judged(request.rule, request.band, at.figures).met(), at.figures.in_band);
    };
    if (!best || rank(p) > rank(*best)) best = std::move(p);
  }
  if (!best) return {"No height lies within the limits.", false, {}};
  const bool met = judged(request.rule, request.band, best->figures).met();
  return {(met ? "" : "The rule is met at no height; most is in band at ") + fares_words(*best, units) + ".", true,
          place_of(*best)};
}

SettleReply at_one_height(const SettleMaps& maps, const SettleRequest& request, double height_m, UnitSystem units) {
  const double low = maps.heights.front()->height_m, high = maps.heights.back()->height_m;
  constexpr double rounding_m = 0.0051;
  if (height_m < low - rounding_m || height_m > high + rounding_m)
    return {fmt::format("Light is known from {} to {}.", length_text(low, units), length_text(high, units)), false, {}};
  const auto answer = fewest_watts(at_height(maps, height_m), request);
  if (!answer) return reply_of(answer.problem());
  return {fares_words(answer.value(), units) + ".", true, place_of(answer.value())};
}

std::string size_or_none(const std::optional<Footprint>& size, UnitSystem units) {
  return size ? size_text(size->width_m, size->depth_m, units) : "none";
}

SettleReply shrunk_reply(const TestLight& light, const SettleMaps& maps, const SettlePoint& here, double mean_ppfd,
                         UnitSystem units, const std::stop_token& stop) {
  const Shrunk left = shrunk_to(maps.lattice, settle_cells_ppfd(*here.height, here.setting), mean_ppfd);
  if (!left.rectangle) return {"Even the middle has less.", false, {}};
  std::string words = fmt::format("With the walls where they are: a square of {}, a rectangle of {}.",
                                  size_or_none(left.square, units), size_or_none(left.rectangle, units));
  if (const BroughtIn in = walls_brought_in(light, here.height->height_m, here.setting.light_factor, mean_ppfd, stop);
      in.square)
    words += fmt::format(" With the walls brought in to it: a square of {}{}.", size_or_none(in.square, units),
                         in.rectangle && !(*in.rectangle == *in.square)
                             ? ", a floor of the bench's proportions of " + size_or_none(in.rectangle, units)
                             : "");
  return {words, true, {}};
}

std::string hours_words(double ppfd, double daily_light) {
  const auto hours = hours_for(ppfd, daily_light);
  return hours ? fmt::format("{:.1f} h", *hours) : "over 24 h";
}

SettleReply hours_reply(const SettlePoint& here, double daily_light, double photoperiod_h) {
  const AreaLight& f = here.figures;
  return {
      fmt::format("{:.1f} mol/m²/d come in {} at the mean, in {} along the edge and in {} at the center, which gets "
                  "more in any longer day. In the {:.4g} h of now the center gets {:.1f}, the edge {:.1f}.",
                  daily_light, hours_words(f.mean, daily_light), hours_words(f.edge, daily_light),
                  hours_words(f.center, daily_light), photoperiod_h, dli_mol_m2_d(f.center, photoperiod_h),
                  dli_mol_m2_d(f.edge, photoperiod_h)),
      true,
      {}};
}

}  // namespace

BroughtIn walls_brought_in(const TestLight& light, double height_m, double light_factor, double mean_ppfd,
                           std::stop_token stop) {
  BroughtIn in;
  if (!light.found().fits) return in;
  Room room = light.question().fit.room;
  const auto& found = light.found().reflectance;
  const auto of = [&](std::size_t side) { return std::isnan(found[side].value) ? 0 : found[side].value; };
  room.reflectance = {of(0), of(1), of(2), of(3), of(5), of(4)};
  constexpr double least_m = 0.2;
  constexpr int halvings = 7, cells = 14;
  const auto largest = [&](double width_per_depth, double most_depth_m) -> std::optional<Footprint> {
    const auto keeps = [&](double depth_m) {
      Room smaller = room;
      smaller.depth_m = depth_m, smaller.width_m = width_per_depth * depth_m;
      const Layout floor =
          lay_out({smaller.width_m, smaller.depth_m}, Grid{GridKind::Cells, cells, cells, 0, 0, {}}).value();
      const auto ppfd = Elsewhere(light.found(), smaller, floor).ppfd_at({}, height_m, light_factor);
      return area_mean(floor, ppfd) >= mean_ppfd;
    };
    double low = least_m / std::min(width_per_depth, 1.0), high = most_depth_m;
    if (low > high || !keeps(low)) return {};
    if (keeps(high)) return Footprint{width_per_depth * high, high};
    for (int i = 0; i < halvings && !stop.stop_requested(); ++i) {
      const double middle = (low + high) / 2;
      (keeps(middle) ? low : high) = middle;
    }
    return Footprint{width_per_depth * low, low};
  };
  in.square = largest(1, std::min(room.width_m, room.depth_m));
  in.rectangle = room.width_m == room.depth_m ? in.square : largest(room.width_m / room.depth_m, room.depth_m);
  return in;
}

std::vector<SettleReply> settle_replies(const TestLight& light, const SettleMaps& maps, const SettleRequest& request,
                                        const SettlePoint& here, const SettleAsked& asked, double photoperiod_h,
                                        UnitSystem units, std::stop_token stop) {
  std::vector<SettleReply> replies(6);
  if (asked.power_w) replies[0] = at_watts(maps, request, *asked.power_w, units);
  if (asked.height_m) replies[1] = at_one_height(maps, request, *asked.height_m, units);
  if (asked.center_ppfd) {
    const auto height = height_where_center(maps, here.setting, *asked.center_ppfd, units);
    replies[2] = height ? SettleReply{fmt::format("Hung at {}, at {:.3g} %.", length_text(height.value(), units),
                                                  here.setting.percent),
                                      true, std::pair(height.value(), here.setting.percent)}
                        : reply_of(height.problem());
  }
  if (asked.corner_ppfd) {
    const auto setting = setting_where_corners(maps, *here.height, *asked.corner_ppfd);
    if (setting)
      replies[3] = {fmt::format("Dimmed to {:.3g} %{}, at {}.", setting.value().percent,
                                setting.value().power_w ? fmt::format(", {:.0f} W", *setting.value().power_w) : "",
                                length_text(here.height->height_m, units)),
                    true, std::pair(here.height->height_m, setting.value().percent)};
    else
      replies[3] = reply_of(setting.problem());
  }
  if (asked.mean_ppfd) replies[4] = shrunk_reply(light, maps, here, *asked.mean_ppfd, units, stop);
  if (asked.daily_light_mol_m2) replies[5] = hours_reply(here, *asked.daily_light_mol_m2, photoperiod_h);
  return replies;
}

}  // namespace sunbreak::evaluation
