#pragma once

#include <QPainter>
#include <optional>

#include "core/quantity/display.h"
#include "desktop/paint/map_fit.h"
#include "desktop/paint/value_scale.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::desktop {

/// What a map of one sweep shows.
struct MapScene {
  const evaluation::SweepView* view = nullptr;
  const record::Bench* bench = nullptr;
  const std::vector<double>* values = nullptr;  ///< one a station, shown in place of PPFD
  ValueScale scale;
  ValueText text;
  std::optional<Band> band;  ///< in the values' unit
  UnitSystem units = UnitSystem::Metric;
  int current = -1;          ///< station ringed in ember
  bool numbers = true;       ///< those that fit, lowest and highest always among them
  bool contours = false;     ///< lines of equal value at round values, over the continuous field
  bool rulers = true;        ///< places and door around the map
  bool key = true;           ///< and the scale under it
  bool plain_paths = false;  ///< for pictures in vectors: no brushes that only screens know
};

/// Paints the map, far wall at the top: stations or the field between them in the scale's colors, values, hatched below
/// the band and dotted above it; unread stations as open dots, missing ones crossed; walls and door as the bench states
/// them.
void paint_map(QPainter& p, const MapFit& fit, const MapScene& scene);

}  // namespace sunbreak::desktop
