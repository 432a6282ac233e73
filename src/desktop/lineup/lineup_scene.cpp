#include "desktop/lineup/lineup_scene.h"

#include <algorithm>
#include <cmath>

#include "desktop/lineup/lineup_strip.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

using drawing::BarRole;
using evaluation::LineUpEntry;
using evaluation::LineUpFigure;
using evaluation::LineUpMember;

const LineUpMember& member(const LineUpScene& scene, int number) {
  return scene.shown->lineup->members()[static_cast<std::size_t>(number)];
}

BarRole role_of(const LineUpScene& scene, int number) {
  return number == scene.chosen.first    ? BarRole::Chosen
         : number == scene.chosen.second ? BarRole::Second
                                         : BarRole::Plain;
}

Layout layout_of(const LineUpEntry& e) { return lay_out(e.footprint, e.grid).value(); }

drawing::ScaleRange scale_over(const LineUpScene& scene) {
  double low = INFINITY, high = -INFINITY;
  for (const int m : scene.order)
    for (const double e : member(scene, m).entry->ppfd)
      if (std::isfinite(e)) low = std::min(low, e), high = std::max(high, e);
  return low <= high ? drawing::round_range(low, high) : drawing::ScaleRange{};
}

std::string short_name(const LineUpScene& scene, int number) {
  const evaluation::Entrant& e = member(scene, number).entrant;
  const auto same = std::ranges::count_if(scene.shown->lineup->members(),
                                          [&](const LineUpMember& m) { return m.entrant.fixture == e.fixture; });
  return same > 1 ? member_name(e).toStdString() : e.fixture;
}

QString value_text(const LineUpScene& scene, const LineUpFigure& f, int number, UnitSystem units) {
  const Standing s = scene.shown->lineup->standing(f.id, number);
  return text_of(
      evaluation::shown_with_uncertainty(f, s.value, s.expanded(), units, scene.shown->lineup->terms().currency));
}

RowMap map_of(const LineUpScene& scene, int number, const drawing::ScaleRange& range, UnitSystem units) {
  const LineUpEntry& e = *member(scene, number).entry;
  RowMap map;
  map.title = member_name(member(scene, number).entrant);
  map.foot = LineUpPage::tr("%1, %2 %3")
                 .arg(text_of(length_text(e.height_m, units)), QString::number(e.percent, 'g', 4),
                      e.power_w ? LineUpPage::tr("% · %1 W").arg(*e.power_w, 0, 'f', 0) : QStringLiteral("%"));
  map.layout = layout_of(e), map.values = e.ppfd;
  map.scale = {range};
  map.predicted = !e.changes.empty();
  return map;
}

QString way_told(const std::string& way_id, UnitSystem units) {
  const auto way = parse_way(way_id);
  return text_of(way ? way_text(way.value(), units) : way_id);
}

QString what_makes_alike(const std::vector<Unlike>& why, UnitSystem units) {
  QStringList ways;
  for (const Unlike& u : why)
    for (const std::string& way : u.switches) ways << way_told(way, units);
  return ways.isEmpty() ? LineUpPage::tr("Nothing here makes them alike.")
                        : LineUpPage::tr("What makes them alike: %1.").arg(ways.join(", "));
}

std::vector<int> shown_few(const LineUpScene& scene, int most) {
  std::vector<int> few;
  for (const int m : {scene.chosen.first, scene.chosen.second})
    if (m >= 0 && member(scene, m).entry->has_light()) few.push_back(m);
  for (const int m : scene.order)
    if (std::ssize(few) < most && std::ranges::find(few, m) == few.end() && member(scene, m).entry->has_light())
      few.push_back(m);
  return few;
}

}  // namespace sunbreak::desktop
