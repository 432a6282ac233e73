#pragma once

#include <vector>

#include "core/bench/place.h"
#include "core/sweep/field.h"

namespace sunbreak {

/// A line along which the field has one value. A closed one ends where it begins.
struct Isoline {
  bool closed = false;
  std::vector<Place> places;
};

/// The lines where the field equals `level`. Their places lie on the bilinear field exactly, not on chords of it: each
/// cell between stations is crossed along its hyperbola, in `steps_a_cell` pieces. Where two branches meet a cell, its
/// saddle decides which ends belong together. Lines end at the edge of the measured area and where the field is
/// unknown.
std::vector<Isoline> isolines(const Field& field, double level, int steps_a_cell = 4);

}  // namespace sunbreak
