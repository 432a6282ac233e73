#include <gtest/gtest.h>

#include <fmt/format.h>

#include <fstream>
#include <set>

#include "book/temporary_book.h"
#include "evaluation/crop_targets.h"
#include "exchange/files/companions.h"
#include "exchange/files/new_file.h"
#include "exchange/package/data_package.h"
#include "gathering/entry_cache.h"
#include "gathering/line_up_json.h"
#include "gathering/line_up_work.h"
#include "gathering/members.h"

namespace sunbreak::gathering {
namespace {

namespace fs = std::filesystem;
using book::TemporaryBook;
using evaluation::Entrant;
using record::Id;

Id read_test(TemporaryBook& book, double level) {
  const auto plan = book.test_record(book.add_test());
  book::plan_grid(*book, plan, Grid{GridKind::Cells, 4, 4, 0, 0, {}});
  const auto test = book.test_record(plan.test.id);
  Id sweep = 0;
  book->edit("sweep", [&](book::Edit& e) {
    record::Sweep s = book::sweep_for(e, test, test.rungs[0].id, test.stops[0].id);
    s.power_w = 100;
    e.save(s);
    sweep = s.id;
    for (int i = 0; i < 16; ++i) e.accept({0, s.id, i, level + i, "typed", book::utc_now()});
  });
  return test.test.id;
}

ReadyLineUp ready(const std::vector<Entrant>& entrants, const char* figure = "mean_ppfd") {
  record::SavedLineUp asked;
  asked.figure = figure;
  return ready_line_up(asked, entrants, evaluation::shipped_targets()).value();
}

double mean_of(const evaluation::LineUpEntry& e) {
  return e.figures[static_cast<std::size_t>(evaluation::lineup_figure_index("mean_ppfd"))].value;
}

TEST(EntrantsTest, AreToldWithoutTheirReadings) {
  TemporaryBook book;
  const Id first = read_test(book, 300), second = read_test(book, 400);
  auto entrants = entrants_of(*book);
  ASSERT_EQ(entrants.size(), 2u);
  EXPECT_EQ(entrants[0].test_id, first);
  EXPECT_EQ(entrants[1].test_id, second);
  EXPECT_FALSE(entrants[0].content.empty());
  EXPECT_NE(entrants[0].content, entrants[1].content);
  book->edit("take away", [&](book::Edit& e) {
    record::Test t = *book->find<record::Test>(first);
    t.removed = true;
    e.save(t);
  });
  EXPECT_EQ(entrants_of(*book).size(), 1u);
}

/// A content has one name, and no other content has it: not after a reading, an undo, a change of the sensor.
TEST(EntrantsTest, TheirContentIsToldApart) {
  TemporaryBook book;
  const Id test = read_test(book, 300), other = read_test(book, 400);
  const auto content = [&](Id id) {
    for (const Entrant& e : entrants_of(*book))
      if (e.test_id == id) return e.content;
    return std::string();
  };
  std::set<std::string> seen{content(test)};
  const std::string others = content(other);
  EXPECT_EQ(content(test), *seen.begin()) << "asking changes nothing";
  const auto changed = [&](const char* what) { EXPECT_TRUE(seen.insert(content(test)).second) << what; };
  const Id sweep = book.test_record(test).sweeps.front().id;
  book.read(sweep, 3, 111);
  changed("a reading");
  book->undo();
  changed("undone: as good as new, and worked out again");
  book->redo();
  changed("redone");
  record::LogPart part;
  part.test_id = test;
  book->keep(part);
  changed("a log that was recorded");
  EXPECT_EQ(content(other), others) << "nothing of it touched the other";
  book->edit("fixture", [&](book::Edit& e) {
    record::Fixture f = book.test_record(test).fixture;
    f.emitters = "LED";
    e.save(f);
  });
  changed("the fixture on the shelf");
  book.close();
  book.open();
  EXPECT_FALSE(seen.insert(content(test)).second) << "opening a book changes nothing";
}

TEST(EntryCacheTest, IsFilledOnceAndFollowsTheBook) {
  TemporaryBook book;
  const Id test = read_test(book, 300);
  read_test(book, 400);
  auto entrants = entrants_of(*book);
  const ReadyLineUp r = ready(entrants);
  int worked = 0;
  const auto fill = [&] {
    EntryStore store;
    int first = -1;
    const auto entries = fill_entries(entrants, r.question, book.file(), store, UnitSystem::Metric, {},
                                      [&](const Filling& f) { first = first < 0 ? f.done : first; });
    worked = static_cast<int>(entries.size()) - first;
    return entries;
  };
  EXPECT_NEAR(mean_of(*fill()[0]), 307.5, 1e-9);
  EXPECT_EQ(worked, 2);
  ASSERT_TRUE(fs::exists(exchange::cache_beside(book.file())));
  EXPECT_NEAR(mean_of(*fill()[1]), 407.5, 1e-9);
  EXPECT_EQ(worked, 0) << "both were kept";
  book.read(book.test_record(test).sweeps.front().id, 0, 460);
  entrants = entrants_of(*book);
  EXPECT_NEAR(mean_of(*fill()[0]), 317.5, 1e-9);
  EXPECT_EQ(worked, 1) << "the other stands";
  // Away, damaged, or a folder in its place: as good as none.
  fs::remove(exchange::cache_beside(book.file()));
  fill();
  EXPECT_EQ(worked, 2);
  std::ofstream(exchange::cache_beside(book.file())) << "no database";
  EXPECT_NEAR(mean_of(*fill()[0]), 317.5, 1e-9);
  EXPECT_EQ(worked, 2);
  fill();
  EXPECT_EQ(worked, 0) << "made anew";
  for (const char* tail : {"", "-wal", "-shm"}) fs::remove(exchange::cache_beside(book.file()).string() + tail);
  fs::create_directory(exchange::cache_beside(book.file()));
  std::ofstream(exchange::cache_beside(book.file()) / "full") << "x";
  EXPECT_NEAR(mean_of(*fill()[0]), 317.5, 1e-9);
  fill();
  EXPECT_EQ(worked, 2) << "nothing can be kept there";
}

TEST(EntryCacheTest, WhatWasUsedLastStaysWhereItGrowsTooLarge) {
  TemporaryBook book;
  constexpr std::size_t entry_bytes = 100'000;
  const auto key = [](int i) { return std::to_string(i); };
  const auto kept = [&](EntryCache& cache, int first, int last) {
    std::vector<std::string> keys;
    for (int i = first; i < last; ++i) keys.push_back(key(i));
    int found = 0;
    cache.find(keys, [&](std::size_t, std::string_view) { ++found; });
    return found;
  };
  EntryCache cache = EntryCache::beside(book.file(), 20 * entry_bytes);
  for (int day = 0; day < 5; ++day) {
    std::map<std::string, std::string> found;
    for (int i = 8 * day; i < 8 * day + 8; ++i) found[key(i)] = std::string(entry_bytes, 'x');
    cache.keep(found);
    EXPECT_EQ(kept(cache, 8 * day, 8 * day + 8), 8) << "what was just kept, all of one day";
  }
  EXPECT_EQ(kept(cache, 0, 16), 0);
  EXPECT_GE(kept(cache, 0, 40), 16);
  // What was dropped leaves free pages: they are room, not weight.
  cache.keep({{"small", "x"}});
  EXPECT_GE(kept(cache, 0, 40), 16);
}

TEST(EntryCacheTest, ACancelKeepsWhatIsDone) {
  TemporaryBook book;
  for (int i = 0; i < 12; ++i) read_test(book, 300 + i);
  const auto entrants = entrants_of(*book);
  const ReadyLineUp r = ready(entrants);
  EntryStore store;
  std::stop_source stop;
  const auto entries = fill_entries(
      entrants, r.question, book.file(), store, UnitSystem::Metric, stop.get_token(),
      [&](const Filling& f) {
        if (f.done >= 3) stop.request_stop();
      },
      1);
  const auto done = std::ranges::count_if(entries, [](const auto& e) { return e != nullptr; });
  EXPECT_GE(done, 3);
  EXPECT_LT(done, 12);
  EXPECT_EQ(std::ranges::count_if(kept_entries(entrants, r.question, book.file(), store),
                                  [](const auto& e) { return e != nullptr; }),
            done);
}

// Guests.

/// A sound package's files, to be damaged.
exchange::Archive sound_package(int number) {
  TemporaryBook book;
  const Id test = read_test(book, 300 + number);
  book->edit("name", [&](book::Edit& e) {
    record::Test t = *book->find<record::Test>(test);
    t.name = fmt::format("guest {}", number), t.tested_by = "Ferry Lane", t.tested_on = "2026-05-01";
    e.save(t);
  });
  return exchange::make_package(book.test_record(test));
}

void replace_in(std::string& text, const std::string& from, const std::string& to) {
  const auto at = text.find(from);
  ASSERT_NE(at, std::string::npos) << from;
  text.replace(at, from.size(), to);
}

/// The bytes of a package damaged in one of 30 ways.
std::string damaged(int way) {
  exchange::Archive a = sound_package(900 + way);
  const std::string whole = exchange::zip_bytes(a);
  const auto table = [&](const char* name) -> std::string& { return a.at(std::string(name) + ".csv"); };
  const auto zipped = [&] { return exchange::zip_bytes(a); };
  switch (way) {
    case 0:
      return "";
    case 1:
      return "this is no zip";
    case 2:
      return whole.substr(0, whole.size() / 2);
    case 3:
      return whole.substr(0, 40);
    case 4:
      return whole.substr(0, whole.size() - 8);
    case 5:
      return whole.substr(whole.size() / 3);
    case 6: {
      std::string flipped = whole;
      for (std::size_t i = 60; i < flipped.size(); i += 200) flipped[i] = static_cast<char>(flipped[i] ^ 0x55);
      return flipped;
    }
    case 7:
      a.erase("datapackage.json");
      return zipped();
    case 8:
      a.at("datapackage.json") = "{";
      return zipped();
    case 9:
      a.at("datapackage.json") = "[]";
      return zipped();
    case 10:
      a.erase("test.csv");
      return zipped();
    case 11:
      a.erase("reading.csv");
      return zipped();
    case 12:
      a.erase("bench.csv");
      return zipped();
    case 13:
      a.erase("fixture.csv");
      return zipped();
    case 14:
      a.erase("sweep.csv");
      return zipped();
    case 15:
      a.erase("placement.csv");
      return zipped();
    case 16:
      table("reading") = "";
      return zipped();
    case 17:
      replace_in(table("reading"), "raw", "row");
      return zipped();
    case 18:
      replace_in(table("test"), "\n", "\n\n\n\"");
      return zipped();
    case 19:
      replace_in(table("bench"), "1.2", "wide");
      return zipped();
    case 20:
      replace_in(table("bench"), "1.2", "-1.2");
      return zipped();
    case 21:
      replace_in(table("bench"), "1.2", "1e300");
      return zipped();
    case 22:
      replace_in(table("test"), "cells", "circles");
      return zipped();
    case 23:
      replace_in(table("sweep"), "cells", "cubes");
      return zipped();
    case 24:
      table("test") += table("test").substr(table("test").find('\n') + 1);
      return zipped();
    case 25:
      table("bench") = table("bench").substr(0, table("bench").find('\n') + 1);
      return zipped();
    case 26:
      table("fixture") = std::string(1000, '\0');
      return zipped();
    case 27:
      table("reading") = "\xff\xfe" + table("reading");
      return zipped();
    case 28:
      table("test") = table("test").substr(0, table("test").size() / 2);
      return zipped();
    default:
      table("sweep") = table("placement");
      return zipped();
  }
}

/// 300 packages, 30 of them damaged in 30 ways: all sound ones are in, each other is named with its reason, and the
/// files stay as they are.
TEST(GuestsTest, AFolderOfThreeHundred) {
  TemporaryBook folder;
  const fs::path guests = folder.folder() / "guests";
  fs::create_directory(guests);
  constexpr int packages = 300, bad = 30;
  std::map<fs::path, std::string> written;
  std::set<fs::path> damaged_files;
  const exchange::Archive sound = sound_package(0);
  for (int n = 0; n < packages; ++n) {
    const fs::path file = guests / fmt::format("package-{:03}.zip", n);
    std::string bytes;
    if (n % (packages / bad) == 4) {
      bytes = damaged(n / (packages / bad));
      damaged_files.insert(file);
    } else {
      exchange::Archive a = sound;
      std::string& test = a.at("test.csv");
      test.replace(test.find("guest 0"), 7, fmt::format("guest {}", n));
      bytes = exchange::zip_bytes(a);
    }
    std::ofstream(file, std::ios::binary) << bytes;
    written[file] = bytes;
  }
  std::ofstream(guests / "notes.txt") << "no package";
  const Guests found = guests_from({guests});
  EXPECT_EQ(found.tests.size(), packages - bad);
  std::set<fs::path> refused;
  for (const RefusedGuest& r : found.refused) {
    refused.insert(r.file);
    EXPECT_FALSE(r.problem.seen.empty()) << r.file;
  }
  EXPECT_EQ(refused, damaged_files);
  for (const auto& [file, bytes] : written) {
    std::ifstream in(file, std::ios::binary);
    EXPECT_EQ(std::string(std::istreambuf_iterator<char>(in), {}), bytes) << file;
  }
  std::vector<Entrant> entrants;
  for (const Guests::One& one : found.tests) {
    EXPECT_EQ(one.entrants.front().tester, "Ferry Lane");
    EXPECT_EQ(one.entrants.front().tested_on, "2026-05-01");
    entrants.push_back(one.entrants.front());
  }
  EntryStore store;
  for (const auto& e : fill_entries(entrants, ready(entrants).question, {}, store)) {
    ASSERT_TRUE(e && !e->none);
    EXPECT_NEAR(mean_of(*e), 307.5, 1e-9) << "from their readings";
  }
}

/// What a guest states is held against what its readings give.
TEST(GuestsTest, WhatIsStatedAndWhatComesOut) {
  TemporaryBook folder;
  exchange::Archive a = sound_package(1);
  EXPECT_NE(a.at("figures.csv").find("308.5"), std::string::npos);
  std::string& figures = a.at("figures.csv");
  figures.replace(figures.find("308.5"), 5, "408.5");
  const fs::path file = folder.folder() / "boasting.zip";
  std::ofstream(file, std::ios::binary) << exchange::zip_bytes(a);
  const Guests found = guests_from({file, folder.folder()});
  ASSERT_EQ(found.tests.size(), 1u) << "named twice, in once";
  EXPECT_NE(found.tests.front().entrants.front().altered.find("408.5"), std::string::npos);
  EXPECT_TRUE(guests_from({folder.folder() / "none.zip"}).tests.empty());
  EXPECT_EQ(guests_from({folder.folder() / "none.zip"}).refused.size(), 1u);
}

TEST(GuestsTest, OnesOwnPackageIsNoGuest) {
  TemporaryBook own, folder;
  read_test(own, 500);
  const auto test = own.test_record(read_test(own, 300));
  const fs::path file = folder.folder() / "under another name.zip", other = folder.folder() / "other.zip";
  std::ofstream(file, std::ios::binary) << exchange::zip_bytes(exchange::make_package(test));
  std::ofstream(other, std::ios::binary) << exchange::zip_bytes(sound_package(1));
  Guests found = guests_from({file, other});
  ASSERT_EQ(found.tests.size(), 2u);
  leave_out_own(found, *own);
  ASSERT_EQ(found.tests.size(), 1u) << "the other's stays";
  EXPECT_EQ(found.tests.front().entrants.front().guest, other.string());
  ASSERT_EQ(found.refused.size(), 1u);
  EXPECT_EQ(found.refused.front().file, file);
  EXPECT_NE(found.refused.front().problem.seen.find(record::title_of(test)), std::string::npos);
  Guests elsewhere = guests_from({file});
  leave_out_own(elsewhere, *folder);
  EXPECT_EQ(elsewhere.tests.size(), 1u) << "in another's lab book it is a guest";
}

TEST(FilterTest, WordsAndBounds) {
  Entrant e;
  e.title = "Ostler in the tent", e.kind = "six LED bars", e.cost = 240, e.claimed_w = 320, e.tested_on = "2026-03-14";
  e.width_m = 1.2, e.depth_m = 0.6, e.facts = "cooling: passive";
  const auto lets = [&](const char* text) {
    const auto filter = evaluation::EntrantFilter::parse(text);
    EXPECT_TRUE(filter.ok()) << text;
    return filter.ok() && filter.value().lets(e, nullptr);
  };
  EXPECT_TRUE(lets(""));
  EXPECT_TRUE(lets("ostler led"));
  EXPECT_FALSE(lets("ostler sodium"));
  EXPECT_TRUE(lets("passive"));
  EXPECT_TRUE(lets("price<241 watts>=320 area<=0.73 year=2026 own measured"));
  EXPECT_FALSE(lets("price<240"));
  EXPECT_FALSE(lets("guest"));
  EXPECT_FALSE(lets("grade>=working")) << "not known";
  for (const char* text : {"price<cheap", "weight<3", "price<", "grade=fine", "<3"})
    EXPECT_FALSE(evaluation::EntrantFilter::parse(text).ok()) << text;
}

TEST(RequestTest, SaysWhatCannotBeUsed) {
  record::SavedLineUp asked;
  const auto refused = [&](auto change) {
    record::SavedLineUp a;
    change(a);
    const auto r = ready_line_up(a, {}, evaluation::shipped_targets());
    EXPECT_FALSE(r.ok());
    return r.ok() ? std::string() : r.problem().seen;
  };
  EXPECT_EQ(refused([](auto& a) { a.figure = "beauty"; }), "there is no figure 'beauty' to line up by");
  EXPECT_EQ(refused([](auto& a) { a.way = "best:moss"; }), "no target is called 'moss'");
  EXPECT_NE(refused([](auto& a) { a.rule = "sometimes"; }), "");
  EXPECT_NE(refused([](auto& a) { a.target_low_ppfd = 600, a.target_high_ppfd = 500; }), "");
  const auto best = ready_line_up(
      [] {
        record::SavedLineUp a;
        a.way = "best:Young Plants";
        return a;
      }(),
      {}, evaluation::shipped_targets());
  ASSERT_TRUE(best.ok());
  EXPECT_EQ(best.value().question.way.target, "young plants");
}

}  // namespace
}  // namespace sunbreak::gathering
