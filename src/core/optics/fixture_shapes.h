#pragma once

#include <vector>

#include "core/optics/emitter.h"

namespace sunbreak {

/// Fixtures as lists of emitters about their own middle, facing down from z = 0; the flux adds up to `ppf_umol_s`.

/// A rectangular board of emitters in rows, edge to edge.
std::vector<Emitter> board(double width_m, double depth_m, int across, int deep, double ppf_umol_s,
                           double exponent = 1);

/// Straight bars along y, evenly spread over the width, a row of emitters each. Tubes are bars with exponent 1.
std::vector<Emitter> bars(int count, double width_m, double length_m, int emitters_a_bar, double ppf_umol_s,
                          double exponent = 1);

/// A round board: rings of emitters about a middle one, each for a like area.
std::vector<Emitter> disc(double radius_m, int rings, double ppf_umol_s, double exponent = 1);

/// A lamp in a reflector: its opening as a board whose light is drawn together by `exponent`.
std::vector<Emitter> reflector_lamp(double width_m, double depth_m, double ppf_umol_s, double exponent);

/// Two of a fixture side by side along x at a spacing of their middles, each turned inward by an angle [degrees].
std::vector<Emitter> pair_of(const std::vector<Emitter>& fixture, double spacing_m, double inward_tilt_deg);

/// A direction or a place about a fixture's middle, as tilted() turns it.
Vec3 turned(const Vec3& v, double roll_deg, double pitch_deg);

/// Turns a fixture about its middle: `roll_deg` lowers its right side, `pitch_deg` its far side.
std::vector<Emitter> tilted(std::vector<Emitter> fixture, double roll_deg, double pitch_deg);

/// A direction or a place turned about the vertical, counterclockwise seen from above.
Vec3 turned_about_vertical(const Vec3& v, double degrees);

/// Moves a fixture and scales its flux.
std::vector<Emitter> placed(std::vector<Emitter> fixture, const Vec3& at, double light_factor = 1);

std::vector<Emitter> joined(std::vector<Emitter> a, const std::vector<Emitter>& b);

}  // namespace sunbreak
