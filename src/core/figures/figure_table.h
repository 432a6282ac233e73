#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/figures/sweep_figures.h"
#include "core/quantity/display.h"
#include "core/quantity/uncertain_text.h"

namespace sunbreak {

/// What a figure is had from: a sweep laid out, its corrected PPFD a station (NaN where unread), and what is worked out
/// of it at once. Refers to all three, which have to outlive it.
struct FigureSource {
  FigureSource(const Layout& of, std::span<const double> light, const SweepFigures& basics);

  const Layout& layout;
  std::span<const double> ppfd;
  const SweepFigures& sweep;
  double in_band_share;  ///< of the measured area; NaN without a target or a field
};

/// One published figure: how it is named, shown, defined, had from a sweep, and how sure it can be. Everything that
/// shows, prints, writes or compares figures goes by the rows of this one table.
struct Figure {
  /// Figures that are shown together.
  enum class Group { Light, Evenness, Pattern, Readings, Balance, Power, Target };
  /// How the stored value becomes the one that people read.
  enum class Shown { AsIs, Light, Percent, Length, PowerDensity };
  /// What the spacing of the stations leaves open of it: nothing (it is of stations); what the two half grids differ
  /// by; what they differ by in the mean, as it goes with the mean or against it; the same in the field between
  /// stations.
  enum class Sampling { None, HalfGrids, WithMean, AgainstMean, Field };

  std::string_view id;  ///< in JSON, figures.csv and budgets
  std::string_view label, symbol;
  std::string_view unit;  ///< of the stored value; "1": a share or a ratio
  Shown shown = Shown::AsIs;
  int decimals = 0;
  bool with_sign = false;
  Group group = Group::Readings;
  std::string_view meaning, formula;
  std::string_view depends_on;  ///< what of the plan and the record it changes with
  std::string_view lacks{};     ///< in words, what a sweep that does not have it needs

  /// NaN where the sweep has none. Null for what is no single number: a list, a curve, a table.
  double (*value)(const FigureSource& s) = nullptr;
  /// The sweep's own numbers in the formula; null where nothing is worked.
  std::string (*worked)(const FigureSource& s) = nullptr;
  /// Where or over what it holds; null where that goes without saying.
  std::string (*where)(const FigureSource& s, UnitSystem units) = nullptr;
  Sampling sampling = Sampling::None;
  bool goes_with_area = false;  ///< proportional to the footprint's area or its inverse
  bool of_watts_alone = false;  ///< whatever was read of the light
};

/// All of them, in the order they are shown.
std::span<const Figure> figures();

/// Where the figure with that id stands in figures(); −1 where there is none.
int figure_index(std::string_view id);

/// The row with that id, which has to be one of the table's (std::logic_error).
const Figure& figure(std::string_view id);

/// All of them in the order they are shown where one leads among those of evenness: that one stands before the others
/// of its group.
std::vector<const Figure*> figures_led_by(std::string_view evenness_lead);

/// The values of all figures() in their order; NaN for what the sweep does not have and for what is no single number.
std::vector<double> figure_values(const FigureSource& source);

/// What a stored value or uncertainty is multiplied by to be shown.
double shown_per_stored(const Figure& figure, UnitSystem units);

/// The unit a figure is shown in; empty for a ratio.
std::string shown_unit(const Figure& figure, UnitSystem units);

/// A stored value as it is shown, without its unit: "424", "0.71", "+1.2"; a dash for NaN, ∞ where it is infinite.
std::string shown_value(const Figure& figure, double value, UnitSystem units);

/// The same with its unit.
std::string shown_with_unit(const Figure& figure, double value, UnitSystem units);

/// A stored value and its expanded uncertainty as they are shown together, in the same decimals: {"424", "36"}.
Told shown_told(const Figure& figure, double value, double expanded, UnitSystem units);

}  // namespace sunbreak
