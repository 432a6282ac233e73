#pragma once

#include <QColor>
#include <QFont>
#include <QString>

class QApplication;

namespace sunbreak::desktop {

/// Paper is for daylight, Loft for a dark room beside a bright tent.
enum class Look { Paper, Loft };
enum class LookChoice { FollowDesktop, Paper, Loft };

/// The colors of a look, by what they are for.
struct Theme {
  Look look;
  QColor ground, panel, ink, quiet, rule, ember, lake, good, attention, bad;
  QColor strip, strip_ink, strip_quiet;  ///< the sensor strip is dark in both looks
  QColor light{0xF5D073};                ///< a fixture's, in drawings of the bench
};

const Theme& theme();

/// Loads the shipped fonts; once, before the first window.
void load_fonts();

/// Dresses the whole application.
void apply_look(QApplication& app, LookChoice choice);

/// The shipped font at a pixel size; figures are bold.
QFont text_font(int pixels, bool bold = false);

}  // namespace sunbreak::desktop
