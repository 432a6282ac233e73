#include "workbook/workbook.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <fstream>
#include <map>
#include <sstream>

#include "core/figures/figure_table.h"
#include "core/quantity/number.h"
#include "evaluation/lineup/lineup.h"
#include "evaluation/read_sweeps.h"
#include "exchange/package/zip_archive.h"
#include "exchange/tables/delimited.h"
#include "publish/run_program.h"
#include "publish/sample_tests.h"

namespace sunbreak {
namespace {

namespace fs = std::filesystem;

/// A workbook's sheets as a spreadsheet program has them after working all formulas out anew; `set` changes cells
/// first.
std::map<int, exchange::Rows> recalculated(const std::string& bytes, const std::string& set = {}) {
  TemporaryFolder folder;
  const fs::path file = folder.path() / "book.xlsx";
  std::ofstream(file, std::ios::binary) << bytes;
  const auto [status, said] =
      run_program(fmt::format("cd {} && ssconvert --recalc {} -S book.xlsx sheet.%n.csv", folder.path().string(), set));
  EXPECT_EQ(status, 0) << said;
  EXPECT_EQ(said.find("orrupt"), std::string::npos) << said;
  std::map<int, exchange::Rows> sheets;
  for (int n = 0; fs::exists(folder.path() / fmt::format("sheet.{}.csv", n)); ++n) {
    std::ifstream in(folder.path() / fmt::format("sheet.{}.csv", n));
    std::ostringstream text;
    text << in.rdbuf();
    sheets[n] = exchange::split_verbatim(text.str());
  }
  return sheets;
}

double number_of(const std::string& cell) {
  const auto value = parse_number(cell);
  EXPECT_TRUE(value || cell.empty()) << cell;
  return value.value_or(unread);
}

/// The row of a figure by its label.
const std::vector<std::string>* row_of(const exchange::Rows& rows, std::string_view label) {
  for (const auto& row : rows)
    if (!row.empty() && row[0] == label) return &row;
  return nullptr;
}

}  // namespace

/// Every figure of every sweep of the sample book, as a spreadsheet program that is not ours works it out.
TEST(Workbook, ASpreadsheetProgramFindsTheSameFigures) {
  int compared = 0;
  for (const record::TestRecord& test : sample_tests()) {
    const auto all = evaluation::evaluate_all(test);
    const auto bytes = workbook::workbook_bytes(all);
    ASSERT_TRUE(bytes.ok()) << bytes.problem().sentence();
    const auto sheets = recalculated(bytes.value());
    ASSERT_GT(sheets.size(), 2u) << test.test.name;
    const exchange::Rows& sheet = sheets.at(0);
    const auto sweeps = evaluation::read_sweeps(*all.front());
    for (std::size_t s = 0; s < sweeps.size(); ++s) {
      const auto& [sweep, view] = sweeps[s];
      const SweepFigures* of = all.front()->figures(sweep->id);
      const FigureSource source(view->layout, view->ppfd, *of);
      for (const Figure& f : figures()) {
        const double value = f.value ? f.value(source) : unread;
        if (!std::isfinite(value)) continue;
        const auto* row = row_of(sheet, f.label);
        ASSERT_TRUE(row) << f.label;
        const double shown = value * shown_per_stored(f, UnitSystem::Metric);
        EXPECT_NEAR(number_of(row->at(2 + 2 * s)), shown, 1e-9 * std::max(1.0, std::abs(shown)))
            << test.test.name << ", " << f.label << ", sweep " << s;
        ++compared;
      }
    }
  }
  EXPECT_GT(compared, 500);
}

/// Half of the watts, twice the efficacy; twice the hours, twice the daily light.
TEST(Workbook, ItsFormulasAreLive) {
  const auto all = evaluation::evaluate_all(sample_tests().front());
  const std::string bytes = workbook::workbook_bytes(all).value();
  const auto before = recalculated(bytes);
  const auto at = [](const std::map<int, exchange::Rows>& sheets, const char* label) {
    return number_of(row_of(sheets.at(0), label)->at(2));
  };
  const double watts = number_of(row_of(before.at(0), "Watts at the wall")->at(2));
  const auto half = recalculated(bytes, fmt::format("--set='Figures!C5={}'", watts / 2));
  EXPECT_NEAR(at(half, "Canopy efficacy"), 2 * at(before, "Canopy efficacy"), 1e-9);
  const auto twice = recalculated(bytes, "--set='Figures!C6=24'");
  EXPECT_NEAR(at(twice, "Daily light (DLI)") / 24,
              at(before, "Daily light (DLI)") / number_of(row_of(before.at(0), "Hours of light a day")->at(2)), 1e-9);
  // The lowest reading is looked up in the sweep's own sheet.
  TemporaryFolder folder;
  const fs::path file = folder.path() / "book.zip";
  std::ofstream(file, std::ios::binary) << bytes;
  const std::string sheet = exchange::read_zip(file).value().at("xl/worksheets/sheet1.xml");
  EXPECT_NE(sheet.find("<f>MIN('60 cm 100 %'!B6:M17)</f>"), std::string::npos);
}

/// What users typed stays text, in every field that is told.
TEST(Workbook, HostileTextsAreTexts) {
  const std::string hostile[] = {"=HYPERLINK(\"http://x\",\"y\")",
                                 "<script>alert(1)</script>",
                                 "\"'&]]>{{title}}",
                                 "\xE2\x80\xAE"
                                 "right to left",
                                 std::string(40'000, 'x'),
                                 "\x01\x02 controls",
                                 "\xF0\x9F\x92\xA1 lamp",
                                 "[a]:b*c?d/e\\f"};
  for (const std::string& words : hostile) {
    record::TestRecord test = sample_tests().front();
    test.test.name = test.fixture.name = test.fixture.maker = test.test.tested_by = test.bench.name = words;
    for (record::Claim& claim : test.claims) claim.words = words;
    const auto bytes = workbook::workbook_bytes(evaluation::evaluate_all(test));
    ASSERT_TRUE(bytes.ok());
    const auto sheets = recalculated(bytes.value());
    ASSERT_GT(sheets.size(), 3u) << words.substr(0, 30);
    EXPECT_FALSE(sheets.at(0).at(0).at(0).empty());
    if (words.front() == '=') {
      EXPECT_EQ(sheets.at(0).at(0).at(0), words) << "no formula came of it";
    }
  }
}

TEST(Workbook, EqualTestsGiveEqualBytes) {
  const auto all = evaluation::evaluate_all(sample_tests()[1]);
  EXPECT_EQ(workbook::workbook_bytes(all).value(), workbook::workbook_bytes(all).value());
}

}  // namespace sunbreak
