#include "evaluation/settle_words.h"

#include <fmt/format.h>

#include <cmath>

#include "evaluation/settle_field.h"

namespace sunbreak::evaluation {
namespace {

std::string watts_words(double watts) {
  return fmt::format("{:.0f} W {}", std::abs(watts), watts < 0 ? "less" : "more");
}

double watts_beyond(const SettlePoint& a, const SettlePoint& b) {
  return a.setting.power_w && b.setting.power_w ? *a.setting.power_w - *b.setting.power_w : 0;
}

std::string listed(const std::vector<std::string>& parts) {
  std::string words;
  for (std::size_t i = 0; i < parts.size(); ++i)
    words += (i == 0 ? "" : i + 1 == parts.size() ? " or " : ", ") + parts[i];
  if (!words.empty() && words.front() >= 'a' && words.front() <= 'z')
    words.front() = static_cast<char>(words.front() - 'a' + 'A');
  return words;
}

}  // namespace

std::string mending_words(const SettleRequest& request, const SettlePoint& point, const TestLight& light) {
  const ServingVerdict verdict = judged(request.rule, request.band, point.figures);
  if (verdict.met()) return {};
  constexpr double centimeter_m = 0.01, rounding_pct = 1e-6;
  const auto [lowest, highest] = advised_heights_m(light);
  const auto [dimmest, fullest] = light.percents();
  const bool by_share = request.rule.kind == ServingRule::Kind::Share;
  const bool dim = verdict.too_dim || (by_share && point.figures.too_dim > point.figures.too_bright),
             bright = verdict.too_bright || (by_share && point.figures.too_bright > point.figures.too_dim);
  std::vector<std::string> parts;
  if (dim) parts.push_back("a smaller area");
  if (dim && bright) parts.push_back("a wider band");
  if (request.rule.kind != ServingRule::Kind::Mean &&
      judged({ServingRule::Kind::Mean}, request.band, point.figures).met())
    parts.push_back("another rule (the mean is in band)");
  if (dim && !bright && point.setting.percent >= fullest - rounding_pct) parts.push_back("a second fixture");
  if (dim && !bright && point.height->height_m <= lowest + centimeter_m / 2 &&
      lowest > light.question().least_height_m + centimeter_m)
    parts.push_back("a height lower than was walked");
  if (bright && point.height->height_m >= highest - centimeter_m / 2)
    parts.push_back("a height higher than was walked");
  if (bright && !dim && point.setting.percent <= dimmest + rounding_pct)
    parts.push_back("dimming further than was read");
  if (parts.empty()) parts.push_back("another target");
  return listed(parts) + " would help.";
}

std::string instead_words(const SettleRequest& request, const BestWay& way, const TestLight& light, UnitSystem units) {
  const SettlePoint& p = way.point;
  const std::string there = fmt::format("{:.0f} % in band, {} sure", 100 * p.figures.in_band, chance_text(p.chance));
  if (way.met)
    return fmt::format("No way is {:.0f} % sure. The surest, {}: {}.", 100 * request.sure, settle_place_words(p, units),
                       there);
  return fmt::format("No way meets the rule. The nearest, {}: {}; {}. {}", settle_place_words(p, units),
                     lacking_words(request.rule, request.band, p.figures), there, mending_words(request, p, light));
}

std::string settle_place_words(const SettlePoint& point, UnitSystem units) {
  std::string words = fmt::format("{}, {:.3g} %", length_text(point.height->height_m, units), point.setting.percent);
  if (point.setting.power_w) words += fmt::format(", {:.0f} W", *point.setting.power_w);
  return words;
}

std::vector<std::string> settle_cost_words(const SettleAnswers& answers, const SettleLattice& lattice,
                                           UnitSystem units) {
  std::vector<std::string> sentences;
  if (!answers.fewest_watts) return sentences;
  const SettlePoint& least = answers.fewest_watts.value();
  constexpr double worth_saying_m2 = 0.005, worth_saying_w = 0.5, worth_saying = 0.005;
  if (answers.widest) {
    const SettlePoint& wide = answers.widest.value();
    const double more_w = watts_beyond(wide, least),
                 more_m2 = (wide.figures.in_band - least.figures.in_band) * lattice.area.area_m2();
    if (more_m2 > worth_saying_m2 && std::abs(more_w) >= worth_saying_w)
      sentences.push_back(more_w > 0 ? fmt::format("{} than needed buys {} more in band.", watts_words(more_w),
                                                   area_text(more_m2, units))
                                     : fmt::format("The widest covers {} more and takes {}, but the rule is not met.",
                                                   area_text(more_m2, units), watts_words(more_w)));
    else if (more_m2 <= worth_saying_m2)
      sentences.push_back("The fewest watts cover as much as the widest.");
  }
  if (answers.most_even) {
    const SettlePoint& even = answers.most_even.value();
    const double more_w = watts_beyond(even, least),
                 more = even.figures.lowest_over_mean() - least.figures.lowest_over_mean();
    if (more > worth_saying && std::abs(more_w) >= worth_saying_w)
      sentences.push_back(fmt::format("The most even takes {} and brings lowest ÷ mean from {:.2f} to {:.2f}.",
                                      watts_words(more_w), least.figures.lowest_over_mean(),
                                      even.figures.lowest_over_mean()));
    else if (more <= worth_saying)
      sentences.push_back("The fewest watts are as even as the most even.");
  }
  return sentences;
}

std::string settle_trade_words(const SettleMaps& maps, const SettlePoint& point, const Band& band, UnitSystem units) {
  constexpr double less = 0.03;
  const double wanted = (1 - less) * point.figures.mean;
  for (std::size_t h = 1; h < maps.heights.size(); ++h) {
    const AreaLight below = settle_figures(*maps.heights[h - 1], point.setting, band),
                    above = settle_figures(*maps.heights[h], point.setting, band);
    if (maps.heights[h]->height_m <= point.height->height_m || below.mean < wanted || above.mean > wanted) continue;
    const double share = (below.mean - wanted) / (below.mean - above.mean);
    return fmt::format(
        "Hung higher, where the mean is {:.0f} % less ({}), lowest ÷ mean goes from {:.2f} to {:.2f}.", 100 * less,
        length_text(std::lerp(maps.heights[h - 1]->height_m, maps.heights[h]->height_m, share), units),
        point.figures.lowest_over_mean(), std::lerp(below.lowest_over_mean(), above.lowest_over_mean(), share));
  }
  return {};
}

std::string settle_price_words(const std::optional<SettlePoint>& likely, const SettlePoint& sure, double asked) {
  constexpr double even_chance = 0.5;
  if (!likely || asked <= even_chance || !likely->setting.power_w || !sure.setting.power_w) return {};
  return fmt::format("For {:.0f} % instead of {:.0f} %: {}.", 100 * asked, 100 * even_chance,
                     watts_words(watts_beyond(sure, *likely)));
}

}  // namespace sunbreak::evaluation
