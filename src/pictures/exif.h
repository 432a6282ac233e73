#pragma once

#include <string>
#include <string_view>

namespace sunbreak::pictures {

/// What a camera wrote about a picture (Exif 2.3, a TIFF structure of its own).
struct CameraNotes {
  int orientation = 1;  ///< 1 to 8: how it is to be turned to be upright
  bool place = false;   ///< tells where it was taken
  bool device = false;  ///< tells what it was taken with
};

/// Reads the block that follows "Exif" and two zeros; what cannot be read is not told.
CameraNotes read_exif(std::string_view tiff);

/// The shortest such block that tells an orientation.
std::string exif_of(int orientation);

}  // namespace sunbreak::pictures
