#include "evaluation/audit/audit.h"

#include <fmt/format.h>

#include <map>

#include "evaluation/audit/audited_test.h"
#include "record/claim_kinds.h"

namespace sunbreak::evaluation {
namespace {

/// More no box has; each may take a second.
constexpr std::size_t most_claims = 200;

using AuditOne = void (*)(const AuditedTest&, AuditedClaim&);

const std::map<std::string_view, AuditOne>& audits() {
  static const std::map<std::string_view, AuditOne> all{{"power_w", audit_power},
                                                        {"current_a", audit_current},
                                                        {"power_factor", audit_power_factor},
                                                        {"ppf_umol_s", audit_ppf},
                                                        {"efficacy_umol_j", audit_efficacy},
                                                        {"beam_angle_deg", audit_beam},
                                                        {"evenness", audit_evenness},
                                                        {"coverage", audit_coverage},
                                                        {"mean_ppfd", audit_mean_ppfd},
                                                        {"height_m", audit_height},
                                                        {"dimming_range", audit_dimming_range},
                                                        {"boost_pct", audit_boost},
                                                        {"dimming_steps", audit_checked},
                                                        {"color_temperature_k", audit_checked},
                                                        {"rendering_ra", audit_checked},
                                                        {"uv_present", audit_checked},
                                                        {"far_red_present", audit_checked},
                                                        {"noise_db", audit_checked},
                                                        {"weight_kg", audit_checked},
                                                        {"surface_temperature_c", audit_surface},
                                                        {"lifetime_h", audit_lifetime},
                                                        {"equivalent", audit_equivalent},
                                                        {"map", audit_map}};
  return all;
}

/// The badge beside the wall, at every setting whose watts were read.
std::vector<WattsAtSetting> watts_at_settings(const AuditedTest& test, const std::vector<Claim>& claims) {
  std::vector<WattsAtSetting> rows;
  const auto badge = std::ranges::find_if(
      claims, [](const Claim& c) { return c.kind == "power_w" && c.value && c.percent.value_or(100) == 100; });
  for (const double percent : test.percents_with_watts())
    if (const auto wall = test.watts_read(percent))
      rows.push_back({percent, badge == claims.end() ? unread : *badge->value * percent / 100, *wall});
  std::reverse(rows.begin(), rows.end());
  return rows;
}

}  // namespace

Audit audit(const Evaluation& evaluation, const AuditContext& context, std::stop_token stop) {
  const AuditedTest test(evaluation, context, stop);
  Audit all;
  all.target_list = test.list_name();
  const std::vector<Claim> claims = claims_of(test.record());
  std::map<std::string, int> of_kind;
  for (const Claim& claim : claims) {
    if (stop.stop_requested()) break;
    AuditedClaim a;
    a.claim = claim;
    const int number = ++of_kind[claim.kind];
    a.slot = number == 1 ? claim.kind : fmt::format("{}.{}", claim.kind, number);
    const ClaimKind* kind = claim_kind(claim.kind);
    a.label = kind ? std::string(kind->label) : claim.kind;
    a.claimed_words = claimed_value_words(claim, context.units);
    if (kind && claim.value && kind->holds == ClaimKind::Number)
      a.unit = unit_of(claim).symbol, a.claimed = unit_of(claim).stated(*claim.value);
    const auto one = audits().find(claim.kind);
    if (!kind || one == audits().end())
      not_testable(a, "This build does not know claims of that kind.", "");
    else if (all.claims.size() >= most_claims)
      not_testable(a, fmt::format("Only the first {} claims are held against measurements.", most_claims),
                   "remove those that say the same");
    else if (!is_stated(claim))
      not_testable(a, claim.words.empty() ? "Nothing is stated." : "It is in words alone.",
                   "split it into what it states: figure, size, stage");
    else
      one->second(test, a);
    all.claims.push_back(std::move(a));
  }
  all.watts = watts_at_settings(test, claims);
  if (context.with_words) all.words = drafted_words(test, all);
  return all;
}

}  // namespace sunbreak::evaluation
