#include <gtest/gtest.h>

#include <random>

#include "pictures/clean_picture.h"
#include "pictures/made_pictures.h"
#include "pictures/picture_damage.h"
#include "pictures/pixels.h"

using namespace sunbreak;
using namespace sunbreak::pictures;
using namespace std::string_literals;

namespace {

bool tells_anything(const std::string& bytes) {
  for (const char* told : {told_make, told_model, told_remark})
    if (bytes.find(told) != std::string::npos) return true;
  return bytes.find("\x00\x00\x0B\x60\x00\x00\x00\x64"s) != std::string::npos;  // 2912 / 100: the seconds of latitude
}

/// The color at a share of width and height: 'r', 'b' or '?'.
char color_at(const Rgb8& p, double x, double y) {
  const std::size_t at = 3 * (std::size_t(y * p.height) * std::size_t(p.width) + std::size_t(x * p.width));
  const int red = p.bytes[at], blue = p.bytes[at + 2];
  return red > 2 * blue ? 'r' : blue > 2 * red ? 'b' : '?';
}

}  // namespace

TEST(CleanPicture, NothingThatACameraToldIsLeft) {
  for (const std::string& file : {camera_jpeg(), camera_png()}) {
    ASSERT_TRUE(tells_anything(file)) << "the trial has something to find";
    const auto clean = clean_picture(file);
    ASSERT_TRUE(clean) << clean.problem().sentence();
    EXPECT_FALSE(tells_anything(clean.value().bytes));
    EXPECT_TRUE(clean.value().told_place);
    EXPECT_TRUE(clean.value().told_device);
    EXPECT_LT(clean.value().bytes.size(), file.size());
    const auto before = pixels_of(file, 100), after = pixels_of(clean.value().bytes, 100);
    ASSERT_TRUE(before && after);
    EXPECT_EQ(before.value().bytes, after.value().bytes) << "the picture itself is as it was";
  }
}

TEST(CleanPicture, CleanFilesComeOutAsTheyWentIn) {
  for (const std::string& file : {small_jpeg(), small_png(), camera_jpeg(6), camera_png()}) {
    const std::string once = clean_picture(file).value().bytes;
    EXPECT_EQ(clean_picture(once).value().bytes, once);
  }
}

TEST(CleanPicture, AnOrientationIsKeptAndFollowed) {
  // By the numbers of the standard: how the stored left and right of a picture of red and blue come to lie.
  struct Turned {
    int orientation;
    double red_x, red_y;
    int width, height;
  };
  for (const Turned& t : {Turned{1, 0.2, 0.5, 24, 16}, Turned{2, 0.8, 0.5, 24, 16}, Turned{3, 0.8, 0.5, 24, 16},
                          Turned{4, 0.2, 0.5, 24, 16}, Turned{5, 0.5, 0.2, 16, 24}, Turned{6, 0.5, 0.2, 16, 24},
                          Turned{7, 0.5, 0.8, 16, 24}, Turned{8, 0.5, 0.8, 16, 24}}) {
    const auto clean = clean_picture(camera_jpeg(t.orientation));
    ASSERT_TRUE(clean);
    EXPECT_EQ(clean.value().width_px, t.width) << t.orientation;
    EXPECT_EQ(clean.value().height_px, t.height);
    const auto pixels = pixels_of(clean.value().bytes, 100);
    ASSERT_TRUE(pixels);
    EXPECT_EQ(pixels.value().width, t.width) << t.orientation;
    EXPECT_EQ(color_at(pixels.value(), t.red_x, t.red_y), 'r') << t.orientation;
    EXPECT_EQ(color_at(pixels.value(), 1 - t.red_x, 1 - t.red_y), 'b') << t.orientation;
  }
}

TEST(CleanPicture, WhatIsNoPictureIsRefusedInWords) {
  const auto refused = [](const std::string& file) {
    const auto clean = clean_picture(file);
    return clean ? std::string() : clean.problem().sentence();
  };
  EXPECT_NE(refused("GIF89a").find("neither a PNG nor a JPEG"), std::string::npos);
  EXPECT_NE(refused("").find("neither"), std::string::npos);
  EXPECT_NE(refused(std::string(largest_bytes + 1, 'x')).find("20 MB"), std::string::npos);
  const std::string jpeg = small_jpeg(), png = small_png();
  EXPECT_NE(refused(jpeg.substr(0, jpeg.size() - 2)).find("ends before"), std::string::npos);
  EXPECT_NE(refused(png.substr(0, png.size() - 12)).find("ends before"), std::string::npos);
  std::string other = png;
  other[45] ^= 1;
  EXPECT_NE(refused(other).find("check sum"), std::string::npos);
  // A header that promises more pixels than there is memory for.
  std::string vast = png.substr(0, 16) + "\x00\x01\x00\x00\x00\x01\x00\x00"s + png.substr(24);
  EXPECT_FALSE(clean_picture(vast)) << "65536 × 65536";
}

TEST(Pixels, ALargePictureComesAsSmallAsItIsAskedFor) {
  for (const std::string& file : {small_jpeg(900, 600), small_png(900, 600)}) {
    const auto pixels = pixels_of(file, 120);
    ASSERT_TRUE(pixels);
    EXPECT_EQ(pixels.value().width, 120);
    EXPECT_EQ(pixels.value().height, 80);
    EXPECT_EQ(color_at(pixels.value(), 0.1, 0.5), 'r');
    EXPECT_EQ(color_at(pixels.value(), 0.9, 0.5), 'b');
    EXPECT_EQ(pixels_of(file, 5000).value().width, 900) << "never larger than it is";
  }
}

TEST(Pixels, DamagedFilesAreRefusedOrDrawnInPart) {
  const DamageTally tally = try_damaged_pictures(20261129, 600);
  EXPECT_EQ(tally.told, 0) << "what a camera told came through";
  EXPECT_EQ(tally.changed_when_clean_again, 0);
  EXPECT_GT(tally.refused, 100);
  EXPECT_GT(tally.drawn, 50);
}
