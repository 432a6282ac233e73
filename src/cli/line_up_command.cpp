#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <iostream>
#include <memory>

#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/source_test.h"
#include "core/visible.h"
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
  double low = NAN, high = NAN;
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
    std::cerr << "left out: " << r.file.string() << ": " << r.problem.sentence() << "\n";
  LineUpSource& guest_source = sources.emplace_back();
  for (gathering::Guests::One& one : guests.tests) {
    if (const Entrant& first = one.entrants.front(); !first.altered.empty())
      std::cerr << "altered: " << first.guest << ": " << visible(first.altered) << "\n";
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
  if (std::isnan(a.low) != std::isnan(a.high))
    return Problem{"a target with one end", "a band has two", "give --target-low and --target-high"};
  if (!std::isnan(a.low)) {
    asked.target_low_ppfd = a.low, asked.target_high_ppfd = a.high;
    asked.target_name = "the target";
  }
  auto ready = gathering::ready_line_up(asked, all, g.targets);
  if (!ready) return ready.problem();
  g.ready = std::move(ready.value());
  gathering::EntryStore store;
  for (const LineUpSource& s : sources) {
    const auto entries =
        gathering::fill_entries(s.entrants, g.ready.question, s.book, store, UnitSystem::Metric, {}, {}, a.threads);
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
  fmt::print("{}\n{} ({} first)\n\n", gathering::declared_way(ready, UnitSystem::Metric), f.label,
             f.better == Better::More ? "highest" : "lowest");
  const auto& members = lineup.members();
  for (const evaluation::LineUpBlock& block : lineup.blocks()) {
    if (!block.heading.empty()) fmt::print("\n{}\n", block.heading);
    for (const int m : block.members) {
      const auto i = static_cast<std::size_t>(m);
      const Standing& s = lineup.ranking().standings()[i];
      std::string dominated;
      for (const int d : lineup.dominated()[i])
        dominated +=
            (dominated.empty() ? "  dominated by " : ", ") + members[static_cast<std::size_t>(d)].entrant.title;
      fmt::print(
          "{:>12}  {:>34}  {}{}\n", LineUp::rank_words(lineup.ranking().rank(m)),
          evaluation::shown_with_uncertainty(f, s.value, s.expanded(), UnitSystem::Metric, lineup.terms().currency),
          members[i].entrant.title, dominated);
    }
  }
  for (std::size_t i = 0; i < members.size(); ++i)
    if (const std::string why = lineup.why_none(static_cast<int>(i)); !why.empty())
      fmt::print("{:>12}  {:>34}  {}: {}\n", "–", "–", members[i].entrant.title, why);
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
  for (const fs::path& file : files) std::cerr << "written: " << file.string() << "\n";
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
    std::cout << record::json_text(gathering::line_up_json(lineup, g.ready, UnitSystem::Metric), 2) << "\n";
  else if (a.csv)
    std::cout << gathering::line_up_csv(lineup, g.ready, UnitSystem::Metric);
  else
    print_table(lineup, g.ready);
  return 0;
}

struct SuitsArguments {
  std::vector<std::string> files;
  std::string room, walls = "white", room_height = "2.4m", rule = "edge", budget, by = "cost", currency = "EUR", filter;
  double low = NAN, high = NAN, hours = 12, years = 3, tariff = 0.3;
  int threads = 0;
  bool json = false;
};

Result<evaluation::SuitQuestion> suit_question(const SuitsArguments& a) {
  evaluation::SuitQuestion q;
  const auto size = parse_footprint(a.room);
  if (!size) return size.problem();
  const auto height = parse_length_m(a.room_height);
  if (!height) return height.problem();
  if (height.value() < 0.3 || height.value() > 10)
    return Problem{fmt::format("a room {} high", a.room_height), "", "give --room-height between 30 cm and 10 m"};
  if (!(a.low > 0) || !(a.high > a.low))
    return Problem{fmt::format("a target of {:.4g} to {:.4g}", a.low, a.high), "",
                   "give both ends, the lower over zero and under the higher"};
  const auto rule = parse_serving_rule(a.rule);
  if (!rule) return rule.problem();
  q.room = evaluation::room_to_light(size.value(), height.value(), a.walls);
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
  fmt::print("{}: {}\n", gathering::suit_room_words(q, UnitSystem::Metric), serving_rule_words(q.rule, q.band));
  fmt::print("{:.4g} h a day over {:.4g} years at {:.4g} {} a kWh; by {}\n\n", q.money.hours_a_day, q.money.years,
             q.money.tariff_per_kwh, q.currency, gathering::suit_order_words(order));
  const gathering::SortedSuits sorted = gathering::sorted_suits(answers, order);
  const auto print = [&](std::size_t i) {
    const evaluation::Suit& s = *answers[i]->suit;
    fmt::print("{} × {}: {} × {} at {}, {:.0f} %: mean {} µmol/m²/s, lowest ÷ mean {:.2f}, {} W", s.count(),
               entrants[i].title, s.pattern.columns, s.pattern.rows, length_text(s.height_m, UnitSystem::Metric),
               s.percent, evaluation::found_text(s.mean_ppfd, 0, ""), s.lowest_over_mean,
               evaluation::found_text(s.power_w, 0, ""));
    if (s.price) fmt::print(", {} {} over the years", evaluation::found_text(s.cost, 0, ""), q.currency);
    fmt::print(", {} sure\n", chance_text(s.chance));
  };
  for (const std::size_t i : sorted.suit) print(i);
  if (sorted.suit.empty()) fmt::print("None of them does.\n");
  if (!sorted.almost.empty()) fmt::print("\nAlmost:\n");
  for (const std::size_t i : sorted.almost) {
    print(i);
    fmt::print("  {}\n", answers[i]->why_not);
  }
  for (const std::size_t i : sorted.unknown) fmt::print("{}: not known; {}\n", entrants[i].title, answers[i]->why_not);
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
  for (const LineUpSource& s : sources.value()) {
    std::vector<Entrant> wanted;
    for (const Entrant& e : s.entrants)
      if (filter.value().lets(e, nullptr)) wanted.push_back(e);
    auto found = gathering::suits_of(wanted, question.value(), s.book, UnitSystem::Metric, {}, {}, a.threads);
    entrants.insert(entrants.end(), wanted.begin(), wanted.end());
    std::ranges::move(found, std::back_inserter(answers));
  }
  if (a.json)
    std::cout << record::json_text(gathering::suits_json(entrants, answers, question.value(), order.value()), 2)
              << "\n";
  else
    print_suits(entrants, answers, question.value(), order.value());
  return 0;
}

void add_suits_command(CLI::App& app, int& status) {
  auto a = std::make_shared<SuitsArguments>();
  CLI::App* c = app.add_subcommand("suits", "Which of the fixtures on record light a room, how many, and how");
  c->add_option("FILE", a->files, "lab books, data packages (.zip), folders of packages")->required();
  c->add_option("--room", a->room, "its floor, as 3x4m")->required();
  c->add_option("--room-height", a->room_height, "2.4m by default");
  c->add_option("--walls", a->walls, "white (by default), reflective, dark or open")
      ->check(CLI::IsMember({"white", "reflective", "dark", "open"}));
  c->add_option("--target-low", a->low, "low end of the crop's band [µmol/m²/s]")->required();
  c->add_option("--target-high", a->high, "its high end [µmol/m²/s]")->required();
  c->add_option("--photoperiod", a->hours, "hours of light a day")->required()->check(CLI::Range(0.01, 24.0));
  c->add_option("--rule", a->rule,
                "when the target is met: edge (by default), every, share:90, mean, corners:600, center:800");
  c->add_option("--budget", a->budget, "at most: 1200EUR to buy them, or 600W");
  c->add_option("--years", a->years, "of use, for the cost")->check(CLI::Range(0.01, 100.0));
  c->add_option("--tariff", a->tariff, "money for a kWh")->check(CLI::Range(0.0, 1e6));
  c->add_option("--currency", a->currency, "money of prices, tariff and budget");
  c->add_option("--by", a->by, "ordered by cost (by default), watts, count or evenness");
  c->add_option("--filter", a->filter, "words to be found and bounds, such as \"LED price<200\"");
  c->add_option("--threads", a->threads, "at work; all cores by default")->check(CLI::Range(1, 256));
  c->add_flag("--json", a->json, "print JSON (keys: docs/formats.md)");
  c->callback([a, &status] { status = run_suits(*a); });
}

}  // namespace

void add_line_up_commands(CLI::App& app, int& status) {
  auto a = std::make_shared<LineUpArguments>();
  CLI::App* c = app.add_subcommand("line-up", "Fixtures held against each other by one figure, in one declared way");
  c->add_option("FILE", a->files, "lab books, data packages (.zip), folders of packages")->required();
  c->add_option(
      "--by", a->asked.figure,
      "the figure, by its id; canopy_efficacy_umol_j by default; or an index of your own: index:FIGURE=WEIGHT,...");
  c->add_option(
      "--way", a->asked.way,
      "as-measured, equal-watts:300, equal-center:800, height:45cm, best:TARGET, footprint:90x90cm, grid:6x6, "
      "open-floor, white-tent; several joined by +");
  c->add_option("--filter", a->asked.filter, "words to be found and bounds, such as \"LED price<200\"");
  c->add_flag("--all-pairs", a->asked.all_pairs, "ranks sure for all pairs together (Holm)");
  c->add_option("--target", a->target, "the target that coverage and watts are for, by its name or as 555-925");
  c->add_option("--target-low", a->low, "its low end [µmol/m²/s]");
  c->add_option("--target-high", a->high, "its high end [µmol/m²/s]");
  c->add_option("--rule", a->asked.rule, "when a target is met: edge, every, share:90, mean, corners:600, center:800");
  c->add_option("--photoperiod", a->asked.photoperiod_h, "hours of light a day")->check(CLI::Range(0.01, 24.0));
  c->add_option("--years", a->asked.years, "of use, for costs")->check(CLI::Range(0.01, 100.0));
  c->add_option("--tariff", a->asked.tariff_per_kwh, "money for a kWh")->check(CLI::Range(0.0, 1e6));
  c->add_option("--decay", a->asked.decay_pct_per_1000h, "light lost in 1,000 h [%]")->check(CLI::Range(0.0, 50.0));
  c->add_option("--currency", a->asked.currency, "money of prices and tariff");
  c->add_flag("--with-price", a->asked.price_counts, "dominance looks at the price too");
  c->add_option("--threads", a->threads, "at work; all cores by default")->check(CLI::Range(1, 256));
  auto* json = c->add_flag("--json", a->json, "print JSON (keys: docs/formats.md)");
  c->add_flag("--csv", a->csv, "print CSV")->excludes(json);
  c->add_option("--workbook", a->workbook, "also write a spreadsheet workbook (.xlsx)");
  c->add_option("--publish", a->publish, "also write page, workbook, table and stills into this folder");
  c->add_option("--pair", a->pair, "two tests by name that a still shows side by side; the first two by default")
      ->expected(2);
  c->add_flag("--force", a->force, "replace files that are there already");
  c->callback([a, &status] { status = run_line_up(*a); });
  add_suits_command(app, status);
}

}  // namespace sunbreak::cli
