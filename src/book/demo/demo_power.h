#pragma once

#include <functional>
#include <string>
#include <vector>

#include "book/book.h"

namespace sunbreak::book {

/// How a sample fixture warms up, and what was taken of it beside the sweeps.
struct PowerTruth {
  double fall = 0.05, time_constant_s = 420, logged_min = 75;  ///< of light; watts fall by half as much
  std::vector<double> stair{};                                 ///< settings read on the stair, in order
  struct Shot {
    const char* place;
    const char* method;
    double read_c;
    std::optional<double> emissivity_set, emissivity_true;
    bool bare_metal = false;
    const char* material = "";
    double percent = 100;  ///< and the dial's setting it was taken at
    double later_min = 0;
    std::optional<double> hottest_c{}, coldest_c{};
  };
  std::vector<Shot> shots{};
};

/// What a sample fixture does at a setting of the dial, stabilized.
struct StabilizedPower {
  double dial_pct = 100, watts = 0, reference_raw = 0;
};

/// Writes the sample log of one test.
class SamplePower {
 public:
  SamplePower(Edit& edit, const Test& test, const PowerTruth& truth, std::function<double()> normal)
      : edit_(edit), test_(test), truth_(truth), normal_(std::move(normal)) {}

  /// The lamp is switched on, or dimmed where it is on already, and logged until `until_s` (since 1970).
  void settle(const StabilizedPower& at, double from_s, double until_s);
  /// The stair, one setting after the other, from `from_s` on; the lamp is off after it.
  void walk_stair(const std::vector<StabilizedPower>& stops, int station, double from_s);
  /// Returns the ids of what was taken.
  std::vector<Id> take_temperatures(double at_s, double height_m);
  void switch_off(double at_s);

 private:
  Edit& edit_;
  const Test& test_;
  const PowerTruth& truth_;
  std::function<double()> normal_;
  bool on_ = false;
};

}  // namespace sunbreak::book
