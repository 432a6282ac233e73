#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "core/result.h"

namespace sunbreak::pictures {

/// Opaque pixels, row by row from the top: three bytes each, red, green, blue.
struct Rgb8 {
  int width = 0, height = 0;
  std::vector<std::uint8_t> bytes;
  bool partly = false;  ///< the file is damaged: what could be read of it
};

/// A PNG's or JPEG's pixels, upright, on white where they are transparent, its longer side `most_side` at most. Refused
/// is what clean_picture() refuses, and what cannot be drawn at all.
Result<Rgb8> pixels_of(std::string_view file, int most_side);

/// A JPEG file of pixels; `quality` from 1 to 100.
std::string jpeg_of(const Rgb8& pixels, int quality = 85);

}  // namespace sunbreak::pictures
