#include "desktop/paint/value_scale.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/display.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {

report::Rgb rgb(const QColor& c) {
  return {static_cast<std::uint8_t>(c.red()), static_cast<std::uint8_t>(c.green()),
          static_cast<std::uint8_t>(c.blue())};
}

report::Rgb mixed(const report::Rgb& a, const report::Rgb& b, double share) {
  const auto mix = [&](std::uint8_t x, std::uint8_t y) {
    return static_cast<std::uint8_t>(std::lround(x + share * (y - x)));
  };
  return {mix(a.red, b.red), mix(a.green, b.green), mix(a.blue, b.blue)};
}

}  // namespace

report::Rgb ValueScale::color(double value) const {
  if (!diverging) return report::light_color(range.share(value));
  const double share = std::clamp(std::isnan(value) || !(range.high > 0) ? 0.0 : value / range.high, -1.0, 1.0);
  const Theme& t = theme();
  return mixed(rgb(t.ground), rgb(share < 0 ? t.lake : t.ember), std::abs(share));
}

QString ValueText::text(double value) const {
  QString words = decimals < 0 ? QString::fromStdString(ppfd_text(std::abs(value)))
                               : QString::number(std::abs(value), 'f', decimals);
  const bool zero = words.toDouble() == 0;
  if (value < 0 && !zero) words.prepend(QChar(0x2212));
  if (value > 0 && with_sign && !zero) words.prepend('+');
  return words;
}

QColor qcolor(const report::Rgb& c) { return {c.red, c.green, c.blue}; }

}  // namespace sunbreak::desktop
