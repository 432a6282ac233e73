#pragma once

#include <QObject>
#include <memory>
#include <optional>

#include "book/bundle.h"
#include "core/checks/check.h"
#include "core/quantity/display.h"
#include "core/result.h"
#include "report/light_scale.h"

namespace sunbreak::desktop {

/// What every stage looks at: the lab book, the test at hand, the rung and stop chosen, and the figures worked out from
/// them. Stages change the book through it and redraw on changed(); nothing is stored here that is not in the book.
class Desk : public QObject {
  Q_OBJECT
 public:
  explicit Desk(std::unique_ptr<book::Book> book, QObject* parent = nullptr);

  book::Book& book() { return *book_; }
  bool read_only() const { return book_->read_only(); }

  UnitSystem units() const { return units_; }
  void set_units(UnitSystem units);

  /// Puts a test on the desk, at the first sweep that still has something to read.
  void open_test(std::optional<book::Id> id);
  const book::TestBundle* test() const { return test_ ? &*test_ : nullptr; }

  const book::Rung* rung() const;
  const book::Stop* stop() const;
  void choose(book::Id rung_id, book::Id stop_id);
  /// Chooses the sweep with the most stations read, the first of them where several are alike.
  void choose_fullest();
  void step_rung(int by);
  void step_stop(int by);

  /// The chosen sweep; none where nothing was kept at that rung and stop.
  const book::Sweep* sweep() const;
  /// The chosen sweep's stations, or the plan's with nothing read; none where the plan cannot be laid out.
  const book::SweepView* view() const { return view_ ? &*view_ : nullptr; }
  const std::optional<SweepFigures>& figures() const { return figures_; }
  /// What looks wrong with the chosen sweep. Dense scans are left out: their checks take longer than a key may.
  const std::vector<Check>& checks() const { return checks_; }
  /// One light scale over all sweeps of the test.
  report::ScaleRange scale() const { return scale_; }
  std::optional<Band> band() const;

  /// Runs an edit, or says why it cannot be. True where it was kept.
  bool edit(const QString& label, const std::function<void(book::Edit&)>& change);
  /// Runs one of the plan's changes, turning a refusal into words; empty where it was kept.
  QString plan(const std::function<std::optional<Problem>()>& change);

  bool accept(int station, double raw, const std::string& source);
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
  void refresh();
  void step_history(bool undoing);

  std::unique_ptr<book::Book> book_;
  UnitSystem units_ = UnitSystem::Metric;
  std::optional<book::TestBundle> test_;
  book::Id rung_id_ = 0, stop_id_ = 0;
  std::optional<book::SweepView> view_;
  std::optional<SweepFigures> figures_;
  std::vector<Check> checks_;
  report::ScaleRange scale_;
};

inline QString text_of(const std::string& text) { return QString::fromStdString(text); }
inline std::string text_of(const QString& text) { return text.toStdString(); }

}  // namespace sunbreak::desktop
