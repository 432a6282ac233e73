#pragma once

#include <kainjow/mustache.hpp>
#include <string>

namespace sunbreak::report {

/// "not stated" for what is empty.
inline std::string stated(const std::string& text) { return text.empty() ? "not stated" : text; }

/// A table of names and values.
class FactsTable {
 public:
  FactsTable& add(const std::string& name, const std::string& value) { return add_given(name, stated(value)); }
  /// Says nothing of what is empty.
  FactsTable& add_given(const std::string& name, const std::string& value) {
    if (value.empty()) return *this;
    kainjow::mustache::data row;
    row.set("name", name);
    row.set("value", value);
    rows_.push_back(row);
    return *this;
  }
  bool empty() const { return rows_.empty(); }
  kainjow::mustache::data take() { return kainjow::mustache::data(rows_); }

 private:
  kainjow::mustache::list rows_;
};

}  // namespace sunbreak::report
