#include "drawing/ring_bars.h"

#include <algorithm>

#include "core/quantity/daily_light.h"

namespace sunbreak::drawing {
namespace {
constexpr double pitch = 18, ring_label_width = 64, value_width = 48, daily_width = 40;
}

double ring_bars_height(std::size_t rings) { return static_cast<double>(rings) * pitch + 4; }

void draw_ring_bars(Canvas& c, const Box& room, const std::vector<Ring>& rings, const ScaleRange& range,
                    const std::optional<Band>& band, UnitSystem units, double photoperiod_h) {
  const Palette& t = c.colors();
  const double left = room.left + ring_label_width + 8, widest = room.right() - left - value_width - daily_width;
  double longest = band ? band->low : 1;
  for (const Ring& ring : rings)
    if (ring.read > 0) longest = std::max(longest, ring.mean_ppfd);
  const double unit = meters_per(surface_unit(units));
  double y = room.top + 2;
  for (const Ring& ring : rings) {
    c.text({room.left, y, ring_label_width, pitch - 4}, Align::Right,
           short_number(ring.outer_m / unit, 1) + "–" + short_number(ring.inner_m / unit, 1), {11, false, t.quiet});
    if (ring.read == 0) {
      c.text({left, y, 80, pitch - 4}, Align::Left, "not read", {11, false, t.quiet});
    } else {
      const Box bar{left, y, std::max(1.0, widest * ring.mean_ppfd / longest), pitch - 5};
      c.fill(bar, light_color(range.share(ring.mean_ppfd)));
      c.outline(bar, {t.rule, 1});
      const double value_left = room.right() - daily_width - value_width;
      c.text({value_left, y, value_width - 4, pitch - 4}, Align::Right, ppfd_text(ring.mean_ppfd), {12, true, t.ink});
      c.text({room.right() - daily_width, y, daily_width - 4, pitch - 4}, Align::Right,
             daily_light_text(dli_mol_m2_d(ring.mean_ppfd, photoperiod_h)), {11, false, t.quiet});
    }
    y += pitch;
  }
  if (!band) return;
  const double x = left + widest * band->low / longest;
  c.line({x, room.top}, {x, y + 2}, {t.ember, 1, Dash::Dashed});
}

}  // namespace sunbreak::drawing
