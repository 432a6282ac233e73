#pragma once

#include <string>

#include "record/kinds/picture_columns.h"

namespace sunbreak::record {

/// A picture of a fixture, in whatever test; its file is kept apart, by its digest.
struct FixturePicture {
  Id id = 0, fixture_id = 0;
  std::string kind = "photograph";
  std::string caption;
  std::string digest;  ///< by which the file is found
  std::string media_type;
  int width_px = 1, height_px = 1, size_bytes = 1;
  std::string origin, added_at;
  bool operator==(const FixturePicture&) const = default;
};

template <>
struct Described<FixturePicture> {
  static constexpr Facts facts{.name = "fixture_picture", .since = 8};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("fixture_id", &FixturePicture::fixture_id, "the fixture").belongs_to("fixture");
    describe_picture_file<FixturePicture>(columns);
  }
};

}  // namespace sunbreak::record
