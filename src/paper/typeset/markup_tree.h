#pragma once

#include <map>
#include <string>
#include <string_view>
#include <vector>

namespace sunbreak::paper {

/// An element of a page, or a text between tags, which has no name.
struct Element {
  std::string name, text;
  std::map<std::string, std::string> attributes;
  std::vector<Element> children;

  bool has_class(std::string_view wanted) const;
  /// Empty where it has none of that name.
  std::string attribute(const std::string& wanted) const;
  /// All text within.
  std::string words() const;
};

/// What is between the body's tags of an HTML page.
Element markup_tree(const std::string& html);

}  // namespace sunbreak::paper
