#include "report/audit_section.h"

#include <fmt/format.h>

#include <cmath>

#include "drawing/claim_axis.h"
#include "evaluation/light_words.h"
#include "record/claim_kinds.h"
#include "report/page_figures.h"

namespace sunbreak::report {
namespace {

using evaluation::AuditedClaim;
using evaluation::VerdictWords;
using kainjow::mustache::data;
using List = kainjow::mustache::list;

constexpr double axis_width = 190, axis_height = 44;

drawing::Drawing axis_figure(const AuditedClaim& a) {
  return {axis_width, axis_height,
          fmt::format("{}: {} claimed, {}", a.label, a.claimed_words,
                      a.measured_words.empty() ? "nothing measured" : a.measured_words + " measured"),
          [&a](drawing::Canvas& canvas) {
            drawing::draw_claim_axis(canvas, {2, 2, axis_width - 4, axis_height - 4},
                                     {a.claimed, a.claimed_to, a.measured, a.measured_to, a.expanded});
          }};
}

data claim_row(const AuditedClaim& a, FigureSink& sink, const ReportOptions& options) {
  data row;
  row.set("label", a.label);
  row.set("claimed", record::claim_words(a.claim, options.units));
  row.set("measured", a.measured_words);
  row.set("verdict", verdict_words(a.judgement));
  row.set("reason", a.reason);
  // What would help is said where something is left open.
  const Verdict v = a.judgement.verdict;
  if (!a.lifts.empty() && (v == Verdict::NotToldApart || v == Verdict::NotTestable)) row.set("lifts", a.lifts);
  if (a.map) {
    const HeldMap& h = a.map->held;
    const auto [lowest, highest] = h.light_range();
    const drawing::ScaleRange range = drawing::round_range(lowest, highest);
    data maps;
    maps.set("theirs", sink.put(values_figure(h.layout, h.claimed, range, "The maker's map")));
    maps.set("ours", sink.put(values_figure(h.layout, h.ours, range, "Ours at the same places, predicted")));
    maps.set("their_mean", fmt::format("{:.0f}", h.claimed_mean));
    maps.set("our_mean", a.measured_words);
    row.set("maps", maps);
  }
  if (!std::isnan(a.claimed) || !std::isnan(a.measured)) row.set("axis", sink.put(axis_figure(a)));
  return row;
}

List sentences(const evaluation::Audit& audit, std::initializer_list<VerdictWords::Aspect> aspects) {
  List list;
  for (const VerdictWords::Aspect aspect : aspects)
    for (const VerdictWords& w : audit.words) {
      if (w.struck || w.aspect != aspect) continue;
      data one;
      one.set("sentence", w.sentence);
      if (w.own) {
        const auto& n = w.tied_to();
        one.set("own", fmt::format("the tester's own words; the figure: {}",
                                   evaluation::found_text({n.value, n.expanded}, n.decimals, n.unit)));
      }
      list.push_back(one);
    }
  return list;
}

}  // namespace

void add_audit_section(data& page, const evaluation::Audit* audit, FigureSink& sink, const ReportOptions& options) {
  page.set("has_audit", audit && !audit->claims.empty());
  page.set("has_verdict", audit && !audit->words.empty());
  if (!audit) return;
  List verdict;
  const auto part = [&](const char* title, std::initializer_list<VerdictWords::Aspect> aspects) {
    const List list = sentences(*audit, aspects);
    if (list.empty()) return;
    data one;
    one.set("title", title);
    one.set("sentences", data(list));
    verdict.push_back(one);
  };
  part("What it gives", {VerdictWords::Light});
  part("Strengths", {VerdictWords::Strength});
  part("Weaknesses", {VerdictWords::Weakness});
  part("What it serves, and how to run it", {VerdictWords::Use});
  part("What to watch for", {VerdictWords::Watch});
  page.set("verdict", data(verdict));
  List claims, watts;
  for (const AuditedClaim& a : audit->claims) claims.push_back(claim_row(a, sink, options));
  page.set("audited", data(claims));
  for (const auto& w : audit->watts) {
    data row;
    row.set("setting", short_number(w.percent, 1) + " %");
    row.set("badge", std::isnan(w.badge_w) ? "–" : fmt::format("{:.0f}", w.badge_w));
    row.set("wall", w.wall_words());
    watts.push_back(row);
  }
  page.set("has_badge_watts", !watts.empty());
  page.set("badge_watts", data(watts));
  page.set("audit_list", audit->target_list);
}

}  // namespace sunbreak::report
