#pragma once

#include <filesystem>
#include <optional>

#include "core/result.h"

namespace sunbreak::exchange {

/// While one is there, what this process reads is not written over, by whatever name (device and inode): a command's
/// sources outlive it. A window, where someone was asked before, holds none.
class HeldSources {
 public:
  HeldSources();
  ~HeldSources();
  HeldSources(const HeldSources&) = delete;
  HeldSources& operator=(const HeldSources&) = delete;
};

/// This file is read from.
void note_source(const std::filesystem::path& file);

/// Why a file may never be written, or replaced where it is there: it is read from, a lab book, one of a lab book's
/// companions, a device, a pipe or a folder. A link counts as what it leads to; where that may be written over, the
/// link itself is replaced.
std::optional<Problem> refused_as_target(const std::filesystem::path& file);

}  // namespace sunbreak::exchange
