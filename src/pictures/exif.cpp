#include "pictures/exif.h"

#include "pictures/byte_reader.h"

namespace sunbreak::pictures {
namespace {

constexpr std::uint32_t make_tag = 0x010F, model_tag = 0x0110, orientation_tag = 0x0112, place_tag = 0x8825,
                        entry_size = 12, most_entries = 1000;

}  // namespace

CameraNotes read_exif(std::string_view tiff) {
  CameraNotes notes;
  if (!tiff.starts_with("II") && !tiff.starts_with("MM")) return notes;
  const ByteReader bytes(tiff, tiff.front() == 'I');
  const auto directory = bytes.four(4);
  const auto count = directory ? bytes.two(*directory) : std::nullopt;
  if (!count || *count > most_entries) return notes;
  for (std::uint32_t i = 0; i < *count; ++i) {
    const std::size_t entry = std::size_t{*directory} + 2 + std::size_t{i} * entry_size;
    const auto tag = bytes.two(entry);
    if (!tag) break;
    if (*tag == make_tag || *tag == model_tag) notes.device = true;
    if (*tag == place_tag) notes.place = true;
    if (const auto value = bytes.two(entry + 8); *tag == orientation_tag && value && *value >= 1 && *value <= 8)
      notes.orientation = static_cast<int>(*value);
  }
  return notes;
}

std::string exif_of(int orientation) {
  using namespace std::string_literals;
  // High byte first; one directory of one entry: orientation, a short, one of it.
  return "MM\0*\0\0\0\x08\0\x01\x01\x12\0\x03\0\0\0\x01\0"s + static_cast<char>(orientation) + "\0\0\0\0\0\0"s;
}

}  // namespace sunbreak::pictures
