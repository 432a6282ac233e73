#include "report/retest_section.h"

#include <fmt/format.h>

#include "evaluation/light_words.h"
#include "evaluation/retest.h"
#include "report/facts_table.h"

namespace sunbreak::report {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

void add_retest_section(data& page, const evaluation::Evaluation& evaluation, const ReportOptions& options) {
  const record::TestRecord& b = evaluation.record();
  page.set("has_retest", !b.test.retest_of.empty());
  if (b.test.retest_of.empty()) return;
  List sentences, rows;
  if (!options.earlier) {
    sentences.push_back(data("This test repeats an earlier one, which is not at hand here: nothing is compared."));
  } else {
    const evaluation::Retest retest = evaluation::retest_of(evaluation, *options.earlier);
    page.set("retest_of", fmt::format("{}, measured {}", retest.earlier_title, stated(retest.earlier_on)));
    for (const std::string& words : evaluation::retest_sentences(retest, options.units))
      sentences.push_back(data(words));
    for (const evaluation::RetestedSweep& s : retest.sweeps) {
      data row;
      row.set("where", fmt::format("{} · {} %", length_text(s.height_m, options.units), short_number(s.percent, 1)));
      row.set("amount", evaluation::change_text(s.mean));
      row.set("watts", evaluation::change_text(s.power));
      row.set("per_watt", evaluation::change_text(s.efficacy));
      row.set("pattern", s.pattern && s.pattern->farthest >= 0
                             ? fmt::format("{} % ({} % expected)", evaluation::plain_number(100 * s.pattern->rms, 1),
                                           evaluation::plain_number(100 * s.pattern->expected_rms, 1))
                             : std::string("–"));
      rows.push_back(row);
    }
  }
  page.set("retest_sentences", data(sentences));
  page.set("has_retest_rows", !rows.empty());
  page.set("retest_rows", data(rows));
}

}  // namespace sunbreak::report
