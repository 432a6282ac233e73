#pragma once

#include <QDialog>
#include <memory>
#include <vector>

#include "desktop/shell/desk.h"

class QListWidget;

namespace sunbreak::desktop {

/// A sweep of another test, to take a difference from: before and after, or one fixture and another.
struct OutsideSweep {
  QString words;  ///< test, height and dimmer setting
  book::SweepView view;
};

/// The sweeps with readings of all tests but the one on the desk, newest test first.
std::vector<std::shared_ptr<const OutsideSweep>> outside_sweeps(const Desk& desk);

/// Lets one of them be chosen.
class OutsideSweepDialog : public QDialog {
  Q_OBJECT
 public:
  explicit OutsideSweepDialog(const Desk& desk, QWidget* parent = nullptr);
  std::shared_ptr<const OutsideSweep> chosen() const;

 private:
  std::vector<std::shared_ptr<const OutsideSweep>> sweeps_;
  QListWidget* list_;
};

}  // namespace sunbreak::desktop
