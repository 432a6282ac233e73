#include "pictures/made_pictures.h"

#include <zlib.h>

#include <array>
#include <random>

#include "pictures/pixels.h"

namespace sunbreak::pictures {

using namespace std::string_literals;

namespace {

std::string big_2(std::size_t v) { return {static_cast<char>(v >> 8), static_cast<char>(v & 0xFF)}; }
std::string big_4(std::size_t v) { return big_2(v >> 16) + big_2(v & 0xFFFF); }

Rgb8 two_colors(int width, int height) {
  Rgb8 p{width, height, {}};
  for (int y = 0; y < height; ++y)
    for (int x = 0; x < width; ++x)
      for (const std::uint8_t c :
           x < width / 2 ? std::array<std::uint8_t, 3>{220, 30, 30} : std::array<std::uint8_t, 3>{30, 30, 220})
        p.bytes.push_back(c);
  return p;
}

std::string chunk(const std::string& type, const std::string& data) {
  const std::string checked = type + data;
  return big_4(data.size()) + checked +
         big_4(crc32(0, reinterpret_cast<const Bytef*>(checked.data()), static_cast<uInt>(checked.size())));
}

/// Make, model, orientation, and where it was taken: 48° 51′ 29.12″ N, 2° 17′ 40.21″ E.
std::string told(int orientation) {
  const std::string make = told_make + "\0"s, model = told_model + "\0"s;
  constexpr std::size_t texts_at = 8 + 2 + 4 * 12 + 4, place_at = 200;
  const auto entry = [](std::size_t tag, std::size_t type, std::size_t count, const std::string& value) {
    return big_2(tag) + big_2(type) + big_4(count) + value;
  };
  std::string tiff = "MM\0*"s + big_4(8) + big_2(4) + entry(0x010F, 2, make.size(), big_4(texts_at)) +
                     entry(0x0110, 2, model.size(), big_4(texts_at + make.size())) +
                     entry(0x0112, 3, 1, big_2(static_cast<std::size_t>(orientation)) + "\0\0"s) +
                     entry(0x8825, 4, 1, big_4(place_at)) + big_4(0) + make + model;
  tiff.resize(place_at, '\0');
  tiff += big_2(2) + entry(1, 2, 2, "N\0\0\0"s) + entry(2, 5, 3, big_4(place_at + 30)) + big_4(0);
  for (const std::size_t v : {48, 1, 51, 1, 2912, 100}) tiff += big_4(v);
  return tiff;
}

std::string segment(char marker, const std::string& content) {
  return "\xFF"s + marker + big_2(content.size() + 2) + content;
}

}  // namespace

std::string small_jpeg(int width, int height) { return jpeg_of(two_colors(width, height), 92); }

std::string noisy_jpeg(int width, int height) {
  std::mt19937 random(7);
  Rgb8 p{width, height, {}};
  for (int i = 0; i < 3 * width * height; ++i) p.bytes.push_back(static_cast<std::uint8_t>(random()));
  return jpeg_of(p, 92);
}

std::string small_png(int width, int height) {
  const Rgb8 p = two_colors(width, height);
  std::string raw;
  for (int y = 0; y < height; ++y) {
    raw += '\0';
    raw.append(reinterpret_cast<const char*>(&p.bytes[3 * std::size_t(y) * std::size_t(width)]),
               3 * std::size_t(width));
  }
  uLongf size = compressBound(raw.size());
  std::string packed(size, '\0');
  compress(reinterpret_cast<Bytef*>(packed.data()), &size, reinterpret_cast<const Bytef*>(raw.data()), raw.size());
  packed.resize(size);
  return "\x89PNG\r\n\x1a\n"s +
         chunk("IHDR", big_4(std::size_t(width)) + big_4(std::size_t(height)) + "\x08\x02\x00\x00\x00"s) +
         chunk("IDAT", packed) + chunk("IEND", "");
}

std::string camera_jpeg(int orientation) {
  const std::string plain = small_jpeg(), thumbnail = small_jpeg(8, 8);
  return plain.substr(0, 2) + segment('\xE1', "Exif\0\0"s + told(orientation) + thumbnail) +
         segment('\xE1', "http://ns.adobe.com/xap/1.0/\0<x>"s + told_model + "</x>") + segment('\xFE', told_remark) +
         plain.substr(2) + small_jpeg(8, 8) + told_remark;
}

std::string camera_png() {
  const std::string plain = small_png();
  const std::size_t after_header = 8 + 12 + 13;
  return plain.substr(0, after_header) + chunk("eXIf", told(1)) + chunk("tEXt", "Comment\0"s + told_remark) +
         chunk("iTXt", "Author\0\0\0\0\0"s + told_make) + plain.substr(after_header) + told_remark;
}

}  // namespace sunbreak::pictures
