#pragma once

#include <vector>

namespace sunbreak::desktop {

/// Round steps, about so many of them over a range.
std::vector<double> round_steps(double low, double high, int about);

}  // namespace sunbreak::desktop
