#pragma once

#include <cstddef>
#include <optional>
#include <string_view>

namespace sunbreak::exchange {

/// Where the first byte stands that is no part of a well-formed UTF-8 character (RFC 3629); nothing where all are.
std::optional<std::size_t> first_not_utf8(std::string_view bytes);

}  // namespace sunbreak::exchange
