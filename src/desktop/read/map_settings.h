#pragma once

#include <QPointF>
#include <memory>
#include <optional>
#include <utility>

#include "core/sweep/isolines.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::desktop {

struct OutsideSweep;

/// What of the light a map shows.
enum class Quantity { Ppfd, DailyLight, PercentOfMean, Difference };

/// How the tester looks at the maps of a test; nothing of it is kept in the lab book.
struct MapSettings {
  Quantity quantity = Quantity::Ppfd;
  bool numbers = true, contours = false;
  bool fixture = false, footprints = false, rings = false, coverage = false;
  bool own_scale = false;                       ///< each sweep its own, not one for all of the test
  std::shared_ptr<const OutsideSweep> outside;  ///< of another test, in place of `other`
  record::Id other = 0;                         ///< the sweep that a difference is taken from
  std::optional<std::pair<Place, Place>> cut;
  double zoom = 1;
  QPointF middle_m;  ///< of what a zoomed map shows
  int pointed = -1;  ///< the station whose record is read out
};

}  // namespace sunbreak::desktop
