#pragma once

#include <QDialog>
#include <optional>

#include "core/meters/agreement.h"
#include "record/sensor_pairs.h"
#include "record/test_record.h"

class QComboBox;
class QLabel;
class QPushButton;

namespace sunbreak::desktop {

class Desk;
class DrawnWidget;
class InstrumentHub;
class PairTable;

/// Holds two sensors against each other: by the stations that two sweeps share, or by pairs that are typed, pasted or
/// read live. Shows differences and, by station, the map of the ratio while they come. Pairs are kept as they come.
class AgreementDialog : public QDialog {
 public:
  AgreementDialog(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);
  void done(int result) override;

 private:
  void build();
  void fill_sweeps();
  void take_sweeps();
  void fill_kept();
  /// Shows pairs that were kept, or none for 0.
  void open_kept(record::Id comparison_id);
  bool named() const;
  /// Keeps the pairs in the table, if they are not kept as they stand. False where they could not be.
  bool keep();
  void drop_kept();
  void compare();
  void show_told();
  void take_live(int column);
  void show_live();
  void carry();
  std::optional<record::Meter> meter_of(const QComboBox* box) const;

  Desk& desk_;
  InstrumentHub& hub_;
  QComboBox *first_, *second_, *first_sweep_, *second_sweep_, *kept_;
  PairTable* table_;
  DrawnWidget *differences_, *map_;
  QLabel *told_, *figures_, *problem_;
  QPushButton *live_first_, *live_second_, *drop_, *carry_;
  record::SensorComparison open_;        ///< as it is kept; without an id: none is
  record::SensorPairs as_kept_;          ///< what the table showed when that was kept or opened
  std::vector<SensorPair> of_stations_;  ///< of two sweeps; empty where pairs are typed
  std::optional<Result<Agreement>> told_of_;
};

}  // namespace sunbreak::desktop
