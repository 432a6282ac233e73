#pragma once

#include <QComboBox>
#include <optional>

namespace sunbreak::desktop {

/// A choice whose text ends in an ellipsis where it does not fit; the whole of it is its tool tip, and in its list.
class ElidedCombo : public QComboBox {
 public:
  using QComboBox::QComboBox;
  /// Asks for room for so many letters, however long its texts are.
  ElidedCombo(int letters, QWidget* parent) : QComboBox(parent), letters_(letters) {}
  /// What it shows of its text.
  QString shown() const;
  QSize sizeHint() const override;
  QSize minimumSizeHint() const override { return letters_ ? sizeHint() : QComboBox::minimumSizeHint(); }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  std::optional<int> letters_;
};

}  // namespace sunbreak::desktop
