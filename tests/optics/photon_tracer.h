#pragma once

#include <random>
#include <span>
#include <vector>

#include "core/optics/emitter.h"
#include "core/optics/room.h"

/// Light in a box by following photons, written apart from the model that it judges and sharing none of its formulas
/// beyond the meaning of an emitter.
namespace sunbreak::tracer {

using Random = std::mt19937_64;

struct Estimate {
  double value = 0, standard_error = 0;
};

/// Mean PPFD on the floor by sending photons from the emitters and counting those that land on it.
Estimate floor_mean(const Room& room, std::span<const Emitter> emitters, int photons, Random& random);

/// Reflected PPFD at a place of the floor, facing up, by photon paths walked backwards from it, which by reciprocity
/// are as likely as forwards. The last surface before the emitter is found in two ways at each step, each weighed by
/// how likely it was to find it (the balance heuristic), so that neither lamps close over the floor nor corners are
/// noisy.
Estimate reflected_at(const Room& room, std::span<const Emitter> emitters, const Vec3& place, int paths,
                      Random& random);

}  // namespace sunbreak::tracer
