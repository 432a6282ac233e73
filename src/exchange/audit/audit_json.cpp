#include "exchange/audit/audit_json.h"

#include <cmath>

namespace sunbreak::exchange {
namespace {

using evaluation::AuditedClaim;
using evaluation::VerdictWords;
using record::Json;

Json words_or_null(const std::string& words) { return words.empty() ? Json() : Json(words); }

Json map_json(const evaluation::AuditedMap& map) {
  const HeldMap& h = map.held;
  Json j{{"columns", h.layout.columns},
         {"rows", h.layout.rows},
         {"width_m", h.layout.footprint.width_m},
         {"depth_m", h.layout.footprint.depth_m},
         {"claimed_mean_ppfd", h.claimed_mean},
         {"mean_ppfd", h.our_mean},
         {"ratio_of_means", h.mean_ratio},
         {"ratio_expanded_k2", map.expanded * h.mean_ratio},
         {"claimed_lowest_over_mean", h.claimed_lowest_over_mean},
         {"lowest_over_mean", h.our_lowest_over_mean},
         {"ratio_spread", h.pattern_spread},
         {"claimed_ppfd", h.claimed},
         {"ppfd", h.ours}};
  if (map.outside) {
    j["outside_mean_ppfd"] = map.outside->outside_mean_ppfd;
    j["outside_share"] = map.outside->outside_share;
  }
  return j;
}

Json claim_json(const AuditedClaim& a) {
  Json j{{"kind", a.claim.kind},
         {"slot", a.slot},
         {"claimed", a.claimed},
         {"claimed_to", a.claimed_to},
         {"unit", a.unit},
         {"claimed_words", a.claimed_words},
         {"source", words_or_null(a.claim.source)},
         {"stated_on", words_or_null(a.claim.stated_on)},
         {"measured", a.measured},
         {"measured_to", a.measured_to},
         {"expanded_k2", a.expanded},
         {"measured_words", words_or_null(a.measured_words)},
         {"difference_pct", a.judgement.difference_pct},
         {"chance", a.judgement.chance},
         {"verdict", verdict_id(a.judgement.verdict)},
         {"verdict_words", verdict_words(a.judgement)},
         {"reason", a.reason},
         {"weakest", words_or_null(a.weakest)},
         {"lifts", words_or_null(a.lifts)}};
  if (a.map) j["map"] = map_json(*a.map);
  return j;
}

Json sentence_json(const VerdictWords& w) {
  Json numbers = Json::array();
  for (const auto& n : w.numbers)
    numbers.push_back({{"figure", n.figure}, {"value", n.value}, {"expanded_k2", n.expanded}, {"unit", n.unit}});
  return {{"sentence", w.sentence},
          {"figure", w.tied_to().figure},
          {"value", w.tied_to().value},
          {"own", w.own},
          {"slot", w.slot},
          {"aspect", aspect_id(w.aspect)},
          {"drafted", w.drafted},
          {"figure_changed", w.figure_changed},
          {"numbers", numbers}};
}

}  // namespace

Json audit_json(const evaluation::Audit& audit) {
  Json j{{"target_list", audit.target_list},
         {"claims", Json::array()},
         {"watts", Json::array()},
         {"words", Json::array()}};
  for (const AuditedClaim& a : audit.claims) j["claims"].push_back(claim_json(a));
  for (const auto& w : audit.watts)
    j["watts"].push_back({{"dimmer_pct", w.percent},
                          {"badge_w", w.badge_w},
                          {"power_w", w.wall.value},
                          {"expanded_k2", w.wall.expanded}});
  for (const VerdictWords& w : audit.words)
    if (!w.struck) j["words"].push_back(sentence_json(w));
  return j;
}

}  // namespace sunbreak::exchange
