#include "exchange/package/zip_archive.h"

#include <fmt/format.h>
#include <zip.h>

#include <memory>
#include <optional>
#include <stdexcept>

#include "exchange/files/read_file.h"
#include "exchange/files/targets.h"

namespace sunbreak::exchange {
namespace {

constexpr zip_uint64_t largest_member = 64u << 20, largest_in_all = 256u << 20;
constexpr zip_uint32_t plain_file_0644 = 0100644;
constexpr zip_uint64_t largest_beside = 20u << 20, largest_beside_in_all = 512u << 20;
constexpr zip_int64_t most_members = 3000;

}  // namespace

std::string zip_bytes(const Archive& archive) {
  zip_error_t error;
  zip_error_init(&error);
  zip_source_t* memory = zip_source_buffer_create(nullptr, 0, 0, &error);
  zip_t* zip = memory ? zip_open_from_source(memory, ZIP_TRUNCATE, &error) : nullptr;
  if (!zip) {
    zip_source_free(memory);
    throw std::runtime_error("a package cannot be made");
  }
  zip_source_keep(memory);  // for its bytes, once the archive is closed
  const std::unique_ptr<zip_source_t, void (*)(zip_source_t*)> bytes(memory, zip_source_free);
  for (const auto& [name, content] : archive) {
    zip_source_t* source = zip_source_buffer(zip, content.data(), content.size(), 0);
    const zip_int64_t index = zip_file_add(zip, name.c_str(), source, ZIP_FL_ENC_UTF_8 | ZIP_FL_OVERWRITE);
    const auto at = static_cast<zip_uint64_t>(index);
    // 1980-01-01: the earliest date a zip can hold, so that the bytes depend on the content alone.
    if (index < 0 || zip_file_set_dostime(zip, at, 0, (1 << 5) | 1, 0) != 0 ||
        zip_file_set_external_attributes(zip, at, 0, ZIP_OPSYS_UNIX, plain_file_0644 << 16) != 0) {
      zip_discard(zip);
      throw std::runtime_error(fmt::format("{} cannot be put into a package", name));
    }
  }
  if (zip_close(zip) != 0) {
    const std::string reason = zip_strerror(zip);
    zip_discard(zip);
    throw std::runtime_error(fmt::format("a package cannot be made ({})", reason));
  }
  zip_stat_t stat;
  if (zip_source_stat(memory, &stat) != 0 || zip_source_open(memory) != 0)
    throw std::runtime_error("a package cannot be made");
  std::string result(stat.size, '\0');
  const auto read = zip_source_read(memory, result.data(), result.size());
  zip_source_close(memory);
  if (read != static_cast<zip_int64_t>(result.size())) throw std::runtime_error("a package cannot be made");
  return result;
}

namespace {

/// A member's content; nothing where it is damaged.
std::optional<std::string> content_of(zip_t* zip, zip_uint64_t index, zip_uint64_t size) {
  const std::unique_ptr<zip_file_t, int (*)(zip_file_t*)> member(zip_fopen_index(zip, index, 0), zip_fclose);
  std::string content(size, '\0');
  if (!member || zip_fread(member.get(), content.data(), size) != static_cast<zip_int64_t>(size)) return {};
  // Reading past the end is what makes the library compare the checksum.
  char past;
  if (zip_fread(member.get(), &past, 1) != 0) return {};
  return content;
}

}  // namespace

Result<Archive> read_zip(const std::filesystem::path& file, const std::set<std::string>& wanted,
                         std::string_view beside) {
  const auto refused = [&](const std::string& why) {
    return Problem{fmt::format("{} is not a whole data package ({})", file.string(), why), "nothing was taken from it",
                   "fetch the file again"};
  };
  if (first_bytes(file, 2) != "PK")
    return refused(std::filesystem::exists(file) ? "it is no zip file" : "there is no such file");
  note_source(file);
  int code = 0;
  const std::unique_ptr<zip_t, void (*)(zip_t*)> zip(zip_open(file.c_str(), ZIP_RDONLY | ZIP_CHECKCONS, &code),
                                                     zip_discard);
  if (!zip) return refused("it is no zip file");
  Archive archive;
  zip_uint64_t in_all = 0, beside_in_all = 0;
  const zip_int64_t count = zip_get_num_entries(zip.get(), 0);
  if (count > most_members) return refused("it holds too many files");
  for (zip_int64_t i = 0; i < count; ++i) {
    zip_stat_t stat;
    if (zip_stat_index(zip.get(), static_cast<zip_uint64_t>(i), 0, &stat) != 0 || !(stat.valid & ZIP_STAT_SIZE))
      return refused("a file in it cannot be read");
    const auto at = static_cast<zip_uint64_t>(i);
    if (!beside.empty() && std::string_view(stat.name).starts_with(beside)) {
      if (stat.size > largest_beside || beside_in_all + stat.size > largest_beside_in_all) continue;
      beside_in_all += stat.size;
      if (auto content = content_of(zip.get(), at, stat.size)) archive.emplace(stat.name, std::move(*content));
      continue;
    }
    if (!wanted.empty() && !wanted.contains(stat.name)) continue;
    if (stat.size > largest_member) return refused(fmt::format("{} is over 64 MiB", stat.name));
    if ((in_all += stat.size) > largest_in_all) return refused("its files have over 256 MiB together");
    if (archive.contains(stat.name)) return refused(fmt::format("{} is in it twice", stat.name));
    auto content = content_of(zip.get(), at, stat.size);
    if (!content) return refused(fmt::format("{} in it is damaged", stat.name));
    archive[stat.name] = std::move(*content);
  }
  return archive;
}

}  // namespace sunbreak::exchange
