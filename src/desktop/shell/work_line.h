#pragma once

#include <QWidget>
#include <array>

namespace sunbreak::desktop {

class Desk;

enum class Stage { Rig, WarmUp, Walk, Read, Settle, Audit, LineUp, Publish };
constexpr int stage_count = 8;
enum class StageMark { ToCome, Untouched, Begun, Done, NeedsLook };

QString stage_name(Stage stage);
QString mark_words(StageMark mark);
/// How far each stage of the test on the desk is.
std::array<StageMark, stage_count> stage_marks(const Desk& desk);

/// The stages of a test in the order they are done, each with a mark that tells its state by shape and color.
class WorkLine : public QWidget {
  Q_OBJECT
 public:
  explicit WorkLine(Desk& desk, QWidget* parent = nullptr);
  void set_stage(std::optional<Stage> stage);
  QSize sizeHint() const override { return {760, 52}; }

 signals:
  void chosen(Stage stage);

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
