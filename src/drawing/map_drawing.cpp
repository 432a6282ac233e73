#include "drawing/map_drawing.h"

#include <algorithm>
#include <cmath>

#include "core/bench/station_box.h"
#include "drawing/contour_lines.h"
#include "drawing/field_pixels.h"
#include "drawing/surroundings.h"

namespace sunbreak::drawing {
namespace {

constexpr double loose_half_m = 0.06;
constexpr int least_pixels = 9, thinned_pixels = 11, most_pixels = 16;
constexpr double digit_width = 0.62;  ///< of the font's height, a little over half

double characters(const std::string& text) {
  return static_cast<double>(std::count_if(text.begin(), text.end(), [](char c) { return (c & 0xC0) != 0x80; }));
}

class MapDrawing {
 public:
  MapDrawing(Canvas& canvas, const MapFit& fit, const MapScene& scene)
      : c_(canvas),
        fit_(fit),
        s_(scene),
        layout_(scene.view->layout),
        values_(scene.values ? *scene.values : scene.view->ppfd),
        boxes_(station_boxes(layout_)) {
    for (std::size_t i = boxes_.size(); i < layout_.stations.size(); ++i)
      boxes_.push_back({layout_.stations[i].x_m - loose_half_m, layout_.stations[i].y_m - loose_half_m,
                        2 * loose_half_m, 2 * loose_half_m});
  }

  void draw() {
    c_.clip(fit_.frame);
    c_.fill(fit_.frame, c_.colors().dark ? c_.colors().ground : c_.colors().panel);
    if (s_.contours)
      field();
    else
      stations();
    unread_stations();
    if (s_.contours) draw_contours(c_, contours_, s_.scale, s_.text);
    if (s_.numbers) numbers();
    current();
    c_.unclip();
    if (!s_.rulers) return;
    draw_surroundings(c_, fit_, *s_.bench, s_.units, s_.room_right);
    if (s_.key) draw_key(c_, fit_, s_.scale, s_.text, s_.band.has_value());
  }

 private:
  Box box(std::size_t i) const { return fit_.box(boxes_[i]); }
  bool known(std::size_t i) const { return !std::isnan(values_[i]); }
  bool shown(std::size_t i) const { return fit_.frame.intersects(box(i)); }
  Rgb color(std::size_t i) const { return s_.scale.color(values_[i], c_.colors()); }

  void field() {
    const Field light(layout_, values_);
    const FieldPixels f = field_pixels(light, fit_, s_.scale, c_.colors(), s_.band, c_.pixels_a_point());
    if (f.pixels.columns > 0) c_.pixels(f.place, f.pixels);
    contours_ = contour_lines(c_, light, fit_, s_.text);
  }

  void stations() {
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
      if (!known(i) || !shown(i)) continue;
      const Box b = box(i);
      c_.fill({b.left, b.top, b.width + 0.5, b.height + 0.5}, color(i));
    }
    if (s_.band) out_of_band();
  }

  std::optional<Hatch> out_of_band(std::size_t i) const {
    if (!known(i) || s_.band->contains(values_[i])) return {};
    return values_[i] < s_.band->low ? Hatch::TooDim : Hatch::TooBright;
  }

  /// Hatch and dots, one rectangle for each run of stations that want the same.
  void out_of_band() {
    for (std::size_t i = 0; i < boxes_.size();) {
      const auto kind = out_of_band(i);
      Box run = box(i);
      const int row = layout_.stations[i].row;
      for (++i; i < boxes_.size() && layout_.is_lattice() && layout_.stations[i].row == row && out_of_band(i) == kind;
           ++i)
        run = run.united(box(i));
      if (kind && fit_.frame.intersects(run)) c_.hatch(run, *kind);
    }
  }

  void unread_stations() {
    const Stroke thin{c_.colors().quiet, 1.2};
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
      if (s_.view->states[i].kind == evaluation::StationState::Read || !shown(i)) continue;
      const Box b = box(i);
      const double r = std::clamp(std::min(b.width, b.height) * 0.12, 1.0, 4.0);
      // At the station itself, which on some grids is not the middle of its box.
      const Station& station = layout_.stations[i];
      const auto place = fit_.box({station.x_m, station.y_m, 0, 0}).center();
      const Box dot = Box::about(place, 2 * r, 2 * r), cross = Box::about(place, 3.2 * r, 3.2 * r);
      if (s_.view->states[i].kind == evaluation::StationState::Missing) {
        c_.line(cross.top_left(), cross.bottom_right(), thin);
        c_.line(cross.bottom_left(), cross.top_right(), thin);
      } else {
        c_.ellipse(dot, thin);
      }
    }
  }

  /// Values where they fit: all of them, or every so many columns and rows; lowest and highest stay whatever else goes.
  void numbers() {
    if (boxes_.empty()) return;
    const Box one = box(boxes_.size() / 2);
    const double widest = longest_text();
    int pixels =
        static_cast<int>(std::min({double(most_pixels), (one.width - 9) / (digit_width * widest), one.height / 1.7}));
    int across = 1, deep = 1;
    if (pixels < least_pixels) {
      if (!s_.rulers) return;
      pixels = thinned_pixels;
      across = static_cast<int>(std::ceil((digit_width * widest * pixels + 8) / one.width));
      deep = static_cast<int>(std::ceil(line_height(pixels) * 1.6 / one.height));
    }
    std::vector<Box> taken;
    for (const ContourLines& contour : contours_)
      taken.insert(taken.end(), contour.labels.begin(), contour.labels.end());
    if (across > 1 || deep > 1 || s_.contours) extremes(pixels, taken);
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
      if (!known(i) || !shown(i)) continue;
      const Station& s = layout_.stations[i];
      if (layout_.is_lattice() &&
          (s.column % across != (layout_.columns - 1) % across / 2 || s.row % deep != (layout_.rows - 1) % deep / 2))
        continue;
      const std::string words = s_.text.text(values_[i]);
      const Box room = number_box(i, words, pixels, false);
      if (std::any_of(taken.begin(), taken.end(), [&](const Box& t) { return t.intersects(room); })) continue;
      c_.text(room, Align::Center, words, {pixels, false, ink_on(color(i))});
    }
  }

  /// Characters of the longest value; of a dense sweep some of them tell.
  double longest_text() const {
    double longest = 1;
    const std::size_t stride = std::max<std::size_t>(1, values_.size() / 128);
    for (std::size_t i = 0; i < values_.size(); i += stride)
      if (known(i)) longest = std::max(longest, characters(s_.text.text(values_[i])));
    return longest;
  }

  Box number_box(std::size_t i, const std::string& words, int pixels, bool bold) const {
    return Box::about(box(i).center(), c_.text_width(words, pixels, bold) + 2, line_height(pixels));
  }

  /// Lowest and highest in frames of their own, moved inside the map where they lie at its edge.
  void extremes(int pixels, std::vector<Box>& taken) {
    std::ptrdiff_t lowest = -1, highest = -1;
    for (std::size_t i = 0; i < values_.size(); ++i) {
      if (!known(i)) continue;
      if (lowest < 0 || values_[i] < values_[lowest]) lowest = static_cast<std::ptrdiff_t>(i);
      if (highest < 0 || values_[i] > values_[highest]) highest = static_cast<std::ptrdiff_t>(i);
    }
    for (const std::ptrdiff_t i : {lowest, highest}) {
      if (i < 0 || !shown(static_cast<std::size_t>(i))) continue;
      const std::string words = (i == lowest ? "▾ " : "▴ ") + s_.text.text(values_[i]);
      Box room = number_box(static_cast<std::size_t>(i), words, pixels, true);
      room = Box::about(room.center(), room.width + 6, room.height + 2);
      room.left = std::clamp(room.left, fit_.frame.left + 1,
                             std::max(fit_.frame.left + 1, fit_.frame.right() - room.width - 1));
      room.top =
          std::clamp(room.top, fit_.frame.top + 1, std::max(fit_.frame.top + 1, fit_.frame.bottom() - room.height - 1));
      c_.fill(room, c_.colors().panel);
      c_.outline(room, {c_.colors().ember, 1});
      c_.text(room, Align::Center, words, {pixels, true, c_.colors().ink});
      taken.push_back(room);
    }
  }

  void current() {
    if (s_.current < 0 || s_.current >= static_cast<int>(boxes_.size())) return;
    c_.outline(box(static_cast<std::size_t>(s_.current)), {c_.colors().panel, 6});
    c_.outline(box(static_cast<std::size_t>(s_.current)), {c_.colors().ember, 3});
  }

  Canvas& c_;
  const MapFit& fit_;
  const MapScene& s_;
  const Layout& layout_;
  const std::vector<double>& values_;
  std::vector<Rectangle> boxes_;
  std::vector<ContourLines> contours_;
};

}  // namespace

void draw_map(Canvas& canvas, const MapFit& fit, const MapScene& scene) { MapDrawing(canvas, fit, scene).draw(); }

}  // namespace sunbreak::drawing
