#pragma once

#include <span>

namespace sunbreak::fonts {

/// The shipped faces as OpenType files, in memory for as long as the program runs.
std::span<const unsigned char> regular();
std::span<const unsigned char> bold();

}  // namespace sunbreak::fonts
