#pragma once

#include <string>

#include "record/kinds/description.h"

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
    columns.add("kind", &FixturePicture::kind, "photograph, thermal or spectrum")
        .one_of({"photograph", "thermal", "spectrum"});
    columns.add("caption", &FixturePicture::caption, "what it shows");
    columns.add("digest", &FixturePicture::digest, "SHA-256 of its file, 64 hexadecimal digits");
    columns.add("media_type", &FixturePicture::media_type, "image/png or image/jpeg")
        .one_of({"image/png", "image/jpeg"});
    columns.add("width_px", &FixturePicture::width_px, "width as it is to be seen").unit("px").between(1, 100000);
    columns.add("height_px", &FixturePicture::height_px, "height").unit("px").between(1, 100000);
    columns.add("size_bytes", &FixturePicture::size_bytes, "size of its file").unit("bytes").between(1, 20971520);
    columns.add("origin", &FixturePicture::origin, "name of the file it came from");
    columns.add("added_at", &FixturePicture::added_at, "when it was attached (UTC)").moment();
  }
};

}  // namespace sunbreak::record
