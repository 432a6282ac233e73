#pragma once

#include <optional>
#include <string>

#include "record/kinds/picture_columns.h"

namespace sunbreak::record {

/// A picture of a test, or of a sweep, a temperature, a check or a note of it; its file is kept apart, by its digest.
struct Picture {
  Id id = 0, test_id = 0;
  std::optional<Id> sweep_id, temperature_id, growth_note_id;
  std::string check_rule;  ///< the check it is about, by its rule's name
  std::string kind = "photograph";
  std::string caption;
  std::string digest;  ///< by which the file is found
  std::string media_type;
  int width_px = 1, height_px = 1, size_bytes = 1;
  std::string origin, added_at;
  bool operator==(const Picture&) const = default;
};

template <>
struct Described<Picture> {
  static constexpr Facts facts{.name = "picture", .since = 8};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &Picture::test_id, "the test").belongs_to("test");
    columns.add("sweep_id", &Picture::sweep_id, "the sweep it is of; empty: not of one").refers_to("sweep");
    columns.add("temperature_id", &Picture::temperature_id, "the temperature it shows").refers_to("temperature");
    columns.add("growth_note_id", &Picture::growth_note_id, "the note it goes with").refers_to("growth_note");
    columns.add("check_rule", &Picture::check_rule, "the check it is about, by its rule's name");
    describe_picture_file<Picture>(columns);
  }
};

}  // namespace sunbreak::record
