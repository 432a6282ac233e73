#pragma once

#include <QDialog>
#include <optional>

#include "core/meters/lux_factor.h"
#include "core/spectrum/spectrum.h"
#include "record/test_record.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace sunbreak::desktop {

class Desk;
class DrawnWidget;
class InstrumentHub;
class PairTable;

/// Finds what a lux meter's values are multiplied by under one light, from readings side by side or of a spectrum, and
/// keeps it on the shelf. Shows its line while pairs are typed or read live.
class LuxFactorDialog : public QDialog {
 public:
  LuxFactorDialog(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);

 private:
  void build();
  void fit();
  void show_fit();
  void take_live();
  void keep();
  /// All factors of the lab book as a page.
  void write_card();
  /// The meter chosen, or one that is new on the shelf with this very step.
  std::optional<record::Meter> chosen_meter(const QComboBox* box) const;
  /// The spectrum on record of a test of the chosen fixture nearest to full.
  void look_for_spectrum();

  Desk& desk_;
  InstrumentHub& hub_;
  QComboBox *meter_, *reference_, *fixture_, *class_;
  QLineEdit* name_;
  PairTable* table_;
  DrawnWidget* picture_;
  QLabel *told_, *problem_, *spectrum_told_;
  QPushButton *live_, *keep_, *compute_;
  std::optional<Result<LuxFactor>> fit_;
  std::optional<Spectrum> spectrum_;
  std::optional<double> computed_k_;
  bool by_spectrum_ = false;
};

}  // namespace sunbreak::desktop
