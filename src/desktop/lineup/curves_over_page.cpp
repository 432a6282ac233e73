#include "desktop/lineup/curves_over_page.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "core/figures/area_curve.h"
#include "desktop/lineup/lineup_scene.h"
#include "desktop/paint/drawn_widget.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "drawing/curve_overlay.h"

namespace sunbreak::desktop {

using evaluation::LineUpEntry;

namespace {

constexpr int most_curves = 8, profile_steps = 60;
constexpr double area_step_m = 0.02;

}  // namespace

CurvesOverPage::CurvesOverPage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  QVBoxLayout* column = whole_column();
  auto* across = new QHBoxLayout;
  across->setSpacing(20);
  profiles_ = new DrawnWidget(tr("Profiles"), this);
  profiles_->setObjectName("lineupProfiles");
  areas_ = new DrawnWidget(tr("Area curves"), this);
  areas_->setObjectName("lineupAreas");
  across->addWidget(profiles_, 1);
  across->addWidget(areas_, 1);
  column->addLayout(across, 1);
  words_ = wrapped_label({}, this);
  words_->setProperty("quiet", true);
  column->addWidget(words_);
}

void CurvesOverPage::show_scene(const LineUpScene& scene) {
  drawing::CurveOverlay profiles, areas;
  const LengthUnit unit = surface_unit(desk_.units());
  profiles.x_name = text_of(tr("from the left, through the middle, %1").arg(text_of(symbol(unit))));
  profiles.y_name = areas.x_name = "PPFD, µmol/m²/s";
  areas.y_name = text_of(tr("Share of the area at or above, %"));
  const auto few = scene.shown && scene.shown->lineup ? shown_few(scene, most_curves) : std::vector<int>{};
  for (const int m : few) {
    const LineUpEntry& e = *member(scene, m).entry;
    const Layout layout = layout_of(e);
    const Field field(layout, e.ppfd);
    if (!field.exists()) continue;
    const Rectangle& area = field.area();
    drawing::OverlaidCurve profile{short_name(scene, m), {}, role_of(scene, m)}, curve = profile;
    double highest = 0;
    for (const double v : e.ppfd)
      if (std::isfinite(v)) highest = std::max(highest, v);
    for (int i = 0; i <= profile_steps; ++i) {
      const double along = area.width_m * i / profile_steps;
      profile.points.push_back({from_m(along, unit), field.at(area.left_m + along, area.front_m + area.depth_m / 2)});
    }
    const AreaCurve above(field.raster(area_step_m));
    for (int i = 0; i <= profile_steps; ++i) {
      const double ppfd = highest * i / profile_steps;
      curve.points.push_back({ppfd, 100 * above.area_m2_at_or_above(ppfd) / area.area_m2()});
    }
    profiles.curves.push_back(std::move(profile)), areas.curves.push_back(std::move(curve));
  }
  words_->setText(
      profiles.curves.empty() ? tr("No light between stations is known in this way.")
      : std::ssize(scene.order) > std::ssize(few)
          ? tr("The chosen two and the best of the others; %1 of %2.").arg(few.size()).arg(scene.order.size())
          : QString());
  profiles_->show_drawing([profiles](drawing::Canvas& c, const drawing::Box& room) { draw_curves(c, room, profiles); },
                          tr("PPFD along a line through the middle of %1 fixtures").arg(profiles.curves.size()));
  areas_->show_drawing([areas](drawing::Canvas& c, const drawing::Box& room) { draw_curves(c, room, areas); },
                       tr("Share of the area at or above each PPFD of %1 fixtures").arg(areas.curves.size()));
}

}  // namespace sunbreak::desktop
