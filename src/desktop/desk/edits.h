#pragma once

#include <QCoreApplication>
#include <QString>
#include <functional>
#include <optional>
#include <string>

#include "book/book.h"
#include "core/checks/longer_look.h"
#include "core/result.h"
#include "evaluation/test_checks.h"

namespace sunbreak::desktop {

class Desk;

/// A raw value on its way into the lab book.
struct TakenValue {
  double raw = 0;
  std::string source;  ///< typed, live or simulated
  int samples = 1;
  std::optional<double> spread{};
};

/// Changes of the lab book that stages make, for the test on the desk. What cannot be done is said there, in words.
class Edits {
  Q_DECLARE_TR_FUNCTIONS(Edits)
 public:
  explicit Edits(Desk& desk) : desk_(desk) {}

  /// Runs an edit, or says why it cannot be. True where it was kept.
  bool make(const QString& label, const std::function<void(book::Edit&)>& change);
  /// Runs one of the plan's changes, turning a refusal into words; empty where it was kept.
  QString plan(const std::function<std::optional<Problem>()>& change);

  /// The test as it would be after a change that is not made yet; none where the change would be refused.
  std::optional<record::TestRecord> rehearse(const std::function<QString()>& change);
  /// Whether a change is only being tried: it asks nothing.
  bool rehearsing() const { return rehearsing_; }

  /// Tells whether a value taken at a station of the chosen sweep, and not kept yet, wants more averaged into it. A
  /// copy of what it needs: may be asked on another thread.
  std::function<std::optional<LongerLook>()> longer_look(int station, const TakenValue& value) const;
  bool accept(int station, const TakenValue& value);
  bool accept(int station, double raw, const std::string& source) { return accept(station, TakenValue{raw, source}); }
  /// Keeps a reading beside the sweep's own: `purpose` is reference or repeat.
  bool accept_beside(int station, const std::string& purpose, const TakenValue& value);
  bool declare_missing(int station);
  bool clear_station(int station);
  bool set_watts(std::optional<double> watts);
  /// Takes watts over that were read at this setting with another sweep, at a moment; they are marked so.
  bool carry_watts(double watts, const std::string& read_at);

  bool set_aside(const evaluation::TestFinding& check, const std::string& reason);
  bool take_up_again(record::Id dismissal_id);

  void undo() { step_history(true); }
  void redo() { step_history(false); }

 private:
  bool at_a_sweep() const;
  /// Whether a value may count as one of the test's meter: a live one is PPFD, and no lux.
  bool of_its_meter(const TakenValue& value) const;
  void step_history(bool undoing);

  Desk& desk_;
  bool rehearsing_ = false;
};

}  // namespace sunbreak::desktop
