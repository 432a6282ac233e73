#pragma once

#include <deque>
#include <optional>

namespace sunbreak {

/// When a live value counts as held still.
struct HoldRule {
  double tolerance = 0.015;  ///< share by which values may differ from their mean
  double hold_s = 1.5;       ///< for so long
  int samples = 3;           ///< and for so many values at least

  bool operator==(const HoldRule&) const = default;
};

/// Values averaged into one reading: mean, count and standard deviation.
struct HeldValue {
  double value = 0;
  int samples = 0;
  double spread = 0;
};

/// Mean, count and standard deviation (n − 1) of some values; spread 0 for one.
HeldValue averaged(const std::deque<double>& values);

/// What averaged() makes of the values behind both.
HeldValue merged(const HeldValue& a, const HeldValue& b);

/// Watches a live value for hands-free reading: once it has held still, it is taken; after that the value has to leave
/// what was taken (by twice the tolerance), or moved() to be told, before the next hold counts, so that one place is
/// never read as two. Silence over a second begins the hold anew.
class HoldDetector {
 public:
  explicit HoldDetector(const HoldRule& rule = {}) : rule_(rule) {}

  /// The sensor is at a new place for certain: the next hold counts, and counts from now.
  void moved();
  /// The sensor is on its way: nothing counts until moved().
  void on_its_way() { under_way_ = true; }

  /// Takes a live value [any unit] at a time [s on any clock]. Returns what it held at, once, when it has.
  std::optional<HeldValue> feed(double time_s, double value);

  /// Whether a value is still that of the place taken last.
  bool at_the_taken(double value) const;

  /// Share of the hold that has passed, 0 to 1.
  double progress() const;
  /// True from a taken value until the sensor has moved.
  bool waiting_for_move() const { return taken_.has_value() || under_way_; }

 private:
  struct Sample {
    double time_s, value;
  };
  double allowed(double around) const;

  HoldRule rule_;
  std::deque<Sample> window_;
  std::optional<double> taken_;
  bool under_way_ = false;
};

}  // namespace sunbreak
