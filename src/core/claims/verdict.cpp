#include "core/claims/verdict.h"

#include <fmt/format.h>

#include <cmath>

#include "core/quantity/normal_quantile.h"

namespace sunbreak {
namespace {

/// The chance that a true value is at least so much.
double chance_at_least(double claimed, const FoundValue& measured) {
  if (measured.expanded > 0) return normal_share_below((measured.value - claimed) / (measured.expanded / 2));
  return measured.value >= claimed ? 1 : 0;
}

}  // namespace

std::string_view verdict_id(Verdict verdict) {
  switch (verdict) {
    case Verdict::Confirmed:
      return "confirmed";
    case Verdict::NotToldApart:
      return "not told apart";
    case Verdict::Short:
      return "short";
    case Verdict::Over:
      return "over";
    case Verdict::Contradicted:
      return "contradicted";
    case Verdict::NotTestable:
      return "not testable here";
  }
  return {};
}

std::string verdict_words(const Judgement& judgement) {
  const std::string id(verdict_id(judgement.verdict));
  if ((judgement.verdict != Verdict::Short && judgement.verdict != Verdict::Over) ||
      std::isnan(judgement.difference_pct))
    return id;
  const double size = std::abs(judgement.difference_pct);
  return fmt::format("{} by {:.{}f} %", id, size, size < 9.95 ? 1 : 0);
}

Judgement judge_figure(double claimed, const FoundValue& measured, ClaimSense sense) {
  if (!(claimed > 0) || std::isnan(measured.value)) return {};
  Judgement j;
  const double difference = measured.value - claimed;
  j.difference_pct = 100 * difference / claimed;
  if (!(measured.expanded >= 0)) return j;
  const double reached = chance_at_least(claimed, measured);
  j.chance = sense == ClaimSense::AtLeast ? reached : measured.expanded > 0 ? 1 - reached : difference <= 0 ? 1 : 0;
  const bool telling = measured.expanded < telling_share * claimed;
  if (sense == ClaimSense::AtMost && difference + measured.expanded <= 0)
    j.verdict = Verdict::Confirmed;
  else if (std::abs(difference) <= measured.expanded)
    j.verdict = telling ? Verdict::Confirmed : Verdict::NotToldApart;
  else
    j.verdict = difference < 0 ? Verdict::Short : Verdict::Over;
  return j;
}

Judgement judge_condition(double chance, bool may_hold) {
  if (std::isnan(chance)) return {};
  return {chance >= sure_chance           ? Verdict::Confirmed
          : !may_hold                     ? Verdict::Contradicted
          : chance < chance_beyond_two_sd ? Verdict::Short
                                          : Verdict::NotToldApart,
          unread, chance};
}

Judgement judge_presence(bool claimed, std::optional<bool> found) {
  if (!found) return {};
  return {*found == claimed ? Verdict::Confirmed : Verdict::Contradicted, unread, *found == claimed ? 1.0 : 0.0};
}

Judgement judge_count(double claimed, std::optional<double> counted) {
  return counted ? judge_figure(claimed, {*counted, 0}) : Judgement{};
}

EfficacyJudgement judge_efficacy(double claimed, DriverLosses losses, const FoundValue& measured, double ceiling) {
  EfficacyJudgement e;
  e.judgement = judge_figure(claimed, measured);
  if (claimed > ceiling) {
    e.impossible_claim = true;
    e.judgement.verdict = Verdict::Contradicted;
    e.judgement.chance = 0;
    return e;
  }
  if (measured.value > ceiling) {
    e.impossible_measurement = true;
    e.judgement.verdict = Verdict::NotTestable;
    return e;
  }
  if (std::isnan(e.judgement.difference_pct) || measured.value >= claimed) return e;
  e.driver_share = {1 - measured.value / claimed, measured.expanded / claimed};
  if (losses == DriverLosses::LeftOut && e.judgement.verdict == Verdict::Short &&
      e.driver_share.value - e.driver_share.expanded <= most_driver_share)
    e.judgement.verdict = Verdict::NotTestable;
  return e;
}

}  // namespace sunbreak
