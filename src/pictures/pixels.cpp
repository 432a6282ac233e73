#include "pictures/pixels.h"

#include <png.h>
#include <turbojpeg.h>

#include <algorithm>
#include <cmath>
#include <memory>
#include <optional>
#include <stdexcept>

#include "pictures/clean_picture.h"

namespace sunbreak::pictures {
namespace {

using Handle = std::unique_ptr<void, int (*)(tjhandle)>;

const unsigned char* bytes_of(std::string_view file) { return reinterpret_cast<const unsigned char*>(file.data()); }

Rgb8 sized(int width, int height) {
  return {width, height, std::vector<std::uint8_t>(3 * std::size_t(width) * std::size_t(height)), false};
}

/// Inverted ink, as programs write it, on white.
Rgb8 of_ink(int width, int height, const std::vector<std::uint8_t>& ink) {
  Rgb8 out = sized(width, height);
  for (std::size_t i = 0; 4 * i < ink.size(); ++i)
    for (std::size_t c = 0; c < 3; ++c)
      out.bytes[3 * i + c] = static_cast<std::uint8_t>(ink[4 * i + c] * ink[4 * i + 3] / 255);
  return out;
}

/// Of the sizes that a JPEG can be decoded at, the smallest that is no smaller than wanted.
tjscalingfactor scaling_for(int longer_side, int most_side) {
  int count = 0;
  const tjscalingfactor* factors = tjGetScalingFactors(&count);
  tjscalingfactor best{1, 1};
  for (int i = 0; i < count; ++i) {
    const tjscalingfactor f = factors[i];
    if (f.num <= f.denom && TJSCALED(longer_side, f) >= std::min(most_side, longer_side) &&
        f.num * best.denom < best.num * f.denom)
      best = f;
  }
  return best;
}

std::optional<Rgb8> decoded_jpeg(std::string_view file, int most_side) {
  const Handle handle(tjInitDecompress(), tjDestroy);
  if (!handle) throw std::runtime_error("no decoder of JPEG could be made");
  int width = 0, height = 0, subsampling = 0, colors = 0;
  const auto size = static_cast<unsigned long>(file.size());
  if (tjDecompressHeader3(handle.get(), bytes_of(file), size, &width, &height, &subsampling, &colors) != 0 ||
      width <= 0 || height <= 0)
    return {};
  const tjscalingfactor scaling = scaling_for(std::max(width, height), most_side);
  width = TJSCALED(width, scaling), height = TJSCALED(height, scaling);
  const bool ink = colors == TJCS_CMYK || colors == TJCS_YCCK;
  const int format = ink ? TJPF_CMYK : TJPF_RGB;
  std::vector<std::uint8_t> bytes(std::size_t(tjPixelSize[format]) * std::size_t(width) * std::size_t(height), 255);
  const bool whole = tjDecompress2(handle.get(), bytes_of(file), size, bytes.data(), width, 0, height, format, 0) == 0;
  if (!whole && tjGetErrorCode(handle.get()) != TJERR_WARNING) return {};
  Rgb8 out = ink ? of_ink(width, height, bytes) : Rgb8{width, height, std::move(bytes), false};
  out.partly = !whole;
  return out;
}

std::optional<Rgb8> decoded_png(std::string_view file) {
  png_image image{};
  image.version = PNG_IMAGE_VERSION;
  const std::unique_ptr<png_image, void (*)(png_image*)> freed(&image, png_image_free);
  if (!png_image_begin_read_from_memory(&image, file.data(), file.size())) return {};
  image.format = PNG_FORMAT_RGB;
  Rgb8 out = sized(static_cast<int>(image.width), static_cast<int>(image.height));
  const png_color white{255, 255, 255};
  if (!png_image_finish_read(&image, &white, out.bytes.data(), 0, nullptr)) return {};
  return out;
}

/// Each new pixel the mean of what it covers, sides first.
Rgb8 shrunk(const Rgb8& from, int most_side) {
  const int longer = std::max(from.width, from.height);
  if (longer <= most_side) return from;
  const auto side = [&](int old) {
    return std::max(1, static_cast<int>(std::lround(double(old) * most_side / longer)));
  };
  const int width = side(from.width), height = side(from.height);
  Rgb8 out = sized(width, height);
  out.partly = from.partly;
  struct Part {
    int at;
    float share;
  };
  const auto parts_of = [](int old, int wanted) {
    std::vector<std::vector<Part>> parts(static_cast<std::size_t>(wanted));
    const double step = double(old) / wanted;
    for (int i = 0; i < wanted; ++i) {
      const double begin = i * step, end = std::min<double>((i + 1) * step, old);
      for (int at = static_cast<int>(begin); at < std::min<int>(old, static_cast<int>(std::ceil(end))); ++at)
        parts[static_cast<std::size_t>(i)].push_back(
            {at, static_cast<float>((std::min(end, at + 1.0) - std::max(begin, double(at))) / (end - begin))});
    }
    return parts;
  };
  const auto across = parts_of(from.width, width), down = parts_of(from.height, height);
  std::vector<float> row(3 * static_cast<std::size_t>(width));
  for (int y = 0; y < height; ++y) {
    std::ranges::fill(row, 0.5f);
    for (const Part& line : down[static_cast<std::size_t>(y)]) {
      const std::uint8_t* old = &from.bytes[3 * std::size_t(line.at) * std::size_t(from.width)];
      for (int x = 0; x < width; ++x)
        for (const Part& p : across[static_cast<std::size_t>(x)])
          for (int c = 0; c < 3; ++c)
            row[static_cast<std::size_t>(3 * x + c)] += line.share * p.share * static_cast<float>(old[3 * p.at + c]);
    }
    for (std::size_t i = 0; i < row.size(); ++i)
      out.bytes[std::size_t(y) * row.size() + i] = static_cast<std::uint8_t>(std::clamp(row[i], 0.f, 255.f));
  }
  return out;
}

/// Turned and mirrored as Exif's orientation asks for.
Rgb8 upright(const Rgb8& from, int orientation) {
  if (orientation == 1) return from;
  const bool on_its_side = orientation >= 5;
  Rgb8 out = on_its_side ? sized(from.height, from.width) : sized(from.width, from.height);
  out.partly = from.partly;
  const int w = from.width - 1, h = from.height - 1;
  for (int y = 0; y < out.height; ++y)
    for (int x = 0; x < out.width; ++x) {
      int column = x, line = y;
      switch (orientation) {
        case 2:
          column = w - x;
          break;
        case 3:
          column = w - x, line = h - y;
          break;
        case 4:
          line = h - y;
          break;
        case 5:
          column = y, line = x;
          break;
        case 6:
          column = y, line = h - x;
          break;
        case 7:
          column = w - y, line = h - x;
          break;
        case 8:
          column = w - y, line = x;
          break;
        default:
          break;
      }
      std::copy_n(&from.bytes[3 * (std::size_t(line) * std::size_t(from.width) + std::size_t(column))], 3,
                  &out.bytes[3 * (std::size_t(y) * std::size_t(out.width) + std::size_t(x))]);
    }
  return out;
}

}  // namespace

Result<Rgb8> pixels_of(std::string_view file, int most_side) {
  const auto clean = clean_picture(file);
  if (!clean) return clean.problem();
  const std::string& bytes = clean.value().bytes;
  const auto drawn = clean.value().media_type == "image/png" ? decoded_png(bytes) : decoded_jpeg(bytes, most_side);
  if (!drawn)
    return Problem{"the picture is damaged: it cannot be drawn", "it was not taken", "take it from the camera again"};
  return upright(shrunk(*drawn, most_side), clean.value().orientation);
}

std::string jpeg_of(const Rgb8& pixels, int quality) {
  const Handle handle(tjInitCompress(), tjDestroy);
  unsigned char* bytes = nullptr;
  unsigned long size = 0;
  const int code = handle ? tjCompress2(handle.get(), pixels.bytes.data(), pixels.width, 0, pixels.height, TJPF_RGB,
                                        &bytes, &size, TJSAMP_420, quality, 0)
                          : -1;
  const std::unique_ptr<unsigned char, void (*)(unsigned char*)> owned(bytes, tjFree);
  if (code != 0) throw std::runtime_error("a picture could not be written as JPEG");
  return {reinterpret_cast<const char*>(bytes), size};
}

}  // namespace sunbreak::pictures
