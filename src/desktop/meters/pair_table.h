#pragma once

#include <QTableWidget>
#include <functional>
#include <optional>
#include <vector>

namespace sunbreak::desktop {

/// Readings of two meters side by side, typed, pasted or filled in live. There is always an empty row below.
class PairTable : public QTableWidget {
  Q_OBJECT
 public:
  using Pairs = std::vector<std::pair<double, double>>;
  PairTable(const QString& first, const QString& second, QWidget* parent = nullptr);

  /// Reads what is pasted with a header; where it gives nothing, bare rows of two numbers are tried.
  std::function<std::optional<Pairs>(const std::string& bytes)> read_table;

  /// Whole rows whose two cells are numbers above zero.
  Pairs pairs() const;
  /// Cells that are filled and no number above zero, in words; empty where there is none.
  QString problem() const;
  /// Puts a value into the current row's column, and moves on as Enter does.
  void fill(int column, double value);
  void append(const Pairs& pairs);
  /// Shows these in place of all that stand there.
  void set_pairs(const Pairs& pairs);

 signals:
  void pairs_changed();
  void said(const QString& words);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void closeEditor(QWidget* editor, QAbstractItemDelegate::EndEditHint hint) override;

 private:
  void paste();
  void keep_a_row_below();
  void move_on();
};

}  // namespace sunbreak::desktop
