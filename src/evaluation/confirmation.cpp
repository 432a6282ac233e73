#include "evaluation/confirmation.h"

#include <fmt/format.h>

#include <cmath>

#include "core/quantity/uncertain_text.h"

namespace sunbreak::evaluation {

std::optional<Confirmation> confirmation(const Evaluation& evaluation, const TestLight& light, Id sweep_id) {
  const TestRecord& record = evaluation.record();
  const Sweep* sweep = record.sweep(sweep_id);
  const SweepView* view = sweep && sweep->confirms ? evaluation.view(sweep_id) : nullptr;
  const Rung* rung = view ? record.rung(sweep->rung_id) : nullptr;
  const Stop* stop = view ? record.stop(sweep->stop_id) : nullptr;
  if (!rung || !stop || light.question().fit.sweeps.empty()) return {};
  const auto setting = light.setting(stop->percent);
  const auto [lowest_m, highest_m] = light.heights_m();
  constexpr double rounding_m = 1e-6;
  if (!setting || rung->height_m < lowest_m - rounding_m || rung->height_m > highest_m + rounding_m) return {};
  std::vector<Vec3> places;
  for (const Station& s : view->layout.stations) places.push_back({s.x_m, s.y_m, 0});
  const auto predicted = light.between().at_places(places)->at({&rung->height_m, 1}).front();
  const PredictionErrors errors = light.between().errors_at(rung->height_m);
  const double noise = light.question().fit.noise;
  Confirmation c;
  c.height_m = rung->height_m, c.percent = stop->percent;
  double read_sum = 0, predicted_sum = 0;
  for (std::size_t i = 0; i < places.size(); ++i) {
    ConfirmedPlace place;
    place.name = view->layout.stations[i].name;
    place.predicted_ppfd =
        setting.value().light_factor * mixed(predicted[static_cast<std::size_t>(setting.value().lower)][i],
                                             predicted[static_cast<std::size_t>(setting.value().upper)][i],
                                             setting.value().upper_share);
    place.expanded = 2 * std::hypot(errors.mean_sd, errors.scatter_sd, noise) * place.predicted_ppfd;
    place.read_ppfd = view->ppfd[i];
    if (!std::isnan(place.read_ppfd)) {
      ++c.read;
      c.outside += !place.within();
      read_sum += place.read_ppfd, predicted_sum += place.predicted_ppfd;
    }
    c.places.push_back(std::move(place));
  }
  c.complete = c.read == static_cast<int>(c.places.size());
  if (c.read == 0) return c;
  c.ratio = read_sum / predicted_sum;
  c.ratio_expanded = 2 * std::hypot(errors.mean_sd, std::hypot(errors.scatter_sd, noise) / std::sqrt(c.read));
  const bool alike = std::abs(c.ratio - 1) <= c.ratio_expanded;
  c.confirmed = alike && c.outside <= 1;
  const std::string beside = fmt::format("read {} beside predicted",
                                         uncertain_difference(100 * (c.ratio - 1), 100 * c.ratio_expanded, 1, "%"));
  if (c.confirmed)
    c.words = fmt::format("Confirmed: {}; {} of {} places within their ±.", beside, c.read - c.outside, c.read);
  else if (!alike)
    c.words = fmt::format(
        "Not confirmed: {}. Check height, setting and warm-up first; where they are right, the "
        "prediction is off there: walk this height whole.",
        beside);
  else
    c.words = fmt::format(
        "Not confirmed: {}, but {} of {} places lie outside their ±. The pattern is not as predicted: "
        "check level and centering, or walk this height whole.",
        beside, c.outside, c.read);
  return c;
}

}  // namespace sunbreak::evaluation
