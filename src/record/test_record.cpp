#include "record/test_record.h"

#include <algorithm>
#include <iterator>

#include "record/kinds.h"

namespace sunbreak::record {
namespace {

template <typename Record>
const Record* by_id(const std::vector<Record>& records, Id id) {
  const auto found = std::find_if(records.begin(), records.end(), [&](const Record& r) { return r.id == id; });
  return found == records.end() ? nullptr : &*found;
}

}  // namespace

Test::Test() = default;
Test::~Test() = default;
Test::Test(const Test&) = default;
Test::Test(Test&&) noexcept = default;
Test& Test::operator=(const Test&) = default;
Test& Test::operator=(Test&&) noexcept = default;
bool Test::operator==(const Test&) const = default;

TestRecord::TestRecord() = default;
TestRecord::~TestRecord() = default;
TestRecord::TestRecord(const TestRecord&) = default;
TestRecord::TestRecord(TestRecord&&) noexcept = default;
TestRecord& TestRecord::operator=(const TestRecord&) = default;
TestRecord& TestRecord::operator=(TestRecord&&) noexcept = default;
bool TestRecord::operator==(const TestRecord&) const = default;

std::vector<Rung> TestRecord::planned_rungs() const {
  std::vector<Rung> planned;
  std::copy_if(rungs.begin(), rungs.end(), std::back_inserter(planned), [](const Rung& r) { return !r.extra; });
  return planned;
}

std::vector<Stop> TestRecord::planned_stops() const {
  std::vector<Stop> planned;
  std::copy_if(stops.begin(), stops.end(), std::back_inserter(planned), [](const Stop& s) { return !s.extra; });
  return planned;
}

const Rung* TestRecord::rung(Id id) const { return by_id(rungs, id); }
const Stop* TestRecord::stop(Id id) const { return by_id(stops, id); }
const Meter* TestRecord::meter(const std::optional<Id>& id) const { return id ? by_id(meters, *id) : nullptr; }
const Sweep* TestRecord::sweep(Id id) const { return by_id(sweeps, id); }
const Sweep* TestRecord::sweep(Id rung_id, Id stop_id) const {
  const auto found = std::find_if(sweeps.begin(), sweeps.end(),
                                  [&](const Sweep& s) { return s.rung_id == rung_id && s.stop_id == stop_id; });
  return found == sweeps.end() ? nullptr : &*found;
}

const Fault* TestRecord::apart(Id sweep_id) const {
  const auto found = std::find_if(faults.begin(), faults.end(), [&](const Fault& f) {
    return f.of_all || (f.sweep_id != 0 && f.sweep_id == sweep_id);
  });
  return found == faults.end() ? nullptr : &*found;
}

std::string title_of(const TestRecord& record) {
  return record.test.name.empty() ? record.fixture.name + " on " + record.bench.name : record.test.name;
}

TestRecord without_readings(const TestRecord& record) {
  TestRecord rest;
  const auto take = [&](auto member) {
    using Part = std::remove_reference_t<decltype(rest.*member)>;
    constexpr bool bulk = std::is_same_v<Part, std::vector<Reading>> || std::is_same_v<Part, std::vector<Placement>> ||
                          std::is_same_v<Part, std::vector<SideReading>> || std::is_same_v<Part, std::vector<LogPart>>;
    if constexpr (!bulk) rest.*member = record.*member;
  };
  TestTables::each(take);
  rest.faults = record.faults;
  rest.configuration_id = record.configuration_id;
  return rest;
}

template <typename Part>
const TableRows::Ways* TableRows::ways_of() {
  if constexpr (std::is_same_v<Part, typename RecordOf<Part>::type>) {
    static constexpr Ways ways{[](const void*) { return std::size_t{1}; }, [](void* part, std::size_t) { return part; },
                               [](void* part) { return part; }, [](void*, std::size_t) {}};
    return &ways;
  } else {
    static constexpr Ways ways{
        [](const void* part) { return static_cast<const Part*>(part)->size(); },
        [](void* part, std::size_t i) -> void* { return static_cast<Part*>(part)->data() + i; },
        [](void* part) -> void* { return &static_cast<Part*>(part)->emplace_back(); },
        [](void* part, std::size_t i) {
          static_cast<Part*>(part)->erase(static_cast<Part*>(part)->begin() + static_cast<std::ptrdiff_t>(i));
        }};
    return &ways;
  }
}

std::vector<TableRows> tables_of(TestRecord& record) {
  std::vector<TableRows> tables;
  const auto add = [&]<typename Part>(Part& part) {
    TableRows& rows = tables.emplace_back();
    rows.kind_ = &kind_of<typename RecordOf<Part>::type>();
    rows.single_ = std::is_same_v<Part, typename RecordOf<Part>::type>;
    rows.part_ = &part;
    rows.ways_ = TableRows::ways_of<Part>();
  };
  TestTables::each([&](auto member) { add(record.*member); });
  return tables;
}

// What is handed out is constant: no row can be reached but to read it.
const std::vector<TableRows> tables_of(const TestRecord& record) { return tables_of(const_cast<TestRecord&>(record)); }

}  // namespace sunbreak::record
