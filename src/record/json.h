#pragma once

#include <array>
#include <concepts>
#include <cstdint>
#include <initializer_list>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace sunbreak::record {

struct JsonMember;

/// A value of JSON; an object's members stand in the order they were put in. A library reads and writes its text, in
/// json.cpp alone: each file that includes that takes seconds longer to compile.
///
///     Json j{{"name", test.name}, {"watts", power_w}, {"rows", Json::array()}};
///     j["rows"].push_back({{"x_m", x}, {"y_m", y}});
class Json {
 public:
  Json();  ///< null
  Json(const Json& other);
  Json(Json&& other) noexcept;
  Json& operator=(const Json& other);
  Json& operator=(Json&& other) noexcept;
  ~Json();

  Json(std::nullptr_t) : Json() {}
  template <std::same_as<bool> Truth>
  Json(Truth value) : kind_(Kind::Boolean), whole_(value) {}
  template <std::integral Whole>
  requires(!std::same_as<Whole, bool>) Json(Whole value)
      : kind_(Kind::Whole), whole_(static_cast<std::int64_t>(value)) {}
  Json(double value);  ///< null where it is not finite: JSON has no such number
  Json(std::string value);
  Json(std::string_view value) : Json(std::string(value)) {}
  Json(const char* value) : Json(std::string(value)) {}
  /// Null where there is none.
  template <typename Value>
  Json(const std::optional<Value>& value) {
    if (value) *this = Json(*value);
  }
  template <typename Value>
  Json(const std::vector<Value>& values) : kind_(Kind::Array) {
    held().items.reserve(values.size());
    for (const Value& value : values) held().items.push_back(Json(value));
  }
  template <typename Value, std::size_t n>
  Json(const std::array<Value, n>& values) : Json(std::vector<Value>(values.begin(), values.end())) {}
  Json(std::initializer_list<JsonMember> members);
  static Json array(std::initializer_list<Json> values = {});
  static Json object();

  bool is_null() const { return kind_ == Kind::Null; }
  bool is_boolean() const { return kind_ == Kind::Boolean; }
  bool is_number() const { return kind_ == Kind::Number || is_whole(); }
  bool is_whole() const { return kind_ == Kind::Whole; }
  bool is_text() const { return kind_ == Kind::Text; }
  bool is_array() const { return kind_ == Kind::Array; }
  bool is_object() const { return kind_ == Kind::Object; }
  /// Of a text that was no JSON.
  bool broken() const { return kind_ == Kind::Broken; }

  bool truth() const { return kind_ == Kind::Boolean && whole_ != 0; }
  double number() const;  ///< NaN where it is none
  std::int64_t whole() const { return is_whole() ? whole_ : 0; }
  const std::string& text() const { return held().text; }  ///< empty where it is none

  /// Of an array's values, or an object's members; none of anything else.
  std::size_t size() const { return held().items.size(); }
  bool empty() const { return size() == 0; }
  auto begin() const { return held().items.begin(); }
  auto end() const { return held().items.end(); }
  auto begin() { return held().items.begin(); }
  auto end() { return held().items.end(); }
  Json& back() { return held().items.back(); }
  /// std::out_of_range beyond the last.
  const Json& operator[](std::size_t i) const { return held().items.at(i); }
  Json& operator[](std::size_t i) { return held().items.at(i); }

  /// Names of an object's members, in the order of its values.
  const std::vector<std::string>& names() const { return held().names; }
  bool contains(std::string_view name) const { return find(name) != nullptr; }
  const Json* find(std::string_view name) const;        ///< nullptr where it has no such member
  const Json& operator[](std::string_view name) const;  ///< null where it has no such member
  /// Puts it in where it has none; std::logic_error where this is neither an object nor null.
  Json& operator[](std::string_view name);

  /// Puts a member in that is not there yet, without looking for it: where there are thousands, that shows.
  void add(std::string name, Json value);
  void push_back(Json value);  ///< std::logic_error where this is neither an array nor null
  /// Takes over all members of another object; std::logic_error where this is neither an object nor null.
  void update(Json other);

  /// Numbers by their value, members in their order.
  bool operator==(const Json& other) const;

 private:
  friend Json json_of(std::string_view text);
  friend class JsonReader;
  enum class Kind : std::uint8_t { Null, Boolean, Whole, Number, Text, Array, Object, Broken };
  /// What all but a number is made of: most values are numbers, and there may be hundreds of thousands.
  struct Held {
    std::string text;
    std::vector<Json> items;
    std::vector<std::string> names;
  };
  Held& held();
  const Held& held() const;  ///< an empty one where there is none

  Kind kind_ = Kind::Null;
  union {
    std::int64_t whole_ = 0;
    double number_;
  };
  std::unique_ptr<Held> held_;
};

struct JsonMember {
  std::string_view name;
  mutable Json value;  ///< an object takes it out of its list
};

/// What a text says; broken() where it is no JSON, or more than a hundred levels deep.
Json json_of(std::string_view text);

/// A value as text: on one line, or with so many spaces a level. What is no UTF-8 in it becomes U+FFFD.
std::string json_text(const Json& value, int indent = -1);

}  // namespace sunbreak::record
