#include "book/test_rows.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <random>
#include <set>
#include <utility>

#include "evaluation/audit/audit.h"
#include "record/configurations.h"
#include "record/faults.h"
#include "record/renumber.h"

namespace sunbreak::book {
namespace {

/// The SQL condition that holds for the rows of a kind that belong to the test ?1.
std::string within_test(const Kind& kind) {
  if (kind.name() == "test") return "id = ?1";
  if (const Column* parent = kind.parent()) {
    if (parent->refers_to == "test") return parent->name + " = ?1";
    return fmt::format("{} IN (SELECT id FROM {} WHERE {})", parent->name, parent->refers_to,
                       within_test(*kind_named(parent->refers_to)));
  }
  std::string named;  // what stands by itself belongs to the tests that name it
  for (const Column& column : kind_of<Test>().columns)
    if (column.refers_to == kind.name())
      named += fmt::format("{}SELECT {} FROM test WHERE id = ?1", named.empty() ? "" : " UNION ", column.name);
  // Whether a sensor or its check lamp has moved is told by the meters that read the same lamps.
  if (kind.name() == "meter")
    named +=
        " UNION SELECT b.meter_id FROM check_reading a JOIN check_reading b ON b.lamp = a.lamp "
        "WHERE a.meter_id = (SELECT sensor_id FROM test WHERE id = ?1)";
  return fmt::format("id IN ({})", named);
}

/// Whether a kind is part of the test itself, not of what it names on the shelves.
bool part_of_test(const Kind& kind) {
  const Column* parent = kind.parent();
  return parent && (parent->refers_to == "test" || part_of_test(*kind_named(parent->refers_to)));
}

/// The row of the lab book, of those that the condition holds for, that says all that this one does; 0 where there is
/// none.
template <typename Record, typename... Values>
Id same_row(const Book& book, const Record& wanted, const std::string& condition, const Values&... values) {
  for (Record row : book.all<Record>(condition, values...)) {
    const Id id = std::exchange(row.id, wanted.id);
    if (row == wanted) return id;
  }
  return 0;
}

/// A meter that a test brings, or what is known of it, which the lab book has already: the same instrument, whose check
/// lamp readings would count twice. What nobody named or told anything of may be another.
Id known_of_meters(const Book& book, const Kind& kind, const void* row) {
  if (&kind == &kind_of<Meter>()) {
    const Meter& meter = *static_cast<const Meter*>(row);
    const bool named = !meter.name.empty() && meter.name != new_meter_name(meter.kind);
    return named ? same_row(book, meter, "WHERE name = ?", meter.name) : 0;
  }
  if (&kind == &kind_of<FittedLuxFactor>()) {
    const auto& factor = *static_cast<const FittedLuxFactor*>(row);
    for (FittedLuxFactor there : book.all<FittedLuxFactor>("WHERE meter_id = ?", factor.meter_id)) {
      const Id id = std::exchange(there.id, factor.id);
      if (!factor.fixture_id)
        there.fixture_id.reset();  // it came with a test of another fixture
      else if (there.fixture_id == factor.fixture_id)
        there.fixture = factor.fixture;  // whatever that one was called
      if (there == factor) return id;
    }
    return 0;
  }
  if (&kind == &kind_of<CheckLampReading>()) {
    const auto& reading = *static_cast<const CheckLampReading*>(row);
    return same_row(book, reading, "WHERE meter_id = ? AND taken_at = ?", reading.meter_id, reading.taken_at);
  }
  return 0;
}

/// The ids of the rows that a fixture of the lab book has of a kind, where they say all that these ones do, in their
/// order; nothing where they do not.
template <typename Record>
std::optional<std::map<Id, Id>> same_rows(const Book& book, const std::vector<Record>& wanted, Id fixture_id) {
  const auto there =
      book.all<Record>(fmt::format("WHERE fixture_id = ? ORDER BY {}", kind_of<Record>().facts.order), fixture_id);
  if (there.size() != wanted.size()) return {};
  std::map<Id, Id> ids;
  for (std::size_t i = 0; i < wanted.size(); ++i) {
    Record row = there[i];
    row.id = wanted[i].id, row.fixture_id = wanted[i].fixture_id;
    if (row != wanted[i]) return {};
    ids[wanted[i].id] = there[i].id;
  }
  return ids;
}

/// What of a test's shelves the lab book has already, told alike to the last word: a fixture with its claims, facts and
/// pictures, and a bench. What nobody named may be another.
class KnownShelves {
 public:
  KnownShelves(const Book& book, const TestRecord& record) {
    if (!record.bench.name.empty()) ids_[&kind_of<Bench>()] = known(book, record.bench);
    if (record.fixture.name.empty()) return;
    for (Fixture row : book.all<Fixture>("WHERE name = ? ORDER BY id", record.fixture.name)) {
      const Id id = std::exchange(row.id, record.fixture.id);
      if (row != record.fixture) continue;
      auto claims = same_rows(book, record.claims, id);
      auto facts = same_rows(book, record.box_facts, id);
      auto pictures = same_rows(book, record.fixture_pictures, id);
      if (!claims || !facts || !pictures) continue;
      ids_[&kind_of<Fixture>()] = {{record.fixture.id, id}};
      ids_[&kind_of<Claim>()] = std::move(*claims);
      ids_[&kind_of<BoxFact>()] = std::move(*facts);
      ids_[&kind_of<FixturePicture>()] = std::move(*pictures);
      return;
    }
  }

  /// The row's id in the lab book, by the id that it comes with; 0 where it is not there.
  Id id_of(const Kind& kind, Id brought) const {
    const auto of_kind = ids_.find(&kind);
    if (of_kind == ids_.end()) return 0;
    const auto found = of_kind->second.find(brought);
    return found == of_kind->second.end() ? 0 : found->second;
  }

 private:
  static std::map<Id, Id> known(const Book& book, const Bench& bench) {
    const Id id = same_row(book, bench, "WHERE name = ? ORDER BY id", bench.name);
    if (id == 0) return {};
    return {{bench.id, id}};
  }

  std::map<const Kind*, std::map<Id, Id>> ids_;
};

constexpr std::size_t most_rows_one_by_one = 64;

void read_all(TableRows& rows, const Book& book, Id test_id) {
  rows.clear();
  book.read(rows.kind(), fmt::format("WHERE {} ORDER BY {}", within_test(rows.kind()), rows.kind().facts.order),
            test_id, [&] { return rows.add(); });
}

/// Reads one row of a table anew, takes it in at its end, or takes it away. False where that would break the order.
bool read_one(TableRows& rows, const Book& book, Id test_id, Id id) {
  const Kind& kind = rows.kind();
  std::size_t at = 0, end = rows.size();  // rows lie in the order of their ids
  while (at < end) {
    const std::size_t middle = (at + end) / 2;
    (kind.id(rows.at(middle)) < id ? at = middle + 1 : end = middle);
  }
  const bool present = at < rows.size() && kind.id(rows.at(at)) == id;
  bool found = false, in_order = true;
  book.read(kind, fmt::format("WHERE id = {} AND {}", id, within_test(kind)), test_id, [&] {
    found = true;
    in_order = present || rows.size() == 0 || kind.id(rows.at(rows.size() - 1)) < id;
    return present ? rows.at(at) : rows.add();
  });
  if (!found && present) rows.erase(at);
  return in_order;
}

/// A factor found under another fixture than the test's says so by its words alone: that other one is not part of the
/// test. Of its own it bears the name that the fixture has now.
void keep_own_fixture(TestRecord& record) {
  for (FittedLuxFactor& factor : record.lux_factors) {
    if (factor.fixture_id != record.fixture.id)
      factor.fixture_id.reset();
    else
      factor.fixture = record.fixture.name;
  }
}

}  // namespace

std::vector<FittedLuxFactor> lux_factors_on_shelf(const Book& book) {
  auto factors = book.all<FittedLuxFactor>("ORDER BY id");
  for (FittedLuxFactor& factor : factors)
    if (const auto fixture = factor.fixture_id ? book.find<Fixture>(*factor.fixture_id) : std::nullopt)
      factor.fixture = fixture->name;
  return factors;
}

std::optional<TestRecord> load_test(const Book& book, Id test_id) {
  if (!book.find<Test>(test_id)) return {};
  TestRecord record;
  for (TableRows& rows : tables_of(record)) read_all(rows, book, test_id);
  keep_own_fixture(record);
  set_apart(record, book.damaged());
  return record;
}

std::optional<TestRecord> load_sweep(const Book& book, Id sweep_id) {
  const auto sweep = book.find<Sweep>(sweep_id);
  const auto test = sweep ? book.find<Test>(sweep->test_id) : std::nullopt;
  const auto bench = test ? book.find<Bench>(test->bench_id) : std::nullopt;
  if (!bench) return {};
  TestRecord record;
  record.test = *test, record.bench = *bench, record.sweeps = {*sweep};
  record.rungs = book.all<Rung>("WHERE test_id = ?", test->id);
  record.stops = book.all<Stop>("WHERE test_id = ?", test->id);
  record.readings = book.all<Reading>("WHERE sweep_id = ? ORDER BY id", sweep_id);
  record.placements = book.all<Placement>("WHERE sweep_id = ? ORDER BY id", sweep_id);
  record.side_readings = book.all<SideReading>("WHERE sweep_id = ? ORDER BY id", sweep_id);
  return record;
}

std::optional<TestRecord> earlier_test(const Book& book, const Test& retest) {
  if (retest.retest_of.empty()) return {};
  const auto found = book.all<Test>("WHERE mark = ? AND id <> ? AND removed = 0 ORDER BY id DESC LIMIT 1",
                                    retest.retest_of, retest.id);
  auto earlier = found.empty() ? std::nullopt : load_test(book, found.front().id);
  if (earlier) keep_configuration(*earlier, 0);
  return earlier;
}

std::vector<TestRecord> lamps_claimed(const Book& book, const TestRecord& test) {
  std::vector<TestRecord> lamps;
  std::set<Id> taken;
  for (const Claim& claim : test.claims) {
    if (claim.kind != "equivalent") continue;
    for (const Test& other : book.all<Test>("WHERE removed = 0 ORDER BY id")) {
      if (other.id == test.test.id || taken.contains(other.id)) continue;
      const auto fixture = book.find<Fixture>(other.fixture_id);
      if (!fixture || !evaluation::is_lamp_kind(*fixture, claim.says)) continue;
      if (auto lamp = load_test(book, other.id)) {
        taken.insert(other.id);
        keep_configuration(*lamp, 0);
        lamps.push_back(std::move(*lamp));
      }
    }
  }
  return lamps;
}

void make_retest(Edit& edit, const Book& book, Test test, Id earlier_id, const std::string& unit) {
  auto earlier = book.find<Test>(earlier_id);
  if (earlier && earlier->mark.empty()) {
    std::random_device random;
    for (int i = 0; i < 4; ++i) earlier->mark += fmt::format("{:08x}", random());
    edit.save(*earlier);
  }
  test.retest_of = earlier ? earlier->mark : "";
  test.retest_unit = earlier ? unit : "";
  edit.save(test);
}

int readings_of(const Book& book, Id test_id) {
  return book.count(kind_of<Placement>(), "WHERE " + within_test(kind_of<Placement>()), test_id);
}

bool refresh_test(TestRecord& record, const Book& book, const Change& change) {
  const Id test_id = record.test.id;
  const std::size_t damaged = book.damaged().size();
  // What this process writes was looked at when it was written: only what was found before can have gone.
  if (change.rows.size() > most_rows_one_by_one || !record.faults.empty()) {
    auto anew = load_test(book, test_id);
    if (!anew) return false;
    keep_configuration(*anew, record.configuration_id);
    record = std::move(*anew);
    return true;
  }
  if (change.tests.contains(test_id) && !book.find<Test>(test_id)) return false;
  std::map<const Kind*, std::vector<Id>> touched;
  for (const Change::Row& row : change.rows) touched[row.kind].push_back(row.id);
  // A test that names another fixture, bench or meter has all that these bring.
  const bool names_others = change.tests.contains(test_id) && touched.contains(&kind_of<Test>());
  const bool lamp_was_read = touched.contains(&kind_of<CheckLampReading>());
  for (TableRows& rows : tables_of(record)) {
    const Kind& kind = rows.kind();
    const auto ids = touched.find(&kind);
    const bool of_the_test = part_of_test(kind);
    const bool mine = of_the_test ? change.tests.contains(test_id) : ids != touched.end();
    const bool one_by_one = of_the_test && std::string_view(kind.facts.order) == "id";
    const bool brings_meters = kind.name() == "meter" && lamp_was_read;
    if (!of_the_test && (names_others || mine || brings_meters)) read_all(rows, book, test_id);
    if (!of_the_test || !mine || ids == touched.end()) continue;
    bool in_order = one_by_one;
    for (const Id id : ids->second) in_order = in_order && read_one(rows, book, test_id, id);
    if (!in_order) read_all(rows, book, test_id);
  }
  keep_own_fixture(record);
  // Readings are in no changeset: those of a sweep that came or went are read or dropped with it.
  const Id last = record.readings.empty() ? 0 : record.readings.back().id;
  const auto& sweep_rows = touched[&kind_of<Sweep>()];
  for (const Id sweep : change.sweeps) {
    const bool whole = std::ranges::find(sweep_rows, sweep) != sweep_rows.end();
    if (whole) std::erase_if(record.readings, [&](const Reading& r) { return r.sweep_id == sweep; });
    if (!record.sweep(sweep)) continue;
    book.read(kind_of<Reading>(), fmt::format("WHERE sweep_id = ?1 AND id > {} ORDER BY id", whole ? 0 : last), sweep,
              [&]() -> void* { return &record.readings.emplace_back(); });
  }
  if (!std::ranges::is_sorted(record.readings, {}, &Reading::id)) std::ranges::sort(record.readings, {}, &Reading::id);
  const bool configuration_went =
      record.configuration_id != 0 && std::ranges::find(record.configurations, record.configuration_id,
                                                        &Configuration::id) == record.configurations.end();
  // What is left is of configurations that were not read; what is damaged is set apart with all of it in view.
  if (configuration_went || book.damaged().size() > damaged) {
    auto anew = load_test(book, test_id);
    if (!anew) return false;
    if (!configuration_went) keep_configuration(*anew, record.configuration_id);
    record = std::move(*anew);
    if (!configuration_went) return true;
  }
  keep_configuration(record, record.configuration_id);
  return true;
}

Id add_test(Book& book, const TestRecord& record, const std::string& label, const PictureFiles& pictures) {
  TestRecord copy = record;
  book.edit(label, [&](Edit& edit) {
    for (const auto& [digest, bytes] : pictures) edit.keep_picture(bytes);
    const KnownShelves shelves(book, record);
    renumber(copy, [&](const Kind& kind, void* row) {
      if (const Id known = shelves.id_of(kind, kind.id(row))) return known;
      if (const Id known = known_of_meters(book, kind, row)) return known;
      kind.id(row) = 0;
      return edit.add(kind, row);
    });
  });
  return copy.test.id;
}

}  // namespace sunbreak::book
