#pragma once

#include <functional>
#include <limits>
#include <optional>
#include <span>
#include <stop_token>
#include <string>
#include <string_view>
#include <vector>

#include "core/bench/grid.h"
#include "core/figures/sweep_figures.h"

namespace sunbreak {

/// Where the size of a contribution comes from.
enum class Origin { Measured, Stated, Assumed };

/// How unsure one thing is: a standard uncertainty, relative unless its name says meters, and where it comes from.
struct InputQuantity {
  double value = 0;
  Origin origin = Origin::Assumed;
  std::string words{};
  double freedom = std::numeric_limits<double>::infinity();  ///< degrees of freedom that it is known with
};

/// What the spacing of stations leaves open of the mean over their area, relative: a standard uncertainty, and what
/// pulls it one way.
struct MeanSampling {
  double standard = 0, bias = 0;
};

/// What a budget is worked out from. Assumed sizes are the usual ones of a careful bench.
struct BudgetQuestion {
  const Layout* layout = nullptr;
  std::span<const double> ppfd;  ///< corrected, one value a station, NaN where unread
  FigureContext context;
  InputQuantity calibration{0.025}, spectral{0.015}, cosine{0.01};
  InputQuantity repeatability{0.01};  ///< of one reading, as observed_scatter() finds it
  std::vector<double> expected_ppfd;  ///< expected_light() of the readings, where it is known; else it is worked out
  InputQuantity height_m{0.005};
  std::vector<double> slope_per_m;  ///< d ln E / dh, one a station
  InputQuantity position_m{0.005};  ///< of one station, along each axis
  InputQuantity drift{0.005};       ///< from the first reading to the last
  std::vector<double> walked;       ///< share of the walk's time at which each station was read
  InputQuantity power{0.01};
  InputQuantity edge_m{0.003};  ///< of the footprint's width and of its depth
  // Of light that was not read as it stands, but predicted or dimmed; a list of its parts has these only where they
  // are.
  InputQuantity level{0};             ///< of all of it together
  InputQuantity pattern{0};           ///< of its edge beside its middle, and
  std::vector<double> pattern_shape;  ///< how that goes over the stations
  /// Of cells that are means of what was read in them: they are no point samples, and what the spacing left open is
  /// as it was of the stations that were read.
  std::optional<MeanSampling> averaged;
  std::stop_token stop{};  ///< where it asks for an end the work is given up, and what is returned means nothing
};

/// One line of the budget: what it adds to each figure, in the figure's own unit and in the order of figures().
struct Contribution {
  std::string_view id, label;
  InputQuantity term;
  bool in_meters = false;  ///< of the term
  bool shared = false;     ///< alike for all sweeps taken with the same meters: cancels where two are compared
  std::vector<double> standard;
};

/// A figure with its expanded uncertainty, in its unit.
struct EstimatedFigure {
  double value = 0, expanded = 0;
};

/// What the figures of one sweep are sure to (GUM, JCGM 100; random parts by JCGM 101). Contributions add in
/// quadrature. What pulls a figure one way, as reading noise pulls the lowest of many readings, as the light's bend
/// between stations pulls the mean, and as what was not read may pull all of them, is kept apart: U = k u + |bias|
/// (JCGM 100, F.2.4.5), with k = 2 where the parts are known well, and Student's by their effective degrees of freedom
/// where one is known from few readings (JCGM 100, G.4). All lists are in the order of figures().
struct Budget {
  /// bias: what pulls the figure, as it is found less as it would be; factor: k.
  std::vector<double> values, standard, bias, factor;
  /// Of a sweep read in part: what each figure would be with all of it, less what it is. Empty where all was read, and
  /// where what was read does not tell. The bias has it with the other sign.
  std::vector<double> unread_shift;
  std::vector<Contribution> contributions;

  /// Expanded uncertainty, in the figure's unit; NaN where the figure is unknown.
  double expanded(std::string_view id) const;
  /// The same as a share of the figure.
  double relative(std::string_view id) const;
  /// Of a sweep read in part: the figure as it is likely for all stations, with its ±. Nothing where it is not known,
  /// or all was read.
  std::optional<EstimatedFigure> whole(std::string_view id) const;
  /// The contribution that is largest for a figure; none where all are 0.
  const Contribution* largest(std::string_view id) const;
};

Budget uncertainty_budget(const BudgetQuestion& question);

/// What the stations' spacing leaves open of their mean, with the noise that half grids show anyway taken out.
MeanSampling sampling_of_mean(const BudgetQuestion& question);

/// What a reading at a station scatters by each time the sensor is set down there: its noise with its place's. A
/// relative standard deviation.
double scatter_at(const BudgetQuestion& question, int station);

/// Relative expanded uncertainty (k = 2) of the ratio of one figure between two sweeps taken with the same meters:
/// shared contributions cancel as far as they are alike, the others add.
double ratio_uncertainty(const Budget& a, const Budget& b, std::string_view id);
/// The same where `shared` tells how far contributions are alike, by their id: their correlation, 0 to 1.
double ratio_uncertainty(const Budget& a, const Budget& b, std::string_view id,
                         const std::function<double(std::string_view contribution)>& shared);

}  // namespace sunbreak
