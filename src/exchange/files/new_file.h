#pragma once

#include <filesystem>
#include <optional>
#include <string_view>

#include "core/result.h"

namespace sunbreak::exchange {

/// What happens where a file of that name is there already.
enum class Existing { Keep, Replace };

/// Writes a file whole or not at all: into a new file of an unpredictable name in the same folder, on disk before it
/// takes its final name. Links are never followed: one that stands there is replaced itself, or kept. A Problem names
/// what kept it from being written: rights, space, a name that is too long, a file that is there already.
std::optional<Problem> write_new_file(const std::filesystem::path& file, std::string_view content,
                                      Existing existing = Existing::Keep);

/// What an error of the system means for a file that was to be written, and what to do about it.
Problem cannot_write(const std::filesystem::path& file, int error);

/// Whether two names are of one file, links and all.
bool same_file(const std::filesystem::path& a, const std::filesystem::path& b);

}  // namespace sunbreak::exchange
