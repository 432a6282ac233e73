#pragma once

#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// Where other testers' data packages are looked for: a package's file, or a folder of them. They are only ever read.
struct Guest {
  Id id = 0;
  std::string path;
  bool operator==(const Guest&) const = default;
};

template <>
struct Described<Guest> {
  static constexpr Facts facts{.name = "guest", .since = 10, .published = false};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("path", &Guest::path, "a data package, or a folder of them");
  }
};

}  // namespace sunbreak::record
