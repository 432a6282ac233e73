#include "exchange/package/zip_archive.h"

#include <fmt/format.h>
#include <zip.h>

#include <memory>
#include <stdexcept>

namespace sunbreak::exchange {
namespace {

constexpr zip_uint64_t largest_member = 64u << 20;
constexpr zip_int64_t most_members = 1000;

}  // namespace

void write_zip(const std::filesystem::path& file, const Archive& archive) {
  const std::string partial = file.string() + ".partial";
  int code = 0;
  zip_t* zip = zip_open(partial.c_str(), ZIP_CREATE | ZIP_TRUNCATE, &code);
  if (!zip) throw std::runtime_error(fmt::format("{} cannot be written", file.string()));
  for (const auto& [name, content] : archive) {
    zip_source_t* source = zip_source_buffer(zip, content.data(), content.size(), 0);
    const zip_int64_t index = zip_file_add(zip, name.c_str(), source, ZIP_FL_ENC_UTF_8 | ZIP_FL_OVERWRITE);
    // 1980-01-01: the earliest date a zip can hold, so that the bytes depend on the content alone.
    if (index < 0 || zip_file_set_dostime(zip, static_cast<zip_uint64_t>(index), 0, (1 << 5) | 1, 0) != 0) {
      zip_discard(zip);
      throw std::runtime_error(fmt::format("{} cannot be put into {}", name, file.string()));
    }
  }
  if (zip_close(zip) != 0) {
    const std::string reason = zip_strerror(zip);
    zip_discard(zip);
    throw std::runtime_error(fmt::format("{} cannot be written ({})", file.string(), reason));
  }
  std::filesystem::rename(partial, file);
}

Result<Archive> read_zip(const std::filesystem::path& file) {
  const auto refused = [&](const std::string& why) {
    return Problem{fmt::format("{} is not a whole data package ({})", file.string(), why), "nothing was taken from it",
                   "fetch the file again"};
  };
  int code = 0;
  const std::unique_ptr<zip_t, void (*)(zip_t*)> zip(zip_open(file.c_str(), ZIP_RDONLY | ZIP_CHECKCONS, &code),
                                                     zip_discard);
  if (!zip) return refused(code == ZIP_ER_NOENT ? "there is no such file" : "it is no zip file");
  Archive archive;
  const zip_int64_t count = zip_get_num_entries(zip.get(), 0);
  if (count > most_members) return refused("it holds too many files");
  for (zip_int64_t i = 0; i < count; ++i) {
    zip_stat_t stat;
    if (zip_stat_index(zip.get(), static_cast<zip_uint64_t>(i), 0, &stat) != 0 || !(stat.valid & ZIP_STAT_SIZE))
      return refused("a file in it cannot be read");
    if (stat.size > largest_member) return refused(fmt::format("{} is over 64 MiB", stat.name));
    const std::unique_ptr<zip_file_t, int (*)(zip_file_t*)> member(
        zip_fopen_index(zip.get(), static_cast<zip_uint64_t>(i), 0), zip_fclose);
    std::string content(stat.size, '\0');
    if (!member || zip_fread(member.get(), content.data(), stat.size) != static_cast<zip_int64_t>(stat.size))
      return refused(fmt::format("{} in it is damaged", stat.name));
    // Reading past the end is what makes the library compare the checksum.
    char past;
    if (zip_fread(member.get(), &past, 1) != 0) return refused(fmt::format("{} in it is damaged", stat.name));
    archive[stat.name] = std::move(content);
  }
  return archive;
}

}  // namespace sunbreak::exchange
