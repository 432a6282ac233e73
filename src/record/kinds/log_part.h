#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// A stretch of the log of wall and light, its samples packed (see log_samples.h).
struct LogPart {
  Id id = 0, test_id = 0;
  std::string source;  ///< live, simulated or file
  std::string origin;  ///< the file's name
  double dark_offset = 0, calibration_factor = 1;
  int count = 0;
  Bytes samples;
  std::optional<Id> configuration_id{};
  bool operator==(const LogPart&) const = default;
};

template <>
struct Described<LogPart> {
  static constexpr Facts facts{.name = "log_part", .since = 4};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &LogPart::test_id, "the test").belongs_to("test");
    columns.add("source", &LogPart::source, "live, simulated or file").one_of({"live", "simulated", "file"});
    columns.add("origin", &LogPart::origin, "name of the file it came from");
    columns.add("dark_offset", &LogPart::dark_offset, "subtracted from the raw light").between(-1000, 1000);
    columns.add("calibration_factor", &LogPart::calibration_factor, "multiplies the light").between(0.0001, 10);
    columns.add("count", &LogPart::count, "samples in it").between(0, 10000000);
    columns.add("samples", &LogPart::samples, "the samples, packed");
    columns.add("configuration_id", &LogPart::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
  }
};

}  // namespace sunbreak::record
