#pragma once

#include <QObject>
#include <memory>
#include <optional>
#include <vector>

#include "book/change.h"
#include "desktop/desk/background.h"
#include "evaluation/evaluation.h"

namespace sunbreak::desktop {

class Desk;

/// What is worked out of the test on the desk. Views and figures are there at once; checks of small sweeps too, as they
/// are walked. All else is worked out on another thread, the chosen sweep first, and what a change has overtaken is
/// dropped: until it is known there is none.
class WorkedOut : public QObject {
  Q_OBJECT
 public:
  explicit WorkedOut(Desk& desk);

  /// Evaluates the test that is on the desk, keeping what `change` left alone; all anew where there is none. `known` is
  /// its evaluation without a log, where that was made already.
  void follow(const book::Change* change, std::shared_ptr<const evaluation::Evaluation> known = nullptr);
  /// Another sweep was chosen.
  void look_at_chosen();
  /// The test's log is another one.
  void take_log(std::shared_ptr<const evaluation::WallLog> log);

  /// Null without a test. What it says never changes, and other threads may ask it.
  const std::shared_ptr<const evaluation::Evaluation>& evaluation() const { return evaluation_; }

  /// What looks wrong with the chosen sweep and was not set aside.
  std::vector<Finding> findings() const;
  /// The same of every sweep of the test, with what was set aside.
  const std::vector<evaluation::TestFinding>& all_findings() const { return all_findings_; }
  /// How many checks of a sweep are open; of the test as a whole for 0.
  int open_checks_of(record::Id sweep_id) const;
  /// What leans and shifts do to the chosen sweep's opening probe; zeros until the model has been worked out.
  HangResponse hang() const;
  /// Null while it is not known.
  const evaluation::WalkedState* walked(record::Id sweep_id) const;

  /// The test's whole light with its left-out heights; null until it was asked for and worked out, or where nothing is
  /// read.
  const evaluation::TestLight* light() const;
  /// Whether any sweep of the test has a reading.
  bool any_read() const;
  /// It takes seconds, with which checks would wait while readings come in: it is worked out while a screen shows it.
  void want_light(bool wanted);

  /// A sweep's budget and grade; null while they are being worked out, or where nothing is read.
  const Budget* budget_of(record::Id sweep_id) const;
  const Budget* budget() const;
  const Evidence* evidence_of(record::Id sweep_id) const;
  /// The test's grade is its weakest sweep's; nothing while any is unknown.
  std::optional<std::pair<Grade, record::Id>> weakest() const;
  /// Budgets take time: only those asked for are worked out, the chosen sweep's first and, where it is not 0, `also`.
  void want_budgets(record::Id also = 0);

 signals:
  /// There are new answers.
  void progressed();

 private:
  using Step = std::function<void(const evaluation::Evaluation&, std::stop_token)>;
  record::Id chosen() const;
  void check_chosen_at_once();
  bool gather();
  void go_on();
  Step next_step() const;

  Desk& desk_;
  std::shared_ptr<const evaluation::Evaluation> evaluation_;
  std::shared_ptr<const evaluation::WallLog> log_;
  std::vector<evaluation::TestFinding> all_findings_;
  bool budgets_wanted_ = false, light_wanted_ = false;
  record::Id budget_also_ = 0;
  Background background_;
};

}  // namespace sunbreak::desktop
