#pragma once

#include "record/kinds/description.h"

namespace sunbreak::record {

/// Describes what every kind of picture says of its file; `Record` has a member of each column's name.
template <typename Record, typename Columns>
void describe_picture_file(Columns& columns) {
  columns.add("kind", &Record::kind, "photograph, thermal or spectrum").one_of({"photograph", "thermal", "spectrum"});
  columns.add("caption", &Record::caption, "what it shows");
  columns.add("digest", &Record::digest, "SHA-256 of its file, 64 hexadecimal digits");
  columns.add("media_type", &Record::media_type, "image/png or image/jpeg").one_of({"image/png", "image/jpeg"});
  columns.add("width_px", &Record::width_px, "width as it is to be seen").unit("px").between(1, 100000);
  columns.add("height_px", &Record::height_px, "height").unit("px").between(1, 100000);
  columns.add("size_bytes", &Record::size_bytes, "size of its file").unit("bytes").between(1, 20971520);
  columns.add("origin", &Record::origin, "name of the file it came from");
  columns.add("added_at", &Record::added_at, "when it was attached (UTC)").moment();
}

}  // namespace sunbreak::record
