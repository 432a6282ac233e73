#pragma once

#include <cmath>
#include <cstdint>
#include <numbers>
#include <random>
#include <utility>

namespace sunbreak {

/// Normal deviates of mean 0 and standard deviation 1 from a seed, the same on every machine: Box and Muller,
/// √(−2 ln u) · cos(2πv), on a Mersenne twister. Not for several threads at once.
class NormalDeviates {
 public:
  explicit NormalDeviates(std::uint64_t seed) : engine_(seed) {}

  /// Evenly spread over 0 to 1, 1 left out.
  double uniform() { return static_cast<double>(engine_() >> 11) * 0x1p-53; }

  /// Two deviates that know nothing of each other, for the price of one: the same with sine beside cosine.
  std::pair<double, double> two() {
    const double u = uniform() + 0x1p-53, angle = 2 * std::numbers::pi * uniform(),
                 radius = std::sqrt(-2 * std::log(u));
    return {radius * std::cos(angle), radius * std::sin(angle)};
  }

  double operator()() { return two().first; }

 private:
  std::mt19937_64 engine_;
};

}  // namespace sunbreak
