#pragma once

#include "core/walk/walk_course.h"
#include "desktop/desk/background.h"
#include "desktop/desk/desk.h"
#include "desktop/desk/stage_view.h"
#include "desktop/walk/live_taker.h"
#include "desktop/walk/tones.h"
#include "evaluation/carried_watts.h"

class QLabel;

namespace sunbreak::desktop {

class InstrumentHub;
class SweepMap;
class TestLog;
class HangPanel;
class WalkSide;
class FilmView;

/// Walk: the readings of one sweep in walk order while the map fills: typed, taken live, or hands-free. Each accepted
/// value is on disk before the next station lights up; what looks wrong is said at once.
class WalkView : public StageView {
  Q_OBJECT
 public:
  WalkView(Desk& desk, InstrumentHub& hub, TestLog& log, QWidget* parent = nullptr);
  void arrive() override;
  std::vector<KeyHint> keys() const override;
  QString copy() override;
  bool begins_with_fullest_sweep() const override { return false; }
  int current() const { return course_.station(); }
  void set_arms_length(bool on);
  /// Shows what is made to be filmed, and nothing else.
  void set_filmed(bool on);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void hideEvent(QHideEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void connect_all();
  void refresh();
  void refresh_checks();
  void refresh_live();
  void find_last_read();
  /// Of what the meter shows.
  void refresh_stabilization();
  void describe_current();
  void refresh_film();
  void move_to(int station);
  /// Shows where the course stands and sends the sensor there. `again`: it stands there, and is to be read once more.
  void follow_course(bool again = false);
  void advance();
  void tell_complete();
  /// Goes where a change was undone or done again; what was said of it is not true any more.
  void go_where(const record::WalkChange& touched);
  void ask_for_watts(const QString& how, const QString& then);
  std::optional<std::pair<record::Id, record::Id>> next_open_sweep() const;
  QString way_on() const;
  void go_on();
  void skip();
  void accept_typed();
  void accept_live();
  void take(const TakenValue& value, const QString& words);
  TakenValue taken_of(const HeldValue& held) const;
  void on_held(const HeldValue& held);
  void longer_look(const HeldValue& held, const LiveTaker::Answer& answer);
  bool warn_of(int station, const QString& way_on = {});
  bool flagged(int station) const;
  bool slipped(int station) const;
  QString kept_words(const QString& typed, int station) const;
  void go_to_next_check();
  void list_checks();
  void go_to(record::Id sweep_id, int station);
  /// What stands in the field of watts is kept; what is only offered there, by Enter alone.
  enum class Kept { ByEnter, ByLeaving };
  void take_watts(Kept kept);
  bool stands_offered() const;
  bool watts_key(QKeyEvent* key);
  bool edit_key(class QKeyEvent* key);
  bool letter_key(int key);
  bool simulated_light() const;
  void say(const QString& words, const char* tone);

  Desk& desk_;
  InstrumentHub& hub_;
  TestLog& log_;
  LiveTaker taker_;
  Background look_{this};  ///< whether a value wants a longer look, where the sweep is large
  Tones tones_;
  SweepMap* map_;
  WalkSide* side_;
  FilmView* film_;
  HangPanel* hang_;
  QLabel *title_, *progress_, *stabilization_, *simulated_;
  QString last_kept_;                                  ///< shown large where it is filmed and no live value is
  int last_station_ = -1;                              ///< that it was read at
  std::optional<evaluation::WattsOfSetting> offered_;  ///< stand in the field, and are kept by Enter alone
  bool went_there_ = true;  ///< the station at hand was chosen by the tester, or is still to be read
  std::string told_;        ///< what a check saw that is told at length: not to be told twice
  WalkCourse course_;
  bool arms_length_ = false;
  bool goes_on_from_watts_ = false;  ///< they are all that this sweep still lacked
  std::pair<record::Id, record::Id> shown_{0, 0};
};

}  // namespace sunbreak::desktop
