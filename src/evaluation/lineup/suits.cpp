#include "evaluation/lineup/suits.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/quantity/normal_quantile.h"
#include "core/settle/settle_maps.h"
#include "evaluation/light_words.h"
#include "evaluation/rig_model.h"
#include "evaluation/settle_field.h"

namespace sunbreak::evaluation {
namespace {

constexpr int most_in_a_room = 64, heights_tried = 5, chance_draws = 41;
/// Past the fewest that do, so many more are tried: dimmed ones may take fewer watts.
constexpr double more_tried = 1.5;
constexpr double under_ceiling_m = 0.05;
/// What the rough look may be off by, and how far over the band light is that no more fixtures bring back into it.
constexpr double rough_error = 0.03, sure_over = 1.2;

/// The light of a pattern at a height for the first setting, as a rule looks at it.
struct Lit {
  HangingPattern pattern;
  double height_m = 0;
  std::vector<double> ppfd;
  AreaLight full;
};

AreaLight figures_of(const Layout& floor, const std::vector<double>& ppfd) {
  AreaLight f;
  double edge = 0, corners = 0;
  int at_edge = 0;
  f.lowest = INFINITY;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    const Station& s = floor.stations[i];
    const bool side = s.column == 0 || s.column == floor.columns - 1, end = s.row == 0 || s.row == floor.rows - 1;
    f.mean += ppfd[i], f.lowest = std::min(f.lowest, ppfd[i]), f.highest = std::max(f.highest, ppfd[i]);
    if (side || end) edge += ppfd[i], ++at_edge;
    if (side && end) corners += ppfd[i] / 4;
  }
  f.mean /= static_cast<double>(ppfd.size());
  f.edge = edge / at_edge, f.corners = corners;
  f.center = Field(floor, ppfd).at(floor.footprint.width_m / 2, floor.footprint.depth_m / 2);
  return f;
}

AreaLight scaled(const Lit& lit, double factor, const ServingRule& rule, const Band& band) {
  AreaLight f = lit.full;
  for (double* part : {&f.mean, &f.edge, &f.center, &f.corners, &f.lowest, &f.highest}) *part *= factor;
  if (rule.kind != ServingRule::Kind::Share) return f;
  double in = 0, dim = 0;
  for (const double e : lit.ppfd) in += band.contains(factor * e), dim += (factor * e < band.low) ? 1 : 0;
  const auto count = static_cast<double>(lit.ppfd.size());
  f.in_band = in / count, f.too_dim = dim / count, f.too_bright = 1 - f.in_band - f.too_dim;
  return f;
}

double share_in_band(const Lit& lit, double factor, const Band& band) {
  double in = 0;
  for (const double e : lit.ppfd) in += band.contains(factor * e);
  return in / static_cast<double>(lit.ppfd.size());
}

/// A way that was looked at: whether it meets the rule, what it would cost, and how far it is from meeting.
struct Tried {
  Lit lit;
  SettleSetting setting;
  bool met = false;
  double shortfall = INFINITY;  ///< a share of what the rule asks for
  bool too_bright = false;
  double margin = 0;  ///< of one that meets: how far light may be off, as a share of what the rule asks for
};

class Search {
 public:
  Search(const TestLight& light, const Entrant& entrant, const SuitQuestion& question, std::stop_token stop)
      : light_(light),
        question_(question),
        stop_(std::move(stop)),
        elsewhere_(light.found(), question.room, room_layout(question.room)),
        settings_(settle_settings(light).settings) {
    if (entrant.cost && entrant.currency == question.currency) price_ = entrant.cost;
    std::set<double> walked;
    for (const FitSweep& sweep : light.question().fit.sweeps) walked.insert(sweep.height_m);
    const double low = *walked.begin(), high = std::min(*walked.rbegin(), question.room.height_m - under_ceiling_m);
    for (int k = 0; k < heights_tried && high >= low; ++k)
      heights_.push_back(low + (high - low) * k / (heights_tried - 1));
    if (walked.size() == 1 && !heights_.empty()) heights_.resize(1);
  }

  bool has_heights() const { return !heights_.empty(); }
  bool priced() const { return price_.has_value(); }

  /// The best of all ways that meet the rule, or the nearest to it: looked for roughly; those that may be it are then
  /// looked at as they are.
  std::optional<Tried> best() {
    std::vector<Tried> promising, others;
    double least_effort = INFINITY;
    int last = settings_.empty() ? 0 : most_in_a_room;
    for (int count = fewest_by_flux(); count <= last && !stop_.stop_requested(); ++count) {
      if (effort(count, settings_.front()) >= least_effort) break;  // no way of so many costs less
      double dimmest = INFINITY;                                    // of the means at the least setting
      bool any = false, all_too_bright = true;
      for (int columns = 1; columns <= count; ++columns) {
        if (count % columns != 0) continue;
        const HangingPattern pattern{columns, count / columns, question_.room.width_m / columns,
                                     question_.room.depth_m * columns / count};
        if (!fits(pattern)) continue;
        any = true;
        for (const double height : heights_) {
          Tried tried = at(pattern, height, elsewhere_.rough_ppfd_at(pattern, height));
          dimmest = std::min(dimmest, tried.lit.full.mean * settings_.front().light_factor);
          all_too_bright = all_too_bright && tried.too_bright;
          if (tried.met && tried.margin >= rough_error) {
            if (least_effort == INFINITY) last = std::min(last, static_cast<int>(std::ceil(more_tried * count)));
            least_effort = std::min(least_effort, effort_of(tried));
          }
          (tried.shortfall < rough_error ? promising : others).push_back(std::move(tried));
        }
      }
      // More of them are brighter yet.
      if (any && all_too_bright && dimmest > sure_over * question_.band.high) break;
    }
    std::ranges::stable_sort(promising, {}, [&](const Tried& t) { return effort_of(t); });
    std::optional<Tried> best, nearest;
    for (const Tried& rough : promising) {
      if (stop_.stop_requested() || (best && effort_of(rough) > (1 + rough_error) * effort_of(*best))) break;
      Tried tried = looked_at(rough.lit);
      if (tried.met && (!best || effort_of(tried) < effort_of(*best)))
        best = std::move(tried);
      else if (!nearest || tried.shortfall < nearest->shortfall)
        nearest = std::move(tried);
    }
    if (best) return best;
    std::ranges::stable_sort(others, {}, &Tried::shortfall);
    for (const Tried& rough : others) {
      if (stop_.stop_requested() || (nearest && rough.shortfall > nearest->shortfall + rough_error)) break;
      Tried tried = looked_at(rough.lit);
      if (!nearest || tried.shortfall < nearest->shortfall) nearest = std::move(tried);
    }
    return nearest;
  }

  Suit suit(const Tried& tried) const {
    Suit s;
    s.pattern = tried.lit.pattern, s.height_m = tried.lit.height_m, s.percent = tried.setting.percent;
    const Restated r = elsewhere_.at(s.pattern, s.height_m, tried.setting.light_factor);
    const double own = r.mean_ppfd.expanded / 2 / r.mean_ppfd.value;
    const double sd = std::hypot(own, light_.shared_light_sd(), tried.setting.light_sd);
    s.mean_ppfd = {r.mean_ppfd.value, 2 * sd * r.mean_ppfd.value};
    s.lowest_over_mean = r.lowest_ppfd / r.mean_ppfd.value;
    s.in_band = share_in_band(tried.lit, tried.setting.light_factor, question_.band);
    int holds = 0;
    for (int k = 0; k < chance_draws; ++k) {
      const double factor = tried.setting.light_factor * (1 + sd * normal_quantile((k + 0.5) / chance_draws));
      holds += judged(question_.rule, question_.band, scaled(tried.lit, factor, question_.rule, question_.band)).met();
    }
    s.chance = static_cast<double>(holds) / chance_draws;
    Standing power;
    if (tried.setting.power_w) {
      power.value = *tried.setting.power_w * s.count();
      power.own_variance = std::pow(wall_sd_ * power.value, 2);
      s.power_w = {power.value, power.expanded()};
    }
    if (price_) {
      s.price = *price_ * s.count();
      const Standing cost = cost_over_years(*s.price, power, question_.money);
      s.cost = {cost.value, cost.expanded()};
    }
    return s;
  }

  /// Why a way does not meet what is asked, in words.
  std::string shortfall_words(const Tried& tried) const {
    const AreaLight f = scaled(tried.lit, tried.setting.light_factor, question_.rule, question_.band);
    const ServingVerdict v = judged(question_.rule, question_.band, f);
    if (v.too_dim && v.too_bright)
      return fmt::format("too uneven: {:.0f} to {:.0f} µmol/m²/s at once, lowest ÷ mean {:.2f}", f.lowest, f.highest,
                         f.lowest_over_mean());
    if (v.too_dim)
      return fmt::format("too dim: a mean of {:.0f} µmol/m²/s with {} of it, as many as fit", f.mean,
                         tried.lit.pattern.columns * tried.lit.pattern.rows);
    return fmt::format("too bright: {:.0f} µmol/m²/s at its brightest even at {} %, the least that is known", f.highest,
                       short_number(tried.setting.percent, 0));
  }

  void set_wall_sd(double sd) { wall_sd_ = sd; }

 private:
  /// Fewer cannot bring the mean to half of the band's low end, whatever the walls send back.
  int fewest_by_flux() const {
    const double most = settings_.empty() ? 1 : settings_.back().light_factor;
    const double floor_w = question_.room.width_m * question_.room.depth_m;
    constexpr double most_gain = 2;
    const double flux = light_.found().ppf_umol_s.value * most * most_gain;
    return std::clamp(static_cast<int>(std::ceil(question_.band.low * floor_w / flux)), 1, most_in_a_room);
  }

  bool fits(const HangingPattern& p) const {
    const FixtureOutline& o = light_.question().fit.outline;
    constexpr double touching_m = 1e-6;
    return p.column_spacing_m + touching_m >= whole_width_m(o) && p.row_spacing_m + touching_m >= whole_depth_m(o);
  }

  Tried looked_at(const Lit& rough) const {
    return at(rough.pattern, rough.height_m, elsewhere_.ppfd_at(rough.pattern, rough.height_m));
  }

  /// The dimmest setting that does, of light that is known.
  Tried at(const HangingPattern& pattern, double height_m, std::vector<double> ppfd) const {
    Tried t;
    t.lit = {pattern, height_m, std::move(ppfd), {}};
    t.lit.full = figures_of(elsewhere_.layout(), t.lit.ppfd);
    const double low = std::max(1.0, question_.band.low);
    for (const SettleSetting& setting : settings_) {
      const AreaLight f = scaled(t.lit, setting.light_factor, question_.rule, question_.band);
      const ServingMargins m = margins(question_.rule, question_.band, f);
      const bool met = judged(question_.rule, question_.band, f).met();
      const double size = question_.rule.kind == ServingRule::Kind::Share ? 1 : low;
      const double shortfall = std::max({0.0, -m.to_too_dim / size, -m.to_too_bright / size});
      if (met) {
        // The dimmest that does takes the fewest watts.
        t.setting = setting, t.met = true, t.shortfall = 0;
        t.margin = std::min(m.to_too_dim, m.to_too_bright) / size;
        return t;
      }
      if (shortfall < t.shortfall) t.setting = setting, t.shortfall = shortfall, t.too_bright = m.to_too_bright < 0;
    }
    return t;
  }

  /// What orders ways: the cost over the years, or watts where no price is known.
  double effort_of(const Tried& t) const { return effort(t.lit.pattern.columns * t.lit.pattern.rows, t.setting); }
  double effort(int count, const SettleSetting& setting) const {
    const double watts = setting.power_w.value_or(setting.light_factor) * count;
    if (!price_) return watts;
    return *price_ * count + question_.money.tariff_per_kwh * kwh_of_watt(question_.money) * watts;
  }

  const TestLight& light_;
  const SuitQuestion& question_;
  std::stop_token stop_;
  Elsewhere elsewhere_;
  std::vector<SettleSetting> settings_;
  std::vector<double> heights_;
  std::optional<double> price_;
  double wall_sd_ = 0.01;
};

}  // namespace

Room room_to_light(const Footprint& size, double height_m, const std::string& walls) {
  Bench bench;
  bench.width_m = size.width_m, bench.depth_m = size.depth_m, bench.height_m = height_m;
  bench.wall_left = bench.wall_right = bench.wall_front = bench.wall_back = walls;
  return room_of(bench);
}

SuitAnswer suit_of(const Evaluation& evaluation, const Entrant& entrant, const SuitQuestion& question, UnitSystem units,
                   std::stop_token stop) {
  SuitAnswer answer;
  const TestLight* light = evaluation.light(stop);
  if (!light) return {{}, false, "nothing was read"};
  if (!light->found().fits) return {{}, false, "its whole light is not known: " + light->found().reason};
  Search search(*light, entrant, question, stop);
  if (!search.has_heights()) return {{}, false, "its walked heights do not fit under that ceiling"};
  if (const Budget* budget = evaluation.budget(light->question().sweep_ids.front(), stop))
    for (const Contribution& c : budget->contributions)
      if (c.id == "power") search.set_wall_sd(c.term.value);
  const auto tried = search.best();
  if (stop.stop_requested()) return answer;
  if (!tried)
    return {{},
            false,
            fmt::format("it does not fit into {}", size_text(question.room.width_m, question.room.depth_m, units))};
  answer.suit = search.suit(*tried);
  answer.meets = tried->met;
  if (!tried->met) {
    answer.why_not = search.shortfall_words(*tried);
    return answer;
  }
  const Suit& s = *answer.suit;
  const auto fail = [&](std::string why) {
    answer.meets = false;
    answer.why_not += (answer.why_not.empty() ? "" : "; ") + std::move(why);
  };
  if (question.most_w) {
    if (std::isnan(s.power_w.value))
      fail("its watts are not on record");
    else if (s.power_w.value > *question.most_w)
      fail(fmt::format("{:.0f} W, {:.0f} W over the budget", s.power_w.value, s.power_w.value - *question.most_w));
  }
  if (question.most_money) {
    if (!s.price)
      fail(fmt::format("its price in {} is not on record", question.currency));
    else if (*s.price > *question.most_money)
      fail(fmt::format("{:.0f} {} to buy, {:.0f} over the budget", *s.price, question.currency,
                       *s.price - *question.most_money));
  }
  return answer;
}

}  // namespace sunbreak::evaluation
