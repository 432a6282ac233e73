#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/finding.h"
#include "core/checks/stuck_checks.h"
#include "core/optics/hang_response.h"
#include "core/quantity/display.h"
#include "core/sweep/drift.h"

namespace sunbreak {

/// The same value typed too many times running, in walk order: five or more.
std::vector<Finding> repeat_checks(std::span<const int> walk, std::span<const double> raw);

/// A row equal to the row before, station by station; rows of four or more.
std::vector<Finding> equal_row_checks(const Layout& layout, std::span<const double> raw);

/// Raw values above the sensor's range or clearly under zero.
std::vector<Finding> range_checks(std::span<const double> raw, std::optional<double> range_max);

/// A sweep as the checks see it: one value a station, NaN where unread.
struct WalkedSweep {
  const Layout& layout;
  std::span<const int> walk;  ///< stations in walk order
  std::span<const double> raw, ppfd;
  std::optional<double> range_max;  ///< of the sensor, in raw units
  const Drift* drift = nullptr;
  std::span<const SampledReading> sampled{};  ///< what each was averaged from; empty where all are alike
  HangResponse hang{};                        ///< what leans and shifts do here; zeros where not known yet
  UnitSystem units = UnitSystem::Metric;      ///< that lengths are told in
};

/// The shares of noise_shares() for a sweep; empty where all readings are alike.
std::vector<double> shares_of(const WalkedSweep& sweep);

/// All checks of one sweep while it is walked and after. The opening probe is judged until nine in ten stations are
/// read, balance from then on.
std::vector<Finding> walk_checks(const WalkedSweep& sweep);

}  // namespace sunbreak
