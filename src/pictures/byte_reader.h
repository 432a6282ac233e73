#pragma once

#include <cstdint>
#include <optional>
#include <string_view>

namespace sunbreak::pictures {

/// Whole numbers in bytes that may end anywhere: nothing where they would go beyond.
class ByteReader {
 public:
  explicit ByteReader(std::string_view bytes, bool low_first = false) : bytes_(bytes), low_first_(low_first) {}

  std::size_t size() const { return bytes_.size(); }
  std::optional<std::uint8_t> byte(std::size_t at) const {
    return at < bytes_.size() ? std::optional(static_cast<std::uint8_t>(bytes_[at])) : std::nullopt;
  }
  std::optional<std::uint32_t> two(std::size_t at) const { return number(at, 2); }
  std::optional<std::uint32_t> four(std::size_t at) const { return number(at, 4); }
  /// Empty where it would go beyond.
  std::string_view text(std::size_t at, std::size_t count) const {
    return at <= bytes_.size() && count <= bytes_.size() - at ? bytes_.substr(at, count) : std::string_view();
  }

 private:
  std::optional<std::uint32_t> number(std::size_t at, std::size_t count) const {
    if (at > bytes_.size() || count > bytes_.size() - at) return {};
    std::uint32_t value = 0;
    for (std::size_t i = 0; i < count; ++i)
      value = value << 8 | static_cast<std::uint8_t>(bytes_[at + (low_first_ ? count - 1 - i : i)]);
    return value;
  }

  std::string_view bytes_;
  bool low_first_;
};

}  // namespace sunbreak::pictures
