#pragma once

#include <string>
#include <string_view>

#include "core/result.h"

namespace sunbreak::exchange {

struct DecodedText {
  std::string utf8;
  std::string encoding;  ///< as shown to the user: "UTF-8", "UTF-16", "Latin-1"
};

/// Turns a file's bytes into UTF-8 text without a byte-order mark. Knows UTF-8, UTF-16 (by mark, or by its zero bytes)
/// and, where neither fits, Latin-1. Refuses what is not text, and files over 64 MiB.
Result<DecodedText> decode_text(std::string_view bytes);

}  // namespace sunbreak::exchange
