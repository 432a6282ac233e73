#pragma once

#include <QWidget>
#include <map>
#include <optional>
#include <vector>

#include "book/target_shelf.h"
#include "core/targets/target_fit.h"
#include "desktop/desk/background.h"
#include "desktop/desk/desk.h"

class QComboBox;
class QLabel;
class QPushButton;
class QSlider;
class QTableWidget;

namespace sunbreak::desktop {

/// How every sweep of the test serves every target of one list: shares in band, the best of each column marked. A
/// slider shows what another photoperiod does to bands of daily light. Enter takes a cell's sweep and target to the
/// map.
class TargetsPage : public QWidget {
  Q_OBJECT
 public:
  explicit TargetsPage(Desk& desk, QWidget* parent = nullptr);
  void refresh();

 signals:
  void opened();
  /// The table is as its list and hours ask for.
  void filled();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  struct Row {
    record::Id rung = 0, stop = 0;
    std::optional<double> power_w;
    std::vector<TargetFit> fits;
  };
  void work_out();
  void find_best();
  void fill_table();
  void select_present();
  void describe();
  void take();
  double hours_of(const record::CropTarget& target) const;

  Desk& desk_;
  QComboBox* set_;
  QSlider* hours_;
  QLabel *hours_words_, *reason_, *details_;
  QPushButton *own_hours_, *edit_;
  QTableWidget* table_;
  std::vector<record::CropTarget> targets_;
  std::vector<Band> bands_;
  std::vector<Row> rows_;
  std::vector<int> best_;  ///< by target, the row
  std::optional<double> tried_hours_;
  Background background_;
};

}  // namespace sunbreak::desktop
