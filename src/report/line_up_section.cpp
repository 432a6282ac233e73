#include "report/line_up_section.h"

#include <algorithm>

#include "evaluation/lineup/members_provenance.h"
#include "report/page_figures.h"

namespace sunbreak::report {
namespace {

using evaluation::LineUp;
using kainjow::mustache::data;
using List = kainjow::mustache::list;

constexpr std::size_t most_rows = 12;

bool is_of(const LineUp& lineup, int member, record::Id test) {
  const evaluation::Entrant& e = lineup.members()[static_cast<std::size_t>(member)].entrant;
  return e.guest.empty() && e.test_id == test;
}

}  // namespace

void add_line_up_section(data& page, record::Id test, FigureSink& sink, const ReportOptions& options) {
  if (!options.standing.lineup) return;
  const LineUp& lineup = *options.standing.lineup;
  const auto& groups = lineup.groups();
  const auto group = std::ranges::find_if(groups, [&](const auto& members) {
    return std::ranges::any_of(members, [&](int m) { return is_of(lineup, m, test); });
  });
  if (group == groups.end() || group->size() < 2) return;
  const evaluation::LineUpFigure& f = lineup.figure();
  const auto& standings = lineup.ranking().standings();
  std::vector<double> values, expanded;
  for (const int m : *group) {
    values.push_back(standings[static_cast<std::size_t>(m)].value);
    expanded.push_back(standings[static_cast<std::size_t>(m)].expanded());
  }
  const drawing::IntervalAxis axis = drawing::interval_axis(values, expanded);
  List rows;
  std::size_t left_out = 0;
  for (const int m : *group) {
    const bool own = is_of(lineup, m, test);
    if (rows.size() >= most_rows && !own) {
      ++left_out;
      continue;
    }
    const Standing& s = standings[static_cast<std::size_t>(m)];
    const std::string& title = lineup.members()[static_cast<std::size_t>(m)].entrant.title;
    const std::string value =
        evaluation::shown_with_uncertainty(f, s.value, s.expanded(), options.units, lineup.terms().currency);
    data row;
    row.set("rank", LineUp::rank_words(lineup.ranking().rank(m)));
    row.set("name", title);
    row.set("tone", own ? "where plain" : "where");
    row.set("value", value);
    row.set("bar", sink.put(interval_figure(axis, s, title + ": " + value, own)));
    rows.push_back(row);
  }
  page.set("has_line_up", true);
  page.set("line_up_figure", std::string(f.label));
  page.set("line_up_better", f.better == Better::More ? "highest" : "lowest");
  page.set("line_up_way", options.standing.way);
  if (const std::string words = evaluation::provenance_words(lineup); !words.empty())
    page.set("line_up_simulated", words);
  page.set("line_up_rows", data(rows));
  if (left_out > 0) page.set("line_up_more", fmt::format("{} more stand in it.", left_out));
}

}  // namespace sunbreak::report
