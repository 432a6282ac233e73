#include <fmt/format.h>
#include <gtest/gtest.h>

#include <fstream>
#include <sstream>

#include "book/demo/demo_book.h"
#include "book/temporary_book.h"
#include "book/test_rows.h"
#include "evaluation/provenance.h"
#include "exchange/files/new_file.h"
#include "exchange/package/csv_writer.h"
#include "exchange/package/data_package.h"
#include "record/renumber.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::evaluation;
using namespace sunbreak::exchange;
using namespace sunbreak::book;

namespace {

const std::vector<TestRecord>& demo_tests() {
  static const std::vector<TestRecord> tests = [] {
    TemporaryBook book;
    fill_demo(*book);
    EXPECT_FALSE(book->undo_label().has_value()) << "the sample book is not an edit of one's own";
    std::vector<TestRecord> all;
    for (const record::Test& test : book->all<record::Test>()) all.push_back(book.test_record(test.id));
    return all;
  }();
  return tests;
}

const TestRecord& demo_record() {
  for (const TestRecord& test : demo_tests())
    if (test.fixture.name == "Marrow Row") return test;
  throw std::runtime_error("the demo has no Marrow Row");
}

}  // namespace

TEST(DataPackage, ReadsBackWithoutLoss) {
  const TestRecord& b = demo_record();
  const auto back = read_package(make_package(b));
  ASSERT_TRUE(back.ok()) << back.problem().sentence();
  EXPECT_EQ(back.value(), with_plain_ids(b));
}

TEST(DataPackage, AnotherLabBookTakesItInAndGivesTheSameOut) {
  TemporaryBook other;
  other.add_test();
  const Id id = add_test(*other, read_package(make_package(demo_record())).value(), "bring in");
  EXPECT_EQ(with_plain_ids(other.test_record(id)), with_plain_ids(demo_record()));
  EXPECT_EQ(make_package(other.test_record(id)), make_package(demo_record()));
  other->undo();
  EXPECT_EQ(other->all<record::Test>().size(), 1u);
}

TEST(DataPackage, TextOfEveryKindSurvives) {
  TestRecord b = demo_record();
  b.fixture.name = "=HYPERLINK(\"x\",\"y\")";
  b.fixture.notes = "line one\nline two, with \"quotes\"; ' and \t tab";
  b.test.notes = "+1 -2 @3 µmol ÷ 漢字 <b>&amp;</b>\r\nend";
  b.bench.notes = "  spaces  ";
  const auto back = read_package(make_package(b));
  ASSERT_TRUE(back.ok());
  EXPECT_EQ(back.value(), with_plain_ids(b));
}

TEST(DataPackage, ZipFilesGoThroughTheDisk) {
  TemporaryBook folder;
  const auto file = folder.folder() / "a.zip";
  write_new_file(file, zip_bytes(make_package(demo_record())));
  const auto back = read_package_file(file);
  ASSERT_TRUE(back.ok()) << back.problem().sentence();
  EXPECT_EQ(back.value(), with_plain_ids(demo_record()));
}

TEST(DataPackage, WhatItCannotTakeIsRefusedWithThePlace) {
  const Archive good = make_package(demo_record());
  const auto refused = [&](const std::string& member, const std::string& from, const std::string& to) {
    Archive bad = good;
    std::string& text = bad.at(member);
    const auto at = text.find(from);
    EXPECT_NE(at, std::string::npos) << from;
    if (at != std::string::npos) text.replace(at, from.size(), to);
    return read_package(bad);
  };
  Archive without = good;
  without.erase("reading.csv");
  EXPECT_FALSE(read_package(without).ok());
  EXPECT_FALSE(read_package({}).ok());
  EXPECT_FALSE(read_package({{"datapackage.json", "{"}}).ok());
  const auto broken = refused("reading.csv", "\n1,", "\nx,");
  ASSERT_FALSE(broken.ok());
  EXPECT_NE(broken.problem().sentence().find("reading"), std::string::npos);
}

TEST(DataPackage, ATornZipIsRefused) {
  TemporaryBook folder;
  const auto file = folder.folder() / "a.zip";
  write_new_file(file, zip_bytes(make_package(demo_record())));
  std::filesystem::resize_file(file, std::filesystem::file_size(file) / 2);
  EXPECT_FALSE(read_package_file(file).ok());
  std::ofstream(file) << "no zip at all";
  EXPECT_FALSE(read_package_file(file).ok());
}

TEST(SpreadsheetCsv, FormulasAreDefused) {
  for (const char* sign : {"=1+1", "+1", "-1", "@x", "|x", "\uFF1D1+1", "\uFF0B1", "\uFF0D1", "\uFF20x"})
    for (const char* unseen : {"", " ", "\u200B", "\uFEFF", "\u00A0\u2060", "\u3000"})
      EXPECT_EQ(spreadsheet_cell(std::string(unseen) + sign), fmt::format("\"{}'{}\"", unseen, sign));
  EXPECT_EQ(spreadsheet_cell("\u202E=1"), "\"'=1\"") << "a mark of direction is dropped, and what it hid defused";
  EXPECT_EQ(spreadsheet_cell("a\r\n=1\tb\x1b\u009B"), "\"a\u240D\u240A=1\u2409b\u241B\uFFFD\"") << "one line, one cell";
  EXPECT_EQ(spreadsheet_cell("plain").find('\''), std::string::npos);
  EXPECT_EQ(spreadsheet_cell("a; =1+1"), "\"a; '=1+1\"") << "where semicolons part the cells";
  EXPECT_EQ(spreadsheet_cell("a-b, c+d"), "\"a-b, c+d\"");
  TestRecord b = demo_record();
  b.fixture.name = "=cmd()";
  b.test.name = "=cmd()";
  const std::string csv = spreadsheet_csv({evaluate(b)});
  EXPECT_EQ(csv.find(",\"=cmd"), std::string::npos);
  EXPECT_NE(csv.find("\n"), std::string::npos);
}

TEST(Demo, IsTheSameEveryTimeAndMarkedAsSimulated) {
  TemporaryBook again;
  fill_demo(*again);
  ASSERT_EQ(demo_tests().size(), 8u);
  for (const TestRecord& test : demo_tests()) {
    EXPECT_TRUE(test.test.simulated);
    EXPECT_EQ(test, again.test_record(test.test.id));
  }
  EXPECT_EQ(make_package(demo_record()), make_package(again.test_record(demo_record().test.id)));
}

TEST(Demo, HoldsTheTruthsPlantedInIt) {
  std::map<std::string, SweepFigures> first;
  for (const TestRecord& b : demo_tests()) {
    const auto view = view_sweep(b, b.sweeps[0]).value();
    first.emplace(b.fixture.name,
                  *sweep_figures(view.layout, view.ppfd, figure_context(b, b.sweeps[0], usual_metric_sizes())));
  }
  EXPECT_NEAR(*first.at("Pell Narrow 300").power_w, 228, 0.5);
  EXPECT_NEAR(*first.at("Bess 400").power_w, 434, 0.5);
  EXPECT_LT(first.at("Pell Narrow 300").evenness.lowest_over_mean, 0.5) << "strong hot spot";
  EXPECT_GT(first.at("Ostler Six-Bar").evenness.lowest_over_mean, 0.7);
  EXPECT_GT(first.at("Ostler Six-Bar").balance.centroid_x_m, 0) << "hung off center to the right";
  EXPECT_LT(first.at("Ostler Six-Bar").efficacy->canopy_efficacy_umol_j, 2.8) << "walls take some";
}

TEST(DataPackage, EveryColumnIsDocumented) {
  std::stringstream formats;
  formats << std::ifstream(FORMATS_PAGE).rdbuf();
  ASSERT_FALSE(formats.str().empty());
  for (const auto& [name, content] : make_package(demo_record())) {
    if (!name.ends_with(".csv")) continue;
    EXPECT_NE(formats.str().find("### " + name), std::string::npos) << name;
    std::stringstream header(content.substr(0, content.find('\r')));
    for (std::string column; std::getline(header, column, ',');)
      EXPECT_TRUE(column == "id" || formats.str().find("| " + column + " |") != std::string::npos)
          << name << ": " << column;
  }
}

/// What was altered once says so for ever: through every door, and whatever it is written as.
TEST(DataPackage, AnAlteredOneStaysMarkedThroughExportAndImport) {
  TemporaryBook book;
  Archive archive = make_package(demo_record());
  ASSERT_EQ(demo_record().test.altered, "");
  std::string& readings = archive.at("figures.csv");
  const std::size_t digit = readings.find_last_of("123456789");
  readings[digit] = readings[digit] == '9' ? '8' : '9';
  const auto file = book.folder() / "boast.zip";
  ASSERT_FALSE(write_new_file(file, zip_bytes(archive)));
  const auto read = read_package_file(file);
  ASSERT_TRUE(read.ok()) << read.problem().sentence();
  const std::string altered = read.value().test.altered;
  EXPECT_NE(altered, "");
  const auto again = book.folder() / "laundered.zip";
  const Id id = add_test(*book, read.value(), "import");
  ASSERT_FALSE(write_new_file(again, zip_bytes(make_package(book.test_record(id)))));
  const auto back = read_package_file(again);
  ASSERT_TRUE(back.ok());
  EXPECT_EQ(back.value().test.altered, altered);
  const Evaluations all = evaluate_all(back.value());
  EXPECT_NE(provenance_words(all, UnitSystem::Metric).find(altered_on_its_way), std::string::npos);
  EXPECT_EQ(weakest_grade(all), Grade::Spot);
  EXPECT_EQ(provenance_words(evaluate_all(demo_record()), UnitSystem::Metric).find(altered_on_its_way),
            std::string::npos);
}
