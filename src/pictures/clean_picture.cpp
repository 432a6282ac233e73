#include "pictures/clean_picture.h"

#include <fmt/format.h>
#include <zlib.h>

#include <algorithm>
#include <array>

#include "pictures/byte_reader.h"
#include "pictures/exif.h"

namespace sunbreak::pictures {
namespace {

using namespace std::string_literals;
using namespace std::string_view_literals;

constexpr std::string_view png_signature = "\x89PNG\r\n\x1a\n"sv, jpeg_signature = "\xFF\xD8\xFF"sv;
constexpr double most_jpeg_pixels = 250e6, most_progressive_pixels = 60e6, most_png_pixels = 40e6;
constexpr int most_scans = 100;

Problem refused(const std::string& seen, const std::string& remedy) { return {seen, "it was not attached", remedy}; }
Problem broken(const std::string& where) {
  return refused("the picture is damaged: " + where, "take it from the camera again");
}
Problem too_large(double width, double height) {
  return refused(fmt::format("the picture has {:.0f} × {:.0f} pixels, more than can be shown", width, height),
                 "attach a smaller copy");
}

// Markers of a JPEG (ITU-T T.81).
constexpr std::uint8_t start_of_scan = 0xDA, end_of_image = 0xD9, app_0 = 0xE0, app_1 = 0xE1, app_2 = 0xE2,
                       app_14 = 0xEE, app_15 = 0xEF, comment = 0xFE;
bool is_frame(std::uint8_t marker) {
  return marker >= 0xC0 && marker <= 0xCF && marker != 0xC4 && marker != 0xC8 && marker != 0xCC;
}
bool stands_alone(std::uint8_t marker) { return marker == 0x01 || (marker >= 0xD0 && marker <= 0xD7); }

/// Whether a segment that stays has the shape that the standard gives it: what has another may hold anything, such as
/// what a camera told under a marker that was damaged.
bool is_well_formed(std::uint8_t marker, std::string_view content) {
  const ByteReader in(content);
  const auto byte = [&](std::size_t at) { return std::size_t{in.byte(at).value_or(0)}; };
  if (is_frame(marker)) return in.size() >= 6 && in.size() == 6 + 3 * byte(5);
  switch (marker) {
    case 0xC4: {  // Huffman tables
      std::size_t at = 0;
      while (at + 17 <= in.size()) {
        std::size_t codes = 0;
        for (std::size_t i = 1; i <= 16; ++i) codes += byte(at + i);
        if (byte(at) > 0x1F || codes > 256) return false;
        at += 17 + codes;
      }
      return at == in.size();
    }
    case 0xDB: {  // quantization tables
      std::size_t at = 0;
      while (at < in.size()) at += 1 + (byte(at) >> 4 ? 128 : 64);
      return at == in.size() && in.size() > 0;
    }
    case 0xCC:  // arithmetic conditioning
      return in.size() % 2 == 0 && in.size() <= 32;
    case start_of_scan:
      return in.size() >= 4 && in.size() == 4 + 2 * byte(0);
    case 0xDD:  // restart interval
    case 0xDC:  // number of lines
      return in.size() == 2;
    case app_2:
      return content.starts_with("ICC_PROFILE\0"sv);
    case app_14:
      return content.starts_with("Adobe"sv) && in.size() == 12;
    default:
      return false;
  }
}

void put_segment(std::string& out, std::uint8_t marker, std::string_view content) {
  const std::size_t length = content.size() + 2;
  out += '\xFF';
  out += static_cast<char>(marker);
  out += static_cast<char>(length >> 8);
  out += static_cast<char>(length & 0xFF);
  out += content;
}

/// Where coded data ends: at the next marker that is none of its own.
std::size_t end_of_scan(std::string_view bytes, std::size_t at) {
  for (; at + 1 < bytes.size(); ++at) {
    if (bytes[at] != '\xFF') continue;
    const auto next = static_cast<std::uint8_t>(bytes[at + 1]);
    if (next != 0 && next != 0xFF && !stands_alone(next)) return at;
  }
  return bytes.size();
}

Result<CleanPicture> clean_jpeg(std::string_view bytes) {
  const ByteReader read(bytes);
  CleanPicture clean;
  clean.media_type = "image/jpeg";
  std::string kept;
  std::string header;  // of JFIF, which has to come first
  double width = 0, height = 0;
  bool progressive = false, ended = false;
  int scans = 0;
  for (std::size_t at = 2; !ended;) {
    while (read.byte(at) == 0xFF && read.byte(at + 1) == 0xFF) ++at;
    const auto mark = read.byte(at), marker = read.byte(at + 1);
    if (!mark || !marker) return broken("it ends before its picture does");
    if (*mark != 0xFF) return broken("what should be a part of it is none");
    if (*marker == end_of_image) {
      ended = true;
      continue;
    }
    if (stands_alone(*marker)) {
      at += 2;
      continue;
    }
    const auto length = read.two(at + 2);
    if (!length || *length < 2 || *length > read.size() - at - 2) return broken("it ends before its picture does");
    const std::string_view content = read.text(at + 4, *length - 2);
    const ByteReader inside(content);
    at += 2 + *length;
    if (*marker == app_0) {
      // Its version, unit and density, without the small copy of the picture.
      if (content.starts_with("JFIF\0"sv) && content.size() >= 14)
        header = std::string(content.substr(0, 12)) + std::string(2, '\0');
    } else if (*marker == app_1) {
      if (content.starts_with("Exif\0\0"sv)) {
        const CameraNotes notes = read_exif(content.substr(6));
        clean.orientation = notes.orientation;
        clean.told_place = clean.told_place || notes.place;
        clean.told_device = clean.told_device || notes.device;
      }
    } else if (!is_well_formed(*marker, content)) {
      if ((*marker >= app_0 && *marker <= app_15) || *marker == comment) continue;
      return broken("a part of it is not as it should be");
    } else {
      if (is_frame(*marker)) {
        const auto rows = inside.two(1), columns = inside.two(3);
        if (!rows || !columns || *rows == 0 || *columns == 0) return broken("it does not say how large it is");
        width = *columns, height = *rows;
        progressive = progressive || *marker == 0xC2 || *marker == 0xCA;
      }
      put_segment(kept, *marker, content);
      if (*marker == start_of_scan) {
        if (++scans > most_scans) return broken("it is drawn over and over");
        const std::size_t end = end_of_scan(bytes, at);
        kept += bytes.substr(at, end - at);
        at = end;
      }
    }
  }
  if (scans == 0 || width == 0) return broken("there is no picture in it");
  if (width * height > (progressive ? most_progressive_pixels : most_jpeg_pixels)) return too_large(width, height);
  clean.bytes = jpeg_signature.substr(0, 2);
  if (!header.empty()) put_segment(clean.bytes, app_0, header);
  if (clean.orientation != 1) put_segment(clean.bytes, app_1, "Exif\0\0"s + exif_of(clean.orientation));
  clean.bytes += kept;
  clean.bytes += "\xFF\xD9";
  const bool on_its_side = clean.orientation >= 5;
  clean.width_px = static_cast<int>(on_its_side ? height : width);
  clean.height_px = static_cast<int>(on_its_side ? width : height);
  return clean;
}

/// Chunks that make a PNG's picture (W3C PNG); what else is in it is told about it.
bool makes_the_picture(std::string_view type) {
  constexpr std::array kept{"IHDR"sv, "PLTE"sv, "IDAT"sv, "IEND"sv, "tRNS"sv, "gAMA"sv,
                            "cHRM"sv, "sRGB"sv, "iCCP"sv, "sBIT"sv, "bKGD"sv, "pHYs"sv};
  return std::ranges::find(kept, type) != kept.end();
}

Result<CleanPicture> clean_png(std::string_view bytes) {
  const ByteReader read(bytes);
  CleanPicture clean;
  clean.media_type = "image/png";
  clean.bytes = png_signature;
  bool ended = false, has_pixels = false;
  for (std::size_t at = png_signature.size(); !ended;) {
    const auto length = read.four(at);
    if (!length || *length > read.size() || at + 12 + *length > read.size())
      return broken("it ends before its picture does");
    const std::string_view type = read.text(at + 4, 4), content = read.text(at + 8, *length);
    const std::string_view checked = read.text(at + 4, 4 + std::size_t{*length});
    const auto sum = crc32(0, reinterpret_cast<const Bytef*>(checked.data()), static_cast<uInt>(checked.size()));
    if (read.four(at + 8 + *length) != static_cast<std::uint32_t>(sum)) return broken("a check sum in it is wrong");
    if (clean.width_px == 0) {
      const ByteReader inside(content);
      const auto width = inside.four(0), height = inside.four(4);
      if (type != "IHDR" || !width || !height || *width == 0 || *height == 0)
        return broken("it does not say how large it is");
      if (double(*width) * double(*height) > most_png_pixels) return too_large(*width, *height);
      clean.width_px = static_cast<int>(*width);
      clean.height_px = static_cast<int>(*height);
    }
    if (type == "eXIf") {
      const CameraNotes notes = read_exif(content);
      clean.told_place = clean.told_place || notes.place;
      clean.told_device = clean.told_device || notes.device;
    }
    has_pixels = has_pixels || type == "IDAT";
    if (makes_the_picture(type)) clean.bytes += bytes.substr(at, 12 + std::size_t{*length});
    ended = type == "IEND";
    at += 12 + *length;
  }
  if (!has_pixels) return broken("there is no picture in it");
  return clean;
}

}  // namespace

Result<CleanPicture> clean_picture(std::string_view bytes) {
  if (bytes.size() > largest_bytes)
    return refused(fmt::format("the picture has {:.1f} MB, more than the 20 MB that a lab book takes",
                               static_cast<double>(bytes.size()) / (1 << 20)),
                   "save it smaller, or as JPEG");
  if (bytes.starts_with(png_signature)) return clean_png(bytes);
  if (bytes.starts_with(jpeg_signature)) return clean_jpeg(bytes);
  return refused("the file is neither a PNG nor a JPEG picture", "save it as one of them");
}

}  // namespace sunbreak::pictures
