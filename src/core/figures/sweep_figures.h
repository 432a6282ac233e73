#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/bench/grid.h"
#include "core/figures/balance.h"
#include "core/figures/coverage.h"
#include "core/figures/efficacy.h"
#include "core/figures/evenness.h"
#include "core/figures/nominal.h"
#include "core/figures/rings.h"
#include "core/quantity/display.h"
#include "core/sweep/field.h"

namespace sunbreak {

struct Extreme {
  double ppfd = 0;
  int station = -1;  ///< index into Layout::stations
};

/// All figures of one sweep. PPFD in µmol m⁻² s⁻¹. Figures over an incomplete sweep hold for the stations read, and
/// `read_share` says which share of the area those stand for.
struct SweepFigures {
  int stations = 0, missing = 0;
  double area_m2 = 0;       ///< the area that mean and PPF hold for
  double read_share = 0;    ///< share of that area whose stations were read
  double mean_ppfd = 0;     ///< area-weighted
  Extreme lowest, highest;  ///< always readings, never interpolated
  double median_ppfd = 0, p5_ppfd = 0, p95_ppfd = 0;
  double sd_ppfd = 0, cv = 0;  ///< population, area-weighted
  double ppf_umol_s = 0;       ///< mean · area
  std::optional<double> power_w;
  std::optional<Efficacy> efficacy;
  Evenness evenness;
  std::vector<Ring> rings;
  double center_ppfd = 0;
  double edge_ppfd = 0;    ///< mean along the outermost closed line of stations; NaN on loose spots, or where unread
  double corner_ppfd = 0;  ///< mean of the four corner stations; NaN on loose spots, or where one is unread
  Balance balance;
  double photoperiod_h = 12;
  double dli_mean_mol_m2_d = 0;
  std::optional<Coverage> coverage;
  std::vector<NominalFootprint> nominal;
};

/// What figures need beside the readings.
struct FigureContext {
  std::optional<double> power_w;
  double photoperiod_h = 12;
  std::optional<Band> target;
  std::vector<Footprint> nominal_sizes;
  ServingRule rule{};                       ///< by which an area is served
  UnitSystem told_in = UnitSystem::Metric;  ///< of lengths in what is said where there are none
};

/// The share of the measured area whose stations were read.
double read_share(const Layout& layout, std::span<const double> ppfd);

/// "59 of 144 stations read".
std::string read_words(int read, int stations);

/// The area-weighted mean of the stations read; NaN where none is. The Simpson rule of nine spots takes all nine or
/// none: with some missing the mean is plain.
double area_mean(const Layout& layout, std::span<const double> ppfd);

/// The part of a sweep's figures that needs the readings alone, one by one: counts, mean, extremes, percentiles, spread
/// and evenness. As sweep_figures() has them, at a small part of its cost.
std::optional<SweepFigures> spread_figures(const Layout& layout, std::span<const double> ppfd);

/// Works out every figure of a sweep. `ppfd` holds a corrected value a station, NaN where unread. Nothing where no
/// station was read. Definitions: docs/method.md.
std::optional<SweepFigures> sweep_figures(const Layout& layout, std::span<const double> ppfd,
                                          const FigureContext& context);

}  // namespace sunbreak
