#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "core/figures/coverage.h"
#include "core/settle/settle_lattice.h"

namespace sunbreak {

/// The light of a height with one pattern of the dimmer, for the first setting's light.
struct SettlePattern {
  std::vector<double> ppfd;     ///< at the lattice's places
  std::vector<float> stations;  ///< those of them that lie in the area
  std::vector<float> lit;       ///< of the cells
  std::vector<float> sorted;    ///< the light that shares are counted on, dimmest first
  std::vector<float> radial;    ///< each cell times radial_shape(): what an error of the edge beside the center does
  double mean = 0, edge = 0, center = 0, corners = 0;
  double lowest = 0, highest = 0;                                 ///< of stations
  double lowest_radial = 0, highest_radial = 0, edge_radial = 0;  ///< radial_shape() there
};

/// A sweep that was walked, for the first setting's light: at its height and setting light is what it read, not what is
/// predicted.
struct WalkedLight {
  double height_m = 0;
  int pattern = 0;
  Layout layout;
  std::vector<double> ppfd;  ///< one a station of it; NaN where unread
};

/// Relative standard deviations of what is predicted at a height.
struct SettleErrors {
  double together = 0;  ///< of all light, beside what the meters do to it
  double radial = 0;    ///< of the edge beside the mean
  double local = 0;     ///< of a single place beside those around it
};

/// One height of the field.
struct SettleHeight {
  double height_m = 0;
  bool beyond = false;                  ///< outside of the measured heights
  std::vector<SettlePattern> patterns;  ///< one a walked setting
  SettleErrors errors;
};

/// A setting of the dimmer: its light beside the first's, its watts, and between which walked ones it lies.
struct SettleSetting {
  double percent = 100, light_factor = 1, light_sd = 0;  ///< sd: relative
  std::optional<double> power_w;
  int lower = 0, upper = 0;
  double upper_share = 0;
  bool has_pattern_of(const SettleSetting& s) const {
    return lower == s.lower && upper == s.upper && upper_share == s.upper_share;
  }
};

/// All heights of an area, as far as they are worked out, lowest first, and the settings they are asked for at, dimmest
/// first.
struct SettleMaps {
  SettleLattice lattice;
  std::vector<std::shared_ptr<const SettleHeight>> heights;
  std::vector<SettleSetting> settings;  ///< of the field
  std::vector<SettleSetting> steps;     ///< where the dimmer can be set, for answers
  bool free_dimmer = true;              ///< it stands anywhere between them, too
  double shared_sd = 0;                 ///< of all light, by the meters
};

/// A smooth pattern with zero mean that is 1 along the edge: how edge and center may be off against each other.
double radial_shape(const SettleLattice& lattice, const Vec3& place);

/// Puts a height together from predicted light, one list a walked setting, at the lattice's places. `walked`: the
/// sweeps that were walked at it; those read in nine tenths of their area or more take the place of what is predicted.
SettleHeight settle_height(const SettleLattice& lattice, double height_m, std::vector<std::vector<double>> light,
                           const SettleErrors& errors, std::span<const WalkedLight> walked = {});

/// What is known of the light at a height and setting.
AreaLight settle_figures(const SettleHeight& height, const SettleSetting& setting, const Band& band);

/// The PPFD of each cell there.
std::vector<double> settle_cells_ppfd(const SettleHeight& height, const SettleSetting& setting);
/// The same of each of the lattice's places.
std::vector<double> settle_places_ppfd(const SettleHeight& height, const SettleSetting& setting);

}  // namespace sunbreak
