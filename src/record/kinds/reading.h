#pragma once

#include <optional>
#include <string>

#include "core/quantity/lux.h"
#include "record/kinds/description.h"

namespace sunbreak::record {

/// A raw value as it was read. Rows are only ever added: a re-read or an undo changes which one counts, never this.
struct Reading {
  Id id = 0, sweep_id = 0;
  int station = 0;
  double raw = 0;
  std::string source;  ///< typed, pasted, file, live, simulated
  std::string taken_at;
  int samples = 1;
  std::optional<double> spread{};
  bool operator==(const Reading&) const = default;
};

template <>
struct Described<Reading> {
  static constexpr Facts facts{.name = "reading", .undoable = false};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("sweep_id", &Reading::sweep_id, "the sweep").belongs_to("sweep");
    columns
        .add("station", &Reading::station,
             "station index: row * columns + column, from the front left; spots as listed")
        .between(0, 249999);
    columns.add("raw", &Reading::raw, "value as read before correction; lx where it is of a lux meter")
        .unit("umol/m2/s")
        .between(-1000, most_lux);
    columns.add("source", &Reading::source, "typed, pasted, file, live or simulated")
        .one_of({"typed", "pasted", "file", "live", "simulated"});
    columns.add("taken_at", &Reading::taken_at, "when (UTC)").moment();
    columns.add("samples", &Reading::samples, "sensor values averaged into raw").between(1, 100000).since(3);
    columns.add("spread", &Reading::spread, "their standard deviation, in the unit of raw").between(0, 20000).since(3);
  }
};

}  // namespace sunbreak::record
