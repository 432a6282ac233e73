#pragma once

#include <QWidget>
#include <memory>
#include <optional>

#include "core/optics/nominal_fixture.h"
#include "core/optics/room.h"
#include "core/settle/hang_guide.h"
#include "desktop/desk/background.h"
#include "desktop/desk/desk.h"
#include "desktop/instruments/instrument_hub.h"

class QLabel;
class QLineEdit;
class QPushButton;

namespace sunbreak::desktop {

/// Hanging by the sensor: with it at the center, how far to raise or lower the fixture until it reads a PPFD. The model
/// is the one fitted to the test's readings where it is known; else the one of the fixture as described, once it was
/// told at which height it hangs.
class HangPanel : public QWidget {
 public:
  /// `stage`: what its parts are named after.
  HangPanel(const QString& stage, Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);
  void refresh();

 private:
  void make_guide();
  void agree();
  void show_step();
  std::optional<double> center_reads() const;

  Desk& desk_;
  InstrumentHub& hub_;
  QLineEdit *wanted_, *reads_;
  QPushButton* hung_;
  QLabel *words_, *reads_label_;
  std::optional<HangGuide> guide_;
  bool fitted_ = false, agreed_ = false;
  /// What the guide was made for.
  struct Of {
    record::Id test = 0;
    const evaluation::TestLight* light = nullptr;
    double percent = 0;
    Room room;
    FixtureOutline outline;
    bool operator==(const Of&) const = default;
  };
  std::optional<Of> of_;
  Background background_;
};

}  // namespace sunbreak::desktop
