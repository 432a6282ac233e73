#pragma once

#include <QPainter>
#include <QWidget>
#include <functional>

#include "desktop/paint/painter_canvas.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {

/// A widget that shows one drawing, as large as it is itself.
class DrawnWidget : public QWidget {
 public:
  using Draw = std::function<void(drawing::Canvas& canvas, const drawing::Box& room)>;
  explicit DrawnWidget(const QString& name, QWidget* parent = nullptr) : QWidget(parent) { setAccessibleName(name); }

  /// `in_words` is what a screen reader says of it.
  void show_drawing(Draw draw, const QString& in_words) {
    draw_ = std::move(draw);
    setAccessibleDescription(in_words);
    update();
  }
  QSize sizeHint() const override { return {480, 320}; }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (!draw_) return;
    PainterCanvas canvas(p);
    draw_(canvas, {0, 0, static_cast<double>(width()), static_cast<double>(height())});
  }

 private:
  Draw draw_;
};

}  // namespace sunbreak::desktop
