#include "book/row_sum.h"

#include <algorithm>
#include <bit>
#include <cstring>

namespace sunbreak::book {

using namespace record;

RowSum::RowSum(const Kind& kind, Id id) {
  mix(kind.name());
  mix(static_cast<std::uint64_t>(id));
}

void RowSum::mix(std::uint64_t word) {
  // Each step is one to one in the sum and in the word: a changed word is never lost in the steps after it.
  constexpr std::uint64_t odd = 0x9E3779B97F4A7C15;
  sum_ = std::rotl(sum_ ^ word, 29) * odd;
  sum_ ^= sum_ >> 32;
}

void RowSum::mix(std::string_view bytes) {
  mix(static_cast<std::uint64_t>(bytes.size()));
  for (; !bytes.empty(); bytes.remove_prefix(std::min(bytes.size(), sizeof(std::uint64_t)))) {
    std::uint64_t word = 0;
    std::memcpy(&word, bytes.data(), std::min(bytes.size(), sizeof word));
    mix(word);
  }
}

void RowSum::add(const Value& value) {
  mix(static_cast<std::uint64_t>(value.index()));
  if (const auto* whole = std::get_if<std::int64_t>(&value)) mix(static_cast<std::uint64_t>(*whole));
  // SQLite keeps no negative zero.
  if (const auto* number = std::get_if<double>(&value)) mix(std::bit_cast<std::uint64_t>(*number + 0.0));
  if (const auto* text = std::get_if<std::string_view>(&value)) mix(*text);
}

std::int64_t row_sum(const Kind& kind, const void* row, Id id) {
  RowSum sum(kind, id);
  for (const Column& column : kind.columns) sum.add(column.get(row));
  return sum.value();
}

std::int64_t text_sum(std::string_view text) {
  static const Kind none{.facts = {.name = "text"}};
  RowSum sum(none, 0);
  sum.add(Value(text));
  return sum.value();
}

}  // namespace sunbreak::book
