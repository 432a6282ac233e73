#include "drawing/png.h"

#include <zlib.h>

#include <algorithm>
#include <stdexcept>

namespace sunbreak::drawing {
namespace {

constexpr std::size_t large_bytes = 4'000'000;

void put_32(std::string& out, std::uint32_t value) {
  for (const int shift : {24, 16, 8, 0}) out += static_cast<char>(value >> shift & 0xFF);
}

void put_chunk(std::string& out, std::string_view type, const std::string& data) {
  put_32(out, static_cast<std::uint32_t>(data.size()));
  const std::string checked = std::string(type) + data;
  out += checked;
  put_32(out, static_cast<std::uint32_t>(
                  crc32(0, reinterpret_cast<const Bytef*>(checked.data()), static_cast<uInt>(checked.size()))));
}

}  // namespace

std::string png(const Pixels& pixels) {
  std::string raw(static_cast<std::size_t>(pixels.rows) * (4u * static_cast<std::size_t>(pixels.columns) + 1), '\0');
  char* out_at = raw.data();
  for (int row = 0; row < pixels.rows; ++row) {
    ++out_at;  // no filter
    for (int column = 0; column < pixels.columns; ++column) {
      const std::uint32_t p = pixels.argb[static_cast<std::size_t>(row) * pixels.columns + column], alpha = p >> 24;
      for (const int shift : {16, 8, 0}) {
        const std::uint32_t part = p >> shift & 0xFF;
        *out_at++ = static_cast<char>(alpha == 255 ? part
                                      : alpha == 0 ? 0
                                                   : std::min<std::uint32_t>(255, part * 255 / alpha));
      }
      *out_at++ = static_cast<char>(alpha);
    }
  }
  // Of a large picture the time counts more than its last bytes.
  const int effort = raw.size() > large_bytes ? Z_BEST_SPEED : Z_DEFAULT_COMPRESSION;
  uLongf size = compressBound(static_cast<uLong>(raw.size()));
  std::string packed(size, '\0');
  if (compress2(reinterpret_cast<Bytef*>(packed.data()), &size, reinterpret_cast<const Bytef*>(raw.data()),
                static_cast<uLong>(raw.size()), effort) != Z_OK)
    throw std::runtime_error("a picture could not be compressed");
  packed.resize(size);
  std::string header;
  put_32(header, static_cast<std::uint32_t>(pixels.columns));
  put_32(header, static_cast<std::uint32_t>(pixels.rows));
  header += std::string("\x08\x06\x00\x00\x00", 5);  // 8 bits, red green blue alpha
  std::string out = "\x89PNG\r\n\x1a\n";
  put_chunk(out, "IHDR", header);
  put_chunk(out, "IDAT", packed);
  put_chunk(out, "IEND", {});
  return out;
}

std::string base64(std::string_view bytes) {
  constexpr char digits[] = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
  std::string out;
  for (std::size_t i = 0; i < bytes.size(); i += 3) {
    std::uint32_t three = 0;
    const std::size_t count = std::min<std::size_t>(3, bytes.size() - i);
    for (std::size_t k = 0; k < 3; ++k)
      three = three << 8 | (k < count ? static_cast<unsigned char>(bytes[i + k]) : 0u);
    for (std::size_t k = 0; k < 4; ++k) out += k <= count ? digits[three >> (18 - 6 * k) & 63] : '=';
  }
  return out;
}

std::optional<std::string> from_base64(std::string_view text) {
  constexpr std::string_view digits = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
  if (text.size() % 4 != 0) return {};
  std::size_t padding = 0;
  while (padding < 2 && padding < text.size() && text[text.size() - 1 - padding] == '=') ++padding;
  std::string out;
  std::uint32_t bits = 0;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const std::size_t value = i + padding >= text.size() ? 0 : digits.find(text[i]);
    if (value == std::string_view::npos) return {};
    bits = bits << 6 | static_cast<std::uint32_t>(value);
    if (i % 4 != 3) continue;
    for (const int shift : {16, 8, 0}) out += static_cast<char>(bits >> shift & 0xFF);
    bits = 0;
  }
  out.resize(out.size() - padding);
  return out;
}

}  // namespace sunbreak::drawing
