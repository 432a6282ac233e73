#include <fmt/format.h>

#include <filesystem>
#include <memory>
#include <set>

#include "book/test_rows.h"
#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/say.h"
#include "cli/source_test.h"
#include "core/figures/figure_table.h"
#include "evaluation/read_sweeps.h"
#include "gathering/crew.h"
#include "gathering/line_up_json.h"
#include "gathering/line_up_work.h"
#include "gathering/members.h"
#include "publishing/forms.h"
#include "publishing/site.h"
#include "report/line_up_page.h"
#include "workbook/workbook.h"

namespace sunbreak::cli {
namespace {

namespace fs = std::filesystem;
using evaluation::Entrant;

struct SiteArguments {
  std::string file, out, title = "Light tests", address;
  record::SavedLineUp asked;
  bool imperial = false;
};

/// A test's pages, where it has readings.
struct SiteTest {
  record::Id id = 0;
  std::string stem;
  std::string page{}, package{}, problem{}, token{};
  publishing::FeedEntry feed{};
  bool kept = false;  ///< its files are there, and what they would be again

  std::string page_path() const { return "tests/" + stem + ".html"; }
  std::string package_path() const { return "tests/" + stem + ".zip"; }
};

/// The mean and evenness of the first sweep, as a feed tells a test.
std::string summary_of(const evaluation::Evaluation& evaluation, UnitSystem units) {
  const auto sweeps = evaluation::read_sweeps(evaluation);
  if (sweeps.empty()) return {};
  const auto& [sweep, view] = sweeps.front();
  const SweepFigures* f = evaluation.figures(sweep->id);
  const FigureSource source(view->layout, view->ppfd, *f);
  const Figure& mean = figure("mean_ppfd");
  return fmt::format(
      "{}: mean PPFD {} {}, lowest ÷ mean {:.2f}.", evaluation::sweep_name(evaluation.record(), *sweep, units),
      shown_value(mean, mean.value(source), units), shown_unit(mean, units), figure("lowest_over_mean").value(source));
}

/// Whether both files of a test are there as the site in the folder last wrote them.
bool is_there(const fs::path& folder, const std::string& stem) {
  std::error_code error;
  return fs::exists(folder / ("tests/" + stem + ".html"), error) &&
         fs::exists(folder / ("tests/" + stem + ".zip"), error);
}

/// Makes a test's files, or finds that those of the last time are still what they would be.
void make_test(SiteTest& made, const book::Book& book, const SiteArguments& a, UnitSystem units,
               const publishing::SiteMemory& memory) {
  try {
    auto record = book::load_test(book, made.id);
    if (!record || record->placements.empty()) return;
    publishing::Publication p = source_publication(a.file, std::move(*record), units);
    // The site's own line-up is one link away.
    p.line_up = nullptr;
    p.line_up_link = "../index.html";
    // What is held against another test, an earlier one or a lamp on record, is made each time.
    const bool alone =
        !p.earlier && std::ranges::none_of(p.record().claims, [](auto& c) { return c.kind == "equivalent"; });
    if (alone) made.token = publishing::token_of(p);
    const auto last = memory.find(made.page_path());
    if (alone && last != memory.end() && last->second.token == made.token && is_there(a.out, made.stem)) {
      made.feed = last->second.feed;
      made.kept = true;
      return;
    }
    const auto page = publishing::form_named("explore")->make(p), package = publishing::form_named("package")->make(p);
    if (!page || !package) {
      made.problem = (page ? package : page).problem().sentence();
      return;
    }
    made.page = page.value().front().content, made.package = package.value().front().content;
    const record::Test& t = p.whole->test;
    made.feed = {t.mark.empty() ? std::to_string(t.id) : t.mark, record::title_of(*p.whole), made.page_path(),
                 summary_of(*p.evaluations.front(), units), t.tested_on};
  } catch (const std::exception& e) {
    made.problem = e.what();
  }
}

int run_site(const SiteArguments& a) {
  auto opened = book::Book::open(a.file, book::Book::Mode::ReadOnly);
  if (!opened) return refuse(opened.problem());
  const book::Book& book = *opened.value();
  const UnitSystem units = a.imperial ? UnitSystem::Imperial : UnitSystem::Metric;
  std::vector<Entrant> entrants = gathering::entrants_of(book);
  auto ready = gathering::ready_line_up(a.asked, entrants, book::crop_targets(book));
  if (!ready) return refuse(ready.problem());

  std::vector<SiteTest> tests;
  std::set<std::string> stems;
  for (const record::Test& test : book.all<record::Test>("WHERE removed = 0 ORDER BY id")) {
    record::TestRecord head;
    head.test = test;
    if (const auto fixture = book.find<record::Fixture>(test.fixture_id)) head.fixture = *fixture;
    const std::string usual = publishing::file_stem(record::title_of(head));
    std::string stem = usual;
    for (int n = 2; !stems.insert(stem).second; ++n) stem = fmt::format("{}-{}", usual, n);
    tests.push_back({test.id, stem});
  }
  const publishing::SiteMemory before = publishing::remembered(a.out);
  gathering::run_crew(
      tests.size(), fs::path(a.file), 0, {},
      [&](std::size_t n, const book::Book* own) { make_test(tests[n], *own, a, units, before); }, [](std::size_t) {});

  publishing::SiteFiles files;
  std::set<std::string> kept;
  publishing::SiteMemory memory;
  std::vector<publishing::FeedEntry> feed;
  std::map<record::Id, std::string> stem_of;
  for (SiteTest& test : tests) {
    if (!test.problem.empty()) warn("left out: {}: {}\n", test.stem, test.problem);
    if (test.page.empty() && !test.kept) continue;
    stem_of[test.id] = test.stem;
    if (test.kept) {
      kept.insert({test.page_path(), test.package_path()});
    } else {
      files[test.page_path()] = std::move(test.page);
      files[test.package_path()] = std::move(test.package);
    }
    if (!test.token.empty()) memory[test.page_path()] = {test.token, test.feed};
    feed.push_back(test.feed);
  }
  gathering::EntryStore store;
  const auto entries = gathering::fill_entries(entrants, ready.value().question, fs::path(a.file), store, units);
  std::vector<evaluation::LineUpMember> members;
  for (std::size_t i = 0; i < entrants.size(); ++i)
    if (entries[i] && stem_of.contains(entrants[i].test_id)) members.push_back({entrants[i], entries[i]});
  const evaluation::LineUp lineup(std::move(members), ready.value().terms, units);
  const std::string way = gathering::declared_way(ready.value(), units);
  const auto path_of = [&](const char* ending) {
    return [&, ending](int m) {
      return "tests/" + stem_of.at(lineup.members()[static_cast<std::size_t>(m)].entrant.test_id) + ending;
    };
  };
  files["index.html"] =
      report::line_up_page(lineup, a.title, way, units, {"feed.xml", path_of(".html"), path_of(".zip")});
  files["feed.xml"] = publishing::atom_feed(a.title, feed, a.address);
  files["line-up.csv"] = gathering::line_up_csv(lineup, ready.value(), units);
  if (auto workbook = workbook::workbook_bytes(lineup, way, units)) files["line-up.xlsx"] = std::move(workbook.value());

  const publishing::SiteWritten written = publishing::write_site(files, a.out, kept, memory);
  for (const std::string& path : written.written) say("written\t{}\n", path);
  for (const std::string& path : written.removed) say("removed\t{}\n", path);
  say("unchanged\t{}\n", written.unchanged);
  for (const std::string& path : written.left_alone)
    warn("left alone: {} is not as it was written here; move it away to have it written\n", path);
  return written.problem ? refuse(*written.problem) : 0;
}

}  // namespace

void add_site_command(CLI::App& app, int& status) {
  const auto a = std::make_shared<SiteArguments>();
  CLI::App* c = app.add_subcommand("site", "Write a lab book as a folder of plain files for any web host");
  add_text(*c, "FILE", a->file, "the lab book")->required();
  add_text(*c, "-o,--out", a->out, "the folder; what has not changed in it is not touched")->required();
  add_text(*c, "--title", a->title, "of its first page");
  add_text(*c, "--address", a->address, "where it will be on the web (https://...), for the links of its feed");
  add_text(*c, "--by", a->asked.figure, "the figure that its line-up is by, as line-up --by");
  add_text(*c, "--way", a->asked.way, "the way of its line-up, as line-up --way");
  c->add_flag("--imperial", a->imperial, "inches and square feet");
  c->callback([a, &status] { status = run_site(*a); });
}

}  // namespace sunbreak::cli
