#include "evaluation/wall_log.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <cstring>
#include <random>

#include "book/log_edits.h"
#include "book/schema.h"
#include "evaluation/stabilization.h"
#include "exchange/package/data_package.h"
#include "record/renumber.h"
#include "temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::evaluation;
using namespace sunbreak::exchange;
using namespace sunbreak::book;

namespace {

constexpr double began_s = 1'773'478'800;  // 2026-03-14T09:00:00Z

bool same_bits(const std::vector<LogSample>& a, const std::vector<LogSample>& b) {
  return a.size() == b.size() && (a.empty() || std::memcmp(a.data(), b.data(), a.size() * sizeof(LogSample)) == 0);
}

std::string utc(double time_s) { return utc_text(time_s); }

/// A warm-up as a meter and a sensor show it, one a second unless told otherwise.
std::vector<LogSample> warm_up(double minutes, double fall, double tau_s, double every_s = 1) {
  std::mt19937_64 random(7);
  std::vector<LogSample> samples;
  for (double t = 0; t <= minutes * 60; t += every_s) {
    const auto noise = [&] { return (static_cast<double>(random() >> 11) * 0x1p-53 - 0.5) * 0.004; };
    const double stabilization = 1 + fall * std::exp(-t / tau_s);
    LogSample s;
    s.time_s = began_s + t;
    s.light_raw = std::round(7000 * stabilization * (1 + noise())) / 10;
    s.power_w = std::round(3220 * stabilization * (1 + noise())) / 10;
    s.voltage_v = std::round(10 * (230 + 200 * noise())) / 10;
    s.current_a = std::round(1000 * s.power_w / 0.97 / s.voltage_v) / 1000;
    s.power_factor = 0.97;
    samples.push_back(s);
  }
  return samples;
}

/// A test whose lamp was switched on when its log begins.
class Warmed {
 public:
  explicit Warmed(const std::vector<LogSample>& samples) {
    id = book.add_test();
    book->edit("on", [&](Edit& e) { e.add(LampEvent{0, id, "on", 100.0, utc(began_s)}); });
    LogRecorder recorder(*book, book.test_record(id), "simulated");
    for (const LogSample& s : samples) recorder.add(s);
    recorder.keep();
  }
  void walk(double from_s) {
    book->edit("walk", [&](Edit& e) {
      const TestRecord b = book.test_record(id);
      sweep = sweep_for(e, b, b.rungs[0].id, b.stops[0].id);
      for (int s = 0; s < 20; ++s) e.accept({0, sweep.id, s, 700, "simulated", utc(from_s + 10 * s)});
    });
  }
  WalkedState walked() {
    const TestRecord b = book.test_record(id);
    return walked_state(b.lamp_events, wall_log(b), view_sweep(b, sweep).value(), 100);
  }
  Stabilization at(double minutes) {
    const TestRecord b = book.test_record(id);
    return stabilization_at(b.lamp_events, wall_log(b), began_s + 60 * minutes);
  }

  TemporaryBook book;
  Id id = 0;
  Sweep sweep;
};

}  // namespace

TEST(PackedLog, ComesBackToTheLastBit) {
  const auto samples = warm_up(20, 0.05, 400);
  const auto back = unpack_samples(pack_samples(samples));
  ASSERT_TRUE(back.ok());
  EXPECT_TRUE(same_bits(back.value(), samples));
}

RC_GTEST_PROP(PackedLog, AnyNumbersComeBack, (const std::vector<std::array<double, 3>>& drawn)) {
  std::vector<LogSample> samples;
  for (const auto& d : drawn) {
    LogSample s;
    s.time_s = d[0], s.light_raw = d[1], s.power_w = d[2];
    samples.push_back(s);
  }
  const auto back = unpack_samples(pack_samples(samples));
  RC_ASSERT(back.ok());
  RC_ASSERT(same_bits(back.value(), samples));
}

TEST(PackedLog, ADayAtOneASecondIsSmall) {
  const auto samples = warm_up(24 * 60, 0.05, 4000);
  const std::size_t bytes = pack_samples(samples).data.size();
  EXPECT_LT(bytes, 1'000'000u) << "of " << samples.size() << " samples";
}

RC_GTEST_PROP(PackedLog, DamagedBytesAreRefusedOrReadButNeverCrash, (unsigned at, unsigned char with)) {
  static const Bytes packed = pack_samples(warm_up(5, 0.05, 400));
  Bytes damaged = packed;
  damaged.data[at % damaged.data.size()] = static_cast<char>(with);
  const auto back = unpack_samples(damaged);
  if (damaged == packed) RC_ASSERT(back.ok());
  damaged.data.resize(at % packed.data.size());
  RC_ASSERT(!unpack_samples(damaged).ok());
}

TEST(WallLogs, TypedReadingsAndLiveOnesStandInOneLog) {
  Warmed w(warm_up(10, 0.05, 400));
  w.book->edit("typed", [&](Edit& e) {
    WallReading reading;
    reading.test_id = w.id;
    reading.power_w = 321.5;
    reading.light_raw = 700;
    reading.taken_at = utc(began_s + 900);
    e.add(reading);
  });
  const WallLog log = wall_log(w.book.test_record(w.id));
  EXPECT_EQ(log.samples.size(), 602u);
  EXPECT_EQ(log.watts.back().value, 321.5);
  EXPECT_EQ(log.watts.back().time_s, began_s + 900);
  w.book->undo();
  EXPECT_EQ(wall_log(w.book.test_record(w.id)).samples.size(), 601u) << "what was recorded is not undone with it";
}

TEST(WallLogs, LightIsCorrectedAsTheSensorIs) {
  TemporaryBook book;
  const Id id = book.add_test();
  book->edit("sensor", [&](Edit& e) {
    record::Test test = book->find<record::Test>(id).value();
    Meter sensor;
    sensor.name = "QS-1";
    sensor.factor = 1.012;
    sensor.dark_offset = 0.4;
    test.sensor_id = e.add(sensor);
    e.save(test);
  });
  LogRecorder recorder(*book, book.test_record(id), "live");
  LogSample s;
  s.time_s = began_s, s.light_raw = 600.4;
  recorder.add(s);
  recorder.keep();
  EXPECT_NEAR(wall_log(book.test_record(id)).light[0].value, 607.2, 1e-9);
}

TEST(WallLogs, ADamagedPartIsSaidAndTheRestIsKept) {
  Warmed w(warm_up(10, 0.05, 400));
  TestRecord b = w.book.test_record(w.id);
  LogPart bad = b.log_parts[0];
  bad.id = 99;
  bad.samples.data.resize(40);
  b.log_parts.push_back(bad);
  const WallLog log = wall_log(b);
  EXPECT_EQ(log.unreadable, 1);
  EXPECT_EQ(log.samples.size(), 601u);
}

TEST(WallLogs, SamplesThatCannotBeAreLeftOutAndCounted) {
  Warmed w(warm_up(10, 0.05, 400));
  TestRecord b = w.book.test_record(w.id);
  std::vector<LogSample> samples(4);
  for (int i = 0; i < 4; ++i) samples[i].time_s = began_s + 10'000 + i, samples[i].light_raw = 600;
  samples[1].light_raw = 1e9;
  samples[2].power_w = -4e5;
  samples[3].time_s = 1e15;
  LogPart part = b.log_parts[0];
  part.id = 99, part.count = 4, part.samples = pack_samples(samples);
  b.log_parts.push_back(part);
  UnpackedParts known;
  for (int again = 0; again < 2; ++again) {
    const WallLog log = wall_log(b, &known);
    EXPECT_EQ(log.impossible, 3);
    EXPECT_EQ(log.unreadable, 0);
    EXPECT_EQ(log.samples.size(), 602u);
    EXPECT_EQ(log.light.back().time_s, began_s + 10'000);
  }
}

TEST(WallLogs, GoThroughAPackage) {
  Warmed w(warm_up(3, 0.05, 400));
  w.book->edit("all of it", [&](Edit& e) {
    const Id stop = e.add(StairStop{0, w.id, 50, 168.2, 0.96, utc(began_s + 100)});
    e.add(StairReading{0, stop, 35, 431.7, "live", 4, 0.9});
    e.add(TargetSetting{0, w.id, "leafy & herbs", "corners", 150, 0.6, 31.0, 151.2, 104.0, utc(began_s + 120)});
    e.add(Temperature{0, w.id, "driver", "infrared", 51.5, 0.95, 0.6, 22.0, true, utc(began_s + 130), "by the plug"});
  });
  const TestRecord b = w.book.test_record(w.id);
  const auto back = read_package(make_package(b));
  ASSERT_TRUE(back.ok()) << back.problem().sentence();
  EXPECT_EQ(back.value(), with_plain_ids(b));
}

TEST(WallLogs, APackageWhoseSamplesDoNotAddUpIsRefused) {
  Warmed w(warm_up(1, 0.05, 400));
  Archive archive = make_package(w.book.test_record(w.id));
  std::string& rows = archive["log_sample.csv"];
  rows.erase(rows.rfind("\r\n", rows.size() - 3) + 2);
  const auto back = read_package(archive);
  ASSERT_FALSE(back.ok());
  EXPECT_NE(back.problem().seen.find("expected 60, as log_sample.csv has"), std::string::npos) << back.problem().seen;
}

TEST(StabilizationOfATest, FollowsTheLog) {
  Warmed w(warm_up(80, 0.06, 420, 5));
  EXPECT_EQ(w.at(15).state, StabilizationState::TooShort);
  EXPECT_EQ(w.at(31).state, StabilizationState::Moving);
  const Stabilization end = w.at(80);
  EXPECT_EQ(end.state, StabilizationState::Stabilized) << end.words;
  const TestRecord b = w.book.test_record(w.id);
  const double since = stabilized_since_s(b.lamp_events, wall_log(b), end) - began_s;
  // 0.06 · exp(−t / 420) changes by 0.5 % over the 30 min that end at 44 min at the earliest.
  EXPECT_GT(since, 44 * 60);
  EXPECT_LT(since, 65 * 60);
}

TEST(StabilizationOfATest, SettingTheDimmerBeginsTheWaitAnew) {
  Warmed w(warm_up(80, 0.06, 420, 5));
  w.book->edit("dim", [&](Edit& e) { e.add(LampEvent{0, w.id, "stop", 60.0, utc(began_s + 75 * 60)}); });
  EXPECT_EQ(w.at(74).state, StabilizationState::Stabilized);
  EXPECT_EQ(w.at(80).state, StabilizationState::TooShort);
  EXPECT_EQ(w.at(80).lamp.percent, 60);
  w.book->edit("off", [&](Edit& e) { e.add(LampEvent{0, w.id, "off", {}, utc(began_s + 79 * 60)}); });
  EXPECT_TRUE(w.at(80).lamp.off);
}

TEST(StabilizationOfATest, ASweepKnowsHowItWasWalked) {
  Warmed w(warm_up(80, 0.06, 420, 5));
  EXPECT_EQ(w.at(0).lamp.on_since_s, began_s);
  w.walk(began_s + 33 * 60);
  EXPECT_EQ(w.walked().kind, WalkedState::NotStabilized);
  EXPECT_NE(w.walked().words.find("33 min after switch-on"), std::string::npos) << w.walked().words;
  Warmed later(warm_up(80, 0.06, 420, 5));
  later.walk(began_s + 79 * 60);
  EXPECT_EQ(later.walked().kind, WalkedState::Stabilized) << later.walked().words;
  Warmed early(warm_up(80, 0.06, 420, 5));
  early.walk(began_s - 600);
  EXPECT_EQ(early.walked().kind, WalkedState::NotKnown);
}

TEST(StabilizationOfATest, TheFallFromSwitchOnIsPublishedOnceSettled) {
  Warmed w(warm_up(80, 0.06, 420, 5));
  const TestRecord b = w.book.test_record(w.id);
  ASSERT_TRUE(fall_from_switch_on(b.lamp_events, wall_log(b)).light);
  EXPECT_NEAR(*fall_from_switch_on(b.lamp_events, wall_log(b)).light, 0.06, 0.003);
  Warmed short_one(warm_up(20, 0.06, 420, 5));
  const TestRecord s = short_one.book.test_record(short_one.id);
  EXPECT_FALSE(fall_from_switch_on(s.lamp_events, wall_log(s)).light);
}

TEST(StabilizationOfATest, ASweepAtAnotherSettingThanTheLogIsNotKnown) {
  Warmed w(warm_up(80, 0.06, 420, 5));
  w.walk(began_s + 79 * 60);
  const TestRecord b = w.book.test_record(w.id);
  const auto state = walked_state(b.lamp_events, wall_log(b), view_sweep(b, w.sweep).value(), 60);
  EXPECT_EQ(state.kind, WalkedState::NotKnown);
  EXPECT_NE(state.words.find("100 % of the dial, the sweep of 60 %"), std::string::npos) << state.words;
}

TEST(StabilizationOfATest, ALogThatEndedLongBeforeTellsNothingUnlessItHadSettled) {
  Warmed w(warm_up(33, 0.06, 420, 5));
  w.walk(began_s + 40 * 60);
  EXPECT_EQ(w.walked().kind, WalkedState::NotStabilized);
  Warmed later(warm_up(33, 0.06, 420, 5));
  later.walk(began_s + 120 * 60);
  EXPECT_EQ(later.walked().kind, WalkedState::NotKnown);
  EXPECT_NE(later.walked().words.find("ends 87 min before it"), std::string::npos) << later.walked().words;
  Warmed stabilized(warm_up(80, 0.06, 420, 5));
  stabilized.walk(began_s + 180 * 60);
  EXPECT_EQ(stabilized.walked().kind, WalkedState::Stabilized) << "until the lamp changes";
}

TEST(StabilizationOfATest, WattsAloneAreSaidToBeAlone) {
  auto samples = warm_up(80, 0.06, 420, 5);
  for (LogSample& s : samples) s.light_raw = LogSample::missing;
  Warmed w(samples);
  EXPECT_EQ(w.at(80).state, StabilizationState::Stabilized);
  EXPECT_NE(w.at(80).words.find("By watts alone"), std::string::npos);
}

TEST(Schema, AnOlderBookKeepsItsWallReadings) {
  TemporaryBook book;
  const auto file = book.folder() / "old.sunbreak";
  {
    SQLite::Database db(file.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    migrate(db, 3);
    db.exec(
        "INSERT INTO fixture(id, name, maker, kind, emitters, serial, currency, obtained, interest, notes, removed) "
        "VALUES(1, '', '', '', '', '', '', '', '', '', 0)");
    db.exec(
        "INSERT INTO bench(id, name, width_m, depth_m, wall_left, wall_right, wall_front, wall_back, notes, removed)"
        " VALUES(1, '', 1, 1, '', '', '', '', '', 0)");
    db.exec(
        "INSERT INTO test(id, fixture_id, bench_id, name, grid_kind, columns, rows, margin_x_m, margin_y_m, spots, "
        "photoperiod_h, target_name, target_low_ppfd, target_high_ppfd, door, datum, tested_by, tested_on, notes, "
        "created_at, removed) VALUES(5, 1, 1, 'old', 'cells', 3, 3, 0, 0, '', 12, '', 0, 0, '', '', '', '', '', '', "
        "0)");
    db.exec("INSERT INTO rung VALUES(1, 5, 0.4)");
    db.exec("INSERT INTO stop VALUES(1, 5, 100)");
    db.exec(
        "INSERT INTO sweep(id, test_id, rung_id, stop_id, grid_kind, columns, rows, margin_x_m, margin_y_m, spots, "
        "dark_offset, calibration_factor, spectral_factor, notes) VALUES(8, 5, 1, 1, 'cells', 3, 3, 0, 0, '', 0, 1, "
        "1, '')");
    db.exec("INSERT INTO wall_reading(sweep_id, power_w, voltage_v, taken_at) VALUES(8, 322, 230.5, '2026-01-01')");
  }
  const auto opened = Book::open(file);
  ASSERT_TRUE(opened.ok()) << opened.problem().sentence();
  const auto readings = opened.value()->all<WallReading>();
  ASSERT_EQ(readings.size(), 1u);
  EXPECT_EQ(readings[0].test_id, 5);
  EXPECT_EQ(readings[0].sweep_id, 8);
  EXPECT_EQ(readings[0].voltage_v, 230.5);
  EXPECT_FALSE(readings[0].light_raw);
}
