#pragma once

#include <filesystem>
#include <map>
#include <set>
#include <string>
#include <string_view>

#include "core/result.h"

namespace sunbreak::exchange {

/// Member name → content.
using Archive = std::map<std::string, std::string>;

/// A zip file's bytes; equal content gives equal bytes. Its files may be read by all and written by their owner.
std::string zip_bytes(const Archive& archive);

/// Reads a zip file whose checksums hold: the members named in `wanted`, or all where that is empty. What else is in it
/// is not unpacked. Refuses what is no zip, members over 64 MiB, and over 256 MiB together. Those in `beside`, a folder
/// such as "pictures/", come along as far as they are sound and have 20 MiB each and 512 MiB together.
Result<Archive> read_zip(const std::filesystem::path& file, const std::set<std::string>& wanted = {},
                         std::string_view beside = {});

}  // namespace sunbreak::exchange
