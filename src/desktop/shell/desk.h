#pragma once

#include <QObject>
#include <functional>
#include <map>
#include <memory>
#include <optional>

#include "book/book.h"
#include "core/quantity/display.h"
#include "core/result.h"
#include "desktop/shell/bench_clock.h"
#include "evaluation/sweep_view.h"
#include "evaluation/test_checks.h"
#include "report/light_scale.h"

namespace sunbreak::desktop {

/// A raw value on its way into the lab book.
struct TakenValue {
  double raw = 0;
  std::string source;  ///< typed, live or simulated
  int samples = 1;
  std::optional<double> spread{};
};

/// What every stage looks at: the lab book, the test at hand, the rung and stop chosen, and the figures worked out from
/// them. Stages change the book through it and redraw on changed(); nothing is stored here that is not in the book.
class Desk : public QObject {
  Q_OBJECT
 public:
  explicit Desk(std::unique_ptr<book::Book> book, QObject* parent = nullptr);

  book::Book& book() { return *book_; }
  const book::Book& book() const { return *book_; }
  bool read_only() const { return book_->read_only(); }
  /// The clock that all of the test's times are taken from.
  BenchClock& clock() { return clock_; }

  UnitSystem units() const { return units_; }
  void set_units(UnitSystem units);

  /// Puts a test on the desk, at the first sweep that still has something to read.
  void open_test(std::optional<record::Id> id);
  const record::TestRecord* test() const { return test_ ? &*test_ : nullptr; }

  const record::Rung* rung() const;
  const record::Stop* stop() const;
  void choose(record::Id rung_id, record::Id stop_id);
  /// Chooses the sweep with the most stations read, the first of them where several are alike.
  void choose_fullest();
  void step_rung(int by);
  void step_stop(int by);
  /// The same by an arrow key, where rungs lie above each other and stops side by side; false for other keys.
  bool step_by_arrow(int key);

  /// The chosen sweep; none where nothing was kept at that rung and stop.
  const record::Sweep* sweep() const;
  /// The chosen sweep's stations, or the plan's with nothing read; none where the plan cannot be laid out.
  const evaluation::SweepView* view() const { return view_ ? &*view_ : nullptr; }
  const std::optional<SweepFigures>& figures() const { return figures_; }
  /// The stations of the chosen sweep in the order they are walked.
  const std::vector<int>& walk() const { return walk_; }
  /// Any sweep of the test, laid out and corrected; none where it cannot be.
  const evaluation::SweepView* view_of(record::Id sweep_id) const;

  /// What looks wrong with the chosen sweep and was not set aside.
  std::vector<Check> checks() const;
  /// The same of every sweep of the test, with what was set aside.
  const std::vector<evaluation::TestCheck>& all_checks() const { return all_checks_; }
  /// How many checks of a sweep are open.
  int open_checks_of(record::Id sweep_id) const;
  bool set_aside(const evaluation::TestCheck& check, const std::string& reason);
  bool take_up_again(record::Id dismissal_id);
  /// What leans and shifts do to the opening probe's corners here; zeros until the model has been worked out.
  const HangResponse& hang() const { return hang_; }

  /// True where so many stations were read since the reference was that it is due again.
  bool reference_due() const;
  /// One light scale over all sweeps of the test.
  report::ScaleRange scale() const { return scale_; }
  std::optional<Band> band() const;

  /// Runs an edit, or says why it cannot be. True where it was kept.
  bool edit(const QString& label, const std::function<void(book::Edit&)>& change);
  /// Runs one of the plan's changes, turning a refusal into words; empty where it was kept.
  QString plan(const std::function<std::optional<Problem>()>& change);

  /// The test as it would be after a change that is not made yet; none where the change would be refused.
  std::optional<record::TestRecord> rehearse(const std::function<QString()>& change);

  /// Whether a value taken at a station of the chosen sweep, and not kept yet, wants more averaged into it.
  std::optional<LongerLook> longer_look(int station, const TakenValue& value) const;
  bool accept(int station, const TakenValue& value);
  bool accept(int station, double raw, const std::string& source) { return accept(station, TakenValue{raw, source}); }
  /// Keeps a reading beside the sweep's own: `purpose` is reference or repeat.
  bool accept_beside(int station, const std::string& purpose, const TakenValue& value);
  /// A stretch of the test's log was written beside the edits: takes it in without reading the test anew.
  void take_log_part(const record::LogPart& part);
  bool declare_missing(int station);
  bool clear_station(int station);
  bool set_watts(std::optional<double> watts);

  void undo();
  void redo();

  void say(const QString& words) { emit said(words, false); }
  void warn(const QString& words) { emit said(words, true); }

 signals:
  void changed();
  void said(const QString& words, bool bad);

 private:
  void reload();
  void work_out();
  void check_sweep(const record::Sweep& sweep);
  void check_beside(record::Id sweep_id);
  void gather_checks();
  void judge_hang();
  void step_history(bool undoing);

  std::unique_ptr<book::Book> book_;
  BenchClock clock_;
  UnitSystem units_ = UnitSystem::Metric;
  std::optional<record::TestRecord> test_;
  record::Id rung_id_ = 0, stop_id_ = 0;
  std::optional<evaluation::SweepView> view_;
  std::optional<SweepFigures> figures_;
  std::vector<int> walk_;
  report::ScaleRange scale_;
  std::map<record::Id, evaluation::SweepView> views_;
  std::map<record::Id, std::vector<Check>> sweep_checks_;
  std::map<record::Id, bool> checking_;  ///< dense sweeps being checked on another thread; true: changed since
  std::vector<evaluation::TestCheck> all_checks_;
  HangResponse hang_;
  std::string hang_question_;           ///< what hang_ was last asked for
  std::function<void()> known_change_;  ///< what the running edit changes, so that the test need not be read anew
};

}  // namespace sunbreak::desktop
