#include "record/kinds.h"

#include <algorithm>
#include <cmath>

namespace sunbreak::record {
namespace {

template <typename V>
struct Plain {
  using type = V;
};
template <typename V>
struct Plain<std::optional<V>> {
  using type = V;
};

template <typename V>
constexpr Type type_of() {
  if constexpr (std::is_same_v<V, bool>) return Type::Boolean;
  if constexpr (std::is_same_v<V, double>) return Type::Number;
  if constexpr (std::is_same_v<V, std::string>) return Type::Text;
  if constexpr (std::is_same_v<V, Bytes>) return Type::Bytes;
  return Type::Integer;
}

Value value_of(bool v) { return std::int64_t{v}; }
Value value_of(int v) { return std::int64_t{v}; }
Value value_of(Id v) { return v; }
Value value_of(double v) { return v; }
Value value_of(const std::string& v) { return std::string_view(v); }
Value value_of(const Bytes& v) { return std::string_view(v.data); }
template <typename V>
Value value_of(const std::optional<V>& v) {
  return v ? value_of(*v) : Value{};
}

bool take(const Value& value, Id& v) {
  const auto* whole = std::get_if<std::int64_t>(&value);
  if (whole) v = *whole;
  return whole != nullptr;
}
bool take(const Value& value, int& v) {
  const auto* whole = std::get_if<std::int64_t>(&value);
  if (!whole || *whole < std::numeric_limits<int>::min() || *whole > std::numeric_limits<int>::max()) return false;
  v = static_cast<int>(*whole);
  return true;
}
bool take(const Value& value, bool& v) {
  const auto* whole = std::get_if<std::int64_t>(&value);
  if (!whole || (*whole != 0 && *whole != 1)) return false;
  v = *whole == 1;
  return true;
}
bool take(const Value& value, double& v) {
  if (const auto* whole = std::get_if<std::int64_t>(&value)) return v = static_cast<double>(*whole), true;
  const auto* number = std::get_if<double>(&value);
  if (number) v = *number;
  return number != nullptr;
}
bool take(const Value& value, std::string& v) {
  const auto* text = std::get_if<std::string_view>(&value);
  if (text) v = *text;
  return text != nullptr;
}
bool take(const Value& value, Bytes& v) { return take(value, v.data); }
template <typename V>
bool take(const Value& value, std::optional<V>& v) {
  if (std::holds_alternative<std::monostate>(value)) return v.reset(), true;
  V given{};
  if (!take(value, given)) return false;
  v = std::move(given);
  return true;
}

template <typename V>
Value read_member(const void* member) {
  return value_of(*static_cast<const V*>(member));
}
template <typename V>
bool write_member(void* member, const Value& value) {
  return take(value, *static_cast<V*>(member));
}

/// Collects the columns of a kind as its description names them.
class Columns {
 public:
  template <typename Record, typename V>
  ColumnDetails add(const char* name, V Record::*member, const char* meaning) {
    static const Record fresh;
    using Told = typename Plain<V>::type;
    return add(name, meaning, type_of<Told>(), !std::is_same_v<V, Told>, read_member<V>, write_member<V>, &fresh,
               &(fresh.*member));
  }
  std::vector<Column> take_all() { return std::move(columns_); }

 private:
  ColumnDetails add(const char* name, const char* meaning, Type type, bool optional, decltype(Column::read) read,
                    decltype(Column::write) write, const void* fresh_record, const void* its_member) {
    Column& c = columns_.emplace_back();
    c.name = name;
    c.meaning = meaning;
    c.type = type;
    c.optional = optional;
    c.read = read;
    c.write = write;
    c.offset = static_cast<std::size_t>(static_cast<const char*>(its_member) - static_cast<const char*>(fresh_record));
    c.before = c.get(fresh_record);
    return ColumnDetails(c);
  }

  std::vector<Column> columns_;
};

template <typename Record>
Kind described() {
  Columns columns;
  Described<Record>::describe(columns);
  return {Described<Record>::facts, columns.take_all(), [](void* r) -> Id& { return static_cast<Record*>(r)->id; }};
}

}  // namespace

const Column* Kind::column(std::string_view wanted) const {
  const auto found = std::find_if(columns.begin(), columns.end(), [&](const Column& c) { return c.name == wanted; });
  return found == columns.end() ? nullptr : &*found;
}

const Column* Kind::parent() const {
  const auto found = std::find_if(columns.begin(), columns.end(), [](const Column& c) { return c.parent; });
  return found == columns.end() ? nullptr : &*found;
}

std::span<const Kind> kinds() {
  static const std::vector<Kind> all = [] {
    std::vector<Kind> list;
    AllKinds::each([&]<typename Record>(std::type_identity<Record>) { list.push_back(described<Record>()); });
    return list;
  }();
  return all;
}

const Kind* kind_named(std::string_view name) {
  const auto all = kinds();
  const auto found = std::find_if(all.begin(), all.end(), [&](const Kind& k) { return k.name() == name; });
  return found == all.end() ? nullptr : &*found;
}

int newest_schema(Schemas of) {
  int newest = 1;
  for (const Kind& kind : kinds()) {
    if (of == Schemas::Published && !kind.facts.published) continue;
    newest = std::max(newest, kind.facts.since);
    for (const Column& column : kind.columns) newest = std::max(newest, column.since);
  }
  return newest;
}

}  // namespace sunbreak::record
