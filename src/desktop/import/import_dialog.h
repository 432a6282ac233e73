#pragma once

#include <QDialog>
#include <optional>
#include <string>

#include "desktop/desk/desk.h"
#include "exchange/tables/sweep_table.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace sunbreak::desktop {

/// Shows what a table of readings was understood to say before any of it enters the lab book: how it is written, which
/// station each cell is, and cell by cell what will not be taken. Each understanding can be overruled.
class ImportDialog : public QDialog {
 public:
  ImportDialog(Desk& desk, std::string bytes, const QString& origin, std::string source, QWidget* parent = nullptr);

 private:
  void build();
  void add_choices(class QHBoxLayout* row);
  void read();
  void show_cells();
  void take();
  exchange::TableOptions options() const;

  Desk& desk_;
  std::string bytes_, source_;
  QString origin_;
  std::optional<exchange::TableDraft> draft_;
  QComboBox *form_, *separator_, *decimal_, *first_row_, *unit_, *grid_;
  QLabel *understood_, *findings_;
  QTableWidget* table_;
  QPushButton* take_;
};

}  // namespace sunbreak::desktop
