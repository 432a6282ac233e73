#pragma once

#include <QDialog>
#include <vector>

#include "desktop/desk/desk.h"
#include "exchange/tables/sweep_name.h"
#include "exchange/tables/sweep_table.h"

class QLabel;
class QPushButton;
class QTableWidget;

namespace sunbreak::desktop {

/// A table of readings on its way in.
struct TableFile {
  QString name;
  std::string bytes;
};

/// Whether a table's name or head says another height or dimmer setting than the rung and stop on the desk.
bool goes_elsewhere(const Desk& desk, const TableFile& table);

/// Many tables at once: what each was understood to say and which height and dimmer setting its name or head gives,
/// each to be confirmed or corrected. Taking them is one step of undo; heights and settings that the plan lacks are
/// added to it.
class TablesDialog : public QDialog {
 public:
  TablesDialog(Desk& desk, std::vector<TableFile> files, QWidget* parent = nullptr);

 private:
  struct Row {
    TableFile file;
    std::optional<exchange::TableDraft> draft;
    QString problem;
    std::optional<double> height_m, percent;
    bool wanted = false, unit_assumed = false;
  };
  void fill();
  void judge();
  void take();
  QString fate_of(const Row& row) const;
  const Row* other_with_same_cell(const Row& row) const;

  Desk& desk_;
  std::vector<Row> rows_;
  QTableWidget* table_;
  QLabel* words_;
  QPushButton* take_;
};

}  // namespace sunbreak::desktop
