#pragma once

#include <filesystem>
#include <string>
#include <string_view>

namespace sunbreak::exchange {

/// SHA-256 (FIPS 180-4), its 32 bytes.
std::string sha256_bytes(std::string_view bytes);

/// The same in 64 hexadecimal digits.
std::string sha256_digits(std::string_view bytes);

/// The same of a file's bytes; empty where it cannot be read.
std::string digest_of_file(const std::filesystem::path& file);

}  // namespace sunbreak::exchange
