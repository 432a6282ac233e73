#pragma once

#include <QDialog>
#include <array>

#include "desktop/instruments/instrument_hub.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace sunbreak::desktop {

/// The instruments: where each is and how it speaks, its state and live value, the lines it sends; and the simulated
/// bench in one click.
class InstrumentsPanel : public QDialog {
 public:
  explicit InstrumentsPanel(InstrumentHub& hub, QWidget* parent = nullptr);

 private:
  struct Side {
    QLineEdit *name, *address, *baud, *column, *factor;
    QComboBox *kind, *speaks, *separator;
    QLabel *state, *value, *heard, *problem;
    QPushButton *connect_button, *disconnect_button;
  };
  QWidget* build_side(instruments::Measures what, const QString& title);
  void fit_fields(Side& side);
  void connect_side(instruments::Measures what);
  void refresh();

  InstrumentHub& hub_;
  std::array<Side, 2> sides_{};
  QPushButton* simulate_;
  QLineEdit* spectrometer_;
  QLabel* spectrometer_told_;
};

}  // namespace sunbreak::desktop
