#include "record/json.h"

#include <cmath>
#include <limits>
#include <nlohmann/json.hpp>
#include <stdexcept>
#include <unordered_map>

namespace sunbreak::record {
namespace {

using Library = nlohmann::ordered_json;

constexpr std::size_t most_levels = 100;

Library library_value(const Json& value) {
  if (value.is_object()) {
    Library::object_t object;
    for (std::size_t i = 0; i < value.size(); ++i) object.push_back({value.names()[i], library_value(value[i])});
    return object;
  }
  if (value.is_array()) {
    Library array = Library::array();
    for (const Json& item : value) array.push_back(library_value(item));
    return array;
  }
  if (value.is_text()) return value.text();
  if (value.is_whole()) return value.whole();
  if (value.is_number()) return value.number();
  if (value.is_boolean()) return value.truth();
  return nullptr;
}

}  // namespace

/// Puts together what the library meets in a text.
class JsonReader : public nlohmann::json_sax<Library> {
 public:
  Json take() { return std::move(root_); }

  bool null() override { return put({}); }
  bool boolean(bool value) override { return put(value); }
  bool number_integer(std::int64_t value) override { return put(value); }
  bool number_unsigned(std::uint64_t value) override {
    return value <= std::uint64_t{std::numeric_limits<std::int64_t>::max()} ? put(value)
                                                                            : put(static_cast<double>(value));
  }
  bool number_float(double value, const std::string&) override { return put(value); }
  bool string(std::string& value) override { return put(std::move(value)); }
  bool binary(binary_t&) override { return false; }
  bool start_object(std::size_t) override { return open(Json::object()); }
  bool key(std::string& name) override { return name_ = std::move(name), true; }
  bool end_object() override { return close(); }
  bool start_array(std::size_t) override { return open(Json::array()); }
  bool end_array() override { return close(); }
  bool parse_error(std::size_t, const std::string&, const nlohmann::detail::exception&) override { return false; }

 private:
  Json& place() {
    if (open_.empty()) return root_;
    auto& [within, members] = open_.back();
    if (within->is_object()) {
      const auto [member, is_new] = members.try_emplace(name_, within->size());
      if (!is_new) return within->items_[member->second];  // of two with the same name the last counts
      within->names_.push_back(name_);
    }
    return within->items_.emplace_back();
  }
  bool put(Json value) { return place() = std::move(value), true; }
  bool open(Json value) {
    Json& at = place();
    at = std::move(value);
    open_.push_back({&at, {}});
    return open_.size() <= most_levels;
  }
  bool close() { return open_.pop_back(), true; }

  Json root_;
  struct Open {
    Json* value;  ///< stays where it is: what it is within does not grow before it is closed
    std::unordered_map<std::string, std::size_t> members;
  };
  std::vector<Open> open_;  ///< outermost first
  std::string name_;
};

Json::Json() = default;
Json::Json(const Json&) = default;
Json::Json(Json&&) noexcept = default;
Json& Json::operator=(const Json&) = default;
Json& Json::operator=(Json&&) noexcept = default;
Json::~Json() = default;

bool Json::operator==(const Json& other) const {
  if (is_number() && other.is_number() && is_whole() != other.is_whole()) return number() == other.number();
  return kind_ == other.kind_ && whole_ == other.whole_ && number_ == other.number_ && text_ == other.text_ &&
         names_ == other.names_ && items_ == other.items_;
}

Json::Json(double value) {
  if (!std::isfinite(value)) return;
  kind_ = Kind::Number;
  number_ = value;
}

Json::Json(std::string value) : kind_(Kind::Text), text_(std::move(value)) {}

Json::Json(std::initializer_list<JsonMember> members) : kind_(Kind::Object) {
  for (const JsonMember& member : members) (*this)[member.name] = member.value;
}

Json Json::array(std::initializer_list<Json> values) {
  Json array;
  array.kind_ = Kind::Array;
  array.items_ = values;
  return array;
}

Json Json::object() { return Json(std::initializer_list<JsonMember>{}); }

double Json::number() const {
  return is_whole() ? static_cast<double>(whole_) : kind_ == Kind::Number ? number_ : std::nan("");
}

const Json* Json::find(std::string_view name) const {
  for (std::size_t i = 0; i < names_.size(); ++i)
    if (names_[i] == name) return &items_[i];
  return nullptr;
}

const Json& Json::operator[](std::string_view name) const {
  static const Json none;
  const Json* found = find(name);
  return found ? *found : none;
}

Json& Json::operator[](std::string_view name) {
  if (const Json* found = find(name)) return items_[static_cast<std::size_t>(found - items_.data())];
  add(std::string(name), {});
  return items_.back();
}

void Json::add(std::string name, Json value) {
  if (is_null()) kind_ = Kind::Object;
  if (!is_object()) throw std::logic_error("a member of what is no JSON object");
  names_.push_back(std::move(name));
  items_.push_back(std::move(value));
}

void Json::push_back(Json value) {
  if (is_null()) kind_ = Kind::Array;
  if (!is_array()) throw std::logic_error("another value of what is no JSON array");
  items_.push_back(std::move(value));
}

void Json::update(Json other) {
  for (std::size_t i = 0; i < other.size(); ++i) (*this)[other.names_[i]] = std::move(other.items_[i]);
}

Json json_of(std::string_view text) {
  JsonReader reader;
  if (Library::sax_parse(text, &reader)) return reader.take();
  Json broken;
  broken.kind_ = Json::Kind::Broken;
  return broken;
}

std::string json_text(const Json& value, int indent) {
  return library_value(value).dump(indent, ' ', false, Library::error_handler_t::replace);
}

}  // namespace sunbreak::record
