#include <gtest/gtest.h>

#include <fmt/format.h>
#include <cmath>

#include "core/bench/walk_order.h"
#include "evaluation/rig_model.h"
#include "evaluation/test_checks.h"
#include "exchange/package/csv_writer.h"
#include "exchange/package/data_package.h"
#include "exchange/tables/delimited.h"
#include "record/kinds.h"
#include "record/renumber.h"
#include "temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::evaluation;
using namespace sunbreak::exchange;
using namespace sunbreak::book;

namespace {

/// A 12 × 12 sweep under a hump of light, walked in its order, a reading every ten seconds.
class Walked {
 public:
  Walked() {
    id = book.add_test();
    book->edit("walk", [&](Edit& e) {
      record::Test test = book->find<record::Test>(id).value();
      test.columns = test.rows = 12;
      test.opening_probe = true;
      e.save(test);
    });
    book->edit("walk", [&](Edit& e) {
      const TestRecord b = book.test_record(id);
      sweep = sweep_for(e, b, b.rungs[0].id, b.stops[0].id);
      const Layout layout = lay_out(footprint_of(b.bench), grid_of(b.test)).value();
      int second = 0;
      for (const int s : walk_of(b.test, layout))
        e.accept({0, sweep.id, s, true_at(layout, s), "typed", at(second += 10)});
      reference = reference_station(layout);
      reference_value = true_at(layout, reference);
    });
  }
  static double true_at(const Layout& layout, int s) {
    const double x = layout.stations[s].x_m / layout.footprint.width_m - 0.5,
                 y = layout.stations[s].y_m / layout.footprint.depth_m - 0.5;
    return 800 * (1 - x * x - y * y + 0.01 * y);
  }
  static std::string at(int second) {
    char text[40];
    std::snprintf(text, sizeof text, "2026-03-14T%02d:%02d:%02d.000Z", 9 + second / 3600, second / 60 % 60,
                  second % 60);
    return text;
  }
  void read_reference(int second, double value) {
    book->edit("reference", [&](Edit& e) {
      e.add(SideReading{0, sweep.id, reference, "reference", value, "typed", at(second)});
    });
  }
  SweepView view() { return view_sweep(book.test_record(id), sweep).value(); }
  std::vector<sunbreak::Finding> checks(const SweepView& taken) {
    const TestRecord b = book.test_record(id);
    return checks_of(b, sweep, taken, {}, statement_of(b, sweep, sunbreak::UnitSystem::Metric, {}));
  }

  TemporaryBook book;
  Id id = 0;
  Sweep sweep;
  int reference = 0;
  double reference_value = 0;
};

}  // namespace

TEST(WalkRecords, TimesReadBackToTheMillisecond) {
  EXPECT_DOUBLE_EQ(seconds_of("1970-01-02T00:00:01.250Z"), 86401.25);
  EXPECT_TRUE(std::isnan(seconds_of("yesterday")));
}

TEST(WalkRecords, DriftAtTheReferenceScalesTheSweepAndRawStays) {
  Walked w;
  w.read_reference(1450, w.reference_value * 0.9);  // ten seconds after the last station
  const SweepView view = w.view();
  ASSERT_TRUE(view.drift.significant());
  const int last = walk_of(w.book.test_record(w.id).test, view.layout).back();
  // The reference was first read at 50 s, so at 1440 s the light had fallen by 10 % · 1390 / 1400.
  EXPECT_NEAR(view.ppfd[last], view.states[last].raw / (1 - 0.1 * 1390 / 1400), 1e-6);
  EXPECT_DOUBLE_EQ(view.states[last].raw, Walked::true_at(view.layout, last));
  bool said = false;
  for (const sunbreak::Finding& c : w.checks(view)) said = said || c.id == "drift at the reference";
  EXPECT_TRUE(said);
}

TEST(WalkRecords, ATableFromAFileIsNotScaledByTime) {
  Walked w;
  w.read_reference(1450, w.reference_value * 0.9);
  w.book->edit("table", [&](Edit& e) { e.accept({0, w.sweep.id, 3, 500, "file", Walked::at(9000)}); });
  EXPECT_DOUBLE_EQ(w.view().ppfd[3], 500);
}

TEST(WalkRecords, ASetAsideCheckHoldsUntilItsStationIsReadAgain) {
  Walked w;
  w.book->edit("slip", [&](Edit& e) { e.accept({0, w.sweep.id, 40, 70, "typed", Walked::at(2000)}); });
  const auto open = [&] {
    const TestRecord b = w.book.test_record(w.id);
    const SweepView view = w.view();
    int count = 0;
    for (const sunbreak::Finding& c : w.checks(view)) count += !dismissal_of(b, w.sweep.id, c, &view).has_value();
    return count;
  };
  ASSERT_EQ(open(), 1) << w.checks(w.view()).back().saw;
  const sunbreak::Finding check = w.checks(w.view()).front();
  w.book->edit("aside", [&](Edit& e) {
    e.add(Dismissal{0, w.id, w.sweep.id, check.id, stations_text(check), check.saw, "a cable lies there",
                    Walked::at(2100)});
  });
  EXPECT_EQ(open(), 0);
  w.book->edit("again", [&](Edit& e) { e.accept({0, w.sweep.id, 40, 60, "typed", Walked::at(2200)}); });
  EXPECT_EQ(open(), 1) << "a new reading is a new finding";
  w.book->undo();
  EXPECT_EQ(open(), 0);
}

TEST(WalkRecords, SideReadingsAndDismissalsGoThroughAPackage) {
  Walked w;
  w.read_reference(700, 790);
  w.book->edit("aside", [&](Edit& e) {
    e.add(Dismissal{0, w.id, std::nullopt, "door open", "", "the door is open", "it is a curtain, \"closed\"",
                    Walked::at(1)});
    e.add(SideReading{0, w.sweep.id, 7, "repeat", 512.5, "live", Walked::at(5), 8, 1.25});
  });
  const TestRecord b = w.book.test_record(w.id);
  const auto back = read_package(make_package(b));
  ASSERT_TRUE(back.ok()) << back.problem().sentence();
  EXPECT_EQ(back.value(), with_plain_ids(b));
  const Id again = add_test(*w.book, back.value(), "bring in");
  EXPECT_EQ(with_plain_ids(w.book.test_record(again)), with_plain_ids(b));
}

namespace {

/// Lets a package that says one format say another.
void say_format(Archive& package, int said, int to_say) {
  std::string& descriptor = package["datapackage.json"];
  const std::string words = fmt::format("\"sunbreak_format\": {}", said);
  descriptor.replace(descriptor.find(words), words.size(), fmt::format("\"sunbreak_format\": {}", to_say));
}

/// The package as an earlier format would have had it: without the tables and columns that came later.
Archive as_format(const Archive& package, int format) {
  Archive earlier;
  for (const auto& [name, text] : package) {
    const Kind* kind = kind_named(name.substr(0, name.find('.')));
    if (!kind) {
      earlier[name] = text;
      continue;
    }
    if (kind->facts.since > format + 1) continue;
    const auto rows = split_verbatim(text);
    for (const auto& row : rows) {
      std::string line;
      for (std::size_t i = 0; i < row.size(); ++i) {
        const Column* column = kind->column(rows[0][i]);
        if (column && column->since > format + 1) continue;
        const bool quoted = &row != &rows[0] && column && column->type == Type::Text;
        line += (line.empty() ? "" : ",") + (quoted ? quoted_cell(row[i]) : row[i]);
      }
      earlier[name] += line + "\r\n";
    }
  }
  say_format(earlier, package_format(), format);
  return earlier;
}

}  // namespace

TEST(WalkRecords, APackageOfEveryEarlierFormatIsTaken) {
  Walked w;
  const TestRecord now = w.book.test_record(w.id);
  const Archive package = make_package(now);
  for (int format = 1; format <= package_format(); ++format) {
    Archive archive = as_format(package, format);
    const auto back = read_package(archive);
    ASSERT_TRUE(back.ok()) << format << ": " << back.problem().sentence();
    EXPECT_EQ(back.value().readings.size(), 144u);
    EXPECT_EQ(back.value().readings[0].samples, 1);
    EXPECT_EQ(back.value().test.opening_probe, format > 1) << "walks of the first format began without one";
    if (format == package_format()) break;
    say_format(archive, format, package_format());
    EXPECT_FALSE(read_package(archive).ok()) << "this format promises what is not there";
  }
}

TEST(WalkRecords, APackageOfTheFirstFormatMustHaveWhatThatFormatHad) {
  Walked w;
  Archive archive = make_package(w.book.test_record(w.id));
  std::string& descriptor = archive["datapackage.json"];
  descriptor.replace(descriptor.find(fmt::format("\"sunbreak_format\": {}", package_format())), 20,
                     "\"sunbreak_format\": 1");
  std::string& readings = archive["reading.csv"];
  readings.replace(readings.find(",raw,"), 5, ",row,");
  EXPECT_FALSE(read_package(archive).ok());
}

TEST(WalkRecords, ARehearsalShowsAChangeAndKeepsNothing) {
  Walked w;
  const auto revision = w.book->revision();
  const auto label = w.book->undo_label();
  double seen = 0;
  w.book->rehearse(
      [&] {
        w.book->edit("what if", [&](Edit& e) {
          Bench bench = w.book.test_record(w.id).bench;
          bench.width_m = 9;
          e.save(bench);
        });
      },
      [&] { seen = w.book.test_record(w.id).bench.width_m; });
  EXPECT_EQ(seen, 9);
  EXPECT_NE(w.book.test_record(w.id).bench.width_m, 9);
  EXPECT_EQ(w.book->revision(), revision);
  EXPECT_EQ(w.book->undo_label(), label);
}

TEST(WalkRecords, TheTapeRuleTakesTheSensorsHeightOff) {
  TestRecord b;
  Meter sensor;
  sensor.id = 4;
  sensor.receiving_height_m = 0.03;
  b.meters = {sensor};
  b.test.sensor_id = 4;
  b.test.tape_from = "canopy";
  b.test.canopy_height_m = 0.2;
  EXPECT_NEAR(tape_rule(b).height_m(0.4), 0.57, 1e-12);
  b.test.tape_from = "floor";
  EXPECT_NEAR(tape_rule(b).height_m(0.4), 0.37, 1e-12);
}
