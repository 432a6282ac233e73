#pragma once

#include <QAbstractScrollArea>
#include <memory>
#include <vector>

#include "desktop/lineup/lineup_work.h"
#include "drawing/interval_axis.h"

namespace sunbreak::desktop {

/// All fixtures of a line-up one under another, the best first, each with its rank, its bar on the axis that all share
/// and its value; ties are bracketed. Those that may not be compared with the rest stand apart, with the reason over
/// them. Up and Down go through them.
class LineUpStrip : public QAbstractScrollArea {
  Q_OBJECT
 public:
  explicit LineUpStrip(Desk& desk, QWidget* parent = nullptr);
  /// Keeps who is chosen, by what they are known by.
  void show_lineup(std::shared_ptr<const ShownLineUp> shown);
  /// Whether the first line-up is no longer on its way.
  void set_stopped(bool stopped);

  /// Members by number; −1 for none.
  int chosen() const;
  int second() const { return second_; }
  void choose(int member);
  void choose_second(int member);
  void step(int by);
  /// Members in the order they stand in.
  std::vector<int> in_order() const;

 signals:
  void moved();
  void opened();

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  /// One row: a member, or words over a group.
  struct Row {
    int member = -1;
    QString words;
    int top = 0, height = 0;
  };
  struct Bracket {
    int first = 0, last = 0;  ///< rows
    int lane = 0;
  };
  void lay_out();
  void fit_scroll();
  /// Scrolls to the chosen one, where it is out of sight.
  void keep_in_sight();
  void tell();
  int row_at(int y) const;
  void paint_row(QPainter& p, const Row& row, const QRectF& room, const QRectF& axis_room) const;

  Desk& desk_;
  std::shared_ptr<const ShownLineUp> shown_;
  bool stopped_ = false;
  std::vector<Row> rows_;
  std::vector<Bracket> brackets_;
  drawing::IntervalAxis axis_;
  int row_ = -1, second_ = -1;
};

/// The shorter name of a member: its test's title, with who measured a guest's.
QString member_name(const evaluation::Entrant& entrant);

}  // namespace sunbreak::desktop
