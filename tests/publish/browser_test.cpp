#include <fmt/format.h>
#include <gtest/gtest.h>

#include <fstream>
#include <sstream>

#include "core/quantity/daily_light.h"
#include "evaluation/crop_targets.h"
#include "evaluation/read_sweeps.h"
#include "publish/hostile_record.h"
#include "publish/published.h"
#include "publish/run_program.h"
#include "publish/sample_tests.h"
#include "record/json.h"

/// Pages in a browser that we did not write, with real keys and clicks.
namespace sunbreak {
namespace {

namespace fs = std::filesystem;
using record::Json;

std::pair<int, std::string> node(const std::string& script, const std::string& arguments) {
  return run_program(fmt::format("NODE_PATH={} node {}/{} {}", NODE_MODULES, NODE_SCRIPTS, script, arguments));
}

/// Writes page and page to explore of a test; their paths, quoted for a command line.
std::string pages_of(const record::TestRecord& test, const fs::path& folder) {
  const std::vector<const publishing::Form*> forms{publishing::form_named("page"), publishing::form_named("explore")};
  std::string files;
  for (const publishing::Written& w :
       publishing::publish(publication_of(test), forms, folder, exchange::Existing::Keep)) {
    EXPECT_FALSE(w.problem);
    for (const fs::path& file : w.files) files += " '" + file.string() + "'";
  }
  return files;
}

/// A sweep's figures by the command line, from nothing but its places and light.
Json figures_by_command(const fs::path& folder, const evaluation::SweepView& view, const std::string& options) {
  const fs::path file = folder / "readings.csv";
  {
    std::ofstream out(file);
    out << "x_m,y_m,value\n";
    for (std::size_t i = 0; i < view.ppfd.size(); ++i)
      out << fmt::format("{},{},{}\n", view.layout.stations[i].x_m, view.layout.stations[i].y_m, view.ppfd[i]);
  }
  const auto [status, said] =
      run_program(fmt::format("{} figures {} --footprint {}x{}m --json {}", SUNBREAK_CLI, file.string(),
                              view.layout.footprint.width_m, view.layout.footprint.depth_m, options));
  EXPECT_EQ(status, 0) << said;
  return record::json_of(said);
}

}  // namespace

TEST(PagesInABrowser, AreFreeOfFaultsOnEveryScreen) {
  TemporaryFolder folder;
  const auto [status, said] = node("look_at_pages.js", pages_of(sample_tests()[3], folder.path()));
  EXPECT_EQ(status, 0) << said;
}

/// Texts that would be programs, markup or templates, or that are longer than any line, in every field there is.
TEST(PagesInABrowser, HostileTextsDoNothing) {
  TemporaryFolder folder;
  const auto [status, said] =
      node("look_at_pages.js", "--texts" + pages_of(hostile_record(sample_tests()[2]), folder.path()));
  EXPECT_EQ(status, 0) << said;
}

/// What the page shows after real keys and clicks is what the command line works out of the same readings.
TEST(PagesInABrowser, WhatIsTriedEqualsTheCommandLine) {
  const record::TestRecord& test = sample_tests()[0];
  TemporaryFolder folder;
  pages_of(test, folder.path());
  const auto evaluation = evaluation::evaluate(test);
  const auto sweeps = evaluation::read_sweeps(*evaluation);
  const auto name_of = [&](const record::Sweep& s) {
    return std::pair{length_text(test.rung(s.rung_id)->height_m, UnitSystem::Metric),
                     short_number(test.stop(s.stop_id)->percent, 1) + " %"};
  };
  // Hours by the field and by the slider, a target of daily light, bands of one's own.
  const auto [height, setting] = name_of(*sweeps[4].first);
  const auto [low_height, low_setting] = name_of(*sweeps[11].first);
  const Json asked =
      Json::array({{{"hours", 14.5}},
                   {{"height", height}, {"setting", setting}, {"target", "young plants"}, {"tariff", 0.42}},
                   {{"slide", 3}},
                   {{"height", low_height}, {"setting", low_setting}, {"low", 300}, {"high", 333.3}}});
  const std::size_t shown_sweep[] = {9, 4, 4, 11};
  const auto [status, said] =
      node("try_page.js",
           fmt::format("'{}' '{}'",
                       (folder.path() / (publishing::file_stem(record::title_of(test)) + "-explore.html")).string(),
                       record::json_text(asked)));
  ASSERT_EQ(status, 0) << said;
  std::istringstream lines(said);
  std::string line;
  for (const std::size_t n : shown_sweep) {
    ASSERT_TRUE(std::getline(lines, line)) << said;
    const Json shown = record::json_of(line);
    const double hours = std::stod(shown["hours"].text()), tariff = std::stod(shown["tariff"].text());
    const auto& [sweep, view] = sweeps[n];
    const Json f = figures_by_command(folder.path(), *view,
                                      fmt::format("--photoperiod {} --target-low {} --target-high {} --watts {}", hours,
                                                  shown["low"].text(), shown["high"].text(), *sweep->power_w));
    EXPECT_EQ(shown["slide"], shown["hours"]);
    EXPECT_EQ(shown["daily"], fmt::format("{:.1f} mol/m²/d", f["dli_mean_mol_m2_d"].number())) << line;
    EXPECT_EQ(shown["band"], fmt::format("{:.1f} %", 100 * f["coverage"]["in_band_share"].number())) << line;
    EXPECT_TRUE(shown["mean_ppfd"].text().starts_with(fmt::format("{:.0f} µmol/m²/s", f["mean_ppfd"].number())));
    EXPECT_TRUE(shown["canopy_efficacy_umol_j"].text().starts_with(
        fmt::format("{:.2f} µmol/J", f["canopy_efficacy_umol_j"].number())));
    const double kwh = *sweep->power_w * hours / 1000;
    EXPECT_EQ(shown["energy"], fmt::format("{:.2f} kWh a day", kwh));
    EXPECT_EQ(shown["cost-day"], fmt::format("{:.2f} EUR a day", kwh * tariff));
  }
  ASSERT_TRUE(std::getline(lines, line));
  const Json map = record::json_of(line);
  for (const char* act : {"zooms", "moves", "returns", "wheels"}) EXPECT_TRUE(map[act].truth()) << act;
  EXPECT_NE(map["place"].text().find("from the left"), std::string::npos);
}

}  // namespace sunbreak
