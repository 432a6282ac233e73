#include "core/whole_light/whole_light.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/whole_light/whole_light_fit.h"

namespace sunbreak {
namespace {

/// Beyond these there is no figure: relative residuals over all, how much regions stand out, and the ± of whole light.
constexpr double most_residual = 0.05, most_structure = 60, structured_residual = 0.025;
constexpr int fine_cells = 16;

/// Slopes of one parameter by itself.
Eigen::VectorXd unit_slope(const WholeLightModel& model, Eigen::Index parameter) {
  Eigen::VectorXd slopes = Eigen::VectorXd::Zero(mixes + model.parameters().size());
  slopes(mixes + parameter) = 1;
  return slopes;
}

FoundValue found(const WholeLightModel& model, FitParameter::Kind kind, int index = 0) {
  const Eigen::Index k = model.parameters().find(kind, index);
  if (k < 0) return {};
  return {model.known.best.values(k), model.known.expanded(unit_slope(model, k))};
}

FoundValue whole_ppf(const WholeLightModel& model) {
  const double ppf = model.known.best.flux.sum();
  return {ppf, std::hypot(model.known.whole_light_expanded(), model_error) * ppf};
}

FoundValue half_angle(const WholeLightModel& model) {
  Eigen::VectorXd slopes = Eigen::VectorXd::Zero(mixes + model.parameters().size());
  const double value = half_angle_deg(mix_of(model.known.best.flux)), step = 0.01 * model.known.best.flux.sum();
  for (Eigen::Index k = 0; k < mixes; ++k) {
    Eigen::VectorXd flux = model.known.best.flux;
    flux(k) += step;
    slopes(k) = (half_angle_deg(mix_of(flux)) - value) / step;
  }
  return {value, model.known.expanded(slopes)};
}

FoundValue wall_mean(const WholeLightModel& model) {
  Eigen::VectorXd slopes = Eigen::VectorXd::Zero(mixes + model.parameters().size());
  double sum = 0, count = 0;
  for (int side = 0; side < 4; ++side)
    if (const Eigen::Index k = model.parameters().find(FitParameter::Kind::Side, side); k >= 0)
      sum += model.known.best.values(k), slopes(mixes + k) = 1, count += 1;
  if (count == 0) return {};
  slopes /= count;
  return {sum / count, model.known.expanded(slopes)};
}

/// Light on the measured area as a share of the whole, at one height.
class UtilizationOf {
 public:
  UtilizationOf(const WholeLightModel& model, const Rectangle& area) : model_(model), area_m2_(area.area_m2()) {
    std::vector<Vec3> list;
    for (int j = 0; j < fine_cells; ++j)
      for (int i = 0; i < fine_cells; ++i)
        list.push_back({area.left_m + (i + 0.5) * area.width_m / fine_cells,
                        area.front_m + (j + 0.5) * area.depth_m / fine_cells, 0});
    places_ = model.places(std::move(list));
    exchange_ = model.room().exchange(model.parameters().reflectance(model.known.best.values));
    reflections_ = exchange_.reflections(places_.gathering);
  }
  FoundValue at(std::size_t height) const {
    const Hang hang = model_.parameters().hang(model_.known.best.values, height);
    ModelLight light = model_.light(places_, reflections_, hang, model_.known.best.values);
    model_.add_slopes(light, places_, reflections_, exchange_, hang, static_cast<int>(height), model_.known.best);
    const double ppf = model_.known.best.flux.sum();
    const Eigen::RowVectorXd by_lobe = area_m2_ * light.by_lobe.colwise().mean();
    const double share = by_lobe.dot(model_.known.best.flux) / ppf;
    Eigen::VectorXd slopes(mixes + model_.parameters().size());
    slopes.head(mixes) = (by_lobe.transpose().array() - share) / ppf;
    slopes.tail(model_.parameters().size()) = area_m2_ * light.by_parameter.colwise().mean().transpose() / ppf;
    return {share, std::hypot(model_.known.expanded(slopes), model_error * share)};
  }

 private:
  const WholeLightModel& model_;
  double area_m2_;
  ModelPlaces places_;
  LobeRoom::Exchange exchange_;
  LobeRoom::Reflections reflections_;
};

void judge(WholeLight& w, const FitForm& known, std::size_t heights) {
  const double relative = w.ppf_umol_s.expanded / w.ppf_umol_s.value;
  if (w.residual_rms > most_residual) {
    w.reason = fmt::format("the best beam, room and hanging found leave {:.1f} % between fit and readings, over 5 %",
                           100 * w.residual_rms);
    w.advice =
        "check that the fixture's size, units and emitters are described as they are, and that open sides are declared";
  } else if (w.structure > most_structure && w.residual_rms > structured_residual) {
    w.reason = fmt::format("the fit misses whole regions by far more than single readings scatter ({:.1f} % in all)",
                           100 * w.residual_rms);
    w.advice = "describe the fixture's units and emitters, and declare each side as it is";
  } else if (!known.fixes_whole_light()) {
    w.reason = fmt::format("beams that fit the readings equally well differ by ± {:.0f} % in their whole light",
                           100 * relative);
    w.advice = heights < 2 ? "walk another height: light that passes the footprint at one reaches it at another"
                           : "walk a lower height, where more of the light reaches the footprint";
  } else {
    w.fits = true;
  }
}

/// A fit with the model that it was made with.
struct Fitted {
  std::shared_ptr<WholeLightModel> model;
  std::unique_ptr<WholeLightFit> fit;
};

Fitted fitted_as(const WholeLightQuestion& question, const FixtureOutline& outline, const std::stop_token& stop) {
  WholeLightQuestion asked = question;
  asked.outline = outline;
  const auto model = std::make_shared<WholeLightModel>(asked, heights_of(question));
  auto fit = std::make_unique<WholeLightFit>(question, model);
  return fit->run(stop) ? Fitted{model, std::move(fit)} : Fitted{};
}

/// The fixture as it is described; one whose sides are alike is tried as a round one, too, where readings scatter by
/// more than they should.
Fitted best_of_outlines(const WholeLightQuestion& question, const std::stop_token& stop) {
  constexpr double should_scatter = 1.1, sides_alike = 0.1;
  Fitted fitted = fitted_as(question, question.outline, stop);
  FixtureOutline round = question.outline;
  round.round = true;
  if (!fitted.fit || fitted.fit->scale() < should_scatter || question.outline.round ||
      std::abs(round.width_m - round.depth_m) > sides_alike * round.width_m)
    return fitted;
  Fitted other = fitted_as(question, round, stop);
  return other.fit && other.fit->scale() < fitted.fit->scale() ? std::move(other) : std::move(fitted);
}

}  // namespace

WholeLight whole_light(const WholeLightQuestion& question, const std::stop_token& stop) {
  WholeLight w;
  const std::vector<double> heights = heights_of(question);
  const Fitted best = best_of_outlines(question, stop);
  if (stop.stop_requested()) return w;
  if (!best.fit) {
    w.reason = "there are too few readings with light in them";
    w.advice = "walk a whole grid at one height, or better at two";
    for (const FitSweep& sweep : question.sweeps) {
      w.residuals.emplace_back(sweep.ppfd.size(), unread);
      w.setting_factors.resize(std::max(w.setting_factors.size(), static_cast<std::size_t>(sweep.setting) + 1),
                               {1, unread});
    }
    return w;
  }
  const std::shared_ptr<WholeLightModel> model = best.model;
  const WholeLightFit& fit = *best.fit;
  model->known = fit.form();
  w.structure = fit.structure();
  const Eigen::VectorXd fitted = fit.fitted();
  for (const FitSweep& sweep : question.sweeps) w.residuals.emplace_back(sweep.ppfd.size(), unread);
  double squares = 0, taken = 0;
  for (std::size_t i = 0; i < fit.rows().size(); ++i) {
    const FitRow& row = fit.rows()[i];
    const double off = row.ppfd / fitted(static_cast<Eigen::Index>(i)) - 1;
    w.residuals[static_cast<std::size_t>(row.sweep)][static_cast<std::size_t>(row.station)] = off;
    if (row.trust == 0)
      w.odd.push_back({row.sweep, row.station, off});
    else
      squares += off * off, taken += 1;
  }
  w.residual_rms = std::sqrt(squares / taken);
  w.setting_factors.push_back({1, 0});
  for (int setting = 1; model->parameters().find(FitParameter::Kind::Setting, setting) >= 0; ++setting)
    w.setting_factors.push_back(found(*model, FitParameter::Kind::Setting, setting));
  w.ppf_umol_s = whole_ppf(*model);
  judge(w, model->known, heights.size());
  if (!w.fits) {
    w.ppf_umol_s = {};
    return w;
  }
  const WholeLightModel& m = *model;
  w.mix = mix_of(m.known.best.flux);
  w.half_angle_deg = half_angle(m);
  w.wall_reflectance = wall_mean(m);
  for (std::size_t side = 0; side < faces.size(); ++side)
    w.reflectance[side] = found(m, FitParameter::Kind::Side, static_cast<int>(side));
  w.offset_x_m = found(m, FitParameter::Kind::OffsetX);
  w.offset_y_m = found(m, FitParameter::Kind::OffsetY);
  w.height_offset_m = found(m, FitParameter::Kind::Datum);
  for (int unit = 0; unit < m.parameters().leans(); ++unit) {
    w.roll_deg.push_back(found(m, FitParameter::Kind::Roll, unit));
    w.pitch_deg.push_back(found(m, FitParameter::Kind::Pitch, unit));
    FoundValue share{m.parameters().share(m.known.best.values, unit) / m.parameters().leans(), 0};
    if (m.parameters().leans() > 1) {
      Eigen::VectorXd slopes = Eigen::VectorXd::Zero(mixes + m.parameters().size());
      for (int other = 1; other < m.parameters().leans(); ++other)
        if (unit == 0 || other == unit)
          slopes(mixes + m.parameters().find(FitParameter::Kind::Share, other)) =
              (unit == 0 ? -1.0 : 1.0) / m.parameters().leans();
      share.expanded = m.known.expanded(slopes);
    }
    w.unit_share.push_back(share);
  }
  const UtilizationOf utilization(m, question.sweeps.front().layout.measured);
  for (std::size_t r = 0; r < heights.size(); ++r) w.utilization.push_back({heights[r], utilization.at(r)});
  w.model = model;
  return w;
}

}  // namespace sunbreak
