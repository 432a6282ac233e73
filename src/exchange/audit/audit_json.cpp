#include "exchange/audit/audit_json.h"

#include <cmath>

namespace sunbreak::exchange {
namespace {

using evaluation::AuditedClaim;
using evaluation::VerdictWords;
using nlohmann::ordered_json;

ordered_json number_or_null(double value) { return std::isfinite(value) ? ordered_json(value) : ordered_json(nullptr); }

ordered_json words_or_null(const std::string& words) {
  return words.empty() ? ordered_json(nullptr) : ordered_json(words);
}

ordered_json map_json(const evaluation::AuditedMap& map) {
  const HeldMap& h = map.held;
  ordered_json j{{"columns", h.layout.columns},
                 {"rows", h.layout.rows},
                 {"width_m", h.layout.footprint.width_m},
                 {"depth_m", h.layout.footprint.depth_m},
                 {"claimed_mean_ppfd", h.claimed_mean},
                 {"mean_ppfd", h.our_mean},
                 {"ratio_of_means", number_or_null(h.mean_ratio)},
                 {"ratio_expanded_k2", number_or_null(map.expanded * h.mean_ratio)},
                 {"claimed_lowest_over_mean", number_or_null(h.claimed_lowest_over_mean)},
                 {"lowest_over_mean", number_or_null(h.our_lowest_over_mean)},
                 {"ratio_spread", number_or_null(h.pattern_spread)},
                 {"claimed_ppfd", h.claimed},
                 {"ppfd", h.ours}};
  if (map.outside) {
    j["outside_mean_ppfd"] = map.outside->outside_mean_ppfd;
    j["outside_share"] = map.outside->outside_share;
  }
  return j;
}

ordered_json claim_json(const AuditedClaim& a) {
  ordered_json j{{"kind", a.claim.kind},
                 {"slot", a.slot},
                 {"claimed", number_or_null(a.claimed)},
                 {"claimed_to", number_or_null(a.claimed_to)},
                 {"unit", a.unit},
                 {"claimed_words", a.claimed_words},
                 {"source", words_or_null(a.claim.source)},
                 {"stated_on", words_or_null(a.claim.stated_on)},
                 {"measured", number_or_null(a.measured)},
                 {"measured_to", number_or_null(a.measured_to)},
                 {"expanded_k2", number_or_null(a.expanded)},
                 {"measured_words", words_or_null(a.measured_words)},
                 {"difference_pct", number_or_null(a.judgement.difference_pct)},
                 {"chance", number_or_null(a.judgement.chance)},
                 {"verdict", verdict_id(a.judgement.verdict)},
                 {"verdict_words", verdict_words(a.judgement)},
                 {"reason", a.reason},
                 {"weakest", words_or_null(a.weakest)},
                 {"lifts", words_or_null(a.lifts)}};
  if (a.map) j["map"] = map_json(*a.map);
  return j;
}

ordered_json sentence_json(const VerdictWords& w) {
  ordered_json numbers = ordered_json::array();
  for (const auto& n : w.numbers)
    numbers.push_back({{"figure", n.figure},
                       {"value", number_or_null(n.value)},
                       {"expanded_k2", number_or_null(n.expanded)},
                       {"unit", n.unit}});
  return {{"sentence", w.sentence},
          {"figure", w.tied_to().figure},
          {"value", number_or_null(w.tied_to().value)},
          {"own", w.own},
          {"slot", w.slot},
          {"aspect", aspect_id(w.aspect)},
          {"drafted", w.drafted},
          {"figure_changed", w.figure_changed},
          {"numbers", numbers}};
}

}  // namespace

ordered_json audit_json(const evaluation::Audit& audit) {
  ordered_json j{{"target_list", audit.target_list},
                 {"claims", ordered_json::array()},
                 {"watts", ordered_json::array()},
                 {"words", ordered_json::array()}};
  for (const AuditedClaim& a : audit.claims) j["claims"].push_back(claim_json(a));
  for (const auto& w : audit.watts)
    j["watts"].push_back({{"dimmer_pct", w.percent},
                          {"badge_w", number_or_null(w.badge_w)},
                          {"power_w", number_or_null(w.wall.value)},
                          {"expanded_k2", number_or_null(w.wall.expanded)}});
  for (const VerdictWords& w : audit.words)
    if (!w.struck) j["words"].push_back(sentence_json(w));
  return j;
}

}  // namespace sunbreak::exchange
