#include "exchange/files/digest.h"

#include <fmt/format.h>
#include <openssl/evp.h>

#include <array>
#include <stdexcept>

namespace sunbreak::exchange {

std::string sha256_digits(std::string_view bytes) {
  std::array<unsigned char, EVP_MAX_MD_SIZE> digest{};
  unsigned size = 0;
  if (EVP_Digest(bytes.data(), bytes.size(), digest.data(), &size, EVP_sha256(), nullptr) != 1)
    throw std::runtime_error("a check sum could not be worked out");
  std::string words;
  for (unsigned i = 0; i < size; ++i) words += fmt::format("{:02x}", digest[i]);
  return words;
}

}  // namespace sunbreak::exchange
