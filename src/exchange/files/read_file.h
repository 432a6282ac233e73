#pragma once

#include <cstddef>
#include <filesystem>
#include <string>

#include "core/result.h"

namespace sunbreak::exchange {

/// No table, spectrum or log that a bench gives is larger.
inline constexpr std::size_t most_table_bytes = 64u << 20;
/// Nor a package, with its pictures.
inline constexpr std::size_t most_package_bytes = 512u << 20;

/// A file's bytes, whole. A Problem names what kept it from being read: it is not there, not yours, a folder, or
/// larger than `most_bytes`, as a device is that never ends. It is a source from then on
/// (note_source()).
Result<std::string> read_file(const std::filesystem::path& file, std::size_t most_bytes = most_table_bytes);

/// The same of what this program wrote itself and may write again: no source.
Result<std::string> read_back(const std::filesystem::path& file, std::size_t most_bytes = most_table_bytes);

/// Its first bytes, as many as there are; none where it cannot be read or is no plain file.
std::string first_bytes(const std::filesystem::path& file, std::size_t count);

}  // namespace sunbreak::exchange
