#pragma once

#include <QAbstractScrollArea>
#include <memory>

#include "evaluation/audit/audit.h"

namespace sunbreak::desktop {

/// The claims of a fixture one under another: what is claimed, claimed and measured on one small axis, the verdict in a
/// word and a mark. Up and Down go through them.
class ClaimList : public QAbstractScrollArea {
  Q_OBJECT
 public:
  explicit ClaimList(QWidget* parent = nullptr);
  /// Keeps the claim that is chosen, by its slot.
  void show_audit(std::shared_ptr<const evaluation::Audit> audit);
  /// Null where there is none.
  const evaluation::AuditedClaim* chosen() const;
  void choose(int row);
  int row() const { return row_; }
  int count() const { return audit_ ? static_cast<int>(audit_->claims.size()) : 0; }

 signals:
  void moved();
  void wants_edit();

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  void paint_row(QPainter& p, const evaluation::AuditedClaim& claim, const QRectF& room, bool chosen) const;
  void fit_scroll();
  void measure_words();
  struct Columns {
    double claimed_px, axis_px, verdict_px;
  };
  /// Of a row so wide: words have what they need as far as the axis can spare it.
  Columns columns(double wide) const;
  void tell();

  std::shared_ptr<const evaluation::Audit> audit_;
  int row_ = 0;
  double widest_claimed_px_ = 0, widest_verdict_px_ = 0;
};

/// The color of a verdict, and its mark painted about a point: a filled disc for confirmed, an open one for not told
/// apart, a triangle for short and over, a square for contradicted, a dash for not testable.
QColor verdict_color(Verdict verdict);
void paint_verdict_mark(QPainter& p, const QPointF& middle, Verdict verdict);

}  // namespace sunbreak::desktop
