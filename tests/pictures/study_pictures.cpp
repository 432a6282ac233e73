#include <fmt/format.h>

#include <filesystem>
#include <fstream>
#include <random>

#include "doors/whole_record.h"
#include "evaluation/configurations.h"
#include "exchange/files/digest.h"
#include "exchange/package/data_package.h"
#include "exchange/package/verification.h"
#include "pictures/made_pictures.h"
#include "pictures/picture_damage.h"
#include "record/picture_files.h"
#include "record/renumber.h"

/// 20,000 random damages of pictures and of packages with pictures, under the sanitizers: none crashes or hangs, none
/// lets through what a camera told, none changes a figure without being told.
namespace {

using namespace sunbreak;
using Random = std::mt19937_64;

std::uint64_t seed = 20261130;
constexpr int pictures_tried = 14'000, packages_tried = 6'000;

record::TestRecord pictured(const std::string& file) {
  record::TestRecord t = doors::whole_test();
  const std::string digest = exchange::sha256_digits(file);
  record::each_picture(t, [&](auto& p) {
    p.digest = digest;
    p.media_type = "image/jpeg";
    p.size_bytes = static_cast<int>(file.size());
  });
  return t;
}

std::vector<double> figures_of(const record::TestRecord& test) {
  std::vector<double> all;
  for (const auto& evaluation : evaluation::evaluate_all(test))
    for (const auto& [id, view] : evaluation->views())
      if (const SweepFigures* f = evaluation->figures(id))
        all.insert(all.end(), {static_cast<double>(id), f->mean_ppfd, f->lowest.ppfd, f->highest.ppfd});
  return all;
}

struct PackageTally {
  int refused = 0, taken_as_told = 0, taken_whole = 0, changed_untold = 0, foreign_picture = 0;
};

/// Damages a package's file, its bytes at random places: within the pictures, where most of them lie, and elsewhere.
PackageTally try_packages() {
  const std::string file = pictures::noisy_jpeg(400, 300);
  const record::TestRecord test = record::with_plain_ids(pictured(file));
  const auto source = [&](const std::string&) { return std::optional(file); };
  const std::string whole = exchange::zip_bytes(exchange::make_package(test, source));
  const std::vector<double> figures = figures_of(test);
  const auto path = std::filesystem::temp_directory_path() / "sunbreak-study-pictures.zip";
  PackageTally tally;
  for (int i = 0; i < packages_tried; ++i) {
    Random random(seed + 1'000'000 + static_cast<std::uint64_t>(i));
    std::string damaged = whole;
    for (std::size_t wound = 0; wound <= random() % 3; ++wound) {
      const std::size_t at = random() % damaged.size();
      if (random() % 12 == 0)
        damaged.resize(at);
      else
        damaged[at] = static_cast<char>(damaged[at] ^ (1 << (random() % 8)));
      if (damaged.empty()) break;
    }
    std::ofstream(path, std::ios::binary | std::ios::trunc) << damaged;
    record::PictureFiles files;
    const auto read = exchange::read_package_file(path, &files);
    if (!read) {
      ++tally.refused;
      continue;
    }
    for (const auto& [digest, bytes] : files) tally.foreign_picture += bytes != file;
    if (!read.value().test.altered.empty())
      ++tally.taken_as_told;
    else if (figures_of(read.value()) == figures)
      ++tally.taken_whole;
    else
      ++tally.changed_untold;
  }
  std::filesystem::remove(path);
  return tally;
}

}  // namespace

int main(int argc, char** argv) {
  if (argc > 1) seed = std::stoull(argv[1]);
  const pictures::DamageTally p = pictures::try_damaged_pictures(seed, pictures_tried);
  fmt::print("pictures: {} damaged; {} refused, {} drawn, {} cleaned but drawn by no one\n", pictures_tried, p.refused,
             p.drawn, p.undrawn);
  fmt::print("  told what a camera had said: {}; not the same when cleaned again: {}\n", p.told,
             p.changed_when_clean_again);
  const PackageTally k = try_packages();
  fmt::print("packages: {} damaged; {} refused, {} taken and told to be altered, {} as they were written\n",
             packages_tried, k.refused, k.taken_as_told, k.taken_whole);
  fmt::print("  figures changed and nothing told: {}; pictures of another content: {}\n", k.changed_untold,
             k.foreign_picture);
  const bool held = p.told == 0 && p.changed_when_clean_again == 0 && k.changed_untold == 0 && k.foreign_picture == 0;
  fmt::print("{}\n", held ? "held" : "FALLS SHORT");
  return held ? 0 : 1;
}
