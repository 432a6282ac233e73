#include "publishing/forms.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <fstream>
#include <map>
#include <regex>
#include <sstream>

#include "core/bench/walk_order.h"
#include "core/walk/walk_course.h"
#include "evaluation/read_sweeps.h"
#include "evaluation/test_checks.h"
#include "publish/hostile_record.h"
#include "publish/published.h"
#include "publish/run_program.h"
#include "publish/sample_tests.h"
#include "record/plan_grid.h"

namespace sunbreak {
namespace {

namespace fs = std::filesystem;
using publishing::Publication;
using publishing::Written;

std::string written_pdf(const Publication& p, const char* form, const TemporaryFolder& folder) {
  const auto content = publishing::form_named(form)->make(p);
  EXPECT_TRUE(content.ok()) << content.problem().sentence();
  const fs::path file = folder.path() / fmt::format("{}.pdf", form);
  std::ofstream(file, std::ios::binary) << content.value().front().content;
  return file.string();
}

/// Where words begin on the first page [pt], by pdftotext.
std::map<std::string, double> lefts(const std::string& pdf) {
  const auto [status, said] = run_program(fmt::format("pdftotext -bbox -l 1 {} -", pdf));
  EXPECT_EQ(status, 0) << said;
  std::map<std::string, double> found;
  static const std::regex word("<word xMin=\"([0-9.]+)\"[^>]*>([^<]*)</word>");
  for (auto at = std::sregex_iterator(said.begin(), said.end(), word); at != std::sregex_iterator(); ++at)
    found.emplace((*at)[2], std::stod((*at)[1]));
  return found;
}

/// A lattice of 3 × 2 on 120 × 90 cm at two heights: stations at 20, 60, 100 cm across.
record::TestRecord small_plan() {
  record::TestRecord r;
  r.test.id = r.fixture.id = r.bench.id = 1;
  r.test.fixture_id = r.test.bench_id = 1;
  r.test.name = "small plan", r.fixture.name = "board", r.bench.name = "bench";
  r.bench.width_m = 1.2, r.bench.depth_m = 0.9;
  r.test.columns = 3, r.test.rows = 2;
  r.rungs = {{1, 1, 0.6}, {2, 1, 0.4}};
  r.stops = {{1, 1, 100}};
  return r;
}

}  // namespace

/// The papers' pages, letters and fonts as other programs read them.
TEST(Papers, AStationSheetNumbersTheWalk) {
  TemporaryFolder folder;
  const std::string pdf = written_pdf(publication_of(small_plan()), "stations", folder);
  const auto info = run_program("pdfinfo " + pdf).second;
  EXPECT_NE(info.find("Pages:           2"), std::string::npos) << "one a height: " << info;
  EXPECT_NE(info.find("Station sheet: small plan"), std::string::npos);
  const auto text = run_program(fmt::format("pdftotext -layout -l 1 {} -", pdf)).second;
  EXPECT_NE(text.find("hung at 60 cm, dimmer at 100 %"), std::string::npos) << text;
  // Far row from the left, then back: 1 2 3 over 6 5 4.
  EXPECT_TRUE(std::regex_search(text, std::regex("\\n +1 +2 +3\\n"))) << text;
  EXPECT_TRUE(std::regex_search(text, std::regex("\\n +6 +5 +4\\n"))) << text;
  for (const char* mark : {"20.0", "60.0", "100.0", "22.5", "67.5", "page 1 of 2"})
    EXPECT_NE(text.find(mark), std::string::npos) << mark;
  const auto fonts = run_program("pdffonts " + pdf).second;
  EXPECT_NE(fonts.find("SunbreakSans"), std::string::npos);
  EXPECT_EQ(fonts.find(" no "), std::string::npos) << "all are embedded, with their letters: " << fonts;
}

/// A sheet asks for what Walk asks for, in its order: the probe first, the reference where it falls due.
TEST(Papers, AStationSheetHasTheOrderOfWalk) {
  TemporaryFolder folder;
  record::TestRecord plan = small_plan();
  plan.test.rows = 3, plan.test.opening_probe = true, plan.test.reference_every = 4;
  const std::string pdf = written_pdf(publication_of(plan), "stations", folder);
  const auto text = run_program(fmt::format("pdftotext -layout -l 1 {} -", pdf)).second;
  // Corners and center, nearest the far left first; then the rest from the far wall.
  EXPECT_TRUE(std::regex_search(text, std::regex("\\n +1 +6 +\\d\\n"))) << text;
  EXPECT_NE(text.find("Reference: station 5 read once more"), std::string::npos) << text;
  const auto layout = lay_out(record::footprint_of(plan.bench), record::grid_of(plan.test)).value();
  int number = 0;
  for (const WalkStep& step : undisturbed_walk(layout, evaluation::walk_of(plan.test, layout), 4)) {
    if (step.turn == Turn::Station) ++number;
    if (step.turn == Turn::Reference) {
      EXPECT_NE(text.find(fmt::format("after {}", number)), std::string::npos) << text;
    } else if (step.station == reference_station(layout)) {
      EXPECT_EQ(number, 5);
    }
  }
}

TEST(Papers, ATapeStripIsAtTrueScale) {
  TemporaryFolder folder;
  record::TestRecord test = small_plan();
  test.bench.width_m = test.bench.depth_m = 0.4;
  test.test.columns = 4;  // at 5, 15, 25, 35 cm: the first two stand on one piece
  Publication p = publication_of(test);
  const auto metric = lefts(written_pdf(p, "tape", folder));
  ASSERT_TRUE(metric.contains("5.0") && metric.contains("15.0"));
  EXPECT_NEAR(metric.at("15.0") - metric.at("5.0"), 0.1 / 0.0254 * 72, 0.3) << "10 cm on paper";
  EXPECT_NEAR(metric.at("5.0"), 40 + 0.05 / 0.0254 * 72 + 3, 0.5) << "from the strip's end";
  p.paper = publishing::Paper::Letter;
  EXPECT_NE(run_program("pdfinfo " + written_pdf(p, "tape", folder)).second.find("612 x 792"), std::string::npos);
  p.units = UnitSystem::Imperial;
  EXPECT_NE(run_program(fmt::format("pdftotext {} -", written_pdf(p, "tape", folder))).second.find("4 in"),
            std::string::npos);
}

/// The sample book's settings card has a row a stage with what Settle predicts for it.
TEST(Papers, ASettingsCardIsOnPaperToo) {
  TemporaryFolder folder;
  record::TestRecord test = sample_tests().front();
  test.card_rows.clear();
  for (const char* stage : {"seedlings", "flowering"}) {
    record::CardRow row;
    row.id = static_cast<record::Id>(test.card_rows.size() + 1), row.test_id = test.test.id;
    row.stage = stage, row.low_ppfd = 200, row.high_ppfd = 700, row.photoperiod_h = 16;
    row.height_m = 0.45, row.percent = 75;
    test.card_rows.push_back(row);
  }
  const Publication p = publication_of(test);
  const auto parts = publishing::form_named("card")->make(p);
  ASSERT_TRUE(parts.ok()) << parts.problem().sentence();
  ASSERT_EQ(parts.value().size(), 2u);
  const fs::path file = folder.path() / "card.pdf";
  std::ofstream(file, std::ios::binary) << parts.value().back().content;
  const auto text = run_program(fmt::format("pdftotext -layout {} -", file.string())).second;
  EXPECT_TRUE(std::regex_search(text, std::regex("seedlings +45 cm +75 % +16 +[0-9]+ ± [0-9]+"))) << text;
  EXPECT_NE(text.find("200 to 700 µmol/m²/s wanted"), std::string::npos);
  EXPECT_NE(text.find("Settings card: Ostler Six-Bar"), std::string::npos);
}

TEST(Papers, DenseGridsComeInPartsAndSpotsInLists) {
  TemporaryFolder folder;
  record::TestRecord dense = small_plan();
  dense.test.columns = dense.test.rows = 48;
  dense.rungs.resize(1);
  EXPECT_NE(run_program("pdfinfo " + written_pdf(publication_of(dense), "stations", folder))
                .second.find("Pages:           16"),
            std::string::npos)
      << "48 × 48 in parts of 12 × 12";
  record::TestRecord spots = small_plan();
  spots.test.grid_kind = "spots";
  spots.test.spots = R"([{"name":"under the left bar","x_m":0.3,"y_m":0.4},{"name":"door","x_m":0.6,"y_m":0.1}])";
  const auto text =
      run_program(fmt::format("pdftotext -layout {} -", written_pdf(publication_of(spots), "stations", folder))).second;
  EXPECT_TRUE(std::regex_search(text, std::regex("1 +under the left bar +30.0 across, 40.0 deep"))) << text;
}

/// Every still as a program that is not ours reads it: its size, and that its parts differ; words for those who cannot
/// see it.
TEST(Stills, ThreeShapesOfEverySweep) {
  TemporaryFolder folder;
  record::TestRecord with_card = sample_tests()[2];
  for (const auto& [stage, low, high] :
       {std::tuple{"seedlings", 150.0, 250.0}, std::tuple{"the end", 4000.0, 5000.0}}) {
    record::CardRow row;
    row.stage = stage, row.low_ppfd = low, row.high_ppfd = high, row.photoperiod_h = 18;
    with_card.card_rows.push_back(row);
  }
  const Publication p = publication_of(with_card);
  const auto sweeps = evaluation::read_sweeps(*p.evaluations.front()).size();
  const auto written =
      publishing::publish(p, std::vector{publishing::form_named("stills")}, folder.path(), exchange::Existing::Keep);
  ASSERT_EQ(written.size(), 1u);
  ASSERT_FALSE(written.front().problem);
  ASSERT_EQ(written.front().files.size(), 3 * (sweeps + 5) + 1)
      << "title, all sweeps, targets, card, claims, and one a sweep; the words";
  const std::string alts = content_of(written.front().files.back());
  for (const fs::path& file : written.front().files) {
    if (file.extension() != ".png") continue;
    const std::string name = file.filename().string();
    EXPECT_NE(alts.find(name + ": "), std::string::npos) << name;
    const auto [status, said] = run_program("pngcheck " + file.string());
    EXPECT_EQ(status, 0) << said;
    const std::string size = name.starts_with("wide")   ? "1920x1080"
                             : name.starts_with("tall") ? "1080x1920"
                                                        : "1200x1200";
    EXPECT_NE(said.find(size), std::string::npos) << name << ": " << said;
  }
  EXPECT_NE(alts.find("Mean PPFD, µmol/m²/s: "), std::string::npos);
  for (const char* words : {"wide-settings-card.png", "tall-targets.png", "square-claims.png", "seedlings: Height "})
    EXPECT_NE(alts.find(words), std::string::npos) << words;
}

/// All forms of a sample test into a folder: nothing twice, nothing over what is there, nothing half.
TEST(Publish, WritesAllFormsWholeOrNotAtAll) {
  TemporaryFolder folder;
  const Publication p = publication_of(sample_tests()[2]);
  const auto forms = every_form();
  const fs::path into = folder.path() / "new" / "folder";
  int told = 0;
  const auto first = publishing::publish(p, forms, into, exchange::Existing::Keep, [&](const Written&) { ++told; });
  ASSERT_GE(first.size(), 6u);
  EXPECT_EQ(told, static_cast<int>(first.size()));
  std::map<fs::path, std::string> written;
  for (const Written& w : first) {
    EXPECT_FALSE(w.problem) << w.problem->sentence();
    for (const fs::path& file : w.files) {
      written[file] = content_of(file);
      EXPECT_GT(written[file].size(), 300u) << file;
    }
  }
  std::size_t there = 0;
  for (const auto& entry : fs::recursive_directory_iterator(into)) there += entry.is_regular_file();
  EXPECT_EQ(there, written.size()) << "no other file is left behind";
  for (const Written& w : publishing::publish(p, forms, into, exchange::Existing::Keep)) {
    ASSERT_TRUE(w.problem);
    EXPECT_TRUE(w.files.empty());
  }
  for (const Written& w : publishing::publish(p, forms, into, exchange::Existing::Replace)) {
    EXPECT_FALSE(w.problem);
    for (const fs::path& file : w.files) EXPECT_TRUE(content_of(file) == written[file]) << "equal bytes: " << file;
  }
  std::stop_source stop;
  stop.request_stop();
  EXPECT_TRUE(
      publishing::publish(p, forms, folder.path() / "stopped", exchange::Existing::Keep, {}, stop.get_token()).empty());
  std::ofstream(folder.path() / "file") << "x";
  for (const Written& w : publishing::publish(p, forms, folder.path() / "file", exchange::Existing::Keep)) {
    ASSERT_TRUE(w.problem);
    EXPECT_FALSE(w.problem->remedy.empty());
  }
}

/// Texts that would be programs, formulas, templates or other writing directions, in every field through every form.
TEST(Publish, HostileTextsBreakNothing) {
  for (std::size_t first = 0; first < hostile_texts().size(); ++first) {
    TemporaryFolder folder;
    const record::TestRecord test = hostile_record(sample_tests()[first % 3 == 0 ? 5 : 2], first);
    const auto all = publishing::publish(publication_of(test), every_form(), folder.path(), exchange::Existing::Keep);
    ASSERT_GE(all.size(), 6u);
    for (const Written& w : all) {
      EXPECT_FALSE(w.problem) << w.problem->sentence();
      for (const fs::path& file : w.files) {
        EXPECT_TRUE(file.string().starts_with(folder.path().string() + "/"));
        EXPECT_EQ(file.string().find(".."), std::string::npos);
        EXPECT_LT(file.filename().string().size(), 120u);
        const std::string ending = file.extension().string();
        if (ending == ".html") {
          const std::string page = content_of(file);
          for (const char* act : {"<script>alert", "<img src=x", "<svg onload", "\xE2\x80\xAE", "\"'><"})
            EXPECT_EQ(page.find(act), std::string::npos) << file << " " << act;
        }
        if (ending == ".pdf") {
          const auto [status, said] = run_program(fmt::format("pdftotext {} -", file.string()));
          EXPECT_EQ(status, 0) << said;
        }
      }
    }
  }
}

TEST(Publish, FileNamesAreOfTheTitle) {
  EXPECT_EQ(publishing::file_stem("Ostler Six-Bar in the tent"), "ostler-six-bar-in-the-tent");
  EXPECT_EQ(publishing::file_stem("../../x"), "x");
  EXPECT_EQ(publishing::file_stem("???"), "test");
  EXPECT_EQ(publishing::file_stem("\xE2\x80\xAE"
                                  "lamp"),
            "lamp")
      << "no mark turns a name round";
  EXPECT_EQ(publishing::file_stem("Lüster 3"), "lüster-3");
  EXPECT_LE(publishing::file_stem(std::string(300, 'a')).size(), 80u);
}

}  // namespace sunbreak
