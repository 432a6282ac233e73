#include "gathering/members.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "book/test_rows.h"
#include "evaluation/lineup/entrant.h"
#include "exchange/files/digest.h"
#include "exchange/package/data_package.h"
#include "gathering/crew.h"
#include "record/configurations.h"
#include "record/json.h"

namespace sunbreak::gathering {
namespace {

namespace fs = std::filesystem;
using evaluation::Entrant;
using namespace record;
using book::Book;

template <typename Row>
std::map<Id, Row> by_id(const Book& book) {
  std::map<Id, Row> rows;
  for (Row& row : book.all<Row>()) rows.emplace(row.id, std::move(row));
  return rows;
}

template <typename Row>
std::map<Id, std::vector<Row>> by_parent(const Book& book, Id Row::*parent) {
  std::map<Id, std::vector<Row>> rows;
  for (Row& row : book.all<Row>()) rows[row.*parent].push_back(std::move(row));
  return rows;
}

/// A record's row as a text, for telling contents apart.
template <typename Row>
void add_text(std::string& text, const Row& row) {
  for (const Column& c : kind_of<Row>().columns) {
    const Value value = c.get(&row);
    if (const auto* whole = std::get_if<std::int64_t>(&value))
      text += std::to_string(*whole);
    else if (const auto* number = std::get_if<double>(&value))
      text += fmt::format("{}", *number);
    else if (const auto* words = std::get_if<std::string_view>(&value))
      text += *words;
    text += '\x1f';
  }
}

/// By what an entrant's entry is found again: the test's token, and what it takes from the shelves.
std::string content_key(const std::map<Id, std::string>& tokens, const TestRecord& head) {
  const auto token = tokens.find(head.test.id);
  if (token == tokens.end()) return {};
  std::string text = token->second;
  add_text(text, head.fixture);
  add_text(text, head.bench);
  for (const Meter& meter : head.meters) add_text(text, meter);
  for (const CheckLampReading& reading : head.check_readings) add_text(text, reading);
  return fmt::format("{}-{}", exchange::sha256_digits(text), head.configuration_id);
}

constexpr std::size_t told_by_readings = 3;

/// First, last and between of those that say when they were taken.
std::vector<Reading> some_of(std::vector<Reading> readings) {
  std::erase_if(readings, [](const Reading& r) { return r.taken_at.empty(); });
  std::vector<Reading> some;
  for (std::size_t k = 0; k < told_by_readings && !readings.empty(); ++k)
    some.push_back(readings[k * (readings.size() - 1) / (told_by_readings - 1)]);
  return some;
}

bool same_reading(const Reading& a, const Reading& b) {
  return a.taken_at == b.taken_at && a.raw == b.raw && a.station == b.station;
}

}  // namespace

std::vector<Entrant> entrants_of(const Book& book) {
  const auto fixtures = by_id<Fixture>(book);
  const auto benches = by_id<Bench>(book);
  const auto meters = by_id<Meter>(book);
  const auto lamps = book.all<CheckLampReading>("ORDER BY id");
  const auto rungs = by_parent<Rung>(book, &Rung::test_id);
  const auto configurations = by_parent<Configuration>(book, &Configuration::test_id);
  const auto claims = by_parent<Claim>(book, &Claim::fixture_id);
  const auto facts = by_parent<BoxFact>(book, &BoxFact::fixture_id);
  const std::map<Id, std::string> tokens = book.content_tokens();
  const std::vector<Test> tests = book.all<Test>("WHERE removed = 0 ORDER BY id");
  std::vector<std::vector<Entrant>> of_test(tests.size());
  const auto take = [](auto& rows, const auto& map, Id id) {
    if (const auto found = map.find(id); found != map.end()) rows = found->second;
  };
  const auto tell = [&](std::size_t n) {
    const Test& test = tests[n];
    const auto fixture = fixtures.find(test.fixture_id);
    const auto bench = benches.find(test.bench_id);
    if (fixture == fixtures.end() || bench == benches.end()) return;
    TestRecord head;
    head.test = test, head.fixture = fixture->second, head.bench = bench->second;
    for (const auto& id : {test.sensor_id, test.wall_meter_id})
      if (id && meters.contains(*id)) head.meters.push_back(meters.at(*id));
    if (test.sensor_id)
      for (const CheckLampReading& reading : lamps)
        if (reading.meter_id == *test.sensor_id) head.check_readings.push_back(reading);
    take(head.rungs, rungs, test.id);
    take(head.configurations, configurations, test.id);
    take(head.claims, claims, test.fixture_id);
    take(head.box_facts, facts, test.fixture_id);
    const auto add = [&](const TestRecord& narrowed) {
      of_test[n].push_back(evaluation::entrant_of(narrowed));
      of_test[n].back().content = content_key(tokens, narrowed);
    };
    if (head.configurations.empty())
      add(head);
    else
      for (const Id configuration : configurations_of(head)) add(of_configuration(head, configuration));
  };
  run_slices(tests.size(), [&](std::size_t from, std::size_t to) {
    for (std::size_t n = from; n < to; ++n) tell(n);
  });
  std::vector<Entrant> all;
  for (std::vector<Entrant>& entrants : of_test) std::ranges::move(entrants, std::back_inserter(all));
  return all;
}

std::vector<fs::path> package_files(const std::vector<fs::path>& files_and_folders,
                                    std::vector<RefusedGuest>& refused) {
  std::vector<fs::path> files;
  std::set<fs::path> taken;
  const auto take = [&](const fs::path& file) {
    std::error_code error;
    const fs::path whole = fs::weakly_canonical(file, error);
    if (taken.insert(error ? file : whole).second) files.push_back(file);
  };
  for (const fs::path& given : files_and_folders) {
    std::error_code error;
    if (!fs::is_directory(given, error)) {
      take(given);
      continue;
    }
    std::vector<fs::path> inside;
    for (auto it = fs::directory_iterator(given, error); !error && it != fs::directory_iterator(); it.increment(error))
      if (it->path().extension() == ".zip") inside.push_back(it->path());
    if (error)
      refused.push_back(
          {given,
           {"the folder cannot be read: " + error.message(), "its packages are left out", "look at its rights"}});
    std::ranges::sort(inside);
    for (const fs::path& file : inside) take(file);
  }
  return files;
}

Guests guests_from(const std::vector<fs::path>& files_and_folders, std::stop_token stop) {
  Guests guests;
  for (const fs::path& file : package_files(files_and_folders, guests.refused)) {
    if (stop.stop_requested()) break;
    auto record = exchange::read_package_file(file);
    if (!record) {
      guests.refused.push_back({file, record.problem()});
      continue;
    }
    const std::string digest = exchange::digest_of_file(file);
    Guests::One one{{}, some_of(record.value().readings)};
    for (const Id configuration : configurations_of(record.value())) {
      Entrant& e = one.entrants.emplace_back(evaluation::entrant_of(of_configuration(record.value(), configuration)));
      e.test_id = 0, e.configuration_id = configuration;
      e.guest = file.string();
      if (!digest.empty()) e.content = fmt::format("guest-{}-{}", digest, configuration);
    }
    guests.tests.push_back(std::move(one));
  }
  return guests;
}

void leave_out_own(Guests& guests, const Book& book) {
  if (guests.tests.empty()) return;
  Json times = Json::array();
  for (const Guests::One& one : guests.tests)
    for (const Reading& r : one.some) times.push_back(r.taken_at);
  // The sweeps' tests of what was taken at those times, in one pass over all readings.
  std::map<std::string, std::vector<std::pair<Reading, Id>>> own;
  for (Reading& r : book.all<Reading>("WHERE taken_at IN (SELECT value FROM json_each(?))", json_text(times)))
    if (const auto sweep = book.find<Sweep>(r.sweep_id)) own[r.taken_at].emplace_back(std::move(r), sweep->test_id);
  const auto owner = [&](const Guests::One& one) -> std::optional<TestRecord> {
    std::optional<std::set<Id>> all;
    for (const Reading& r : one.some) {
      std::set<Id> tests;
      for (const auto& [reading, test] : own[r.taken_at])
        if (same_reading(reading, r) && (!all || all->contains(test))) tests.insert(test);
      all = std::move(tests);
    }
    for (const Id test : all.value_or(std::set<Id>()))
      if (auto found = book::load_test(book, test); found && !found->test.removed) return found;
    return {};
  };
  std::erase_if(guests.tests, [&](const Guests::One& one) {
    const auto test = owner(one);
    if (test)
      guests.refused.push_back({one.entrants.front().guest,
                                {fmt::format("its readings are those of '{}' in the lab book", title_of(*test)),
                                 "it would count twice", "nothing needs to be done: the test stands in the line-up"}});
    return test.has_value();
  });
}

Result<TestRecord> record_of(const Entrant& entrant, const Book* book) {
  if (!entrant.guest.empty()) {
    auto record = exchange::read_package_file(entrant.guest, nullptr, &entrant.altered);
    if (record) keep_configuration(record.value(), entrant.configuration_id);
    return record;
  }
  auto record = book ? book::load_test(*book, entrant.test_id) : std::nullopt;
  if (!record) return Problem{"the test is no longer in the lab book", "", "look at the line-up again"};
  keep_configuration(*record, entrant.configuration_id);
  return std::move(*record);
}

}  // namespace sunbreak::gathering
