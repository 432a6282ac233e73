#pragma once

#include <QStringList>
#include <QTableWidget>
#include <optional>
#include <vector>

#include "desktop/theme/theme.h"

namespace sunbreak::desktop {

/// One cell of a table of figures; what is worth a look carries a tone and a reason beside its color.
struct FigureCell {
  QString text, tip;
  bool attention = false;
  bool operator==(const FigureCell&) const = default;
};

/// A read-only table of figures, its first column to the left and the others to the right.
class FiguresTable : public QTableWidget {
 public:
  FiguresTable(const QStringList& headers, const QString& name, QWidget* parent = nullptr);
  /// To be called before the rows are shown.
  void name_column(int column, const QString& name);
  /// Shows the rows and takes just the height they need.
  void show_rows(const std::vector<std::vector<FigureCell>>& rows);
  /// Columns that are left out, the first of them first, where there is no room for all.
  void set_spare_columns(std::vector<int> columns) { spare_ = std::move(columns); }

  /// How wide a row's name may be: up to where its first value begins.
  int name_px(int row) const;

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  /// Hides spare columns that there is no room for, and gives long names the lines they need.
  void fit();
  int wanted_px(int column) const;
  std::vector<int> spare_;
  std::vector<int> name_px_;  ///< of each row
  std::optional<std::vector<std::vector<FigureCell>>> shown_;
  Look look_ = Look::Paper;  ///< that they are shown in
};

}  // namespace sunbreak::desktop
