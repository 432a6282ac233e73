#pragma once

#include <functional>
#include <map>
#include <optional>
#include <string>

#include "record/test_record.h"

/// Records name pictures by the digest of their file; the files themselves are read when they are needed.
namespace sunbreak::record {

/// A picture's file by its digest; nothing where it is not there or not as it was. May be called from the thread that
/// it was made for alone.
using PictureSource = std::function<std::optional<std::string>(const std::string& digest)>;

/// Whether a text can be a digest, and so no path: digests come from files of others.
inline bool is_digest(const std::string& text) {
  return text.size() == 64 && text.find_first_not_of("0123456789abcdef") == std::string::npos;
}

/// Files by their digest.
using PictureFiles = std::map<std::string, std::string>;

/// Calls `visit` with each picture of a record, those of the fixture first.
template <typename Record, typename Visit>
void each_picture(Record& record, Visit visit) {
  for (auto& picture : record.fixture_pictures) visit(picture);
  for (auto& picture : record.pictures) visit(picture);
}

}  // namespace sunbreak::record
