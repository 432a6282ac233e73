#pragma once

#include <QWidget>

#include "core/figures/figure_table.h"

class QLabel;

namespace sunbreak::desktop {

/// One figure: its name, its value in bold, its unit; its definition where the pointer or the keyboard rests on it.
class FigureRow : public QWidget {
  Q_OBJECT
 public:
  /// `large`: name above, value in large digits.
  FigureRow(const Figure& figure, bool large, QWidget* parent = nullptr);
  void set_value(const QString& value, const QString& unit, const QString& where = {});
  /// What the value is sure to (k = 2), in its unit; empty while that is not known.
  void set_uncertainty(const QString& plus_minus);
  /// What this sweep adds to the definition: its numbers in the formula, and how sure they are.
  void set_particulars(const QString& words);
  /// Its value larger than those of the others of its group.
  void set_leading(bool leading);
  QString value() const;

 signals:
  void described(const QString& definition);

 protected:
  void enterEvent(QEnterEvent*) override;
  void leaveEvent(QEvent*) override;
  void focusInEvent(QFocusEvent*) override;
  void focusOutEvent(QFocusEvent*) override;
  void paintEvent(QPaintEvent*) override;

 private:
  QString definition_;
  QLabel *value_, *unit_, *where_, *uncertainty_;
};

/// A figure's meaning, formula and what it depends on, in words.
QString definition_words(const Figure& figure);

}  // namespace sunbreak::desktop
