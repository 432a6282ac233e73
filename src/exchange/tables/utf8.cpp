#include "exchange/tables/utf8.h"

#include <cstdint>

namespace sunbreak::exchange {

std::optional<std::size_t> first_not_utf8(std::string_view bytes) {
  for (std::size_t i = 0; i < bytes.size();) {
    const auto lead = static_cast<unsigned char>(bytes[i]);
    const int more = lead < 0x80 ? 0 : lead >> 5 == 0x6 ? 1 : lead >> 4 == 0xE ? 2 : lead >> 3 == 0x1E ? 3 : -1;
    if (more < 0 || i + static_cast<std::size_t>(more) >= bytes.size()) return i;
    std::uint32_t code = more == 0 ? lead : lead & (0x3Fu >> more);
    for (int k = 1; k <= more; ++k) {
      const auto next = static_cast<unsigned char>(bytes[i + static_cast<std::size_t>(k)]);
      if (next >> 6 != 0x2) return i;
      code = code << 6 | (next & 0x3Fu);
    }
    constexpr std::uint32_t least[] = {0, 0x80, 0x800, 0x10000};  // no longer form than needed
    if (code < least[more] || code > 0x10FFFF || (code >= 0xD800 && code < 0xE000)) return i;
    i += static_cast<std::size_t>(more) + 1;
  }
  return {};
}

}  // namespace sunbreak::exchange
