#pragma once

#include <string>
#include <vector>

#include "desktop/lineup/lineup_page.h"
#include "desktop/paint/light_maps.h"
#include "drawing/interval_axis.h"

/// What pages tell of those in a line-up's scene.
namespace sunbreak::desktop {

const evaluation::LineUpMember& member(const LineUpScene& scene, int number);
/// How one is drawn among the others.
drawing::BarRole role_of(const LineUpScene& scene, int number);
/// The stations of an entry's light.
Layout layout_of(const evaluation::LineUpEntry& entry);
/// One light scale over all members.
drawing::ScaleRange scale_over(const LineUpScene& scene);
/// The fixture's name, or the test's where several in the line-up have that fixture.
std::string short_name(const LineUpScene& scene, int number);
/// A figure of one with its ± and unit.
QString value_text(const LineUpScene& scene, const evaluation::LineUpFigure& figure, int number, UnitSystem units);
/// The map of one with its name above and its setting below.
RowMap map_of(const LineUpScene& scene, int number, const drawing::ScaleRange& range, UnitSystem units);
/// A way that is kept by its id, as fields and sentences show it.
QString way_told(const std::string& way_id, UnitSystem units);
/// A sentence of what would make two alike that may not be held against each other for these reasons.
QString what_makes_alike(const std::vector<Unlike>& why, UnitSystem units);
/// Those that are drawn where not all have room: the chosen two, then the best.
std::vector<int> shown_few(const LineUpScene& scene, int most);

}  // namespace sunbreak::desktop
