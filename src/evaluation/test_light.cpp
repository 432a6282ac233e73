#include "evaluation/test_light.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/figures/figure_table.h"
#include "core/whole_light/reference_rooms.h"
#include "evaluation/stair_records.h"

namespace sunbreak::evaluation {
namespace {

/// Rooms are worked out on so many cells each way.
constexpr int room_cells = 24;

constexpr int most_fixtures = 64;

/// What the figures of all sweeps share, relative, k = 2.
double shared_part(const Budget& budget, std::string_view figure_id) {
  const auto k = static_cast<std::size_t>(figure_index(figure_id));
  double squares = 0;
  for (const Contribution& c : budget.contributions)
    if (c.shared) squares += c.standard[k] * c.standard[k];
  return budget.values[k] > 0 ? 2 * std::sqrt(squares) / budget.values[k] : 0;
}

/// The ± of a predicted figure relative to its value: of means by the prediction of means, of extremes by that of
/// stations; NaN for the rest.
double relative_expanded(std::string_view id, const PredictedSweep& p, double shared) {
  const double station = p.station_expanded;
  if (id == "mean_ppfd" || id == "ppf_umol_s" || id == "dli_mean_mol_m2_d" || id == "median_ppfd")
    return std::hypot(p.mean_expanded, shared);
  if (id == "edge_ppfd") return std::hypot(p.mean_expanded, shared);
  if (id == "lowest_ppfd" || id == "highest_ppfd") return std::hypot(station, shared);
  if (id == "lowest_over_mean") return station;
  if (id == "lowest_over_highest" || id == "highest_over_lowest") return std::hypot(station, station);
  return unread;
}

}  // namespace

Layout room_layout(const Room& room) {
  const double longer = std::max(room.width_m, room.depth_m);
  const auto cells = [&](double side) {
    return std::max(6, static_cast<int>(std::lround(room_cells * side / longer)));
  };
  return lay_out({room.width_m, room.depth_m},
                 Grid{GridKind::Cells, cells(room.width_m), cells(room.depth_m), 0, 0, {}})
      .value();
}

TestLight::TestLight(const TestRecord& test_record, const SweepViews& views, const BudgetQuestion& question,
                     const Budget& budget, const std::stop_token& stop)
    : question_(light_question(test_record, views, question)),
      found_(whole_light(question_.fit, stop)),
      shared_light_(shared_part(budget, "mean_ppfd")),
      shared_efficacy_(shared_part(budget, "canopy_efficacy_umol_j")),
      shared_power_(shared_part(budget, "power_w")) {
  std::map<double, double> light, power;
  for (std::size_t s = 0; s < question_.settings.size() && s < found_.setting_factors.size(); ++s) {
    const LightSetting& setting = question_.settings[s];
    // Without a ± it was not found, but stands for itself.
    if (s == 0 || !std::isnan(found_.setting_factors[s].expanded))
      light[setting.percent] = found_.setting_factors[s].value;
    if (setting.power_w) power[setting.percent] = *setting.power_w;
  }
  // A stair tells what lies between the settings walked, and beyond them; it is brought to the first setting's light.
  if (const auto stair = stair_of(test_record); stair && !question_.settings.empty()) {
    const double first = question_.settings.front().percent;
    const auto full_light = stair.value().light_factor_at(first), full_power = stair.value().power_at(first);
    for (const DimmingPoint& row : stair.value().rows) {
      if (row.light_factor && full_light && *full_light > 0 && !light.contains(row.dial_pct))
        light[row.dial_pct] = *row.light_factor / *full_light;
      if (row.power_w && full_power && !power.contains(row.dial_pct)) power[row.dial_pct] = *row.power_w;
    }
  }
  light_curve_ = MonotoneCubic::through(light);
  power_curve_ = MonotoneCubic::through(power);
}

void TestLight::work_out_left_out(const std::stop_token& stop) const {
  const std::lock_guard hold(inner_making_);
  if (inner_) return;
  const std::vector<LeftOutHeight> left_out = left_out_heights(question_.fit, found_, stop);
  if (stop.stop_requested()) return;
  inner_.reset(new Inner{left_out, BetweenHeights(question_.fit, found_, left_out)});
  inner_there_ = true;
}

const TestLight::Inner& TestLight::inner() const {
  if (!inner_there_) work_out_left_out({});
  return *inner_;
}

std::pair<double, double> TestLight::percents() const {
  if (light_curve_) return {light_curve_->lowest_x(), light_curve_->highest_x()};
  const double only = question_.settings.empty() ? 100 : question_.settings.front().percent;
  return {only, only};
}

FoundValue TestLight::with_shared(const FoundValue& value, double shared) const {
  return {value.value, std::hypot(value.expanded, shared * value.value)};
}

FoundValue TestLight::ppf_umol_s() const { return with_shared(found_.ppf_umol_s, shared_light_); }

FoundValue TestLight::efficacy_umol_j() const {
  if (!found_.fits || question_.settings.empty() || !question_.settings.front().power_w) return {};
  const double watts = *question_.settings.front().power_w;
  if (!(watts > 0)) return {};
  // The footprint's edges, which a canopy's efficacy goes with, have no part in it.
  return with_shared({found_.ppf_umol_s.value / watts, found_.ppf_umol_s.expanded / watts},
                     std::hypot(shared_light_, shared_power_));
}

const std::vector<double>* TestLight::residuals(Id sweep_id) const {
  for (std::size_t s = 0; s < question_.sweep_ids.size(); ++s)
    if (question_.sweep_ids[s] == sweep_id && s < found_.residuals.size()) return &found_.residuals[s];
  return nullptr;
}

std::vector<double> TestLight::fitted_ppfd(Id sweep_id) const {
  std::vector<double> fitted;
  for (std::size_t s = 0; s < question_.sweep_ids.size() && s < found_.residuals.size(); ++s)
    if (question_.sweep_ids[s] == sweep_id)
      for (std::size_t i = 0; i < found_.residuals[s].size(); ++i)
        fitted.push_back(question_.fit.sweeps[s].ppfd[i] / (1 + found_.residuals[s][i]));
  return fitted;
}

std::optional<double> TestLight::power_w(double percent) const {
  for (const LightSetting& setting : question_.settings)
    if (setting.percent == percent) return setting.power_w;
  if (!power_curve_ || percent < power_curve_->lowest_x() || percent > power_curve_->highest_x()) return {};
  return power_curve_->at(percent);
}

Result<BetweenSetting> TestLight::setting(double percent) const {
  BetweenSetting s;
  const auto& settings = question_.settings;
  for (std::size_t k = 0; k < settings.size(); ++k)
    if (settings[k].percent == percent && k < found_.setting_factors.size()) {
      s.lower = s.upper = static_cast<int>(k);
      s.light_factor = found_.setting_factors[k].value;
      return s;
    }
  const auto [low, high] = percents();
  if (!light_curve_ || percent < low || percent > high)
    return Problem{fmt::format("a dimmer setting of {:.4g} % was not measured", percent),
                   "what the light does there is not known",
                   low == high ? fmt::format("ask for {:.4g} %, or walk another setting or the stair", low)
                               : fmt::format("ask for {:.4g} … {:.4g} %", low, high)};
  s.light_factor = light_curve_->at(percent);
  // Between which of the walked ones: the nearest on either side, for the stations' pattern.
  int below = -1, above = -1;
  for (std::size_t k = 0; k < settings.size(); ++k) {
    const double at = settings[k].percent;
    if (at < percent && (below < 0 || at > settings[static_cast<std::size_t>(below)].percent))
      below = static_cast<int>(k);
    if (at > percent && (above < 0 || at < settings[static_cast<std::size_t>(above)].percent))
      above = static_cast<int>(k);
  }
  s.lower = below < 0 ? above : below;
  s.upper = above < 0 ? below : above;
  if (s.lower != s.upper) {
    const double a = settings[static_cast<std::size_t>(s.lower)].percent,
                 b = settings[static_cast<std::size_t>(s.upper)].percent;
    s.upper_share = (percent - a) / (b - a);
  }
  return s;
}

std::optional<std::size_t> TestLight::walked_at(double height_m, double percent) const {
  constexpr double same_height_m = 1e-6;
  std::optional<std::size_t> walked;
  for (std::size_t s = 0; s < question_.views.size(); ++s)
    if (const FitSweep& sweep = question_.fit.sweeps[s];
        std::abs(sweep.height_m - height_m) < same_height_m &&
        question_.settings[static_cast<std::size_t>(sweep.setting)].percent == percent &&
        read_share(question_.views[s]->layout, question_.views[s]->ppfd) >= least_read)
      walked = s;
  return walked;
}

const SweepView* TestLight::read_at(double height_m, double percent) const {
  const auto walked = walked_at(height_m, percent);
  return walked ? question_.views[*walked].get() : nullptr;
}

std::optional<Id> TestLight::sweep_read_at(double height_m, double percent) const {
  const auto walked = walked_at(height_m, percent);
  return walked ? std::optional(question_.sweep_ids[*walked]) : std::nullopt;
}

std::vector<WalkedLight> TestLight::walked() const {
  std::vector<WalkedLight> all;
  for (std::size_t s = 0; s < question_.views.size(); ++s) {
    const FitSweep& sweep = question_.fit.sweeps[s];
    const auto setting = static_cast<std::size_t>(sweep.setting);
    const double factor = setting < found_.setting_factors.size() ? found_.setting_factors[setting].value : unread;
    if (!(factor > 0)) continue;
    WalkedLight& w = all.emplace_back(
        WalkedLight{sweep.height_m, sweep.setting, question_.views[s]->layout, question_.views[s]->ppfd});
    for (double& ppfd : w.ppfd) ppfd /= factor;
  }
  return all;
}

Result<PredictedFigures> TestLight::between(double height_m, double percent, const FigureContext& use) const {
  if (question_.fit.sweeps.empty())
    return Problem{"no sweep has readings", "there is nothing to predict from", "walk a height"};
  const auto setting = this->setting(percent);
  if (!setting) return setting.problem();
  const auto predicted = inner().between.at(height_m, setting.value(), use.told_in);
  if (!predicted) return predicted.problem();
  PredictedFigures p;
  p.height_m = height_m, p.percent = percent;
  p.way = predicted.value().way, p.left_out_rms = predicted.value().left_out_rms;
  p.layout = question_.fit.sweeps.front().layout;
  p.ppfd = predicted.value().ppfd;
  if (const SweepView* read = read_at(height_m, percent)) {
    // What was read there is what there is, on its own stations.
    std::vector<double> ppfd = read->ppfd;
    if (read->layout.stations.size() == p.ppfd.size())
      for (std::size_t i = 0; i < ppfd.size(); ++i)
        if (std::isnan(ppfd[i])) ppfd[i] = p.ppfd[i];
    p.layout = read->layout, p.ppfd = std::move(ppfd);
  }
  for (const double ppfd : p.ppfd)
    p.expanded.push_back(std::hypot(predicted.value().station_expanded, shared_light_) * ppfd);
  FigureContext context = use;
  context.power_w = power_w(percent);
  const auto figures_of = sweep_figures(p.layout, p.ppfd, context);
  if (!figures_of)
    return Problem{"no station can be predicted", "none was read at enough heights", "read the missing stations"};
  p.figures = *figures_of;
  const FigureSource source(p.layout, p.ppfd, p.figures);
  for (const Figure& f : figures()) {
    double relative = relative_expanded(f.id, predicted.value(), shared_light_);
    if (f.id == "canopy_efficacy_umol_j" || f.id == "ppfd_per_watt")
      relative = std::hypot(predicted.value().mean_expanded, shared_efficacy_);
    const double value = f.value ? f.value(source) : unread;
    p.figure_expanded.push_back(relative * std::abs(value));
  }
  return p;
}

Result<RestatedFigures> TestLight::restated(const Elsewhere& elsewhere, const HangingPattern& pattern, double height_m,
                                            double percent, const FigureContext& use) const {
  if (!found_.fits)
    return Problem{found_.reason, "without a fit nothing is known of the light in another room", found_.advice};
  const Room& room = elsewhere.room();
  if (!(height_m > 0.01) || height_m >= room.height_m)
    return Problem{"a hanging height of " + length_text(height_m, use.told_in),
                   fmt::format("the room is {} high", length_text(room.height_m, use.told_in)),
                   "choose a height within the room"};
  const FixtureOutline& o = question_.fit.outline;
  const double width = (pattern.columns - 1) * pattern.column_spacing_m + whole_width_m(o),
               depth = (pattern.rows - 1) * pattern.row_spacing_m + o.depth_m;
  constexpr double touching_m = 1e-6;
  if (pattern.columns < 1 || pattern.rows < 1 || pattern.columns * pattern.rows > most_fixtures)
    return Problem{fmt::format("{} × {} fixtures", pattern.columns, pattern.rows), "",
                   fmt::format("choose 1 to {}", most_fixtures)};
  if (width > room.width_m + touching_m || depth > room.depth_m + touching_m)
    return Problem{fmt::format("{} × {} of the fixture take {}", pattern.columns, pattern.rows,
                               size_text(width, depth, use.told_in)),
                   "the room has " + size_text(room.width_m, room.depth_m, use.told_in),
                   "choose fewer, or less spacing"};
  const auto setting = this->setting(percent);
  if (!setting) return setting.problem();
  const Restated r = elsewhere.at(pattern, height_m, setting.value().light_factor);
  RestatedFigures out;
  out.room = room, out.pattern = pattern, out.height_m = height_m, out.percent = percent;
  out.layout = elsewhere.layout();
  out.ppfd = r.ppfd;
  FigureContext context = use;
  context.power_w = power_w(percent);
  if (context.power_w) *context.power_w *= pattern.columns * pattern.rows;
  out.figures = *sweep_figures(out.layout, out.ppfd, context);
  out.mean_ppfd = with_shared(r.mean_ppfd, shared_light_);
  if (out.figures.efficacy) {
    const double efficacy = out.figures.efficacy->canopy_efficacy_umol_j;
    out.efficacy_umol_j =
        with_shared({efficacy, r.mean_ppfd.expanded / r.mean_ppfd.value * efficacy}, shared_efficacy_);
  }
  return out;
}

Result<RestatedFigures> TestLight::restated(const Room& room, const HangingPattern& pattern, double height_m,
                                            double percent, const FigureContext& use) const {
  if (!found_.fits)
    return Problem{found_.reason, "without a fit nothing is known of the light in another room", found_.advice};
  return restated(Elsewhere(found_, room, room_layout(room)), pattern, height_m, percent, use);
}

std::vector<ReferenceFigures> TestLight::in_reference_rooms() const {
  std::vector<ReferenceFigures> all;
  if (!found_.fits) return all;
  const Footprint footprint{question_.fit.room.width_m, question_.fit.room.depth_m};
  std::set<double> heights;
  for (const FitSweep& sweep : question_.fit.sweeps) heights.insert(sweep.height_m);
  for (const auto& [name, room] :
       {std::pair{"open floor", open_floor(footprint)}, std::pair{"white tent", white_tent(footprint)}}) {
    const Elsewhere elsewhere(found_, room, room_layout(room));
    for (const double height : heights)
      if (const auto r = restated(elsewhere, {}, height, question_.settings.front().percent, {}))
        all.push_back({name, height, r.value().mean_ppfd, r.value().efficacy_umol_j,
                       r.value().figures.evenness.lowest_over_mean});
  }
  return all;
}

Result<RoomAnswer> TestLight::fewest_for(const Room& room, double ppfd) const {
  if (!found_.fits)
    return Problem{found_.reason, "without a fit nothing is known of the light in another room", found_.advice};
  if (!(ppfd > 0)) return Problem{"no PPFD is asked for", "", "name the mean PPFD wanted"};
  const double percent = question_.settings.front().percent;
  const Elsewhere elsewhere(found_, room, room_layout(room));
  std::vector<double> heights;
  for (const FitSweep& sweep : question_.fit.sweeps)
    if (sweep.height_m < room.height_m && std::find(heights.begin(), heights.end(), sweep.height_m) == heights.end())
      heights.push_back(sweep.height_m);
  const FixtureOutline& o = question_.fit.outline;
  std::optional<RoomAnswer> best;
  for (int count = 1; count <= most_fixtures && !best; ++count)
    for (int columns = 1; columns <= count; ++columns) {
      if (count % columns != 0) continue;
      const HangingPattern pattern{columns, count / columns, room.width_m / columns, room.depth_m * columns / count};
      if ((columns - 1) * pattern.column_spacing_m + whole_width_m(o) > room.width_m ||
          (pattern.rows - 1) * pattern.row_spacing_m + o.depth_m > room.depth_m)
        continue;
      if (pattern.column_spacing_m < whole_width_m(o) || pattern.row_spacing_m < o.depth_m) continue;
      for (const double height : heights) {
        const std::vector<double> light = elsewhere.ppfd_at(pattern, height);
        const double mean = area_mean(elsewhere.layout(), light);
        if (mean < ppfd) continue;
        const double even = *std::min_element(light.begin(), light.end()) / mean;
        if (best && even <= best->lowest_over_mean) continue;
        best = RoomAnswer{pattern, height, percent, {mean, unread}, even, {}};
      }
    }
  if (!best)
    return Problem{fmt::format("up to {} of the fixture do not bring {:.1f} × {:.1f} m to {:.0f} µmol/m²/s",
                               most_fixtures, room.width_m, room.depth_m, ppfd),
                   "", "ask for less light or a smaller room"};
  // Dimmed to what is asked for, where the dimmer's light is known that far down.
  const double wanted_factor = ppfd / best->mean_ppfd.value;
  const auto [low, high] = percents();
  if (light_curve_ && light_curve_->at(low) <= wanted_factor) {
    double from = low, to = percent;
    for (int i = 0; i < 40; ++i) (light_curve_->at((from + to) / 2) < wanted_factor ? from : to) = (from + to) / 2;
    best->percent = to;
  }
  const auto setting = this->setting(best->percent);
  if (!setting) return setting.problem();
  const Restated r = elsewhere.at(best->pattern, best->height_m, setting.value().light_factor);
  best->mean_ppfd = with_shared(r.mean_ppfd, shared_light_);
  best->lowest_over_mean = r.lowest_ppfd / r.mean_ppfd.value;
  if (const auto watts = power_w(best->percent)) best->power_w = *watts * best->count();
  return *best;
}

}  // namespace sunbreak::evaluation
