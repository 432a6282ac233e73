#pragma once

#include <QDialog>
#include <memory>
#include <vector>

#include "desktop/desk/desk.h"

class QListWidget;

namespace sunbreak::desktop {

/// A sweep of another test, to take a difference from: before and after, or one fixture and another.
struct OutsideSweep {
  QString words;  ///< test, height and dimmer setting
  evaluation::SweepView view;
};

/// A sweep with readings of another test, by name; its readings are not read for that.
struct OutsideName {
  record::Id test_id = 0, sweep_id = 0;
  QString words;
};

/// The sweeps with readings of all tests but the one on the desk, newest test first.
std::vector<OutsideName> outside_sweeps(const Desk& desk);

/// Reads one of them; nothing where it cannot be laid out.
std::shared_ptr<const OutsideSweep> read_outside(const Desk& desk, const OutsideName& name);

/// Lets one of them be chosen.
class OutsideSweepDialog : public QDialog {
 public:
  explicit OutsideSweepDialog(const Desk& desk, QWidget* parent = nullptr);
  /// The one chosen; nothing where there is none or it cannot be read.
  std::shared_ptr<const OutsideSweep> chosen() const;

 private:
  const Desk& desk_;
  std::vector<OutsideName> sweeps_;
  QListWidget* list_;
};

}  // namespace sunbreak::desktop
