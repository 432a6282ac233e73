#pragma once

#include "desktop/desk/desk.h"
#include "desktop/desk/stage_view.h"
#include "desktop/walk/live_taker.h"
#include "desktop/walk/tones.h"

class QLabel;

namespace sunbreak::desktop {

class InstrumentHub;
class SweepMap;
class TestLog;
class WalkSide;

/// Walk: the readings of one sweep in walk order while the map fills: typed, taken live, or hands-free. Each accepted
/// value is on disk before the next station lights up; what looks wrong is said at once.
class WalkView : public StageView {
  Q_OBJECT
 public:
  WalkView(Desk& desk, InstrumentHub& hub, TestLog& log, QWidget* parent = nullptr);
  void arrive() override;
  std::vector<KeyHint> keys() const override;
  bool copy() override;
  int current() const { return current_; }
  void set_arms_length(bool on);

 signals:
  /// A block of cells was pasted where one value goes.
  void pasted(const QString& text);
  void wants_file();
  /// The frame around the stage is to make room, or to come back.
  void arms_length_wanted(bool on);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  /// What the next value is of: the station, the reference again, or the station once more.
  enum class Turn { Station, Reference, Repeat };

  void connect_all();
  void refresh();
  void refresh_checks();
  void refresh_live();
  void refresh_settling();
  void describe_current();
  void move_to(int station, Turn turn = Turn::Station, bool again = false);
  void move_by(int columns, int rows);
  void advance();
  void step_back();
  void skip();
  void accept_typed();
  void accept_live();
  void take(const TakenValue& value, const QString& words);
  TakenValue taken_of(const HeldValue& held) const;
  void on_held(const HeldValue& held);
  std::optional<LongerLook> longer_look(const HeldValue& held) const;
  bool warn_of(int station);
  bool flagged(int station) const;
  void go_to_next_check();
  void list_checks();
  void go_to(record::Id sweep_id, int station);
  void take_watts();
  bool edit_key(class QKeyEvent* key);
  bool letter_key(int key);
  bool simulated_light() const;
  void say(const QString& words, const char* tone);

  Desk& desk_;
  InstrumentHub& hub_;
  TestLog& log_;
  LiveTaker taker_;
  Tones tones_;
  SweepMap* map_;
  WalkSide* side_;
  QLabel *title_, *progress_, *settling_;
  int current_ = -1, left_off_ = -1;  ///< station at hand; where the walk was left for the reference
  int reference_put_off_ = 0;         ///< stations read before the reference is asked for again after a skip
  int second_look_ = -1;              ///< station that was read twice because it looked wrong
  Turn turn_ = Turn::Station;
  bool arms_length_ = false;
  std::pair<record::Id, record::Id> shown_{0, 0};
};

}  // namespace sunbreak::desktop
