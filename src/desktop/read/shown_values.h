#pragma once

#include <optional>
#include <vector>

#include "desktop/desk/desk.h"
#include "desktop/read/map_settings.h"
#include "drawing/value_scale.h"

namespace sunbreak::desktop {

/// A sweep's stations in the quantity chosen, with the scale they are colored by.
struct ShownValues {
  std::vector<double> values;  ///< NaN where unknown
  drawing::ValueScale scale;
  drawing::ValueText text;
  std::optional<Band> band;  ///< the target's, in the values' unit; none where it has none
  QString title;             ///< of the quantity
};

/// The range that holds the quantity of every sweep of the test.
drawing::ScaleRange shared_range(const Desk& desk, const MapSettings& settings);

/// What the map of one sweep of the test on the desk shows. Without a range it is colored over all sweeps of the test,
/// or over its own values where the settings ask for that or it is a difference.
ShownValues shown_values(const Desk& desk, const evaluation::SweepView& view, const MapSettings& settings,
                         const std::optional<drawing::ScaleRange>& range = {});

/// The sweeps with readings that a difference from `sweep` can be taken from, in the order of the mast.
std::vector<record::Id> other_sweeps(const Desk& desk, record::Id sweep);

/// The sweep that a difference is taken from, of this test or another; none where there is none.
const evaluation::SweepView* compared(const Desk& desk, const MapSettings& settings);

/// "45 cm · 100 %".
QString sweep_words(const Desk& desk, record::Id sweep_id);

}  // namespace sunbreak::desktop
