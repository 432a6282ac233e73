#pragma once

#include "record/kinds/description.h"

namespace sunbreak::record {

/// A growing area of the tester's own, looked at beside the usual nominal footprints.
struct OwnSize {
  Id id = 0, test_id = 0;
  double width_m = 0.6, depth_m = 0.6;
  bool operator==(const OwnSize&) const = default;
};

template <>
struct Described<OwnSize> {
  static constexpr Facts facts{.name = "own_size", .since = 6};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &OwnSize::test_id, "the test").belongs_to("test");
    columns.add("width_m", &OwnSize::width_m, "left to right").unit("m").between(0.05, 20);
    columns.add("depth_m", &OwnSize::depth_m, "front to back").unit("m").between(0.05, 20);
  }
};

}  // namespace sunbreak::record
