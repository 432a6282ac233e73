#pragma once

#include <QWidget>
#include <optional>

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

/// The stages of a test in the order they are done, each with a mark that tells its state by shape and color.
class WorkLine : public QWidget {
  Q_OBJECT
 public:
  explicit WorkLine(Desk& desk, QWidget* parent = nullptr);
  void set_stage(std::optional<Stage> stage);
  QSize sizeHint() const override { return {760, 52}; }

 signals:
  void chosen(sunbreak::desktop::Stage stage);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QRectF cell(int index) const;
  int at(const QPointF& place) const;
  Desk& desk_;
  std::optional<Stage> stage_;
  int focused_ = 0;
};

}  // namespace sunbreak::desktop
