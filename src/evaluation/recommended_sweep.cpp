#include "evaluation/recommended_sweep.h"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

#include "evaluation/part_read.h"

namespace sunbreak::evaluation {

RecommendedSweep recommended_sweep(const Evaluation& evaluation, const ReadSweeps& among, UnitSystem units) {
  const TestRecord& record = evaluation.record();
  const Band band{record.test.target_low_ppfd, record.test.target_high_ppfd};
  RecommendedSweep brightest;
  double most_ppfd = -1;
  std::vector<TargetFit> fits;
  std::vector<double> watts;
  ReadSweeps fitted;
  const auto in_part = [&](const auto& of) { return is_read_in_part(evaluation, of.first->id); };
  const bool all_in_part = std::ranges::all_of(among, in_part);
  for (const auto& of : among) {
    const SweepFigures* figures = evaluation.figures(of.first->id);
    if (!figures || (in_part(of) && !all_in_part)) continue;
    if (figures->mean_ppfd > most_ppfd) most_ppfd = figures->mean_ppfd, brightest = {of.first, of.second, {}};
    const auto fit = evaluation.target_fits(of.first->id, std::span(&band, 1));
    if (fit.empty()) continue;
    fits.push_back(fit.front());
    watts.push_back(of.first->power_w.value_or(std::numeric_limits<double>::infinity()));
    fitted.push_back(of);
  }
  const std::string target = fmt::format("{}, {} to {} µmol/m²/s", record.test.target_name, short_number(band.low, 1),
                                         short_number(band.high, 1));
  if (const int best = best_fit(fits, watts); best >= 0) {
    const auto& [sweep, view] = fitted[static_cast<std::size_t>(best)];
    const double share = 100 * fits[static_cast<std::size_t>(best)].coverage.in_band_share;
    return {sweep, view,
            fitted.size() > 1
                ? fmt::format("{}: of all walked settings this one has the most of its area in the band of the target "
                              "({}), {:.0f} %.",
                              sweep_name(record, *sweep, units), target, share)
                : fmt::format("{}: {:.0f} % of its area is in the band of the target ({}).",
                              sweep_name(record, *sweep, units), share, target)};
  }
  if (brightest.sweep && fitted.empty())
    brightest.why =
        fmt::format("{}: the walked setting with the most light. Between loose stations no share of the area is known.",
                    sweep_name(record, *brightest.sweep, units));
  else if (brightest.sweep)
    brightest.why = fmt::format(
        "{}: the walked setting with the most light; none has light in the band of the target "
        "({}).",
        sweep_name(record, *brightest.sweep, units), target);
  return brightest;
}

}  // namespace sunbreak::evaluation
