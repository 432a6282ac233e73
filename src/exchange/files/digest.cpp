#include "exchange/files/digest.h"

#include <openssl/evp.h>

#include <array>
#include <stdexcept>

#include "exchange/files/read_file.h"

namespace sunbreak::exchange {

std::string sha256_bytes(std::string_view bytes) {
  std::array<unsigned char, EVP_MAX_MD_SIZE> digest{};
  unsigned size = 0;
  if (EVP_Digest(bytes.data(), bytes.size(), digest.data(), &size, EVP_sha256(), nullptr) != 1)
    throw std::runtime_error("a check sum could not be worked out");
  return {reinterpret_cast<const char*>(digest.data()), size};
}

std::string sha256_digits(std::string_view bytes) {
  constexpr std::string_view digits = "0123456789abcdef";
  std::string words;
  for (const unsigned char byte : sha256_bytes(bytes)) words += digits[byte >> 4], words += digits[byte & 0xF];
  return words;
}

std::string digest_of_file(const std::filesystem::path& file) {
  const auto bytes = read_back(file, most_package_bytes);
  return bytes ? sha256_digits(bytes.value()) : std::string();
}

}  // namespace sunbreak::exchange
