#pragma once

#include <QLabel>

namespace sunbreak::desktop {

/// One line of quiet text that ends in an ellipsis where it does not fit; the whole of it is its tool tip.
class ElidedLabel : public QLabel {
 public:
  using QLabel::QLabel;
  QSize minimumSizeHint() const override { return {24, QLabel::minimumSizeHint().height()}; }

 protected:
  void paintEvent(QPaintEvent*) override;
};

}  // namespace sunbreak::desktop
