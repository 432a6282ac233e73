#pragma once

#include "photon_tracer.h"
#include "scenes.h"

namespace sunbreak::tracer {

/// How far the model is from the tracer, relative to the light at the place.
struct Trial {
  double worst_station = 0, noise = 0;  ///< signed, with the tracer's standard error there
  double mean = 0;
};

/// Holds the model against the tracer at the probe stations, tracing until the noise is under `noise` of the light or a
/// bound of paths is met, and for the floor's mean with that many photons.
Trial try_scene(const Scene& scene, double noise, int photons, Random& random);

}  // namespace sunbreak::tracer
