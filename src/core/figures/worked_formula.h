#pragma once

#include <string>
#include <string_view>

#include "core/figures/sweep_figures.h"

namespace sunbreak {

/// A figure's formula with the numbers of this sweep filled in, such as "610.1 µmol/s ÷ 320.0 W = 1.907 µmol/J". Empty
/// where the sweep has no such figure or it has no formula of its own.
std::string worked_formula(std::string_view id, const SweepFigures& f);

}  // namespace sunbreak
