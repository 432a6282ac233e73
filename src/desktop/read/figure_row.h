#pragma once

#include <QWidget>
#include <string_view>

class QLabel;

namespace sunbreak::desktop {

/// One figure: its name, its value in bold, its unit; its definition where the pointer or the keyboard rests on it.
class FigureRow : public QWidget {
  Q_OBJECT
 public:
  /// `large`: name above, value in large digits. The id is one of the core's table of definitions.
  FigureRow(std::string_view id, bool large, QWidget* parent = nullptr);
  void set_value(const QString& value, const QString& unit, const QString& where = {});
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
  QLabel *value_, *unit_, *where_;
};

/// A figure's meaning and formula in words.
QString definition_words(std::string_view id);

}  // namespace sunbreak::desktop
