#include "desktop/paint/station_words.h"
#include "desktop/widgets/text.h"

#include <QCoreApplication>

namespace sunbreak::desktop {
namespace {

QString station_text(const char* text) { return QCoreApplication::translate("StationWords", text); }

QString ordinal(int number) {
  const int last_two = number % 100, last = number % 10;
  const bool teen = last_two >= 11 && last_two <= 13;
  return QString::number(number) + (teen ? "th" : last == 1 ? "st" : last == 2 ? "nd" : last == 3 ? "rd" : "th");
}

}  // namespace

QString station_words(const Layout& layout, int station) {
  const Station& s = layout.stations[station];
  if (!s.name.empty()) return QString::fromStdString(s.name);
  return station_text("Row %1 from the far wall, %2 from the left").arg(layout.rows - s.row).arg(ordinal(s.column + 1));
}

QString station_place(const Layout& layout, int station, UnitSystem units) {
  const Station& s = layout.stations[station];
  const double unit = meters_per(surface_unit(units));
  return station_text("x %1 · y %2 %3")
      .arg(QString::fromStdString(short_number(s.x_m / unit, 1)), QString::fromStdString(short_number(s.y_m / unit, 1)),
           text_of(symbol(surface_unit(units))));
}

}  // namespace sunbreak::desktop
