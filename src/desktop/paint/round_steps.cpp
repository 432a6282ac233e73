#include "desktop/paint/round_steps.h"

#include <cmath>

namespace sunbreak::desktop {

std::vector<double> round_steps(double low, double high, int about) {
  if (!(high > low)) return {low};
  const double rough = (high - low) / about, power = std::pow(10, std::floor(std::log10(rough)));
  double step = power;
  for (const double factor : {2.0, 5.0, 10.0})
    if (rough > step * 1.2) step = factor * power;
  std::vector<double> steps;
  for (double k = std::ceil(low / step - 1e-6); k * step <= high + 1e-9 * step; ++k) steps.push_back(k * step);
  return steps;
}

}  // namespace sunbreak::desktop
