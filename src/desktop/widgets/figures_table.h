#pragma once

#include <QStringList>
#include <QTableWidget>
#include <vector>

namespace sunbreak::desktop {

/// One cell of a table of figures; what is worth a look carries a tone and a reason beside its color.
struct FigureCell {
  QString text, tip;
  bool attention = false;
};

/// A read-only table of figures, its first column to the left and the others to the right.
class FiguresTable : public QTableWidget {
 public:
  FiguresTable(const QStringList& headers, const QString& name, QWidget* parent = nullptr);
  /// Shows the rows and takes just the height they need.
  void show_rows(const std::vector<std::vector<FigureCell>>& rows);
};

}  // namespace sunbreak::desktop
