#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <memory>

#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/progress.h"
#include "cli/say.h"
#include "cli/source_test.h"
#include "evaluation/light_words.h"
#include "exchange/files/new_file.h"
#include "gathering/line_up_json.h"
#include "gathering/line_up_work.h"
#include "gathering/members.h"
#include "gathering/suits_work.h"
#include "publishing/line_up_forms.h"
#include "record/json.h"
#include "workbook/workbook.h"

namespace sunbreak::cli {
namespace {

using evaluation::Entrant;
using evaluation::LineUp;
using evaluation::LineUpMember;
namespace fs = std::filesystem;

struct LineUpArguments {
  std::vector<std::string> files;
  record::SavedLineUp asked;
  std::string target;
  std::optional<double> low, high;
  int threads = 0;
  bool json = false, csv = false;
  std::string workbook, publish;
  std::vector<std::string> pair;
  bool force = false;
};

/// The tests of one lab book, or of all packages.
struct LineUpSource {
  std::optional<fs::path> book;
  std::vector<Entrant> entrants;
};

bool is_book(const fs::path& file) {
  std::error_code error;
  return !fs::is_directory(file, error) && file.extension() != ".zip";
}

/// All tests of the files; what is no package of a test is said on the error output.
Result<std::vector<LineUpSource>> line_up_sources(const std::vector<std::string>& files) {
  std::vector<LineUpSource> sources;
  std::vector<fs::path> packages;
  std::vector<std::unique_ptr<book::Book>> books;
  for (const std::string& file : files) {
    if (!is_book(file)) {
      packages.emplace_back(file);
      continue;
    }
    auto opened = book::Book::open(file, book::Book::Mode::ReadOnly);
    if (!opened) return opened.problem();
    sources.push_back({fs::path(file), gathering::entrants_of(*opened.value())});
    books.push_back(std::move(opened.value()));
  }
  gathering::Guests guests = gathering::guests_from(packages);
  for (const auto& book : books) gathering::leave_out_own(guests, *book);
  for (const gathering::RefusedGuest& r : guests.refused)
    warn("left out: {}: {}\n", r.file.string(), r.problem.sentence());
  LineUpSource& guest_source = sources.emplace_back();
  for (gathering::Guests::One& one : guests.tests) {
    if (const Entrant& first = one.entrants.front(); !first.altered.empty())
      warn("altered: {}: {}\n", first.guest, first.altered);
    for (Entrant& e : one.entrants) guest_source.entrants.push_back(std::move(e));
  }
  if (std::ranges::all_of(sources, [](const LineUpSource& s) { return s.entrants.empty(); }))
    return Problem{"no test is in these files", "there is nothing to line up", "name lab books or data packages"};
  return sources;
}

/// The members of all files: lab books' tests, then packages and folders of them.
struct Gathered {
  std::vector<LineUpMember> members;
  std::vector<record::CropTarget> targets;
  gathering::ReadyLineUp ready;
};

Result<Gathered> gather(const LineUpArguments& a) {
  Gathered g;
  const auto found = line_up_sources(a.files);
  if (!found) return found.problem();
  const std::vector<LineUpSource>& sources = found.value();
  const auto filter = evaluation::EntrantFilter::parse(a.asked.filter);
  if (!filter) return filter.problem();
  std::vector<Entrant> all;
  for (const LineUpSource& s : sources) all.insert(all.end(), s.entrants.begin(), s.entrants.end());
  g.targets = source_targets(a.files.front());
  record::SavedLineUp asked = a.asked;
  if (!a.target.empty()) {
    const auto band = gathering::target_band(a.target, g.targets);
    if (!band) return Problem{fmt::format("no target is called '{}'", a.target), "", "name one of the lists' targets"};
    asked.target_name = band->first, asked.target_low_ppfd = band->second.low,
    asked.target_high_ppfd = band->second.high;
  }
  if (a.low.has_value() != a.high.has_value())
    return Problem{"a target with one end", "a band has two", "give --target-low and --target-high"};
  if (a.low) {
    asked.target_low_ppfd = a.low, asked.target_high_ppfd = a.high;
    asked.target_name = "the target";
  }
  auto ready = gathering::ready_line_up(asked, all, g.targets);
  if (!ready) return ready.problem();
  g.ready = std::move(ready.value());
  gathering::EntryStore store;
  Progress progress("tests");
  for (const LineUpSource& s : sources) {
    const auto entries = gathering::fill_entries(s.entrants, g.ready.question, s.book, store, UnitSystem::Metric, {},
                                                 std::ref(progress), a.threads);
    for (std::size_t i = 0; i < s.entrants.size(); ++i)
      if (entries[i] && filter.value().lets(s.entrants[i], entries[i].get()))
        g.members.push_back({s.entrants[i], entries[i]});
  }
  if (g.members.empty())
    return Problem{"the filter lets no test through", "there is nothing to line up", "loosen --filter"};
  return g;
}

void print_table(const LineUp& lineup, const gathering::ReadyLineUp& ready) {
  const auto& f = lineup.figure();
  say("{}\n{} ({} first)\n\n", gathering::declared_way(ready, UnitSystem::Metric), f.label,
      f.better == Better::More ? "highest" : "lowest");
  const auto& members = lineup.members();
  for (const evaluation::LineUpBlock& block : lineup.blocks()) {
    if (!block.heading.empty()) say("\n{}\n", block.heading);
    for (const int m : block.members) {
      const auto i = static_cast<std::size_t>(m);
      const Standing& s = lineup.ranking().standings()[i];
      std::string dominated;
      for (const int d : lineup.dominated()[i])
        dominated +=
            (dominated.empty() ? "  dominated by " : ", ") + members[static_cast<std::size_t>(d)].entrant.title;
      say("{:>12}  {:>34}  {}{}\n", LineUp::rank_words(lineup.ranking().rank(m)),
          evaluation::shown_with_uncertainty(f, s.value, s.expanded(), UnitSystem::Metric, lineup.terms().currency),
          members[i].entrant.title, dominated);
    }
  }
  for (std::size_t i = 0; i < members.size(); ++i)
    if (const std::string why = lineup.why_none(static_cast<int>(i)); !why.empty())
      say("{:>12}  {:>34}  {}: {}\n", "–", "–", members[i].entrant.title, why);
}

/// Page, workbook, table and stills into a folder; the files are named on the error output, beside what is printed.
std::optional<Problem> publish_all(const LineUp& lineup, const gathering::ReadyLineUp& ready,
                                   const LineUpArguments& a) {
  publishing::LineUpPublication p{lineup, fmt::format("Line-up by {}", lineup.figure().label),
                                  gathering::declared_way(ready, UnitSystem::Metric),
                                  gathering::line_up_csv(lineup, ready, UnitSystem::Metric)};
  if (!a.pair.empty()) {
    int found[2] = {-1, -1};
    for (std::size_t k = 0; k < 2; ++k)
      for (std::size_t m = 0; m < lineup.members().size(); ++m)
        if (lineup.members()[m].entrant.title == a.pair[k] && found[k] < 0) found[k] = static_cast<int>(m);
    for (std::size_t k = 0; k < 2; ++k)
      if (found[k] < 0)
        return Problem{fmt::format("no test in the line-up is called '{}'", a.pair[k]), "nothing was written",
                       "name two of its tests after --pair"};
    p.pair = {found[0], found[1]};
  }
  std::vector<fs::path> files;
  const auto problem = publishing::publish_line_up(
      p, a.publish, a.force ? exchange::Existing::Replace : exchange::Existing::Keep, files);
  for (const fs::path& file : files) warn("written: {}\n", file.string());
  return problem;
}

int run_line_up(const LineUpArguments& a) {
  auto gathered = gather(a);
  if (!gathered) return refuse(gathered.problem());
  Gathered& g = gathered.value();
  const LineUp lineup(std::move(g.members), g.ready.terms);
  if (!a.workbook.empty()) {
    const auto bytes = workbook::workbook_bytes(lineup, gathering::declared_way(g.ready, UnitSystem::Metric));
    if (!bytes) return refuse(bytes.problem());
    const auto problem = exchange::write_new_file(a.workbook, bytes.value(),
                                                  a.force ? exchange::Existing::Replace : exchange::Existing::Keep);
    if (problem) return refuse(*problem);
  }
  if (!a.publish.empty()) {
    const auto problem = publish_all(lineup, g.ready, a);
    if (problem) return refuse(*problem);
  }
  if (a.json)
    say_json(gathering::line_up_json(lineup, g.ready, UnitSystem::Metric));
  else if (a.csv)
    say_table(gathering::line_up_csv(lineup, g.ready, UnitSystem::Metric));
  else
    print_table(lineup, g.ready);
  return 0;
}

QuantityRange years_of_use() { return over_least(recorded<record::SavedLineUp>("years", "time of use in years")); }

QuantityRange tariff() { return recorded<record::SavedLineUp>("tariff_per_kwh", "price of a kWh"); }

struct SuitsArguments {
  std::vector<std::string> files;
  std::string walls = "white", rule = "edge", budget, by = "cost", currency = "EUR", filter;
  std::optional<Footprint> room;
  std::optional<double> room_height_m;
  double low = 0, high = 0, hours = 12, years = 3, tariff = 0.3;
  int threads = 0;
  bool json = false;
};

Result<evaluation::SuitQuestion> suit_question(const SuitsArguments& a) {
  evaluation::SuitQuestion q;
  if (!(a.high > a.low))
    return Problem{fmt::format("a target of {:.4g} to {:.4g}", a.low, a.high), "",
                   "give both ends, the lower under the higher"};
  const auto rule = parse_serving_rule(a.rule);
  if (!rule) return rule.problem();
  q.room = evaluation::room_to_light(*a.room, a.room_height_m.value_or(2.4), a.walls);
  q.band = {a.low, a.high};
  q.rule = rule.value();
  q.money = {a.years, a.hours, a.tariff, 0};
  q.currency = a.currency;
  if (auto problem = gathering::take_budget(q, a.budget)) return *problem;
  return q;
}

void print_suits(const std::vector<Entrant>& entrants,
                 const std::vector<std::optional<evaluation::SuitAnswer>>& answers, const evaluation::SuitQuestion& q,
                 gathering::SuitOrder order) {
  say("{}: {}\n", gathering::suit_room_words(q, UnitSystem::Metric), serving_rule_words(q.rule, q.band));
  say("{:.4g} h a day over {:.4g} years at {:.4g} {} a kWh; by {}\n\n", q.money.hours_a_day, q.money.years,
      q.money.tariff_per_kwh, q.currency, gathering::suit_order_words(order));
  const gathering::SortedSuits sorted = gathering::sorted_suits(answers, order);
  const auto print = [&](std::size_t i) {
    const evaluation::Suit& s = *answers[i]->suit;
    say("{} × {}: {} × {} at {}, {:.0f} %: mean {} µmol/m²/s, lowest ÷ mean {:.2f}, {} W", s.count(), entrants[i].title,
        s.pattern.columns, s.pattern.rows, length_text(s.height_m, UnitSystem::Metric), s.percent,
        evaluation::found_text(s.mean_ppfd, 0, ""), s.lowest_over_mean, evaluation::found_text(s.power_w, 0, ""));
    if (s.price) say(", {} {} over the years", evaluation::found_text(s.cost, 0, ""), q.currency);
    say(", {} sure\n", chance_text(s.chance));
  };
  for (const std::size_t i : sorted.suit) print(i);
  if (sorted.suit.empty()) say("None of them does.\n");
  if (!sorted.almost.empty()) say("\nAlmost:\n");
  for (const std::size_t i : sorted.almost) {
    print(i);
    say("  {}\n", answers[i]->why_not);
  }
  for (const std::size_t i : sorted.unknown) say("{}: not known; {}\n", entrants[i].title, answers[i]->why_not);
}

int run_suits(const SuitsArguments& a) {
  const auto question = suit_question(a);
  if (!question) return refuse(question.problem());
  const auto order = gathering::parse_suit_order(a.by);
  if (!order) return refuse(order.problem());
  const auto filter = evaluation::EntrantFilter::parse(a.filter);
  if (!filter) return refuse(filter.problem());
  const auto sources = line_up_sources(a.files);
  if (!sources) return refuse(sources.problem());
  std::vector<Entrant> entrants;
  std::vector<std::optional<evaluation::SuitAnswer>> answers;
  Progress progress("fixtures");
  for (const LineUpSource& s : sources.value()) {
    std::vector<Entrant> wanted;
    for (const Entrant& e : s.entrants)
      if (filter.value().lets(e, nullptr)) wanted.push_back(e);
    auto found =
        gathering::suits_of(wanted, question.value(), s.book, UnitSystem::Metric, {}, std::ref(progress), a.threads);
    entrants.insert(entrants.end(), wanted.begin(), wanted.end());
    std::ranges::move(found, std::back_inserter(answers));
  }
  if (a.json)
    say_json(gathering::suits_json(entrants, answers, question.value(), order.value()));
  else
    print_suits(entrants, answers, question.value(), order.value());
  return 0;
}

void add_suits_command(CLI::App& app, int& status) {
  auto a = std::make_shared<SuitsArguments>();
  CLI::App* c = app.add_subcommand("suits", "Which of the fixtures on record light a room, how many, and how");
  add_text(*c, "FILE", a->files, "lab books, data packages (.zip), folders of packages")->required();
  add_size(*c, "--room", a->room, room_side(), "its floor, as 3x4m")->required();
  add_length(*c, "--room-height", a->room_height_m, {"height of a room", "m", 0.3, 10}, "2.4m by default");
  add_text(*c, "--walls", a->walls, "white (by default), reflective, dark or open")
      ->check(CLI::IsMember({"white", "reflective", "dark", "open"}));
  add_number(*c, "--target-low", a->low, over_least(crop_ppfd("low end of a target")),
             "low end of the crop's band [µmol/m²/s]")
      ->required();
  add_number(*c, "--target-high", a->high, over_least(crop_ppfd("high end of a target")), "its high end [µmol/m²/s]")
      ->required();
  add_number(*c, "--photoperiod", a->hours, photoperiod(), "hours of light a day")->required();
  add_text(*c, "--rule", a->rule,
           "when the target is met: edge (by default), every, share:90, mean, corners:600, center:800");
  add_text(*c, "--budget", a->budget, "at most: 1200EUR to buy them, or 600W");
  add_number(*c, "--years", a->years, years_of_use(), "of use, for the cost");
  add_number(*c, "--tariff", a->tariff, tariff(), "money for a kWh");
  add_text(*c, "--currency", a->currency, "money of prices, tariff and budget");
  add_text(*c, "--by", a->by, "ordered by cost (by default), watts, count or evenness");
  add_text(*c, "--filter", a->filter, "words to be found and bounds, such as \"LED price<200\"");
  add_count(*c, "--threads", a->threads, threads(), "at work; all cores by default");
  c->add_flag("--json", a->json, "print JSON (keys: docs/formats.md)");
  c->callback([a, &status] { status = run_suits(*a); });
}

}  // namespace

void add_line_up_commands(CLI::App& app, int& status) {
  auto a = std::make_shared<LineUpArguments>();
  CLI::App* c = app.add_subcommand("line-up", "Fixtures held against each other by one figure, in one declared way");
  add_text(*c, "FILE", a->files, "lab books, data packages (.zip), folders of packages")->required();
  add_text(
      *c, "--by", a->asked.figure,
      "the figure, by its id; canopy_efficacy_umol_j by default; or an index of your own: index:FIGURE=WEIGHT,...");
  add_text(*c, "--way", a->asked.way,
           "as-measured, equal-watts:300, equal-center:800, height:45cm, best:TARGET, footprint:90x90cm, grid:6x6, "
           "open-floor, white-tent; several joined by +");
  add_text(*c, "--filter", a->asked.filter, "words to be found and bounds, such as \"LED price<200\"");
  c->add_flag("--all-pairs", a->asked.all_pairs, "ranks sure for all pairs together (Holm)");
  add_text(*c, "--target", a->target, "the target that coverage and watts are for, by its name or as 555-925");
  add_number(*c, "--target-low", a->low, crop_ppfd("low end of a target"), "its low end [µmol/m²/s]");
  add_number(*c, "--target-high", a->high, crop_ppfd("high end of a target"), "its high end [µmol/m²/s]");
  add_text(*c, "--rule", a->asked.rule, "when a target is met: edge, every, share:90, mean, corners:600, center:800");
  add_number(*c, "--photoperiod", a->asked.photoperiod_h, photoperiod(), "hours of light a day");
  add_number(*c, "--years", a->asked.years, years_of_use(), "of use, for costs");
  add_number(*c, "--tariff", a->asked.tariff_per_kwh, tariff(), "money for a kWh");
  add_number(*c, "--decay", a->asked.decay_pct_per_1000h,
             recorded<record::SavedLineUp>("decay_pct_per_1000h", "loss of light"), "light lost in 1,000 h [%]");
  add_text(*c, "--currency", a->asked.currency, "money of prices and tariff");
  c->add_flag("--with-price", a->asked.price_counts, "dominance looks at the price too");
  add_count(*c, "--threads", a->threads, threads(), "at work; all cores by default");
  auto* json = c->add_flag("--json", a->json, "print JSON (keys: docs/formats.md)");
  c->add_flag("--csv", a->csv, "print CSV")->excludes(json);
  add_text(*c, "--workbook", a->workbook, "also write a spreadsheet workbook (.xlsx)");
  add_text(*c, "--publish", a->publish, "also write page, workbook, table and stills into this folder");
  add_text(*c, "--pair", a->pair, "two tests by name that a still shows side by side; the first two by default")
      ->expected(2);
  c->add_flag("--force", a->force, "replace files that are there already");
  c->callback([a, &status] { status = run_line_up(*a); });
  add_suits_command(app, status);
}

}  // namespace sunbreak::cli
