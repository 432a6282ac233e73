#include "report/line_up_page.h"

#include <kainjow/mustache.hpp>

#include "core/visible.h"
#include "drawing/svg_canvas.h"
#include "embedded/sunbreak_report.h"
#include "evaluation/lineup/members_provenance.h"
#include "report/page_figures.h"

namespace sunbreak::report {
namespace {

using evaluation::LineUp;
using kainjow::mustache::data;
using Rows = kainjow::mustache::list;

std::string link(const std::function<std::string(int)>& of, int member) { return of ? of(member) : std::string(); }

void set_unless_empty(data& row, const char* name, const std::string& words) {
  if (!words.empty()) row.set(name, words);
}

}  // namespace

std::string line_up_page(const LineUp& lineup, const std::string& title, const std::string& declared_way,
                         UnitSystem units, const LineUpLinks& links) {
  const evaluation::LineUpFigure& f = lineup.figure();
  const auto& members = lineup.members();
  std::vector<double> values, expanded;
  for (const Standing& s : lineup.ranking().standings()) values.push_back(s.value), expanded.push_back(s.expanded());
  const drawing::IntervalAxis axis = drawing::interval_axis(values, expanded);
  data page;
  page.set("title", title);
  page.set("css", std::string(embedded::report_css) + std::string(embedded::web_css));
  page.set("figure", std::string(f.label));
  set_unless_empty(page, "unit", evaluation::shown_unit(f, units, lineup.terms().currency));
  page.set("better", f.better == Better::More ? "highest" : "lowest");
  page.set("way", declared_way);
  page.set("sure", lineup.terms().sure == Sure::AllPairs ? "Ranks are sure for all pairs together (Holm)."
                                                         : "Ranks are sure for each pair by itself.");
  set_unless_empty(page, "simulated", evaluation::provenance_words(lineup));
  set_unless_empty(page, "feed", links.feed);
  page.set("files", static_cast<bool>(links.package));
  Rows groups;
  for (const evaluation::LineUpBlock& block : lineup.blocks()) {
    data one;
    set_unless_empty(one, "heading", block.heading);
    Rows rows;
    for (const int m : block.members) {
      const auto& e = members[static_cast<std::size_t>(m)].entrant;
      const Standing& s = lineup.ranking().standings()[static_cast<std::size_t>(m)];
      const std::string value = evaluation::shown_told(f, s.value, s.expanded(), units).text();
      data row;
      row.set("rank", LineUp::rank_words(lineup.ranking().rank(m)));
      row.set("name", e.title);
      row.set("value", value);
      row.set("bar", drawing::svg_of(interval_figure(axis, s, e.title + ": " + value)));
      row.set("tested", e.tester.empty() ? e.tested_on : e.tested_on + ", " + e.tester);
      row.set("guest", !e.guest.empty());
      const auto& dominated = lineup.dominated()[static_cast<std::size_t>(m)];
      if (!dominated.empty()) row.set("dominated", members[static_cast<std::size_t>(dominated.front())].entrant.title);
      set_unless_empty(row, "page", link(links.page, m));
      set_unless_empty(row, "package", link(links.package, m));
      rows.push_back(row);
    }
    one.set("rows", data(rows));
    groups.push_back(one);
  }
  page.set("groups", data(groups));
  Rows without;
  for (int m = 0; m < static_cast<int>(members.size()); ++m)
    if (const std::string why = lineup.why_none(m); !why.empty()) {
      data row;
      row.set("name", members[static_cast<std::size_t>(m)].entrant.title);
      row.set("why", why);
      set_unless_empty(row, "page", link(links.page, m));
      without.push_back(row);
    }
  page.set("has_without", !without.empty());
  page.set("without", data(without));
  kainjow::mustache::mustache own{std::string(embedded::line_up_mustache)};
  return visible(own.render(page));
}

}  // namespace sunbreak::report
