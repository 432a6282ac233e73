#pragma once

#include <QColor>
#include <QString>

#include "report/light_scale.h"

namespace sunbreak::desktop {

/// Of the hatch where it is too dim and of the dots where it is too bright.
inline constexpr int hatch_pitch_px = 10, dot_pitch_px = 7;

/// How values are colored: light by the light scale, differences from lake over the ground at zero to ember.
struct ValueScale {
  report::ScaleRange range;
  bool diverging = false;  ///< the range is symmetric about 0

  report::Rgb color(double value) const;
};

/// How values are written.
struct ValueText {
  int decimals = -1;  ///< −1: as PPFD is written
  bool with_sign = false;
  QString unit = QStringLiteral("µmol/m²/s");

  QString text(double value) const;
};

QColor qcolor(const report::Rgb& c);

}  // namespace sunbreak::desktop
