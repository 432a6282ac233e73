#pragma once

#include <QObject>
#include <QString>
#include <QTimer>

#include "core/optics/nominal_fixture.h"
#include "core/optics/sampling_advice.h"
#include "desktop/desk/desk.h"

namespace sunbreak::desktop {

/// What the optical model says of the plan before anything is measured: how many stations the mean needs at the lowest
/// height, and at which height the center would read a PPFD. Worked out beside the interface; a late answer to a
/// question no one asks any more is dropped.
class RigAdvice : public QObject {
  Q_OBJECT
 public:
  explicit RigAdvice(Desk& desk, QObject* parent = nullptr);

  /// Asks anew where the plan has changed, once it has rested for a moment.
  void refresh();
  /// In words, for the Rig; says so while it is being worked out.
  QString stations_words() const;
  /// Height warnings of the plan: too close for its emitters.
  QString height_words() const;

  /// Looks for the height at which the center reads `ppfd`, for a fixture that sends `ppf_umol_s`.
  void find_height(double ppfd, double ppf_umol_s);

 signals:
  void changed();
  void height_found(double height_m, double ppfd);
  void no_height(double ppfd);

 private:
  /// What the number of stations depends on.
  struct Question {
    Room room;
    FixtureOutline fixture;
    double height_m = 0;
    bool operator==(const Question&) const = default;
  };
  void ask();

  Desk& desk_;
  QTimer rest_;
  std::optional<Question> asked_;
  std::optional<StationsNeeded> needed_;
  Background stations_, height_;
};

/// The PPF that the fixture's claims come to [µmol/s]: claimed, or power times efficacy; nothing where neither is
/// claimed.
std::optional<double> claimed_ppf(const record::TestRecord& test);

}  // namespace sunbreak::desktop
