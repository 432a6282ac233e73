#include "gathering/line_up_json.h"

#include <fmt/format.h>

#include <cmath>

#include "evaluation/lineup/members_provenance.h"
#include "exchange/package/csv_writer.h"

namespace sunbreak::gathering {
namespace {

using evaluation::LineUp;
using evaluation::LineUpFigure;
using record::Json;

/// Past so many pairs it is told which groups may not be compared, and the pairs are left out.
constexpr std::size_t most_pairs = 5000;

/// Members with a value in the order of the ranking, group by group, then those without.
std::vector<int> in_order(const LineUp& lineup) {
  std::vector<int> order;
  std::vector<bool> taken(lineup.members().size(), false);
  for (const auto& group : lineup.groups())
    for (const int m : group) order.push_back(m), taken[static_cast<std::size_t>(m)] = true;
  for (std::size_t m = 0; m < taken.size(); ++m)
    if (!taken[m]) order.push_back(static_cast<int>(m));
  return order;
}

Json names(const LineUp& lineup, const std::vector<int>& members) {
  Json list = Json::array();
  for (const int m : members) list.push_back(lineup.members()[static_cast<std::size_t>(m)].entrant.title);
  return list;
}

std::string unit_of(const LineUpFigure& f, const std::string& currency) {
  if (f.from != LineUpFigure::From::Price) return f.unit.empty() ? "1" : std::string(f.unit);
  return f.unit.empty() ? currency : fmt::format("{} {}", currency, f.unit);
}

/// How many of the watts and light were not told as they stand.
std::string changes_words(const evaluation::LineUpEntry& entry) {
  std::string words;
  for (const std::string& change : entry.changes) words += (words.empty() ? "" : " ") + change;
  return words;
}

}  // namespace

Json line_up_json(const LineUp& lineup, const ReadyLineUp& ready, UnitSystem units) {
  const LineUpFigure& f = lineup.figure();
  const auto& members = lineup.members();
  Json j{{"way", way_id(ready.question.way)},
         {"way_words", declared_way(ready, units)},
         {"figure", f.id},
         {"label", f.label},
         {"unit", unit_of(f, lineup.terms().currency)},
         {"weights", ready.weights.empty() ? Json() : Json(ready.weights)},
         {"better", f.better == Better::More ? "more" : "less"},
         {"sure", lineup.terms().sure == Sure::AllPairs ? "all pairs" : "each pair"},
         {"rows", Json::array()},
         {"not_comparable", Json::array()}};
  for (const int m : in_order(lineup)) {
    const auto i = static_cast<std::size_t>(m);
    const evaluation::LineUpMember& member = members[i];
    const Standing& s = lineup.ranking().standings()[i];
    const RankInterval rank = lineup.ranking().rank(m);
    Json row{{"test", member.entrant.title},
             {"fixture", member.entrant.fixture},
             {"tester", member.entrant.tester},
             {"tested_on", member.entrant.tested_on},
             {"simulated", member.entrant.simulated},
             {"altered", member.entrant.altered.empty() ? Json() : Json(member.entrant.altered)},
             {"guest", member.entrant.guest.empty() ? Json() : Json(member.entrant.guest)},
             {"value", s.value},
             {"expanded_k2", std::isfinite(s.value) ? s.expanded() : unread},
             {"rank_low", rank.of > 0 ? Json(rank.low) : Json()},
             {"rank_high", rank.of > 0 ? Json(rank.high) : Json()},
             {"rank_of", rank.of > 0 ? Json(rank.of) : Json()},
             {"ties", names(lineup, lineup.ranking().ties(m))},
             {"dominated_by", names(lineup, lineup.dominated()[i])},
             {"height_m", member.entry->height_m},
             {"dimmer_pct", member.entry->none ? Json() : Json(member.entry->percent)},
             {"power_w", member.entry->power_w},
             {"spectrum", member.entry->spectrum.empty() ? Json() : Json(member.entry->spectrum)},
             {"changes", member.entry->changes}};
    if (const std::string why = lineup.why_none(m); !why.empty()) row["why_none"] = why;
    j["rows"].push_back(std::move(row));
  }
  const std::vector<int> order = in_order(lineup);
  std::size_t left_out = 0;
  for (std::size_t a = 0; a < order.size(); ++a)
    for (std::size_t b = a + 1; b < order.size(); ++b) {
      if (members[static_cast<std::size_t>(order[a])].entry->none ||
          members[static_cast<std::size_t>(order[b])].entry->none || lineup.ranking().may_compare(order[a], order[b]))
        continue;
      if (j["not_comparable"].size() >= most_pairs) {
        ++left_out;
        continue;
      }
      const auto why = lineup.why_not(order[a], order[b]);
      Json switches = Json::array();
      for (const Unlike& u : why)
        for (const std::string& way : u.switches) switches.push_back(way);
      j["not_comparable"].push_back({{"a", members[static_cast<std::size_t>(order[a])].entrant.title},
                                     {"b", members[static_cast<std::size_t>(order[b])].entrant.title},
                                     {"why", why_not_words(why)},
                                     {"switches", std::move(switches)}});
    }
  if (left_out > 0) j["not_comparable_more"] = left_out;
  return j;
}

std::string line_up_table(const LineUp& lineup, const ReadyLineUp& ready, UnitSystem units) {
  const LineUpFigure& f = lineup.figure();
  const std::string unit = evaluation::shown_unit(f, units, lineup.terms().currency);
  std::string text = fmt::format("{}\nrank\tfixture\ttester\ttested on\t{}{}\t±\tdominated by\n",
                                 declared_way(ready, units), f.label, unit.empty() ? "" : " [" + unit + "]");
  const double per = evaluation::shown_per_stored(f, units);
  for (const int m : in_order(lineup)) {
    const auto i = static_cast<std::size_t>(m);
    const evaluation::Entrant& e = lineup.members()[i].entrant;
    const Standing& s = lineup.ranking().standings()[i];
    std::string dominated;
    for (const int d : lineup.dominated()[i])
      dominated += (dominated.empty() ? "" : ", ") + lineup.members()[static_cast<std::size_t>(d)].entrant.title;
    const bool known = std::isfinite(s.value);
    text += fmt::format("{}\t{}\t{}\t{}\t{}\t{}\t{}\n", LineUp::rank_words(lineup.ranking().rank(m)), e.title, e.tester,
                        e.tested_on, known ? fmt::format("{:.6g}", s.value * per) : lineup.why_none(m),
                        known ? fmt::format("{:.3g}", s.expanded() * per) : "", dominated);
  }
  if (const std::string words = evaluation::provenance_words(lineup); !words.empty()) text += words + "\n";
  return text;
}

std::string line_up_csv(const LineUp& lineup, const ReadyLineUp& ready, UnitSystem units) {
  std::string csv =
      "test,fixture,tester,tested_on,figure,unit,value,expanded_k2,rank_low,rank_high,rank_of,dominated_by,way,changes,"
      "why_none,simulated\n";
  using exchange::number_cell, exchange::spreadsheet_cell;
  for (const int m : in_order(lineup)) {
    const auto i = static_cast<std::size_t>(m);
    const evaluation::LineUpMember& member = lineup.members()[i];
    const Standing& s = lineup.ranking().standings()[i];
    const RankInterval rank = lineup.ranking().rank(m);
    std::string dominated;
    for (const int d : lineup.dominated()[i])
      dominated += (dominated.empty() ? "" : "; ") + lineup.members()[static_cast<std::size_t>(d)].entrant.title;
    const auto place = [&](int at) { return rank.of > 0 ? std::to_string(at) : std::string(); };
    csv += fmt::format("{},{},{},{},{},{},{},{},{},{},{},{},{},{},{},{}\n", spreadsheet_cell(member.entrant.title),
                       spreadsheet_cell(member.entrant.fixture), spreadsheet_cell(member.entrant.tester),
                       spreadsheet_cell(member.entrant.tested_on), spreadsheet_cell(std::string(lineup.figure().id)),
                       spreadsheet_cell(unit_of(lineup.figure(), lineup.terms().currency)), number_cell(s.value),
                       number_cell(std::isfinite(s.value) ? s.expanded() : unread), place(rank.low), place(rank.high),
                       place(rank.of), spreadsheet_cell(dominated), spreadsheet_cell(declared_way(ready, units)),
                       spreadsheet_cell(changes_words(*member.entry)), spreadsheet_cell(lineup.why_none(m)),
                       member.entrant.simulated ? "true" : "false");
  }
  return csv;
}

}  // namespace sunbreak::gathering
