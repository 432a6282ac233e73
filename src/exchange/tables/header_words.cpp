#include "exchange/tables/header_words.h"

#include <algorithm>
#include <vector>

namespace sunbreak::exchange {
namespace {

std::vector<std::string> words_of(std::string_view header) {
  std::vector<std::string> words(1);
  for (const char c : lower_case(header))
    if (std::string_view(" _()[]{}:,;").find(c) != std::string_view::npos)
      words.emplace_back();
    else
      words.back() += c;
  return words;
}

}  // namespace

bool header_names(std::string_view header, std::string_view name) {
  if (name.find(' ') != name.npos) {
    std::string plain = lower_case(header);
    std::replace(plain.begin(), plain.end(), '_', ' ');
    return plain.find(name) != std::string::npos;
  }
  const auto words = words_of(header);
  return std::find(words.begin(), words.end(), name) != words.end();
}

bool header_starts(std::string_view header, std::string_view name) {
  const auto words = words_of(header);
  return std::any_of(words.begin(), words.end(), [&](const std::string& w) { return w.starts_with(name); });
}

}  // namespace sunbreak::exchange
