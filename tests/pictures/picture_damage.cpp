#include "pictures/picture_damage.h"

#include <algorithm>
#include <random>
#include <string>

#include "pictures/clean_picture.h"
#include "pictures/made_pictures.h"
#include "pictures/pixels.h"

namespace sunbreak::pictures {
namespace {

using Random = std::mt19937_64;

std::size_t below(Random& random, std::size_t count) { return count == 0 ? 0 : random() % count; }

std::string damaged(std::string file, Random& random) {
  const int wounds = 1 + static_cast<int>(below(random, 4));
  for (int i = 0; i < wounds && !file.empty(); ++i) {
    const std::size_t at = below(random, file.size()),
                      length = 1 + below(random, std::min<std::size_t>(64, file.size() - at));
    switch (below(random, 7)) {
      case 0:
        file[at] = static_cast<char>(file[at] ^ (1 << below(random, 8)));
        break;
      case 1:
        file[at] = static_cast<char>(random());
        break;
      case 2:
        file.resize(at);
        break;
      case 3:
        file.erase(at, length);
        break;
      case 4:
        file.insert(at, file.substr(below(random, file.size()), length));
        break;
      case 5:  // a marker or a length where none was
        file[at] = '\xFF';
        if (at + 1 < file.size()) file[at + 1] = static_cast<char>(0xC0 + below(random, 64));
        break;
      default:
        std::fill_n(file.begin() + static_cast<std::ptrdiff_t>(at), length, static_cast<char>(below(random, 2) * 255));
    }
  }
  return file;
}

}  // namespace

DamageTally try_damaged_pictures(std::uint64_t seed, int cases) {
  const std::string whole[] = {camera_jpeg(1), camera_jpeg(6), camera_png(), small_jpeg(160, 120), small_png(160, 120)};
  DamageTally tally;
  for (int i = 0; i < cases; ++i) {
    Random random(seed + static_cast<std::uint64_t>(i));
    const std::string file = damaged(whole[below(random, std::size(whole))], random);
    const auto clean = clean_picture(file);
    if (!clean) {
      ++tally.refused;
      continue;
    }
    const std::string& bytes = clean.value().bytes;
    // A wound may move what was told into the picture's own data; as text it is what a reader would find.
    tally.told += bytes.find("Exif") != std::string::npos && bytes.find(told_make) != std::string::npos;
    const auto again = clean_picture(bytes);
    tally.changed_when_clean_again += !again || again.value().bytes != bytes;
    ++(pixels_of(bytes, 100) ? tally.drawn : tally.undrawn);
  }
  return tally;
}

}  // namespace sunbreak::pictures
