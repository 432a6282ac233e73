#pragma once

#include <span>
#include <string>
#include <string_view>

#include "core/figures/figure_table.h"
#include "core/lineup/comparable.h"
#include "core/lineup/ranking.h"

namespace sunbreak::evaluation {

/// A figure that fixtures may be lined up by: one of the table of figures, or one that takes more than a sweep.
struct LineUpFigure {
  /// What it takes: a sweep alone, the whole light, a target that is to be met, a price.
  enum class From { Sweep, WholeLight, Target, Price };

  std::string_view id, label, unit;  ///< unit of the stored value; "" for a ratio; of money without its currency
  std::string_view meaning;
  From from = From::Sweep;
  Better better = Better::More;
  Needs needed = Needs::All;
  int decimals = 0;
  bool in_percent = false;        ///< a stored share that is shown in percent
  const Figure* table = nullptr;  ///< its row in the table of figures, if it is one of it
};

/// All of them, in the order that they are offered in.
std::span<const LineUpFigure> lineup_figures();

/// Where one stands in lineup_figures(); −1 where there is none of that id.
int lineup_figure_index(std::string_view id);

/// What a stored value is multiplied by to be shown, and the unit it is shown in. Of money, `currency` is its unit.
double shown_per_stored(const LineUpFigure& figure, UnitSystem units);
std::string shown_unit(const LineUpFigure& figure, UnitSystem units, std::string_view currency);

/// "424", and "424 ± 12 µmol/m²/s"; a dash for NaN.
std::string shown_value(const LineUpFigure& figure, double value, UnitSystem units);
/// A value and its ± as they are shown together.
Told shown_told(const LineUpFigure& figure, double value, double expanded, UnitSystem units);
std::string shown_with_uncertainty(const LineUpFigure& figure, double value, double expanded, UnitSystem units,
                                   std::string_view currency);

/// A difference of two of a figure, with its sign.
Told told_difference(const LineUpFigure& figure, const StandingDifference& difference, UnitSystem units);
/// The same with its unit; a dash for NaN.
std::string shown_difference(const LineUpFigure& figure, const StandingDifference& difference, UnitSystem units,
                             std::string_view currency);

}  // namespace sunbreak::evaluation
