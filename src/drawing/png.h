#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "drawing/canvas.h"

namespace sunbreak::drawing {

/// The pixels as a PNG file of 8 bits a channel, with alpha (ISO/IEC 15948).
std::string png(const Pixels& pixels);

/// RFC 4648, with padding.
std::string base64(std::string_view bytes);
/// The bytes of such a text; nothing where it is none.
std::optional<std::string> from_base64(std::string_view text);

}  // namespace sunbreak::drawing
