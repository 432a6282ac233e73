#pragma once

#include <string>
#include <string_view>

namespace sunbreak::exchange {

/// SHA-256 (FIPS 180-4) in 64 hexadecimal digits.
std::string sha256_digits(std::string_view bytes);

}  // namespace sunbreak::exchange
