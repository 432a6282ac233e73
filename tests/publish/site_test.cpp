#include "publishing/site.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <fstream>
#include <sstream>

#include "publish/run_program.h"
#include "publish/sample_tests.h"

namespace sunbreak {
namespace {

namespace fs = std::filesystem;
using publishing::SiteFiles;
using publishing::write_site;

std::string text_of_file(const fs::path& file) {
  std::ifstream in(file, std::ios::binary);
  std::ostringstream bytes;
  bytes << in.rdbuf();
  return bytes.str();
}

}  // namespace

/// Only what changed is written; what is gone goes; what somebody else changed or put there stays.
TEST(Site, TouchesWhatChangedAlone) {
  TemporaryFolder folder;
  const fs::path site = folder.path() / "site";
  SiteFiles files{{"index.html", "one"}, {"tests/a.html", "a"}, {"tests/b.html", "b"}};
  auto outcome = write_site(files, site);
  EXPECT_FALSE(outcome.problem);
  EXPECT_EQ(outcome.written.size(), 3u);
  const auto touched = fs::last_write_time(site / "tests/a.html");
  EXPECT_EQ(write_site(files, site).unchanged, 3);
  EXPECT_EQ(fs::last_write_time(site / "tests/a.html"), touched);

  files["index.html"] = "two";
  files.erase("tests/b.html");
  outcome = write_site(files, site);
  EXPECT_EQ(outcome.written, std::vector<std::string>{"index.html"});
  EXPECT_EQ(outcome.removed, std::vector<std::string>{"tests/b.html"});
  EXPECT_FALSE(fs::exists(site / "tests/b.html"));

  std::ofstream(site / "tests/a.html") << "mine";
  std::ofstream(site / "notes.html") << "mine too";
  files["tests/a.html"] = "a again", files["notes.html"] = "ours";
  outcome = write_site(files, site);
  EXPECT_EQ(outcome.left_alone, (std::vector<std::string>{"notes.html", "tests/a.html"}));
  EXPECT_EQ(text_of_file(site / "tests/a.html"), "mine");
  EXPECT_EQ(text_of_file(site / "notes.html"), "mine too");

  // What is kept beside the site cannot lead out of it, nor can its damage do harm.
  std::ofstream(folder.path() / "outside") << "x";
  std::ofstream(site / "site.json")
      << R"({"files": {"../outside": "2d711642b726b04401627ca9fbac32f5c8530fb1903cc4db02258717921a4881"}})";
  write_site(files, site);
  EXPECT_TRUE(fs::exists(folder.path() / "outside"));
  std::ofstream(site / "site.json") << "no json";
  EXPECT_FALSE(write_site(files, site).problem);

  std::ofstream(folder.path() / "file") << "x";
  EXPECT_TRUE(write_site(files, folder.path() / "file").problem);
}

TEST(Site, WhatIsKeptStaysAndIsNamedWhereSomebodyChangedIt) {
  TemporaryFolder folder;
  const fs::path site = folder.path() / "site";
  const publishing::SiteMemory memory{{"tests/a.html", {"token", {"1", "A", "tests/a.html", "s", "2026-01-02"}}}};
  write_site({{"index.html", "one"}, {"tests/a.html", "a"}}, site, {}, memory);
  EXPECT_EQ(publishing::remembered(site), memory);
  auto outcome = write_site({{"index.html", "one"}}, site, {"tests/a.html"}, memory);
  EXPECT_EQ(outcome.unchanged, 2);
  EXPECT_TRUE(outcome.removed.empty());
  EXPECT_EQ(text_of_file(site / "tests/a.html"), "a");
  std::ofstream(site / "tests/a.html") << "mine";
  outcome = write_site({{"index.html", "one"}}, site, {"tests/a.html"}, memory);
  EXPECT_EQ(outcome.left_alone, std::vector<std::string>{"tests/a.html"});
  EXPECT_EQ(text_of_file(site / "tests/a.html"), "mine");
}

TEST(Site, TheFeedIsXmlWhateverTitlesAre) {
  TemporaryFolder folder;
  const fs::path file = folder.path() / "feed.xml";
  std::ofstream(file) << publishing::atom_feed(
      "a <b> & \"c\"", {{"1", "<script>alert(1)</script>", "tests/a.html", "x \x01 ]]> & y", "2026-03-14"},
                        {"2", "later", "tests/b.html", "", "2026-05-01"},
                        {"3", "undated", "tests/c.html", "", ""}});
  const auto [status, said] = run_program(fmt::format(
      "/usr/bin/python3 -c \"import sys, xml.etree.ElementTree as e; f = e.parse(sys.argv[1]).getroot(); "
      "a = '{{http://www.w3.org/2005/Atom}}'; print([x.find(a + 'title').text for x in f.findall(a + 'entry')])\" {}",
      file.string()));
  EXPECT_EQ(status, 0) << said;
  EXPECT_EQ(said, "['later', '<script>alert(1)</script>', 'undated']\n");
  const std::string placed =
      publishing::atom_feed("c", {{"1", "a", "tests/a.html", "", ""}}, "https://tests.example/x");
  EXPECT_NE(placed.find("<link href=\"https://tests.example/x/tests/a.html\"/>"), std::string::npos) << placed;
}

/// The sample book's site by the command line: no link leads nowhere, by a link checker that is not ours.
TEST(Site, EveryLinkOfTheSampleBooksSiteLeadsSomewhere) {
  TemporaryFolder folder;
  const std::string book = (folder.path() / "sample.sunbreak").string(), site = (folder.path() / "site").string();
  fs::copy_file(book::sample_book_file(), book);
  const auto [status, said] =
      run_program(fmt::format("{} site {} -o {} --by lowest_over_mean", SUNBREAK_CLI, book, site));
  ASSERT_EQ(status, 0) << said;
  fs::permissions(folder.path(), fs::perms(0755));  // where root asks, the checker looks as nobody
  const auto [links, words] = run_program(fmt::format("linkchecker --no-warnings {}/index.html", site));
  EXPECT_EQ(links, 0) << words;
  EXPECT_NE(words.find("0 errors found"), std::string::npos) << words;
  const std::string index = text_of_file(fs::path(site) / "index.html");
  EXPECT_NE(index.find("1 to 2 of 5"), std::string::npos);
  EXPECT_NE(index.find("Not to be held against those above"), std::string::npos);
  EXPECT_EQ(publishing::remembered(site).size(), 6u) << "all but the one held against a lamp on record, and the retest";
}

/// Of a site that is there already, what its tests have changed of is written, and nothing else.
TEST(Site, OnceMoreWritesOnlyWhatChanged) {
  TemporaryFolder folder;
  const std::string book = (folder.path() / "two.sunbreak").string(), site = (folder.path() / "site").string();
  fs::copy_file(book::sample_book_file(), book);
  const auto change = [&](const std::function<void(book::Book&)>& by) {
    auto opened = book::Book::open(book);
    by(*opened.value());
  };
  change([](book::Book& b) {
    for (record::Test test : b.all<record::Test>())
      if (test.id != 2 && test.id != 4) test.removed = true, b.edit("off", [&](book::Edit& e) { e.save(test); });
  });
  const std::string again = fmt::format("{} site {} -o {}", SUNBREAK_CLI, book, site);
  ASSERT_EQ(run_program(again).first, 0);
  const auto [unchanged, quiet] = run_program(again);
  EXPECT_EQ(unchanged, 0);
  EXPECT_EQ(quiet.find("written\t"), std::string::npos) << quiet;
  change([](book::Book& b) {
    record::Test test = *b.find<record::Test>(4);
    test.notes = "moved a hand to the left";
    b.edit("note", [&](book::Edit& e) { e.save(test); });
  });
  const auto [changed, said] = run_program(again);
  EXPECT_EQ(changed, 0);
  EXPECT_NE(said.find("written\ttests/wicket-four-tube-in-the-window-bay.html"), std::string::npos) << said;
  EXPECT_EQ(said.find("written\ttests/brindle"), std::string::npos) << said;
  EXPECT_EQ(run_program(fmt::format("{} verify {}/tests/brindle-panel-135-in-the-tent.zip", SUNBREAK_CLI, site)).first,
            0);
}

}  // namespace sunbreak
