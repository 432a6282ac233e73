#include "gathering/line_up_request.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "core/limits/light_limits.h"
#include "core/quantity/lower_case.h"
#include "core/quantity/number.h"
#include "evaluation/crop_targets.h"

namespace sunbreak::gathering {
namespace {

using evaluation::Entrant;
using evaluation::EntryQuestion;
using evaluation::LineUpFigure;
using evaluation::OwnIndex;

/// What most have in common; of as frequent ones the first.
template <typename Key, typename Of>
std::optional<Key> most_common(std::span<const Entrant> entrants, Of of) {
  std::vector<std::pair<Key, int>> counts;
  for (const Entrant& e : entrants) {
    const Key key = of(e);
    const auto found = std::ranges::find(counts, key, &std::pair<Key, int>::first);
    if (found == counts.end())
      counts.emplace_back(key, 1);
    else
      ++found->second;
  }
  const auto most = std::ranges::max_element(counts, {}, &std::pair<Key, int>::second);
  return most == counts.end() ? std::nullopt : std::optional(most->first);
}

EntryQuestion::Take take_for(const LineUpFigure& figure) {
  if (figure.from == LineUpFigure::From::WholeLight) return EntryQuestion::Take::WholeLight;
  if (figure.from == LineUpFigure::From::Target) return EntryQuestion::Take::Target;
  return figure.id == "coverage" ? EntryQuestion::Take::Band : EntryQuestion::Take::Sweep;
}

}  // namespace

std::optional<std::pair<std::string, Band>> target_band(const std::string& words,
                                                        const std::vector<record::CropTarget>& targets) {
  if (const auto dash = words.find('-'); dash != std::string::npos) {
    const auto low = parse_number(std::string_view(words).substr(0, dash)),
               high = parse_number(std::string_view(words).substr(dash + 1));
    if (low && high && *low >= 0 && *high > *low && *high <= most_ppfd)
      return std::pair{words + " µmol/m²/s", Band{*low, *high}};
  }
  for (const record::CropTarget& t : targets)
    if (lower_case(t.name) == lower_case(words)) return std::pair{t.name, evaluation::band_of(t, t.photoperiod_h)};
  return {};
}

Result<ReadyLineUp> ready_line_up(const record::SavedLineUp& asked, std::span<const Entrant> entrants,
                                  const std::vector<record::CropTarget>& targets) {
  ReadyLineUp ready;
  if (OwnIndex::is(asked.figure)) {
    const auto index = OwnIndex::parse(asked.figure);
    if (!index) return index.problem();
    for (const OwnIndex::Part& p : index.value().parts)
      ready.question.take = std::max(ready.question.take, take_for(*p.figure));
    ready.weights = index.value().words();
  } else if (const int figure = evaluation::lineup_figure_index(asked.figure); figure >= 0) {
    ready.question.take = take_for(evaluation::lineup_figures()[static_cast<std::size_t>(figure)]);
  } else {
    std::string known;
    for (const LineUpFigure& f : evaluation::lineup_figures()) known += (known.empty() ? "" : ", ") + std::string(f.id);
    return Problem{fmt::format("there is no figure '{}' to line up by", asked.figure), "",
                   "choose one of " + known + ", or weigh several: index:figure=weight,figure=weight"};
  }
  auto way = parse_way(asked.way);
  if (!way) return way.problem();
  auto rule = parse_serving_rule(asked.rule);
  if (!rule) return rule.problem();
  ready.question.way = way.value();
  ready.question.rule = rule.value();
  std::vector<std::vector<double>> heights;
  for (const Entrant& e : entrants) heights.push_back(e.walked_heights_m);
  ready.question.usual_height_m = evaluation::usual_height_m(heights);
  if (asked.target_low_ppfd && asked.target_high_ppfd) {
    if (!(*asked.target_high_ppfd > *asked.target_low_ppfd))
      return Problem{"the target's high end is not over its low end", "nothing can be in that band", "check both"};
    ready.question.band = {*asked.target_low_ppfd, *asked.target_high_ppfd};
    ready.target_name = asked.target_name;
  } else if (const auto usual = most_common<std::tuple<std::string, double, double>>(entrants, [](const Entrant& e) {
               return std::tuple{e.target_name, e.target.low, e.target.high};
             })) {
    ready.target_name = std::get<0>(*usual);
    ready.question.band = {std::get<1>(*usual), std::get<2>(*usual)};
  }
  if (!way.value().target.empty()) {
    const auto best = target_band(way.value().target, targets);
    if (!best)
      return Problem{fmt::format("no target is called '{}'", way.value().target), "",
                     "name one of the lists' targets, or a band such as best:555-925"};
    ready.question.band = best->second, ready.target_name = best->first;
    ready.question.way.target = best->first;
  }
  ready.terms.figure = asked.figure;
  ready.terms.sure = asked.all_pairs ? Sure::AllPairs : Sure::EachPair;
  ready.terms.photoperiod_h = asked.photoperiod_h;
  ready.terms.money = {asked.years, asked.photoperiod_h, asked.tariff_per_kwh, asked.decay_pct_per_1000h};
  ready.terms.currency = asked.currency;
  ready.terms.price_counts = asked.price_counts;
  return ready;
}

std::string declared_way(const ReadyLineUp& ready, UnitSystem units) {
  std::string words = way_words(ready.question.way, ready.question.usual_height_m, units);
  words[0] = static_cast<char>(words[0] >= 'a' && words[0] <= 'z' ? words[0] - 'a' + 'A' : words[0]);
  const EntryQuestion::Take take = ready.question.take;
  const std::string band = fmt::format("{} ({:.0f} to {:.0f} µmol/m²/s)", ready.target_name, ready.question.band.low,
                                       ready.question.band.high);
  if (!ready.question.way.target.empty() || take == EntryQuestion::Take::Target)
    words += fmt::format("; {}: {}", band, serving_rule_words(ready.question.rule, ready.question.band));
  else if (take == EntryQuestion::Take::Band)
    words += "; target: " + band;
  words += ".";
  if (!ready.weights.empty()) words += " Own index (100 is the middle of this line-up): " + ready.weights + ".";
  return words;
}

}  // namespace sunbreak::gathering
