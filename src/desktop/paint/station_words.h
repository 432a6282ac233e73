#pragma once

#include <QString>

#include "core/bench/grid.h"
#include "core/quantity/display.h"

namespace sunbreak::desktop {

/// "Row 3 from the far wall, 5th from the left"; a spot's own name.
QString station_words(const Layout& layout, int station);

/// "x 45 · y 85 cm".
QString station_place(const Layout& layout, int station, UnitSystem units);

}  // namespace sunbreak::desktop
