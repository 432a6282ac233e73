#include "evaluation/lineup/lineup.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <stdexcept>

#include "core/quantity/uncertain_text.h"
#include "evaluation/light_words.h"
#include "evaluation/lineup/shared_sources.h"

namespace sunbreak::evaluation {

namespace {

const LineUpFigure& figure_named(std::string_view id) {
  const int at = lineup_figure_index(id);
  if (at < 0) throw std::logic_error("no figure '" + std::string(id) + "' in line-ups");
  return lineup_figures()[static_cast<std::size_t>(at)];
}

std::optional<OwnIndex> index_asked(std::string_view figure) {
  if (!OwnIndex::is(figure)) return {};
  auto index = OwnIndex::parse(figure);
  if (!index) throw std::logic_error(index.problem().sentence());
  return std::move(index.value());
}

}  // namespace

LineUp::LineUp(std::vector<LineUpMember> members, LineUpTerms terms, UnitSystem units)
    : members_(std::move(members)),
      terms_(std::move(terms)),
      units_(units),
      index_(index_asked(terms_.figure)),
      index_words_(index_ ? index_->words() : std::string()),
      figure_(index_ ? index_->figure(terms_.figure, index_words_) : figure_named(terms_.figure)),
      sources_(number_sources()),
      facts_(gather_facts()),
      log_middle_(index_ ? find_log_middle() : 0),
      comparable_(facts_, figure_.needed),
      ranking_(standings(figure_.id), figure_.better, terms_.sure, &comparable_) {
  find_groups();
}

std::vector<std::vector<std::uint32_t>> LineUp::number_sources() const {
  std::map<std::string, std::uint32_t, std::less<>> numbers;
  std::vector<std::vector<std::uint32_t>> all;
  for (const LineUpMember& m : members_) {
    auto& own = all.emplace_back();
    for (const std::string& source : m.entry->sources)
      own.push_back(numbers.try_emplace(source, static_cast<std::uint32_t>(numbers.size())).first->second);
  }
  return all;
}

std::vector<ComparedFacts> LineUp::gather_facts() const {
  std::vector<ComparedFacts> facts;
  for (const LineUpMember& m : members_) facts.push_back(m.entry->facts);
  return facts;
}

Standing LineUp::own_standing(std::size_t member, int figure) const {
  const LineUpEntry& entry = *members_[member].entry;
  if (entry.none) return {};
  return evaluation::standing_of(entry.figures[static_cast<std::size_t>(figure)], sources_[member]);
}

Standing LineUp::money(std::size_t member, const LineUpFigure& figure) const {
  const Entrant& e = members_[member].entrant;
  if (!e.cost || e.currency != terms_.currency) return {};
  const Standing ppf = own_standing(member, lineup_figure_index("ppf_umol_s")),
                 power = own_standing(member, lineup_figure_index("power_w"));
  if (figure.id == "price_per_umol_s") return price_of_light(*e.cost, ppf);
  if (figure.id == "cost_per_mol") return cost_of_mole(*e.cost, power, ppf, terms_.money);
  return cost_over_years(*e.cost, power, terms_.money);
}

std::vector<Standing> LineUp::index_parts(std::size_t member) const {
  std::vector<Standing> values;
  for (const OwnIndex::Part& p : index_->parts) values.push_back(standing_of(*p.figure, member));
  return values;
}

double LineUp::find_log_middle() const {
  double sum = 0;
  int known = 0;
  for (std::size_t m = 0; m < members_.size(); ++m)
    if (const double log = index_->log_of(index_parts(m)); std::isfinite(log)) sum += log, ++known;
  return known > 0 ? sum / known : 0;
}

Standing LineUp::standing_of(const LineUpFigure& f, std::size_t member) const {
  if (&f == &figure_ && index_) return index_->standing(index_parts(member), log_middle_);
  if (f.from == LineUpFigure::From::Price) return money(member, f);
  Standing own = own_standing(member, lineup_figure_index(f.id));
  if (f.id != "dli_mean_mol_m2_d") return own;
  // Daily light goes with the hours, which are the line-up's.
  const double hours = terms_.photoperiod_h / members_[member].entry->photoperiod_h;
  return worked_out(own.value * hours, {{hours, &own}});
}

const LineUpFigure& LineUp::figure_of(std::string_view id) const {
  return id == figure_.id ? figure_ : figure_named(id);
}

Standing LineUp::standing(std::string_view figure_id, int member) const {
  return standing_of(figure_of(figure_id), static_cast<std::size_t>(member));
}

std::vector<Standing> LineUp::standings(std::string_view figure_id) const {
  const LineUpFigure& f = figure_of(figure_id);
  std::vector<Standing> all;
  all.reserve(members_.size());
  for (std::size_t m = 0; m < members_.size(); ++m) all.push_back(standing_of(f, m));
  return all;
}

std::string LineUp::why_none(int member) const {
  const auto m = static_cast<std::size_t>(member);
  if (std::isfinite(ranking_.standings()[m].value)) return {};
  const LineUpEntry& entry = *members_[m].entry;
  const Entrant& e = members_[m].entrant;
  if (entry.none) return entry.none->seen + (entry.none->means.empty() ? "" : "; " + entry.none->means);
  if (index_) {
    std::string missing;
    const std::vector<Standing> values = index_parts(m);
    for (std::size_t i = 0; i < values.size(); ++i)
      if (!(values[i].value > 0))
        missing += (missing.empty() ? "" : ", ") + in_a_sentence(index_->parts[i].figure->label);
    return fmt::format("of what its index weighs there is no value over 0: {}", missing);
  }
  if (figure_.from == LineUpFigure::From::Price) {
    if (!e.cost) return "its price is not on record";
    if (e.currency != terms_.currency)
      return fmt::format("its price is in {}, the line-up's money is {}",
                         e.currency.empty() ? "no stated money" : e.currency, terms_.currency);
  }
  for (const auto& [figure, lack] : entry.lacks)
    if (figure == lineup_figure_index(figure_.id)) return lack;
  if (figure_.table && !figure_.table->lacks.empty()) return std::string(figure_.table->lacks);
  return "watts or light that it takes are not on record";
}

std::vector<Unlike> LineUp::why_not(int a, int b) const {
  return sunbreak::why_not(facts_[static_cast<std::size_t>(a)], facts_[static_cast<std::size_t>(b)], figure_.needed,
                           units_);
}

std::vector<std::string> LineUp::what_cancels(int a, int b) const {
  constexpr double worth_telling = 0.2;  // of the variance: a tenth of the ±
  const auto first = static_cast<std::size_t>(a), second = static_cast<std::size_t>(b);
  const Standing &x = ranking_.standings()[first], &y = ranking_.standings()[second];
  const double left = difference(x, y).expanded / 2;
  std::vector<std::pair<double, std::string>> cancels;  // by what each takes off the variance
  for (const SharedPart& part : x.shared) {
    const auto other = std::ranges::find(y.shared, part.source, &SharedPart::source);
    const auto place = std::ranges::find(sources_[first], part.source);
    if (other == y.shared.end() || place == sources_[first].end()) continue;
    const double off = 2 * part.standard * other->standard;
    if (off >= worth_telling * left * left)
      cancels.emplace_back(
          off, source_words(members_[first].entry->sources[static_cast<std::size_t>(place - sources_[first].begin())]));
  }
  std::ranges::sort(cancels, std::greater());
  std::vector<std::string> words;
  for (auto& [off, name] : cancels) words.push_back(std::move(name));
  return words;
}

void LineUp::find_groups() {
  std::vector<std::vector<int>> classes;  // that are in each group
  for (const int m : ranking_.order()) {
    const int own = comparable_.class_of(m);
    std::size_t g = 0;
    while (g < groups_.size() &&
           !std::ranges::all_of(classes[g], [&](int other) { return comparable_.may_classes(own, other); }))
      ++g;
    if (g == groups_.size()) groups_.emplace_back(), classes.emplace_back();
    groups_[g].push_back(m);
    if (std::ranges::find(classes[g], own) == classes[g].end()) classes[g].push_back(own);
  }
  std::ranges::stable_sort(groups_, std::greater(), &std::vector<int>::size);
}

std::vector<LineUpBlock> LineUp::blocks() const {
  std::vector<LineUpBlock> blocks;
  std::map<std::string, std::size_t> of_single;  // blocks by their reasons
  for (std::size_t g = 0; g < groups_.size(); ++g) {
    const std::string why = g == 0 ? "" : why_not_words(why_not(groups_[0].front(), groups_[g].front()));
    if (g > 0 && groups_[g].size() == 1) {
      const auto [there, is_new] = of_single.try_emplace(why, blocks.size());
      if (!is_new) {
        LineUpBlock& block = blocks[there->second];
        block.members.push_back(groups_[g].front());
        block.heading = fmt::format("Not to be held against those above, nor against each other: {}.", why);
        continue;
      }
    }
    blocks.push_back({g == 0 ? "" : fmt::format("Not to be held against those above: {}.", why), groups_[g]});
  }
  return blocks;
}

const std::vector<std::vector<int>>& LineUp::dominated() const {
  return *dominated_.get([&] { return std::optional(find_dominated()); });
}

std::vector<std::vector<int>> LineUp::find_dominated() const {
  std::vector<DominanceAxis> axes{{standings("mean_ppfd"), Better::More},
                                  {standings("lowest_over_mean"), Better::More},
                                  {standings("power_w"), Better::Less}};
  if (terms_.price_counts) {
    DominanceAxis price{{}, Better::Less};
    for (const LineUpMember& m : members_) {
      Standing& s = price.standings.emplace_back();
      if (m.entrant.cost && m.entrant.currency == terms_.currency) s.value = *m.entrant.cost;
    }
    axes.push_back(std::move(price));
  }
  const Comparability all_needed(facts_, Needs::All);
  return dominated_by(axes, &all_needed);
}

std::string LineUp::rank_words(const RankInterval& r) {
  if (r.of == 0) return "–";
  return r.low == r.high ? fmt::format("{} of {}", r.low, r.of) : fmt::format("{} to {} of {}", r.low, r.high, r.of);
}

std::vector<PairSentence> pair_sentences(const LineUp& lineup, int a, int b, UnitSystem units) {
  std::vector<PairSentence> all;
  const auto& members = lineup.members();
  const Entrant &first = members[static_cast<std::size_t>(a)].entrant,
                &second = members[static_cast<std::size_t>(b)].entrant;
  for (const LineUpFigure& f : lineup_figures()) {
    const Standing x = lineup.standing(f.id, a), y = lineup.standing(f.id, b);
    if (std::isnan(x.value) || std::isnan(y.value)) continue;
    PairSentence s;
    s.figure_id = f.id, s.a = x.value, s.b = y.value;
    s.difference = difference(x, y);
    s.told_apart = f.id == lineup.figure().id ? lineup.ranking().told_apart(a, b) : s.difference.beyond();
    const double per = shown_per_stored(f, units);
    const std::string unit = shown_unit(f, units, lineup.terms().currency);
    const std::string off =
        uncertain_text(std::abs(s.difference.value) * per, s.difference.expanded * per, f.decimals, unit);
    s.words = s.told_apart ? fmt::format("{}: {} has {} {} than {}.", f.label, first.fixture, off,
                                         s.difference.value > 0 ? "more" : "less", second.fixture)
                           : fmt::format("{}: not told apart; they differ by {}.", f.label, off);
    all.push_back(std::move(s));
  }
  return all;
}

std::string beside_words(const LineUp& lineup, int a, int b, UnitSystem units) {
  if (!lineup.why_not(a, b).empty()) return {};
  const auto& standings = lineup.ranking().standings();
  const Standing &x = standings[static_cast<std::size_t>(a)], &y = standings[static_cast<std::size_t>(b)];
  const StandingDifference d = difference(x, y);
  if (!std::isfinite(d.value)) return {};
  std::string words = fmt::format("Beside {}: {}, ", lineup.members()[static_cast<std::size_t>(b)].entrant.title,
                                  shown_difference(lineup.figure(), d, units, lineup.terms().currency));
  if (!lineup.ranking().told_apart(a, b))
    return words + (d.beyond() ? "beyond its uncertainty, but not sure for all pairs together." : "not told apart.");
  words += "told apart";
  const auto cancels = lineup.what_cancels(a, b);
  if (std::abs(d.value) <= x.expanded() + y.expanded() && !cancels.empty())
    words += fmt::format(" though the bars overlap: what both share ({}) cancels in the difference",
                         fmt::join(cancels, ", "));
  return words + ".";
}

}  // namespace sunbreak::evaluation
