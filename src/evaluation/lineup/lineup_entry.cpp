#include "evaluation/lineup/lineup_entry.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/lineup/standing.h"
#include "core/power/running_cost.h"
#include "core/settle/settle_solver.h"
#include "evaluation/budget_question.h"
#include "evaluation/lineup/lineup_figures.h"
#include "evaluation/lineup/shared_sources.h"
#include "evaluation/lineup/way_light.h"
#include "evaluation/measured_spectra.h"
#include "evaluation/settle_field.h"
#include "evaluation/shared_parts.h"
#include "evaluation/spectrum_words.h"

namespace sunbreak::evaluation {
namespace {

using Take = EntryQuestion::Take;

/// Puts an entry's figures together, with its own list of sources.
class EntryMaker {
 public:
  EntryMaker(const Evaluation& evaluation, const EntryQuestion& question, const std::string& owner, LineUpEntry& entry)
      : evaluation_(evaluation), question_(question), owner_(owner), entry_(entry) {}

  /// All that a sweep's budget tells. What was dimmed to watts takes the wall meter's share along the dimmer's curve.
  void take_budget(const Budget& budget, const WayLight& light) {
    const auto all = lineup_figures();
    const bool part = read_share(light.layout, light.ppfd) < least_read;
    const auto known = std::ranges::count_if(light.ppfd, [](double e) { return !std::isnan(e); });
    const std::string read = read_words(static_cast<int>(known), static_cast<int>(light.ppfd.size()));
    if (part) entry_.changes.push_back(read + ": its figures are estimated for all of them.");
    for (std::size_t i = 0; i < all.size(); ++i) {
      if (!all[i].table) continue;
      const auto k = static_cast<std::size_t>(all[i].table - figures().data());
      EntryFigure& f = entry_.figures[i];
      f.value = budget.values[k], f.bias = budget.bias[k];
      if (part && !all[i].table->of_watts_alone && std::isfinite(f.value)) {
        const auto estimate = budget.whole(all[i].table->id);
        if (!estimate) {
          lacks(all[i].id, read + ", and what the rest would give cannot be told");
          continue;
        }
        f.value = estimate->value, f.bias += budget.unread_shift[k];
      }
      if (std::isnan(f.value)) continue;
      for (const Contribution& c : budget.contributions) {
        double standard = c.standard[k];
        if (c.id == "power" && light.light_per_watt != 0 && goes_with_light(*all[i].table))
          standard = std::hypot(standard, light.light_per_watt * c.term.value * f.value);
        add_part(f, c.id, standard * budget.factor[k] / 2, *light.sweep);
        if (c.id == "power" && c.term.value > 0)
          f.between_variance += std::pow(c.standard[k] / c.term.value * watts_repeat, 2);
      }
      // Signed figures are ranked by how far they are from 0.
      if (all[i].better == Better::Less && f.value < 0) f.value = -f.value, f.bias = -f.bias;
    }
  }

  void take_heat() {
    EntryFigure heat = of("power_w");
    scale(heat, heat_btu_h(1));
    at("heat_btu_h") = heat;
  }

  /// Whole light, and how much of it lands on the footprint.
  void take_whole_light(const WayLight& light, std::stop_token stop) {
    const TestLight* found = evaluation_.light(stop);
    if (!found || !found->found().fits) {
      for (const char* id : {"utilization", "whole_ppf_umol_s", "whole_efficacy_umol_j"})
        lacks(id, found ? "its whole light is not known: " + found->found().reason : "nothing was read");
      return;
    }
    const FoundValue own = found->found().ppf_umol_s;
    const double factor = factor_beside_first(*found, light);
    if (std::isnan(factor)) return lacks("whole_ppf_umol_s", "its light at this setting is not known");
    EntryFigure ppf;
    ppf.value = own.value * factor;
    ppf.own_variance = std::pow(own.expanded / 2 * factor, 2);
    add_meters(ppf, light, {"calibration", "spectral", "cosine"}, "mean_ppfd");
    at("whole_ppf_umol_s") = ppf;
    const Standing whole = standing_of(ppf), landed = standing_of(of("ppf_umol_s"));
    at("utilization") = back(worked_out(
        landed.value / whole.value, {{1 / whole.value, &landed}, {-landed.value / whole.value / whole.value, &whole}}));
    const Standing power = standing_of(of("power_w"));
    if (std::isnan(power.value)) return lacks("whole_efficacy_umol_j", "no watts were read");
    at("whole_efficacy_umol_j") = back(worked_out(
        whole.value / power.value, {{1 / power.value, &whole}, {-whole.value / power.value / power.value, &power}}));
  }

  /// The fewest watts that meet the line-up's target over the whole floor.
  void take_watts_to_meet(const WayLight& light, std::stop_token stop) {
    const char* id = "watts_to_meet_w";
    const TestLight* found = evaluation_.light(stop);
    if (!found) return lacks(id, "nothing was read");
    const Rectangle area = whole_area(*found);
    const auto maps = settle_maps(*found, area, settle_heights(*found), area.width_m / 2, stop);
    if (!maps) return lacks(id, maps.problem().seen);
    const auto point = fewest_watts(maps.value(), {question_.band, question_.rule, advised({}, *found), 0.5}, stop);
    if (!point) return lacks(id, point.problem().seen);
    const auto& setting = point.value().setting;
    if (!setting.power_w) return lacks(id, "no watts were read");
    EntryFigure watts;
    watts.value = *setting.power_w;
    // So much more light would take so many watts less, along the dimmer's curve there.
    const double watts_per_light = slope_of_watts(maps.value(), setting);
    const SettleErrors& errors = point.value().height->errors;
    const double own = std::hypot(errors.together, errors.radial, setting.light_sd) * watts_per_light * watts.value;
    watts.own_variance = own * own;
    for (const char* part : {"calibration", "spectral", "cosine"})
      add_part(watts, part, relative(part, "mean_ppfd") * watts_per_light * watts.value, *light.sweep);
    add(watts, relative("power", "power_w") * watts.value, source("power", *light.sweep));
    at(id) = watts;
  }

  void keep_budget(const Budget& budget, bool by_lamp) { budget_ = &budget, by_lamp_ = by_lamp; }
  EntryFigure& at(std::string_view id) { return entry_.figures[static_cast<std::size_t>(lineup_figure_index(id))]; }
  const EntryFigure& of(std::string_view id) { return at(id); }
  void lacks(std::string_view id, std::string why) {
    entry_.lacks.emplace_back(lineup_figure_index(id), std::move(why));
  }

 private:
  static bool goes_with_light(const Figure& f) { return f.unit.starts_with("µmol") || f.unit.starts_with("mol"); }

  static EntryFigure back(const Standing& s) {
    EntryFigure f;
    f.value = s.value, f.own_variance = s.own_variance, f.between_variance = s.between_variance, f.bias = s.bias;
    for (const SharedPart& p : s.shared) f.shared.emplace_back(static_cast<int>(p.source), p.standard);
    return f;
  }

  static void scale(EntryFigure& f, double by) {
    f.value *= by, f.bias *= by, f.own_variance *= by * by, f.between_variance *= by * by;
    for (auto& part : f.shared) part.second *= by;
  }

  /// The place of a contribution's source in the entry's list; −1 for what is the test's own.
  int source(std::string_view contribution, const Sweep& sweep) {
    if (by_lamp_ && contribution == "calibration") return -1;  // by its own readings of the lamp
    const auto [found, added] = sources_.try_emplace(std::string(contribution), -1);
    if (!added) return found->second;
    std::string text = shared_source(contribution, evaluation_.record(), sweep, owner_);
    if (!text.empty()) {
      found->second = static_cast<int>(entry_.sources.size());
      entry_.sources.push_back(std::move(text));
    }
    return found->second;
  }

  /// What a sensor's spectral response does is alike under lamps of one kind but for what sets their spectra apart.
  void add_part(EntryFigure& f, std::string_view contribution, double standard, const Sweep& sweep) {
    const int at = source(contribution, sweep);
    if (contribution != "spectral" || at < 0) return add(f, standard, at);
    if (!spectral_apart_share_) {
      const double whole = spectral_standard(evaluation_.record(), sweep);
      spectral_apart_share_ = whole > 0 ? std::min(1.0, spectral_apart(evaluation_.record(), sweep) / whole) : 1;
    }
    const double apart = *spectral_apart_share_;
    add(f, standard * std::sqrt(1 - apart * apart), at);
    add(f, standard * apart, source("spectrum", sweep));
  }

  static void add(EntryFigure& f, double standard, int source) {
    if (!(standard > 0)) return;
    if (source < 0)
      f.own_variance += standard * standard;
    else
      f.shared.emplace_back(source, standard);
  }

  double relative(std::string_view contribution, std::string_view figure_id) const {
    const auto k = static_cast<std::size_t>(figure_index(figure_id));
    for (const Contribution& c : budget_->contributions)
      if (c.id == contribution && budget_->values[k] > 0) return c.standard[k] / budget_->values[k];
    return 0;
  }

  void add_meters(EntryFigure& f, const WayLight& light, std::initializer_list<const char*> parts,
                  std::string_view as_in) {
    for (const char* part : parts) add_part(f, part, relative(part, as_in) * f.value, *light.sweep);
  }

  /// The light's setting beside the first one of the whole light.
  static double factor_beside_first(const TestLight& found, const WayLight& light) {
    const auto walked = found.setting(light.percent);
    return walked ? walked.value().light_factor : unread;
  }

  /// d ln W / d ln light about a setting.
  static double slope_of_watts(const SettleMaps& maps, const SettleSetting& at) {
    const SettleSetting *below = nullptr, *above = nullptr;
    for (const SettleSetting& s : maps.steps) {
      if (!s.power_w || !(*s.power_w > 0)) continue;
      if (s.light_factor < at.light_factor * 0.98) below = &s;
      if (!above && s.light_factor > at.light_factor * 1.02) above = &s;
    }
    const SettleSetting &low = below ? *below : at, &high = above ? *above : at;
    if (!(high.light_factor > low.light_factor)) return 1;
    return std::log(*high.power_w / *low.power_w) / std::log(high.light_factor / low.light_factor);
  }

  const Evaluation& evaluation_;
  const EntryQuestion& question_;
  const std::string& owner_;
  LineUpEntry& entry_;
  std::optional<double> spectral_apart_share_;  ///< of the spectral response's standard uncertainty
  const Budget* budget_ = nullptr;
  bool by_lamp_ = false;
  std::map<std::string, int, std::less<>> sources_;
};

void take_facts(LineUpEntry& entry, const WayLight& light, const Evaluation& evaluation, const LineUpWay& way) {
  const TestRecord& record = evaluation.record();
  ComparedFacts& f = entry.facts;
  f.footprint = {light.layout.measured.width_m, light.layout.measured.depth_m};
  f.walls = light.walls, f.grid = light.grid_words;
  f.columns = light.layout.columns, f.rows = light.layout.rows;
  f.height_m = light.height_m;
  if (!way.target.empty()) f.height_rule = "each at its best for " + way.target;
  if (light.by_lamp)
    f.sensor = fmt::format("the check lamp '{}'", way.check_lamp);
  else if (const Meter* sensor = record.meter(record.test.sensor_id))
    f.sensor = sensor->kind == "quantum" ? "a quantum sensor" : "a " + sensor->kind;
  if (const Evidence* evidence = evaluation.evidence(light.sweep->id)) f.grade = evidence->grade;
  f.simulated = record.test.simulated || evaluation.view(light.sweep->id)->simulated();
}

}  // namespace

Standing standing_of(const EntryFigure& f, std::span<const std::uint32_t> numbers) {
  Standing s;
  s.value = f.value, s.own_variance = f.own_variance, s.between_variance = f.between_variance, s.bias = f.bias;
  for (const auto& [source, standard] : f.shared) {
    const auto place = static_cast<std::size_t>(source);
    s.shared.push_back({numbers.empty() ? static_cast<std::uint32_t>(place) : numbers[place], standard});
  }
  std::ranges::sort(s.shared, {}, &SharedPart::source);
  return s;
}

std::string question_key(const EntryQuestion& q) {
  const bool with_band = q.take == Take::Band || q.take == Take::Target || !q.way.target.empty();
  const bool at_usual = !q.way.height_m && q.way.target.empty() && q.usual_height_m;
  return fmt::format("{}|{}|{}|{}", way_id(q.way), at_usual ? fmt::format("{:.4f}", *q.usual_height_m) : "",
                     with_band ? fmt::format("{}-{} {}", q.band.low, q.band.high, serving_rule_id(q.rule)) : "",
                     static_cast<int>(q.take));
}

LineUpEntry entry_of(const Evaluation& evaluation, const EntryQuestion& question, const std::string& owner,
                     UnitSystem units, std::stop_token stop) {
  LineUpEntry entry;
  entry.figures.resize(lineup_figures().size());
  entry.photoperiod_h = evaluation.record().test.photoperiod_h;
  // Light between sweeps is made of all of them: where one cannot be, none of it is held against others.
  if (const Finding* impossible = evaluation.impossible()) {
    entry.none = Problem{"it cannot be: " + impossible->saw, impossible->effect, impossible->remedy};
    return entry;
  }
  auto made = light_in_way(evaluation, question, units, stop);
  if (!made) {
    entry.none = made.problem();
    return entry;
  }
  WayLight& light = made.value();
  entry.height_m = light.height_m, entry.percent = light.percent, entry.power_w = light.power_w;
  entry.changes = light.changes;
  if (const auto spectrum = spectrum_at_full(evaluation.record())) entry.spectrum = spectrum_summary(spectrum->figures);
  entry.footprint = light.footprint, entry.grid = light.grid, entry.ppfd = light.ppfd;
  take_facts(entry, light, evaluation, question.way);
  EntryMaker maker(evaluation, question, owner, entry);
  std::optional<Budget> own;
  const Budget* budget = nullptr;
  const bool own_band =
      question.take == Take::Band && (question.band.low != evaluation.record().test.target_low_ppfd ||
                                      question.band.high != evaluation.record().test.target_high_ppfd);
  if (light.as_walked && !own_band) {
    budget = evaluation.budget(light.sweep->id, stop);
  } else {
    BudgetQuestion& q = light.budget;
    q.layout = &light.layout, q.ppfd = light.ppfd;
    q.context.power_w = light.power_w;
    if (question.take == Take::Band) q.context.target = question.band;
    q.stop = stop;
    own = uncertainty_budget(q);
    budget = &*own;
  }
  if (!budget) return entry;
  maker.keep_budget(*budget, light.by_lamp);
  maker.take_budget(*budget, light);
  maker.take_heat();
  const bool whole = question.take == Take::WholeLight, target = question.take == Take::Target;
  if (light.by_lamp && (whole || target)) {
    for (const char* id : {"utilization", "whole_ppf_umol_s", "whole_efficacy_umol_j", "watts_to_meet_w"})
      maker.lacks(id, "brought to a check lamp, only what was read at the stations is told");
    return entry;
  }
  if (whole) maker.take_whole_light(light, stop);
  if (target) maker.take_watts_to_meet(light, stop);
  return entry;
}

bool LineUpEntry::has_light() const {
  return !none && std::ranges::any_of(ppfd, [](double v) { return std::isfinite(v); });
}

std::optional<double> usual_height_m(std::span<const std::vector<double>> walked_heights_m) {
  std::map<long, int> tests;  // by millimeter
  for (const std::vector<double>& heights : walked_heights_m)
    for (const double height : heights) ++tests[std::lround(1000 * height)];
  std::optional<double> usual;
  int most = 0;
  for (const auto& [millimeters, count] : tests)
    if (count > most) most = count, usual = static_cast<double>(millimeters) / 1000;
  return usual;
}

}  // namespace sunbreak::evaluation
