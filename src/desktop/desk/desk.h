#pragma once

#include <QObject>
#include <functional>
#include <memory>
#include <optional>
#include <vector>

#include "book/book.h"
#include "core/quantity/display.h"
#include "core/walk/walk_course.h"
#include "desktop/desk/bench_clock.h"
#include "desktop/desk/edits.h"
#include "desktop/desk/worked_out.h"
#include "drawing/light_scale.h"
#include "evaluation/audit/audit_keeper.h"
#include "record/walk_change.h"

namespace sunbreak::desktop {

/// What every stage looks at: the lab book, the test at hand, and the rung and stop chosen. What is worked out of them
/// is in worked_out(); changes of the book are made through edits(). Stages redraw on changed(). Nothing is stored here
/// that is not in the book.
class Desk : public QObject {
  Q_OBJECT
 public:
  explicit Desk(std::unique_ptr<book::Book> book, QObject* parent = nullptr);
  ~Desk() override;

  book::Book& book() { return *book_; }
  const book::Book& book() const { return *book_; }
  bool read_only() const { return book_->read_only(); }
  /// The clock that all of the test's times are taken from.
  BenchClock& clock() { return clock_; }
  const BenchClock& clock() const { return clock_; }
  Edits& edits() { return edits_; }
  WorkedOut& worked_out() { return *worked_out_; }
  const WorkedOut& worked_out() const { return *worked_out_; }

  /// Audits that were worked out; may be asked from any thread.
  const std::shared_ptr<evaluation::AuditKeeper>& audits() const { return audits_; }

  UnitSystem units() const { return units_; }
  void set_units(UnitSystem units);

  /// Puts a test on the desk, at the first sweep that still has something to read, and calls `then`. A large one is
  /// read on another thread first, while the test before stays where it is; what is opened meanwhile takes its place.
  void open_test(std::optional<record::Id> id, const std::function<void()>& then = {});
  /// Looks at another configuration of the test: from then on all is of that one.
  void choose_configuration(record::Id configuration_id, const std::function<void()>& then = {});
  /// The test and the configuration of it that all is of now; zeros where there is none.
  std::pair<record::Id, record::Id> shown() const {
    return test_ ? std::pair(test_->test.id, test_->configuration_id) : std::pair<record::Id, record::Id>();
  }
  /// The next one, round again at the end; none where there is only one.
  void step_configuration(int by);
  const record::TestRecord* test() const { return test_.get(); }
  /// The test as it is now, for another thread: later changes are made to a copy.
  std::shared_ptr<const record::TestRecord> snapshot() const { return test_; }
  /// A stretch of the test's log was written beside the edits: takes it in.
  void take_log_part(const record::LogPart& part);

  /// A height [m] and setting [%] between the walked ones that is looked at as a prediction, not a sweep; none while a
  /// sweep is. Choosing a sweep ends it.
  const std::optional<double>& between_m() const { return between_m_; }
  const std::optional<double>& between_percent() const { return between_percent_; }
  /// Only while a screen shows predictions: elsewhere the mast would point at what is not shown. Ends it where not.
  void offer_between(bool offered);
  /// At the chosen setting where no other is named; nothing where it is not offered.
  void stand_between(std::optional<double> height_m, std::optional<double> percent = {});

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
  /// The chosen sweep's stations, or the plan's with nothing read, as for a sweep that is set apart; none where the
  /// plan cannot be laid out.
  const evaluation::SweepView* view() const;
  /// None where nothing is read.
  const SweepFigures* figures() const;
  /// Any sweep of the test, laid out and corrected; none where it cannot be.
  const evaluation::SweepView* view_of(record::Id sweep_id) const;
  /// Its counts, extremes and mean at a glance; none where there is no view.
  const evaluation::SweepDigest* digest_of(record::Id sweep_id) const;
  /// The stations of the chosen sweep in the order they are walked.
  const std::vector<int>& walk() const { return walk_; }
  /// The chosen sweep as its walk sees it; to be asked only where there is a view. Refers to the desk, until it
  /// changes.
  SweepOnWalk sweep_on_walk() const;
  /// One light scale over all sweeps of the test.
  drawing::ScaleRange scale() const;
  std::optional<Band> band() const;

  void say(const QString& words) { emit said(words, false); }
  void warn(const QString& words) { emit said(words, true); }

 signals:
  /// Another sweep is about to be chosen: what is typed for this one is kept now.
  void leaving_sweep();
  void changed();
  /// The lab book was changed, before changed().
  void book_changed(const book::Change& change);
  /// A change was undone or done again, after changed(); what it touched of a walk, if it touched one.
  void stepped_in_history(const std::optional<record::WalkChange>& touched);
  void said(const QString& words, bool bad);

 private:
  void take(const book::Change& change);
  void look();
  record::TestRecord& own_test();
  void open(std::optional<record::Id> id, record::Id configuration_id, const std::function<void()>& then);
  void read_beside(record::Id id, record::Id configuration_id, const std::function<void()>& then);
  void put_down(std::shared_ptr<record::TestRecord> test, std::shared_ptr<const evaluation::Evaluation> evaluation);

  std::unique_ptr<book::Book> book_;
  BenchClock clock_;
  UnitSystem units_ = UnitSystem::Metric;
  std::shared_ptr<record::TestRecord> test_;
  record::Id rung_id_ = 0, stop_id_ = 0;
  bool between_offered_ = false;
  std::optional<double> between_m_, between_percent_;
  std::optional<evaluation::SweepView> planned_;  ///< where the chosen sweep has not begun
  std::vector<int> walk_;
  mutable std::vector<StationOnWalk> on_walk_;  ///< what sweep_on_walk() refers to
  /// What walk_ was laid out for.
  struct WalkKey {
    Grid grid;
    Footprint footprint;
    std::string order;
    bool probe = false;
    bool operator==(const WalkKey&) const = default;
  };
  std::optional<WalkKey> walk_key_;
  std::shared_ptr<evaluation::AuditKeeper> audits_ = std::make_shared<evaluation::AuditKeeper>();
  Edits edits_;
  WorkedOut* worked_out_;
  Background reading_;
};

}  // namespace sunbreak::desktop
