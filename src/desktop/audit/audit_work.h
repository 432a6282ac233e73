#pragma once

#include <QObject>
#include <memory>

#include "desktop/desk/desk.h"
#include "evaluation/audit/audit.h"

namespace sunbreak::desktop {

/// The audit of the test on the desk, worked out on another thread while a screen shows it.
class AuditWork : public QObject {
  Q_OBJECT
 public:
  explicit AuditWork(Desk& desk, QObject* parent = nullptr);

  void set_in_sight(bool in_sight);
  /// The latest, of the configuration shown; null until it is there. It may be of the test before its last change.
  const std::shared_ptr<const evaluation::Audit>& audit() const { return audit_; }
  bool working() const { return background_.working(); }
  /// Trouble kept it away; it is tried again once the stage comes back into sight.
  bool missed() const { return missed_; }

 signals:
  void changed();

 private:
  void follow();

  Desk& desk_;
  bool in_sight_ = false, missed_ = false;
  std::shared_ptr<const evaluation::Evaluation> made_for_;
  UnitSystem units_ = UnitSystem::Metric;
  std::pair<record::Id, record::Id> shown_;
  std::shared_ptr<const evaluation::Audit> audit_;
  Background background_;
};

}  // namespace sunbreak::desktop
