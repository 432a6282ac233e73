#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <fstream>

#include "exchange/package/zip_archive.h"
#include "publish/run_program.h"
#include "publish/sample_tests.h"
#include "record/json.h"

namespace sunbreak {
namespace {

namespace fs = std::filesystem;

/// The command line's publishing of the sample book.
class PublishingCommands : public ::testing::Test {
 protected:
  void SetUp() override {
    book_ = (folder_.path() / "sample.sunbreak").string();
    fs::copy_file(book::sample_book_file(), book_);
  }
  std::pair<int, std::string> run(const std::string& arguments) {
    return run_program(std::string(SUNBREAK_CLI) + " " + arguments);
  }
  fs::path file(const char* name, const std::string& content) {
    std::ofstream(folder_.path() / name, std::ios::binary) << content;
    return folder_.path() / name;
  }
  TemporaryFolder folder_;
  std::string book_;
};

}  // namespace

TEST_F(PublishingCommands, VerifyTellsASoundPackageFromAnAlteredOne) {
  const std::string package = (folder_.path() / "test.zip").string();
  ASSERT_EQ(run("export " + book_ + " --test 2 --out " + package).first, 0);
  const auto [sound, words] = run("verify " + package + " --json");
  EXPECT_EQ(sound, 0) << words;
  const auto j = record::json_of(words);
  EXPECT_TRUE(j["sound"].truth());
  EXPECT_GT(j["values"].whole(), 1000);
  EXPECT_EQ(j["digest"].text().size(), 7u + 64u);
  exchange::Archive archive = exchange::read_zip(package).value();
  std::string& readings = archive.at("reading.csv");
  readings.replace(readings.find("\"simulated\""), 11, "\"live\"");
  const auto [altered, told] = run("verify " + file("altered.zip", exchange::zip_bytes(archive)).string());
  EXPECT_EQ(altered, 1);
  EXPECT_NE(told.find("differs: reading.csv was changed after it was written"), std::string::npos) << told;
  EXPECT_EQ(run("verify " + file("broken.zip", "no package").string()).first, 3);
}

TEST_F(PublishingCommands, ALineUpIsWrittenAsPageWorkbookTableAndStills) {
  const fs::path out = folder_.path() / "line-up";
  const auto [status, said] = run("line-up " + book_ + " --by power_w --publish " + out.string() + " --json");
  ASSERT_EQ(status, 0) << said;
  for (const char* ending : {".html", ".xlsx", ".csv", "-stills/alt-texts.txt"})
    EXPECT_TRUE(fs::exists(out.string() + "/line-up-by-wall-power" + ending)) << ending << said;
  const fs::path stills = out / "line-up-by-wall-power-stills";
  for (const char* shape : {"wide", "tall", "square"})
    for (const char* name : {"line-up", "side-by-side"}) {
      const auto [sound, words] = run_program(fmt::format("pngcheck {}/{}-{}.png", stills.string(), shape, name));
      EXPECT_EQ(sound, 0) << words;
    }
  std::ifstream in(stills / "alt-texts.txt");
  const std::string alts(std::istreambuf_iterator<char>(in), {});
  EXPECT_NE(alts.find("Line-up by Wall power. 1 of "), std::string::npos) << alts;
  EXPECT_EQ(run("line-up " + book_ + " --by power_w --publish " + out.string()).first, 3) << "nothing is written over";
  EXPECT_EQ(
      run("line-up " + book_ + " --by power_w --force --pair 'Bess 400 in the tent' nobody --publish " + out.string())
          .first,
      3);
}

TEST_F(PublishingCommands, APageSaysWhereItsTestStands) {
  const auto [lined, answer] = run("line-up " + book_ + " --json");
  ASSERT_EQ(lined, 0) << answer;
  const auto rows = record::json_of(answer)["rows"];
  const auto own =
      std::ranges::find_if(rows, [](const auto& r) { return r["test"] == "Pell Narrow 300 on the loft floor"; });
  ASSERT_NE(own, rows.end());
  const fs::path out = folder_.path() / "standing";
  for (const char* test : {"2", "3"})
    ASSERT_EQ(run(std::string("publish ") + book_ + " --form page --test " + test + " -o " + out.string()).first, 0);
  const auto page_of = [&](const char* name) {
    std::ifstream in(out / name);
    return std::string(std::istreambuf_iterator<char>(in), {});
  };
  const std::string page = page_of("brindle-panel-135-in-the-tent.html");
  const std::size_t section = page.find("<h2 id=\"line-up\">");
  ASSERT_NE(section, std::string::npos);
  for (const auto& r : rows) {
    const bool together = r["rank_of"] == 5;
    EXPECT_EQ(page.find(">" + r["test"].text() + "<", section) != std::string::npos, together) << r["test"].text();
  }
  EXPECT_NE(page.find("Each at its walked height nearest to 60 cm", section), std::string::npos) << "the declared way";
  EXPECT_EQ(page_of("pell-narrow-300-on-the-loft-floor.html").find("<h2 id=\"line-up\">"), std::string::npos)
      << "nothing may be held against it";
}

TEST_F(PublishingCommands, PublishWritesTheFormsThatAreAskedFor) {
  const std::string out = (folder_.path() / "out").string();
  const auto [some, words] = run("publish " + book_ + " --test 4 --form stations --form workbook -o " + out);
  ASSERT_EQ(some, 0) << words;
  EXPECT_EQ(std::ranges::count(words, '\n'), 2);
  EXPECT_TRUE(fs::exists(fs::path(out) / "wicket-four-tube-in-the-window-bay-stations.pdf"));
  EXPECT_TRUE(fs::exists(fs::path(out) / "wicket-four-tube-in-the-window-bay.xlsx"));
  EXPECT_EQ(run("publish " + book_ + " --test 4 --form stations -o " + out).first, 3) << "nothing is written over";
  EXPECT_EQ(run("publish " + book_ + " --test 4 --form stations --force -o " + out).first, 0);
  const auto [none, why] = run("publish " + book_ + " --test 4 --form film -o " + out);
  EXPECT_EQ(none, 3);
  EXPECT_NE(why.find("choose among page, pdf"), std::string::npos) << why;
}

TEST_F(PublishingCommands, APackageIsTheSameInAnyUnitAndComesOutOfItsReadings) {
  std::vector<std::string> packages;
  for (const char* units : {"", "--imperial"}) {
    const fs::path out = folder_.path() / fmt::format("out{}", units);
    const auto [status, words] =
        run(fmt::format("publish {} --test 2 --form package {} -o {}", book_, units, out.string()));
    ASSERT_EQ(status, 0) << words;
    for (const auto& entry : fs::directory_iterator(out)) {
      std::ifstream in(entry.path(), std::ios::binary);
      packages.emplace_back(std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>());
      EXPECT_EQ(run("verify " + entry.path().string()).first, 0) << units;
    }
  }
  ASSERT_EQ(packages.size(), 2u);
  EXPECT_TRUE(packages[0] == packages[1]) << "not one byte differs";
}

}  // namespace sunbreak
