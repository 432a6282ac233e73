#include <fmt/format.h>

#include "core/figures/figure_table.h"
#include "record/claim_kinds.h"
#include "workbook/sheets.h"

namespace sunbreak::workbook {
void add_claims_sheet(BookWriter& book, const evaluation::Audit& audit, const std::string& configuration,
                      UnitSystem units) {
  if (audit.claims.empty()) return;
  lxw_worksheet* sheet = book.table(configuration.empty() ? "Claims" : "Claims " + configuration,
                                    "What the maker claims, held against what was measured",
                                    {{"claim", 28},
                                     {"claimed", 26},
                                     {"measured", 26},
                                     {"± (k = 2)", 10},
                                     {"unit", 12},
                                     {"difference, %", 12},
                                     {"chance that it holds", 12},
                                     {"verdict", 26},
                                     {"what was compared", 70}});
  int row = table_head_row;
  for (const evaluation::AuditedClaim& a : audit.claims) {
    book.text(sheet, ++row, 0, a.label);
    book.text(sheet, row, 1, record::claim_words(a.claim, units));
    book.text(sheet, row, 2, a.measured_words);
    book.number(sheet, row, 3, a.expanded, a.decimals);
    book.text(sheet, row, 4, a.unit, Look::Quiet);
    book.number(sheet, row, 5, a.judgement.difference_pct, 1);
    book.number(sheet, row, 6, a.judgement.chance, 2);
    book.text(sheet, row, 7, verdict_words(a.judgement));
    book.text(sheet, row, 8, a.reason, Look::Wrapped);
  }
}

void add_definitions_sheet(BookWriter& book) {
  lxw_worksheet* sheet = book.table("Definitions", "What each figure is",
                                    {{"figure", 26}, {"symbol", 12}, {"unit", 14}, {"meaning", 60}, {"formula", 60}});
  int row = table_head_row;
  for (const Figure& f : figures()) {
    book.text(sheet, ++row, 0, f.label);
    book.text(sheet, row, 1, f.symbol);
    book.text(sheet, row, 2, f.unit, Look::Quiet);
    book.text(sheet, row, 3, f.meaning, Look::Wrapped);
    book.text(sheet, row, 4, f.formula, Look::Wrapped);
  }
}

void add_line_up_sheet(BookWriter& book, const evaluation::LineUp& lineup, const std::string& declared_way,
                       UnitSystem units) {
  const evaluation::LineUpFigure& f = lineup.figure();
  const std::string unit = shown_unit(f, units, lineup.terms().currency);
  lxw_worksheet* sheet = book.table("Line-up", fmt::format("Line-up by {}{}", f.label, unit.empty() ? "" : ", " + unit),
                                    {{"rank", 12},
                                     {"test", 34},
                                     {"tester", 22},
                                     {"tested on", 12},
                                     {"value", 12},
                                     {"± (k = 2)", 10},
                                     {"not told apart from", 40},
                                     {"dominated by", 40},
                                     {"of a group that may be compared", 12},
                                     {"without a value because", 50}});
  book.text(sheet, 1, 0, declared_way, Look::Quiet);
  const double per = evaluation::shown_per_stored(f, units);
  const auto& members = lineup.members();
  const auto names = [&](const std::vector<int>& of) {
    std::string words;
    for (const int m : of) words += (words.empty() ? "" : "; ") + members[static_cast<std::size_t>(m)].entrant.title;
    return words;
  };
  int row = table_head_row;
  const auto add = [&](int m, int group) {
    const auto i = static_cast<std::size_t>(m);
    const Standing& s = lineup.ranking().standings()[i];
    book.text(sheet, ++row, 0, evaluation::LineUp::rank_words(lineup.ranking().rank(m)));
    book.text(sheet, row, 1, members[i].entrant.title);
    book.text(sheet, row, 2, members[i].entrant.tester);
    book.text(sheet, row, 3, members[i].entrant.tested_on);
    book.number(sheet, row, 4, s.value * per, f.decimals + 1);
    if (std::isfinite(s.value)) book.number(sheet, row, 5, s.expanded() * per, f.decimals + 1);
    book.text(sheet, row, 6, names(lineup.ranking().ties(m)));
    book.text(sheet, row, 7, names(lineup.dominated()[i]));
    if (group > 0) book.number(sheet, row, 8, group, 0);
    book.text(sheet, row, 9, lineup.why_none(m));
  };
  int group = 0;
  for (const auto& members_of : lineup.groups()) {
    ++group;
    for (const int m : members_of) add(m, group);
  }
  for (int m = 0; m < static_cast<int>(members.size()); ++m)
    if (!lineup.why_none(m).empty()) add(m, 0);
}

}  // namespace sunbreak::workbook
