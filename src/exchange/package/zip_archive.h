#pragma once

#include <filesystem>
#include <map>
#include <string>

#include "core/result.h"

namespace sunbreak::exchange {

/// Member name → content.
using Archive = std::map<std::string, std::string>;

/// Writes a zip file whole or not at all; equal content gives equal bytes. Throws std::runtime_error where it cannot.
void write_zip(const std::filesystem::path& file, const Archive& archive);

/// Reads a zip file whose checksums hold. Refuses what is none, and members over 64 MiB.
Result<Archive> read_zip(const std::filesystem::path& file);

}  // namespace sunbreak::exchange
