#pragma once

#include <string>

/// Small pictures for tests, made byte by byte where it matters.
namespace sunbreak::pictures {

/// A JPEG of a few pixels: red at the left, blue at the right.
std::string small_jpeg(int width = 24, int height = 16);

/// A JPEG of noise: much of it is coded data, as of a photograph.
std::string noisy_jpeg(int width, int height);

/// A PNG of the same as small_jpeg()'s.
std::string small_png(int width = 24, int height = 16);

/// A JPEG as a camera writes it: its make and model, the place it was taken at, an orientation, a remark, a small copy
/// of itself, and a second picture behind its end.
std::string camera_jpeg(int orientation = 1);

/// A PNG with the same said in its own chunks.
std::string camera_png();

/// What those tell, as it stands in their bytes.
inline constexpr const char* told_make = "Inventcam";
inline constexpr const char* told_model = "Pocket Nine";
inline constexpr const char* told_remark = "48.8581 N 2.2945 E";

}  // namespace sunbreak::pictures
