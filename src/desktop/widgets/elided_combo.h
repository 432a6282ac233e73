#pragma once

#include <QComboBox>

namespace sunbreak::desktop {

/// A choice whose text ends in an ellipsis where it does not fit; the whole of it is its tool tip, and in its list.
class ElidedCombo : public QComboBox {
 public:
  using QComboBox::QComboBox;
  /// What it shows of its text.
  QString shown() const;

 protected:
  void paintEvent(QPaintEvent*) override;
};

}  // namespace sunbreak::desktop
