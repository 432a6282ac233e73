#include "drawing/pair_plots.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "drawing/light_scale.h"
#include "drawing/value_scale.h"

namespace sunbreak::drawing {
namespace {

constexpr double pair_left_px = 62, pair_right_px = 16, pair_top_px = 26, pair_bottom_px = 38, pair_dot_px = 6;
/// Beside differences: how wide the name of a level is, and how far apart two are.
constexpr double level_name_px = 72, level_line_px = 14;

struct Axes {
  Box box;
  double x_low = 0, x_high = 1, y_low = 0, y_high = 1;
  double x_of(double x) const { return box.left + box.width * (x - x_low) / (x_high - x_low); }
  double y_of(double y) const { return box.bottom() - box.height * (y - y_low) / (y_high - y_low); }
};

void draw_axes(Canvas& c, const Box& room, const Axes& a, const std::string& x_name, const std::string& y_name) {
  const Palette& t = c.colors();
  c.fill(a.box, t.panel);
  c.text({room.left, room.top + 4, room.width, 16}, Align::Left, y_name, {12, false, t.ink});
  const double y_step = round_step(a.y_high - a.y_low, 6), x_step = round_step(a.x_high - a.x_low, 5);
  for (double at = std::ceil(a.y_low / y_step - 1e-9) * y_step; at <= a.y_high + 1e-9 * y_step; at += y_step) {
    c.line({a.box.left, a.y_of(at)}, {a.box.right(), a.y_of(at)}, {{t.rule, 0.6}, 1});
    c.text({room.left, a.y_of(at) - 7, pair_left_px - 8, 14}, Align::Right,
           tick_text(std::fabs(at) < y_step / 2 ? 0 : at, y_step), {11, false, t.quiet});
  }
  for (double at = std::ceil(a.x_low / x_step - 1e-9) * x_step; at <= a.x_high + 1e-9 * x_step; at += x_step) {
    c.line({a.x_of(at), a.box.bottom()}, {a.x_of(at), a.box.bottom() + 4}, {{t.quiet, 1}, 1});
    c.text({a.x_of(at) - 32, a.box.bottom() + 5, 64, 14}, Align::Center, tick_text(at, x_step), {11, false, t.quiet});
  }
  c.text({a.box.left, a.box.bottom() + 20, a.box.width, 16}, Align::Right, x_name, {11, false, t.quiet});
}

Box plot_box(const Box& room) {
  return {room.left + pair_left_px, room.top + pair_top_px, room.width - pair_left_px - pair_right_px,
          room.height - pair_top_px - pair_bottom_px};
}

void put_dot(Canvas& c, const Point& at, const Rgb& color) {
  c.fill(Box::about(at, pair_dot_px, pair_dot_px), {color, 0.85});
}

}  // namespace

void draw_pair_line(Canvas& c, const Box& room, const PairLine& plot) {
  Axes a{plot_box(room)};
  if (a.box.empty() || plot.pairs.empty()) return;
  a.x_high = a.y_high = 0;
  for (const Point& p : plot.pairs) a.x_high = std::max(a.x_high, p.x), a.y_high = std::max(a.y_high, p.y);
  if (!(a.x_high > 0) || !(a.y_high > 0)) return;
  a.x_high *= 1.08, a.y_high *= 1.08;
  draw_axes(c, room, a, plot.x_name, plot.y_name);
  const Palette& t = c.colors();
  c.clip(a.box);
  if (plot.slope) c.line({a.x_of(0), a.y_of(0)}, {a.x_of(a.x_high), a.y_of(*plot.slope * a.x_high)}, {{t.lake, 1}, 2});
  for (const Point& p : plot.pairs) put_dot(c, {a.x_of(p.x), a.y_of(p.y)}, t.ink);
  c.unclip();
}

void draw_differences(Canvas& c, const Box& room, const DifferencePlot& plot) {
  Axes a{plot_box({room.left, room.top, room.width - (plot.mean_pct ? level_name_px : 0), room.height})};
  if (a.box.empty() || plot.differences.empty()) return;
  a.x_high = 0;
  double most = 1;
  for (const Point& p : plot.differences) a.x_high = std::max(a.x_high, p.x), most = std::max(most, std::fabs(p.y));
  for (const auto& limit : {plot.low_limit_pct, plot.high_limit_pct})
    if (limit) most = std::max(most, std::fabs(*limit));
  a.x_high *= 1.08, a.y_high = 1.1 * most, a.y_low = -a.y_high;
  if (!(a.x_high > 0)) return;
  draw_axes(c, room, a, plot.x_name, "second less first, % of their mean");
  const Palette& t = c.colors();
  c.line({a.box.left, a.y_of(0)}, {a.box.right(), a.y_of(0)}, {{t.ink, 0.7}, 1});
  struct Level {
    double pct;
    int side;  ///< of the mean
    const char* name;
    Dash dash;
  };
  std::vector<Level> levels;
  if (plot.high_limit_pct) levels.push_back({*plot.high_limit_pct, 1, "limit", Dash::Dashed});
  if (plot.mean_pct) levels.push_back({*plot.mean_pct, 0, "mean", Dash::Solid});
  if (plot.low_limit_pct) levels.push_back({*plot.low_limit_pct, -1, "limit", Dash::Dashed});
  // Their names stand beside the plot, the mean's at its line and the others as near to theirs as leaves all apart.
  for (const Level& level : levels) {
    const double y = a.y_of(level.pct);
    double name_y = y;
    if (plot.mean_pct && level.side > 0) name_y = std::min(y, a.y_of(*plot.mean_pct) - level_line_px);
    if (plot.mean_pct && level.side < 0) name_y = std::max(y, a.y_of(*plot.mean_pct) + level_line_px);
    c.line({a.box.left, y}, {a.box.right(), y}, {{t.lake, 1}, 1.5, level.dash});
    c.text({a.box.right() + 6, name_y - 7, level_name_px + pair_right_px - 6, 14}, Align::Left,
           fmt::format("{} {}{} %", level.name, level.pct >= 0.05 ? "+" : "", tick_text(level.pct, 0.1)),
           {11, false, t.lake});
  }
  for (const Point& p : plot.differences) put_dot(c, {a.x_of(p.x), a.y_of(p.y)}, t.ink);
}

void draw_ratio_map(Canvas& c, const Box& room, const RatioMap& map) {
  if (map.stations.empty() || room.empty()) return;
  const Palette& t = c.colors();
  double left = INFINITY, right = -INFINITY, front = INFINITY, back = -INFINITY, low = INFINITY, high = -INFINITY;
  for (const RatioMap::Station& s : map.stations) {
    left = std::min(left, s.x_m), right = std::max(right, s.x_m);
    front = std::min(front, s.y_m), back = std::max(back, s.y_m);
    low = std::min(low, s.ratio), high = std::max(high, s.ratio);
  }
  c.text({room.left, room.top + 4, room.width, 16}, Align::Left,
         fmt::format("second over first, {:.3f} to {:.3f}", low, high), {12, false, t.ink});
  const Box box{room.left + 8, room.top + 26, room.width - 16, room.height - 50};
  c.text({room.left, room.bottom() - 20, room.width, 16}, Align::Center, "door side", {11, false, t.quiet});
  // As far apart as stations that share the area evenly stand.
  const double wide_m = std::max(right - left, 0.01), deep_m = std::max(back - front, 0.01);
  const double cell_m = std::max(std::sqrt(wide_m * deep_m / static_cast<double>(map.stations.size())), 0.01);
  const double scale = std::min(box.width / (wide_m + cell_m), box.height / (deep_m + cell_m));
  if (!(scale > 0)) return;
  const double side = std::max(4.0, 0.86 * cell_m * scale);
  const Point middle = box.center();
  const double half = std::max({std::fabs(low - 1), std::fabs(high - 1), 0.005});
  for (const RatioMap::Station& s : map.stations) {
    const Point at{middle.x + (s.x_m - (left + right) / 2) * scale, middle.y - (s.y_m - (front + back) / 2) * scale};
    const Box square = Box::about(at, side, side);
    const Rgb color = light_color(0.5 + 0.5 * (s.ratio - 1) / half);
    c.fill(square, color);
    const std::string words = fmt::format("{:.3f}", s.ratio);
    if (c.text_width(words, 11, false) + 4 < side) c.text(square, Align::Center, words, {11, false, ink_on(color)});
  }
}

}  // namespace sunbreak::drawing
