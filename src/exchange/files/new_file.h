#pragma once

#include <filesystem>
#include <optional>
#include <string_view>

#include "core/result.h"

namespace sunbreak::exchange {

/// What happens where a file of that name is there already.
enum class Existing { Keep, Replace };

/// Writes a file whole or not at all: into a new one in the same folder that has no name, or one that nobody foresees,
/// until it is on disk; whoever ends this program leaves nothing half there. What refused_as_target() names is left as
/// it is whatever is asked. Links are never followed: one that stands there is replaced itself, or kept. A Problem
/// names what kept it from being written: rights, space, a name that is too long, a file that is there already.
std::optional<Problem> write_new_file(const std::filesystem::path& file, std::string_view content,
                                      Existing existing = Existing::Keep);

/// What an error of the system means for a file that was to be written, and what to do about it.
Problem cannot_write(const std::filesystem::path& file, int error);

/// The same for a lab book's own companion, a picture kept beside it, say: replaced where it is there.
std::optional<Problem> write_companion(const std::filesystem::path& file, std::string_view content);

}  // namespace sunbreak::exchange
