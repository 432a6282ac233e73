#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "evaluation/lineup/lineup_entry.h"

namespace sunbreak::gathering {

/// An entry as bytes, for keeping; they mean something to the build that wrote them only.
std::string bytes_of(const evaluation::LineUpEntry& entry);

/// Nothing where the bytes are not a whole entry.
std::optional<evaluation::LineUpEntry> entry_from(std::string_view bytes);

}  // namespace sunbreak::gathering
