#include "book/schema.h"

#include <SQLiteCpp/Backup.h>
#include <SQLiteCpp/Exception.h>
#include <SQLiteCpp/Transaction.h>

#include <fmt/format.h>

#include <algorithm>
#include <iterator>

#include "book/row_mapping.h"
#include "book/row_sum.h"
#include "evaluation/crop_targets.h"
#include "record/kinds.h"

namespace sunbreak::book {
namespace {

// The first schemas, as they were written out; later ones follow from what the kinds of records say of themselves.
// Readings carry no foreign key: they outlive an undone or removed sweep.
constexpr const char* steps[] = {
    // 0 -> 1
    R"sql(
CREATE TABLE fixture(id INTEGER PRIMARY KEY, name TEXT NOT NULL, maker TEXT NOT NULL, kind TEXT NOT NULL,
  emitters TEXT NOT NULL, width_m REAL, depth_m REAL, serial TEXT NOT NULL, price REAL, currency TEXT NOT NULL,
  obtained TEXT NOT NULL, interest TEXT NOT NULL, notes TEXT NOT NULL, removed INTEGER NOT NULL);
CREATE TABLE claim(id INTEGER PRIMARY KEY, fixture_id INTEGER NOT NULL REFERENCES fixture(id), kind TEXT NOT NULL,
  value REAL, words TEXT NOT NULL);
CREATE INDEX claim_fixture ON claim(fixture_id);
CREATE TABLE bench(id INTEGER PRIMARY KEY, name TEXT NOT NULL, width_m REAL NOT NULL CHECK(width_m > 0),
  depth_m REAL NOT NULL CHECK(depth_m > 0), height_m REAL, wall_left TEXT NOT NULL, wall_right TEXT NOT NULL,
  wall_front TEXT NOT NULL, wall_back TEXT NOT NULL, notes TEXT NOT NULL, removed INTEGER NOT NULL);
CREATE TABLE meter(id INTEGER PRIMARY KEY, kind TEXT NOT NULL, name TEXT NOT NULL, calibrated_on TEXT NOT NULL,
  factor REAL NOT NULL, dark_offset REAL NOT NULL, uncertainty_pct REAL, range_max REAL, receiving_height_m REAL,
  closest_approach_m REAL, notes TEXT NOT NULL, removed INTEGER NOT NULL);
CREATE TABLE test(id INTEGER PRIMARY KEY, fixture_id INTEGER NOT NULL REFERENCES fixture(id),
  bench_id INTEGER NOT NULL REFERENCES bench(id), sensor_id INTEGER REFERENCES meter(id),
  wall_meter_id INTEGER REFERENCES meter(id), name TEXT NOT NULL, grid_kind TEXT NOT NULL, columns INTEGER NOT NULL,
  rows INTEGER NOT NULL, margin_x_m REAL NOT NULL, margin_y_m REAL NOT NULL, spots TEXT NOT NULL,
  photoperiod_h REAL NOT NULL, target_name TEXT NOT NULL, target_low_ppfd REAL NOT NULL, target_high_ppfd REAL NOT NULL,
  door TEXT NOT NULL, datum TEXT NOT NULL, tested_by TEXT NOT NULL, tested_on TEXT NOT NULL, mains_v REAL, mains_hz REAL,
  notes TEXT NOT NULL, created_at TEXT NOT NULL, removed INTEGER NOT NULL);
CREATE TABLE rung(id INTEGER PRIMARY KEY, test_id INTEGER NOT NULL REFERENCES test(id), height_m REAL NOT NULL);
CREATE INDEX rung_test ON rung(test_id);
CREATE TABLE stop(id INTEGER PRIMARY KEY, test_id INTEGER NOT NULL REFERENCES test(id), percent REAL NOT NULL);
CREATE INDEX stop_test ON stop(test_id);
CREATE TABLE sweep(id INTEGER PRIMARY KEY AUTOINCREMENT, test_id INTEGER NOT NULL REFERENCES test(id),
  rung_id INTEGER NOT NULL REFERENCES rung(id), stop_id INTEGER NOT NULL REFERENCES stop(id), grid_kind TEXT NOT NULL,
  columns INTEGER NOT NULL, rows INTEGER NOT NULL, margin_x_m REAL NOT NULL, margin_y_m REAL NOT NULL,
  spots TEXT NOT NULL, dark_offset REAL NOT NULL, calibration_factor REAL NOT NULL, spectral_factor REAL NOT NULL,
  power_w REAL, notes TEXT NOT NULL, UNIQUE(rung_id, stop_id));
CREATE INDEX sweep_test ON sweep(test_id);
CREATE TABLE reading(id INTEGER PRIMARY KEY AUTOINCREMENT, sweep_id INTEGER NOT NULL, station INTEGER NOT NULL,
  raw REAL NOT NULL, source TEXT NOT NULL, taken_at TEXT NOT NULL);
CREATE INDEX reading_sweep ON reading(sweep_id);
CREATE TABLE placement(id INTEGER PRIMARY KEY, sweep_id INTEGER NOT NULL REFERENCES sweep(id),
  station INTEGER NOT NULL, reading_id INTEGER, note TEXT NOT NULL, UNIQUE(sweep_id, station));
CREATE TABLE wall_reading(id INTEGER PRIMARY KEY, sweep_id INTEGER NOT NULL REFERENCES sweep(id), power_w REAL,
  voltage_v REAL, current_a REAL, apparent_va REAL, power_factor REAL, frequency_hz REAL, taken_at TEXT NOT NULL);
CREATE INDEX wall_reading_sweep ON wall_reading(sweep_id);
CREATE TABLE edit_log(id INTEGER PRIMARY KEY AUTOINCREMENT, at TEXT NOT NULL, label TEXT NOT NULL,
  changeset BLOB NOT NULL, undone INTEGER NOT NULL DEFAULT 0);
)sql",
    // 1 -> 2: readings made by a simulated bench are marked as such.
    "ALTER TABLE test ADD COLUMN simulated INTEGER NOT NULL DEFAULT 0;",
    // 2 -> 3: how a walk is done and what was checked; samples of a reading; readings beside the sweep; checks set
    // aside. Walks begun before keep the order they were begun in.
    R"sql(
ALTER TABLE fixture ADD COLUMN units INTEGER NOT NULL DEFAULT 1;
ALTER TABLE fixture ADD COLUMN unit_spacing_m REAL;
ALTER TABLE fixture ADD COLUMN unit_tilt_deg REAL;
ALTER TABLE fixture ADD COLUMN emitter_spacing_m REAL;
ALTER TABLE fixture ADD COLUMN emitters_across INTEGER;
ALTER TABLE fixture ADD COLUMN emitters_deep INTEGER;
ALTER TABLE fixture ADD COLUMN beam_angle_deg REAL;
ALTER TABLE test ADD COLUMN tape_from TEXT NOT NULL DEFAULT 'sensor';
ALTER TABLE test ADD COLUMN canopy_height_m REAL;
ALTER TABLE test ADD COLUMN walk_order TEXT NOT NULL DEFAULT 'far to door';
ALTER TABLE test ADD COLUMN opening_probe INTEGER NOT NULL DEFAULT 0;
ALTER TABLE test ADD COLUMN reference_every INTEGER NOT NULL DEFAULT 0;
ALTER TABLE test ADD COLUMN samples_a_reading INTEGER NOT NULL DEFAULT 1;
ALTER TABLE test ADD COLUMN seconds_a_reading REAL NOT NULL DEFAULT 10;
ALTER TABLE test ADD COLUMN warm_up_min REAL NOT NULL DEFAULT 30;
ALTER TABLE test ADD COLUMN checked_level TEXT NOT NULL DEFAULT '';
ALTER TABLE test ADD COLUMN checked_center TEXT NOT NULL DEFAULT '';
ALTER TABLE test ADD COLUMN checked_height TEXT NOT NULL DEFAULT '';
ALTER TABLE test ADD COLUMN checked_fans TEXT NOT NULL DEFAULT '';
ALTER TABLE reading ADD COLUMN samples INTEGER NOT NULL DEFAULT 1;
ALTER TABLE reading ADD COLUMN spread REAL;
CREATE TABLE side_reading(id INTEGER PRIMARY KEY, sweep_id INTEGER NOT NULL REFERENCES sweep(id),
  station INTEGER NOT NULL, purpose TEXT NOT NULL, raw REAL NOT NULL, source TEXT NOT NULL, taken_at TEXT NOT NULL,
  samples INTEGER NOT NULL, spread REAL);
CREATE INDEX side_reading_sweep ON side_reading(sweep_id);
CREATE TABLE dismissal(id INTEGER PRIMARY KEY, test_id INTEGER NOT NULL REFERENCES test(id),
  sweep_id INTEGER REFERENCES sweep(id), rule TEXT NOT NULL, stations TEXT NOT NULL, saw TEXT NOT NULL,
  reason TEXT NOT NULL, at TEXT NOT NULL);
CREATE INDEX dismissal_test ON dismissal(test_id);
)sql",
    // 3 -> 4: the log of wall and light, what begins the wait anew, the dimmer's stair, settings found for crops,
    // temperatures, and what energy costs. Wall readings belong to the test, with or without a sweep.
    R"sql(
ALTER TABLE test ADD COLUMN circuit_a REAL;
ALTER TABLE test ADD COLUMN tariff_per_kwh REAL;
ALTER TABLE test ADD COLUMN tariff_currency TEXT NOT NULL DEFAULT 'EUR';
CREATE TABLE wall_reading_of_test(id INTEGER PRIMARY KEY, test_id INTEGER NOT NULL REFERENCES test(id),
  sweep_id INTEGER REFERENCES sweep(id), power_w REAL, voltage_v REAL, current_a REAL, apparent_va REAL,
  power_factor REAL, frequency_hz REAL, light_raw REAL, taken_at TEXT NOT NULL);
INSERT INTO wall_reading_of_test(id, test_id, sweep_id, power_w, voltage_v, current_a, apparent_va, power_factor,
  frequency_hz, taken_at) SELECT w.id, s.test_id, w.sweep_id, w.power_w, w.voltage_v, w.current_a, w.apparent_va,
  w.power_factor, w.frequency_hz, w.taken_at FROM wall_reading w JOIN sweep s ON s.id = w.sweep_id;
DROP TABLE wall_reading;
ALTER TABLE wall_reading_of_test RENAME TO wall_reading;
CREATE INDEX wall_reading_test ON wall_reading(test_id);
CREATE TABLE log_part(id INTEGER PRIMARY KEY, test_id INTEGER NOT NULL REFERENCES test(id), source TEXT NOT NULL,
  origin TEXT NOT NULL, dark_offset REAL NOT NULL, calibration_factor REAL NOT NULL, count INTEGER NOT NULL,
  samples BLOB NOT NULL);
CREATE INDEX log_part_test ON log_part(test_id);
CREATE TABLE lamp_event(id INTEGER PRIMARY KEY, test_id INTEGER NOT NULL REFERENCES test(id), kind TEXT NOT NULL,
  percent REAL, at TEXT NOT NULL);
CREATE INDEX lamp_event_test ON lamp_event(test_id);
CREATE TABLE stair_stop(id INTEGER PRIMARY KEY, test_id INTEGER NOT NULL REFERENCES test(id), percent REAL NOT NULL,
  power_w REAL, power_factor REAL, taken_at TEXT NOT NULL);
CREATE INDEX stair_stop_test ON stair_stop(test_id);
CREATE TABLE stair_reading(id INTEGER PRIMARY KEY, stair_stop_id INTEGER NOT NULL REFERENCES stair_stop(id),
  station INTEGER NOT NULL, raw REAL NOT NULL, source TEXT NOT NULL, samples INTEGER NOT NULL, spread REAL);
CREATE INDEX stair_reading_stop ON stair_reading(stair_stop_id);
CREATE TABLE target_setting(id INTEGER PRIMARY KEY, test_id INTEGER NOT NULL REFERENCES test(id),
  target_name TEXT NOT NULL, place TEXT NOT NULL, wanted_ppfd REAL NOT NULL, height_m REAL, percent REAL,
  raw REAL NOT NULL, power_w REAL, taken_at TEXT NOT NULL);
CREATE INDEX target_setting_test ON target_setting(test_id);
CREATE TABLE temperature(id INTEGER PRIMARY KEY, test_id INTEGER NOT NULL REFERENCES test(id), place TEXT NOT NULL,
  method TEXT NOT NULL, read_c REAL NOT NULL, emissivity_set REAL, emissivity_true REAL, reflected_c REAL,
  bare_metal INTEGER NOT NULL, taken_at TEXT NOT NULL, notes TEXT NOT NULL);
CREATE INDEX temperature_test ON temperature(test_id);
)sql",
    // 4 -> 5: crop targets on the shelf; bands of daily light; uncertainties as the tester states them.
    R"sql(
ALTER TABLE test ADD COLUMN target_by_daily_light INTEGER NOT NULL DEFAULT 0;
ALTER TABLE test ADD COLUMN height_uncertainty_m REAL;
ALTER TABLE test ADD COLUMN position_uncertainty_m REAL;
ALTER TABLE test ADD COLUMN edge_uncertainty_m REAL;
ALTER TABLE test ADD COLUMN spectral_uncertainty_pct REAL;
ALTER TABLE test ADD COLUMN cosine_uncertainty_pct REAL;
CREATE TABLE crop_target(id INTEGER PRIMARY KEY, set_name TEXT NOT NULL, reason TEXT NOT NULL, name TEXT NOT NULL,
  by_daily_light INTEGER NOT NULL, low REAL NOT NULL, high REAL NOT NULL, photoperiod_h REAL NOT NULL,
  removed INTEGER NOT NULL);
)sql",
};

constexpr int first_with_targets = 5;

/// Fills the shelf of targets of a lab book that never had one, by the columns of that day.
void seed_targets(SQLite::Database& db) {
  SQLite::Statement insert(db,
                           "INSERT INTO crop_target(set_name, reason, name, by_daily_light, low, high, photoperiod_h, "
                           "removed) VALUES(?, ?, ?, ?, ?, ?, ?, 0)");
  for (const record::CropTarget& t : evaluation::shipped_targets()) {
    insert.bind(1, t.set_name);
    insert.bind(2, t.reason);
    insert.bind(3, t.name);
    insert.bind(4, static_cast<int>(t.by_daily_light));
    insert.bind(5, t.low);
    insert.bind(6, t.high);
    insert.bind(7, t.photoperiod_h);
    insert.exec();
    insert.reset();
  }
}

std::string sql_value(const record::Value& value) {
  if (const auto* whole = std::get_if<std::int64_t>(&value)) return std::to_string(*whole);
  if (const auto* number = std::get_if<double>(&value)) return fmt::format("{}", *number);
  std::string quoted;
  for (const char c : std::get<std::string_view>(value)) quoted += std::string(c == '\'' ? 2 : 1, c);
  return "'" + quoted + "'";
}

std::string column_sql(const record::Column& column) {
  using record::Type;
  std::string sql = column.name;
  sql += column.type == Type::Number  ? " REAL"
         : column.type == Type::Text  ? " TEXT"
         : column.type == Type::Bytes ? " BLOB"
                                      : " INTEGER";
  if (!column.optional) sql += " NOT NULL DEFAULT " + (column.type == Type::Bytes ? "x''" : sql_value(column.before));
  if (const record::Kind* to = record::kind_named(column.refers_to); to && to->facts.undoable)
    sql += fmt::format(" REFERENCES {}(id)", to->name());
  return sql;
}

/// 16 -> 17: a sum beside each row and each step of the history, as it was written.
constexpr int first_with_row_sums = 17;

/// What a schema after the written steps brings, as the kinds of records say.
void apply_described(SQLite::Database& db, int schema) {
  for (const record::Kind& kind : record::kinds()) {
    if (kind.facts.since == schema) {
      std::string columns = "id INTEGER PRIMARY KEY";
      for (const record::Column& c : kind.columns)
        if (c.since <= schema) columns += ", " + column_sql(c);
      if (schema > first_with_row_sums) columns += fmt::format(", {} INTEGER NOT NULL DEFAULT 0", row_sum_column);
      db.exec(fmt::format("CREATE TABLE {}({})", kind.name(), columns));
      if (const record::Column* parent = kind.parent())
        db.exec(fmt::format("CREATE INDEX {0}_{1} ON {0}({2})", kind.name(), parent->refers_to, parent->name));
      continue;
    }
    for (const record::Column& c : kind.columns)
      if (c.since == schema && kind.facts.since < schema)
        db.exec(fmt::format("ALTER TABLE {} ADD COLUMN {}", kind.name(), column_sql(c)));
  }
}

/// What the kinds of records cannot say of a schema: where values went that stood elsewhere before, and tables that
/// hold no records. 7 -> 8: how a fixture's units hang is of the test; the files of pictures.
constexpr int first_with_arrangement = 8;
constexpr const char* to_first_with_arrangement = R"sql(
UPDATE test SET (unit_columns, unit_spacing_x_m, unit_tilt_deg) =
  (SELECT units, unit_spacing_m, unit_tilt_deg FROM fixture f WHERE f.id = fixture_id);
ALTER TABLE fixture DROP COLUMN units;
ALTER TABLE fixture DROP COLUMN unit_spacing_m;
ALTER TABLE fixture DROP COLUMN unit_tilt_deg;
CREATE TABLE picture_file(digest TEXT PRIMARY KEY, bytes BLOB NOT NULL);
)sql";

/// 9 -> 10: by what tests' contents are told apart; not undone with them, since what was is another content again.
constexpr int first_with_content = 10;
constexpr const char* to_first_with_content = R"sql(
CREATE TABLE content_token(test_id INTEGER PRIMARY KEY, token TEXT NOT NULL);
INSERT INTO content_token SELECT id, hex(randomblob(8)) FROM test;
)sql";

/// 14 -> 15: a lux factor knows its fixture itself. By its name alone only where one fixture has that.
constexpr int first_with_factors_fixture = 15;
constexpr const char* to_first_with_factors_fixture = R"sql(
UPDATE lux_factor SET fixture_id = (SELECT max(id) FROM fixture f WHERE f.name = lux_factor.fixture
  GROUP BY f.name HAVING count(*) = 1) WHERE fixture <> '';
)sql";

void add_row_sums(SQLite::Database& db) {
  const auto add = [&](std::string_view table) {
    db.exec(fmt::format("ALTER TABLE {} ADD COLUMN {} INTEGER NOT NULL DEFAULT 0", table, row_sum_column));
  };
  for (const record::Kind& kind : record::kinds())
    if (kind.facts.since <= first_with_row_sums) add(kind.name());
  add("edit_log");
}

constexpr int written_steps = static_cast<int>(std::size(steps));

void take_steps(SQLite::Database& db, int from, int to) {
  SQLite::Transaction transaction(db);
  for (int version = from; version < to; ++version) {
    if (version < written_steps)
      db.exec(steps[version]);
    else
      apply_described(db, version + 1);
    if (version + 1 == first_with_targets) seed_targets(db);
    if (version + 1 == first_with_arrangement) db.exec(to_first_with_arrangement);
    if (version + 1 == first_with_content) db.exec(to_first_with_content);
    if (version + 1 == first_with_factors_fixture) db.exec(to_first_with_factors_fixture);
    if (version + 1 == first_with_row_sums) add_row_sums(db);
  }
  db.exec("PRAGMA user_version = " + std::to_string(to));
  db.exec("PRAGMA application_id = " + std::to_string(application_id));
  // Changesets name columns by position: undo does not reach back over a change of schema.
  if (from > 0 && from < to) db.exec("DELETE FROM edit_log");
  if (from < to && to == schema_version()) sum_all_rows(db);
  transaction.commit();
}

/// An empty lab book of the newest schema. It is made once: each column that a step adds has SQLite read the whole
/// schema anew. Shared by all threads; SQLite serializes them.
SQLite::Database& empty_book() {
  static SQLite::Database db = [] {
    SQLite::Database made(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    take_steps(made, 0, schema_version());
    return made;
  }();
  return db;
}

}  // namespace

int schema_version() { return std::max(first_with_row_sums, record::newest_schema()); }

void migrate(SQLite::Database& db, int to) {
  const int from = db.execAndGet("PRAGMA user_version").getInt();
  // Over tables of whatever version nothing is copied: the steps fail there, and leave what stands.
  const bool empty = db.execAndGet("SELECT count(*) FROM sqlite_master").getInt() == 0;
  if (!empty || to < schema_version()) return take_steps(db, from, to);
  SQLite::Backup copy(db, empty_book());
  if (const int result = copy.executeStep(-1); result != SQLITE_DONE)
    throw SQLite::Exception("the new lab book is in use", result);
}

}  // namespace sunbreak::book
