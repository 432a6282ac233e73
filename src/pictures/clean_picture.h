#pragma once

#include <string>
#include <string_view>

#include "core/result.h"

namespace sunbreak::pictures {

inline constexpr std::size_t largest_bytes = 20u << 20;

/// A picture's file without anything that a camera or a program wrote beside it: no place, device, owner, remarks,
/// small copies or second pictures; of what was said only the orientation is kept.
struct CleanPicture {
  std::string bytes;
  std::string media_type;           ///< image/png or image/jpeg
  int width_px = 0, height_px = 0;  ///< upright
  int orientation = 1;              ///< 1 to 8, as Exif counts them
  bool told_place = false;          ///< what was taken out told where it was taken,
  bool told_device = false;         ///< or with what
};

/// Takes a PNG or JPEG apart and puts together what makes the picture alone. Its pixels are not looked at. Clean files
/// come out as they went in. Refused: other kinds of files, over 20 MB, files that are not whole, pictures so large
/// that they could not be shown.
Result<CleanPicture> clean_picture(std::string_view bytes);

}  // namespace sunbreak::pictures
