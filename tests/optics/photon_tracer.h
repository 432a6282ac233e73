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

/// How a path walked back from a station is joined to the light. Both are unbiased; which is less noisy depends on the
/// scene: at each surface met, ask an emitter, chosen by its flux, for its light there; or send a photon from an
/// emitter to the first surface it meets and ask that surface, which suits lamps close over the floor.
enum class Join { AtEmitter, AtFirstLanding };

/// Reflected PPFD at a place of the floor, facing up, by photon paths walked backwards from it, which by reciprocity
/// are as likely as forwards.
Estimate reflected_at(const Room& room, std::span<const Emitter> emitters, const Vec3& place, Join join, int paths,
                      Random& random);

}  // namespace sunbreak::tracer
