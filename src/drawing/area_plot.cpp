#include "drawing/area_plot.h"

namespace sunbreak::drawing {
namespace {
constexpr double area_label_width = 64;
constexpr int steps = 160;
}  // namespace

Box area_plot_box(const Box& room) {
  return {room.left + area_label_width + 8, room.top + 8, room.width - area_label_width - 24, room.height - 44};
}

void draw_area_plot(Canvas& c, const Box& room, const AreaPlot& plot) {
  const Palette& t = c.colors();
  const Lettering small{11, false, t.quiet};
  const Box box = area_plot_box(room);
  c.fill(box, t.ground);
  c.text({room.left, box.top - 6, area_label_width, 14}, Align::Right, area_text(plot.area_m2, plot.units), small);
  c.text({room.left, box.bottom() - 8, area_label_width, 14}, Align::Right, "0", small);
  const auto x_of = [&](double ppfd) { return box.left + box.width * ppfd / plot.range.high; };
  const double step = round_step(plot.range.high, 5);
  for (double at = 0; at <= plot.range.high + 1e-9; at += step)
    c.text({x_of(at) - 30, box.bottom() + 4, 60, 14}, Align::Center, tick_text(at, step), small);
  c.text({box.left, box.bottom() + 19, box.width, 14}, Align::Right, "µmol/m²/s", small);

  std::vector<Point> line;
  for (int i = 0; i <= steps; ++i) {
    const double ppfd = plot.range.high * i / steps;
    line.push_back({x_of(ppfd), box.bottom() - box.height * plot.curve->area_m2_at_or_above(ppfd) / plot.area_m2});
  }
  c.lines(line, {t.lake, 2});

  if (!plot.marked || *plot.marked > plot.range.high) return;
  const double x = x_of(*plot.marked);
  c.line({x, box.top}, {x, box.bottom()}, {t.ember, 1, Dash::Dashed});
  const std::string words =
      area_text(plot.curve->area_m2_at_or_above(*plot.marked), plot.units) + " ≥ " + short_number(*plot.marked, 0);
  const double wide = c.text_width(words, 12, true) + 8;
  const bool left = x + wide + 6 > box.right();
  const Box tag{left ? x - wide - 4 : x + 4, left ? box.bottom() - 24 : box.top + 4, wide, 18};
  c.fill(tag, t.ground);
  c.text(tag, Align::Center, words, {12, true, t.ink});
}

}  // namespace sunbreak::drawing
