#include "drawing/surroundings.h"

#include <algorithm>
#include <cmath>

namespace sunbreak::drawing {
namespace {

constexpr int ruler_pixels = 11;
constexpr int key_steps = 96;
constexpr double least_between_ticks = 56, unit_room = 84, swatches_room = 180;

/// Double line where reflective or white, one thick line where dark, one thin where nothing is stated, dots where open.
void draw_wall(Canvas& c, const std::string& kind, const Point& from, const Point& to, const Point& out) {
  const Palette& t = c.colors();
  if (kind == "open") return c.line(from + out, to + out, {t.quiet, 1, Dash::Dotted});
  const bool dark = kind == "dark";
  c.line(from + out * 3, to + out * 3, {dark ? t.ink : t.quiet, dark ? 4 : 1.4});
  if (!dark && !kind.empty()) c.line(from + out * 6, to + out * 6, {t.quiet, 1.4});
}

/// A gap in the front wall with a leaf across it.
void draw_door(Canvas& c, const Box& floor, const std::string& front) {
  if (front == "open") return;
  const Box leaf{floor.center().x - floor.width * 0.14, floor.bottom() + 2, floor.width * 0.28, 5};
  c.fill(leaf.grown(1), c.colors().ground);
  c.fill(leaf, c.colors().panel);
  c.outline(leaf, {c.colors().quiet, 1});
}

void draw_rulers(Canvas& c, const MapFit& fit, UnitSystem units, double room_right) {
  const Lettering small{ruler_pixels, false, c.colors().quiet};
  const double unit = meters_per(surface_unit(units));
  const Place front_left = fit.place(fit.frame.bottom_left()), back_right = fit.place(fit.frame.top_right());
  const int most = std::max(2, static_cast<int>(fit.frame.width / least_between_ticks));
  const double step =
      round_step(std::max(back_right.x_m - front_left.x_m, back_right.y_m - front_left.y_m) / unit, most);
  const auto ticks = [&](double from_m, double to_m, auto&& mark) {
    for (double at = std::ceil(from_m / unit / step - 1e-9) * step; at <= to_m / unit + 1e-9; at += step)
      mark(at * unit, short_number(at, 1));
  };
  ticks(front_left.x_m, back_right.x_m, [&](double x_m, const std::string& words) {
    c.text({fit.pixel(x_m, 0).x - 30, fit.frame.bottom() + 12, 60, 14}, Align::Center, words, small);
  });
  ticks(front_left.y_m, back_right.y_m, [&](double y_m, const std::string& words) {
    c.text({fit.frame.left - map_left_room, fit.pixel(0, y_m).y - 7, map_left_room - 14, 14}, Align::Right, words,
           small);
  });
  const std::string place = std::string(symbol(surface_unit(units))) + ", from the front left",
                    with_door = "door side · " + place;
  const bool fits = fit.frame.left + c.text_width(with_door, ruler_pixels, false) <= room_right;
  c.text({fit.frame.left, fit.frame.bottom() + 30, fit.frame.width + 160, 14}, Align::Left, fits ? with_door : place,
         small);
}

}  // namespace

void draw_surroundings(Canvas& c, const MapFit& fit, const record::Bench& bench, UnitSystem units, double room_right) {
  const Box& f = fit.floor;
  c.clip(fit.frame.grown(9));
  draw_wall(c, bench.wall_back, f.top_left(), f.top_right(), {0, -1});
  draw_wall(c, bench.wall_front, f.bottom_left(), f.bottom_right(), {0, 1});
  draw_wall(c, bench.wall_left, f.top_left(), f.bottom_left(), {-1, 0});
  draw_wall(c, bench.wall_right, f.top_right(), f.bottom_right(), {1, 0});
  draw_door(c, f, bench.wall_front);
  c.unclip();
  draw_rulers(c, fit, units, room_right);
}

void draw_key(Canvas& c, const MapFit& fit, const ValueScale& scale, const ValueText& text, bool with_band) {
  const Lettering small{ruler_pixels, false, c.colors().quiet};
  const double band_room = with_band ? swatches_room : 0;
  double width = std::clamp(fit.frame.width + map_right_room - unit_room, 80.0, 280.0);
  // The scale makes room for what hatch and dots mean, as far as it stays readable.
  if (with_band)
    width = std::max(std::min(width, 150.0), std::min(width, fit.frame.width + map_right_room - unit_room - band_room));
  const Box bar{fit.frame.left, fit.frame.bottom() + 54, width, 10};
  const double span = scale.range.high - scale.range.low;
  for (int i = 0; i < key_steps; ++i)
    c.fill({bar.left + i * width / key_steps, bar.top, width / key_steps + 0.5, bar.height},
           scale.color(scale.range.low + (i + 0.5) / key_steps * span, c.colors()));
  const double step = round_step(span, 4);
  for (double at = std::ceil(scale.range.low / step - 1e-9) * step; at <= scale.range.high + 1e-9 * step; at += step) {
    const double x = bar.left + scale.range.share(at) * width;
    c.line({x, bar.bottom()}, {x, bar.bottom() + 3}, {c.colors().quiet, 1});
    const std::string words = tick_text(at, step);
    c.text({x - 30, bar.bottom() + 4, 60, 14}, Align::Center, text.with_sign && at > step / 1e6 ? "+" + words : words,
           small);
  }
  double x = bar.right() + 12;
  const auto word = [&](const std::string& words) {
    const double wide = c.text_width(words, ruler_pixels, false);
    c.text({x, bar.center().y - 7, wide + 4, 14}, Align::Left, words, small);
    x += wide + 14;
  };
  word(text.unit);
  if (!with_band || x + band_room > fit.frame.right() + map_left_room + map_right_room) return;
  const auto swatch = [&](Hatch kind, const std::string& words) {
    const Box square{x, bar.top - 2, 16, 14};
    c.fill(square, light_color(kind == Hatch::TooDim ? 0.35 : 0.85));
    c.hatch(square, kind);
    x += 22;
    word(words);
  };
  swatch(Hatch::TooDim, "too dim");
  swatch(Hatch::TooBright, "too bright");
}

}  // namespace sunbreak::drawing
