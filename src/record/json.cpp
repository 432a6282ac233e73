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

/// A single value as the library writes it.
std::string written(const Library& value) { return value.dump(-1, ' ', false, Library::error_handler_t::replace); }

/// `indent`: spaces a level; all on one line where it is negative.
void write(const Json& value, int indent, int level, std::string& text) {
  if (value.is_text()) {
    text += written(value.text());
  } else if (value.is_whole()) {
    text += std::to_string(value.whole());
  } else if (value.is_number()) {
    text += written(value.number());
  } else if (value.is_boolean()) {
    text += value.truth() ? "true" : "false";
  } else if (value.is_array() || value.is_object()) {
    const auto new_line = [&](int at) {
      if (indent >= 0)
        text.append(1, '\n').append(static_cast<std::size_t>(at) * static_cast<std::size_t>(indent), ' ');
    };
    text += value.is_array() ? '[' : '{';
    for (std::size_t i = 0; i < value.size(); ++i) {
      if (i > 0) text += ',';
      new_line(level + 1);
      if (value.is_object()) text.append(written(value.names()[i])).append(indent >= 0 ? ": " : ":");
      write(value[i], indent, level + 1, text);
    }
    if (!value.empty()) new_line(level);
    text += value.is_array() ? ']' : '}';
  } else {
    text += "null";
  }
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
      if (!is_new) return within->held().items[member->second];  // of two with the same name the last counts
      within->held().names.push_back(name_);
    }
    return within->held().items.emplace_back();
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
Json::Json(const Json& other)
    : kind_(other.kind_), whole_(other.whole_), held_(other.held_ ? std::make_unique<Held>(*other.held_) : nullptr) {}
Json::Json(Json&&) noexcept = default;
Json& Json::operator=(const Json& other) { return *this = Json(other); }
Json& Json::operator=(Json&&) noexcept = default;
Json::~Json() = default;

Json::Held& Json::held() {
  if (!held_) held_ = std::make_unique<Held>();
  return *held_;
}

const Json::Held& Json::held() const {
  static const Held nothing;
  return held_ ? *held_ : nothing;
}

bool Json::operator==(const Json& other) const {
  if (is_number() && other.is_number())
    return is_whole() && other.is_whole() ? whole_ == other.whole_ : number() == other.number();
  const Held &own = held(), &others = other.held();
  return kind_ == other.kind_ && whole_ == other.whole_ && own.text == others.text && own.names == others.names &&
         own.items == others.items;
}

Json::Json(double value) {
  if (!std::isfinite(value)) return;
  kind_ = Kind::Number;
  number_ = value;
}

Json::Json(std::string value) : kind_(Kind::Text) { held().text = std::move(value); }

Json::Json(std::initializer_list<JsonMember> members) : kind_(Kind::Object) {
  for (const JsonMember& member : members) (*this)[member.name] = std::move(member.value);
}

Json Json::array(std::initializer_list<Json> values) {
  Json array;
  array.kind_ = Kind::Array;
  if (values.size() > 0) array.held().items = values;
  return array;
}

Json Json::object() { return Json(std::initializer_list<JsonMember>{}); }

double Json::number() const {
  return is_whole() ? static_cast<double>(whole_) : kind_ == Kind::Number ? number_ : std::nan("");
}

const Json* Json::find(std::string_view name) const {
  const Held& own = held();
  for (std::size_t i = 0; i < own.names.size(); ++i)
    if (own.names[i] == name) return &own.items[i];
  return nullptr;
}

const Json& Json::operator[](std::string_view name) const {
  static const Json none;
  const Json* found = find(name);
  return found ? *found : none;
}

Json& Json::operator[](std::string_view name) {
  if (const Json* found = find(name)) return held().items[static_cast<std::size_t>(found - held().items.data())];
  add(std::string(name), {});
  return held().items.back();
}

void Json::add(std::string name, Json value) {
  if (is_null()) kind_ = Kind::Object;
  if (!is_object()) throw std::logic_error("a member of what is no JSON object");
  held().names.push_back(std::move(name));
  held().items.push_back(std::move(value));
}

void Json::push_back(Json value) {
  if (is_null()) kind_ = Kind::Array;
  if (!is_array()) throw std::logic_error("another value of what is no JSON array");
  held().items.push_back(std::move(value));
}

void Json::update(Json other) {
  for (std::size_t i = 0; i < other.size(); ++i) (*this)[other.names()[i]] = std::move(other[i]);
}

Json json_of(std::string_view text) {
  JsonReader reader;
  if (Library::sax_parse(text, &reader)) return reader.take();
  Json broken;
  broken.kind_ = Json::Kind::Broken;
  return broken;
}

std::string json_text(const Json& value, int indent) {
  std::string text;
  write(value, indent, 0, text);
  return text;
}

}  // namespace sunbreak::record
