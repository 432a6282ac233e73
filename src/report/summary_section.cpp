#include "report/summary_section.h"

#include "evaluation/recommended_sweep.h"
#include "evaluation/told_figures.h"
#include "report/facts_table.h"
#include "report/page_figures.h"
#include "report/picture_section.h"
#include "report/sweep_section.h"

namespace sunbreak::report {
namespace {

using evaluation::VerdictWords;
using kainjow::mustache::data;
using List = kainjow::mustache::list;

constexpr double first_map_side = 340;
constexpr int first_picture_side_px = 300;
constexpr std::size_t most_claims = 6;

/// The mean, the evenness the test goes by, what is in band, what light costs and watts.
List first_figures(const evaluation::Evaluation& evaluation, record::Id sweep, UnitSystem units) {
  const std::string_view ids[] = {"mean_ppfd", evaluation.record().test.evenness_lead, "coverage",
                                  "canopy_efficacy_umol_j", "power_w"};
  List told;
  for (const evaluation::ToldFigure& f : evaluation::told_figures(evaluation, sweep, ids, units)) {
    data row;
    row.set("label", std::string(f.label));
    row.set("value", f.value_with_unit());
    row.set("sure", f.sure);
    told.push_back(row);
  }
  return told;
}

/// The first sentence of each side of the verdict: what it does for the test's own target before all.
List told_verdict(const evaluation::Audit& audit) {
  List told;
  for (const VerdictWords::Aspect aspect :
       {VerdictWords::Use, VerdictWords::Light, VerdictWords::Strength, VerdictWords::Weakness, VerdictWords::Watch})
    for (const VerdictWords& w : audit.words)
      if (!w.struck && w.aspect == aspect) {
        data one;
        one.set("sentence", w.sentence);
        told.push_back(one);
        break;
      }
  return told;
}

void add_claims(data& part, const evaluation::Audit& audit) {
  List claims;
  for (const evaluation::AuditedClaim& a : audit.claims) {
    if (claims.size() == most_claims) break;
    const Verdict v = a.judgement.verdict;
    data row;
    row.set("label", a.label);
    row.set("claimed", a.claimed_words);
    row.set("measured", a.measured_words.empty() ? "–" : a.measured_words);
    row.set("verdict", verdict_words(a.judgement));
    row.set("tone", v == Verdict::Short || v == Verdict::Contradicted ? "bad" : "plain");
    claims.push_back(row);
  }
  part.set("has_first_claims", !claims.empty());
  if (audit.claims.size() > claims.size())
    part.set("more_claims",
             fmt::format("{} more are held against measurements below.", audit.claims.size() - claims.size()));
  part.set("first_claims", data(claims));
}

}  // namespace

void add_summary(data& page, const evaluation::Evaluation& evaluation, const evaluation::Audit* audit,
                 const drawing::ScaleRange& range, FigureSink& sink, const ReportOptions& options) {
  const record::TestRecord& b = evaluation.record();
  const evaluation::RecommendedSweep first =
      evaluation::recommended_sweep(evaluation, printed_sweeps(evaluation, options), options.units);
  if (!first.sweep) return;
  data part;
  const std::optional<Band> band = evaluation::figure_context(b, *first.sweep, {}).target;
  part.set("first_map", sink.put(map_figure(b, *first.view, band, range, options.units, first_map_side)));
  part.set("first_where", first.why);
  part.set("first_figures", data(first_figures(evaluation, first.sweep->id, options.units)));
  if (!b.fixture_pictures.empty()) {
    const record::FixturePicture& p = b.fixture_pictures.front();
    data pictures;
    add_pictures(pictures, {{p.digest, p.caption, p.kind}}, options, first_picture_side_px);
    part.set("first_pictures", pictures);
  }
  if (audit && has(options.parts, PagePart::Claims)) {
    const List verdict = told_verdict(*audit);
    part.set("has_first_verdict", !verdict.empty());
    part.set("first_verdict", data(verdict));
    add_claims(part, *audit);
  }
  part.set("obtained", stated(b.fixture.obtained));
  part.set("interest", stated(b.fixture.interest));
  page.set("summary", part);
}

}  // namespace sunbreak::report
