#include "core/claims/lift.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace sunbreak {
namespace {

/// What a careful tester can bring a part to: a floor, relative (k = 2), or a share of what it is.
struct Act {
  std::string_view id, weakest, words;
  double floor = 0, share = 0;
};

constexpr std::array<Act, 10> acts{
    {{"calibration", "the sensor's calibration", "have the sensor calibrated and its uncertainty stated", 0.03, 0},
     {"spectral", "what the sensor makes of this spectrum", "note the sensor's spectral correction for this light",
      0.01, 0},
     {"cosine", "what the sensor makes of slanting light", "use a sensor whose cosine response is stated", 0.01, 0},
     {"repeatability", "how readings repeat", "read each station again and take the mean of several values", 0, 0.5},
     {"height", "the hanging height", "measure the height again with a rigid rule", 0, 0.4},
     {"position", "where the stations lie", "mark the stations on the floor and read again", 0, 0.4},
     {"drift", "drift during the walk", "read the reference more often", 0, 0.3},
     {"grid", "how densely it was read", "walk a denser grid", 0, 0.3},
     {"power", "the wall meter", "use a wall meter whose ± is stated as 0.5 % or better", 0.005, 0},
     {"fit", "what beam and room leave open", "walk one more height", 0, 0.7}}};

constexpr double worth_it = 0.95;

}  // namespace

std::optional<Lift> best_lift(double claimed, const FoundValue& measured, std::span<const SurePart> parts,
                              ClaimSense sense) {
  if (!(measured.value > 0) || !(measured.expanded > 0)) return {};
  const double now = measured.expanded / measured.value;
  std::optional<Lift> best;
  for (const SurePart& part : parts) {
    const auto act = std::ranges::find(acts, part.id, &Act::id);
    if (act == acts.end()) continue;
    const double left = std::min(part.expanded, std::max(act->floor, act->share * part.expanded)),
                 then = std::sqrt(std::max(0.0, now * now - part.expanded * part.expanded + left * left));
    if (then > worth_it * now || (best && then >= best->to)) continue;
    best = Lift{act->weakest, act->words, now, then,
                judge_figure(claimed, {measured.value, then * measured.value}, sense).verdict};
  }
  if (!best) return {};
  const auto largest = std::ranges::max_element(parts, {}, &SurePart::expanded);
  if (const auto act = std::ranges::find(acts, largest->id, &Act::id); act != acts.end()) best->weakest = act->weakest;
  return best;
}

std::string lift_words(const Lift& lift, Verdict now) {
  std::string words = fmt::format("{}: ± {:.1f} → ± {:.1f} %", lift.act, 100 * lift.from, 100 * lift.to);
  if (now != Verdict::NotToldApart || lift.then == now) return words;
  if (lift.then == Verdict::Confirmed) return words + "; then the claim is confirmed, if the value stays";
  if (lift.then == Verdict::Short || lift.then == Verdict::Over)
    return words + "; then the claim is told apart, if the value stays";
  return words;
}

}  // namespace sunbreak
