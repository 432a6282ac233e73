#pragma once

#include <optional>

#include "core/quantity/display.h"
#include "drawing/map_fit.h"
#include "drawing/value_scale.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::drawing {

/// What a map of one sweep shows.
struct MapScene {
  const evaluation::SweepView* view = nullptr;
  const record::Bench* bench = nullptr;
  const std::vector<double>* values = nullptr;  ///< one a station, shown in place of PPFD
  ValueScale scale;
  ValueText text;
  std::optional<Band> band;  ///< in the values' unit
  UnitSystem units = UnitSystem::Metric;
  int current = -1;         ///< station ringed in ember
  bool numbers = true;      ///< those that fit, lowest and highest always among them
  bool contours = false;    ///< lines of equal value at round values, over the continuous field
  bool rulers = true;       ///< places and door around the map
  bool key = true;          ///< and the scale under it
  double room_right = 1e9;  ///< where the drawing ends [px], for words beside the map
};

/// The map, far wall at the top: stations or the field between them in the scale's colors, values, hatched below the
/// band and dotted above it; unread stations as open dots, missing ones crossed; walls and door as the bench states
/// them.
void draw_map(Canvas& canvas, const MapFit& fit, const MapScene& scene);

}  // namespace sunbreak::drawing
