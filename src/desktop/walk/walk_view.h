#pragma once

#include "desktop/shell/desk.h"
#include "desktop/shell/stage_view.h"

class QLabel;
class QLineEdit;
class QProgressBar;

namespace sunbreak::desktop {

class InstrumentHub;
class SweepMap;

/// Walk: the readings of one sweep, typed station by station in walk order while the map fills. Each accepted value is
/// on disk before the next station lights up.
class WalkView : public StageView {
  Q_OBJECT
 public:
  WalkView(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);
  void arrive() override;
  std::vector<KeyHint> keys() const override;
  bool copy() override;
  int current() const { return current_; }

 signals:
  /// A block of cells was pasted where one value goes.
  void pasted(const QString& text);
  void wants_file();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void build_side(QWidget* side);
  void refresh();
  void move_to(int station);
  void move_by(int columns, int rows);
  void advance();
  void step_back();
  void accept_typed();
  void accept_live();
  bool warn_of(int station);
  void go_to_next_check();
  void take_watts();
  bool edit_key(class QKeyEvent* key);
  std::vector<int> order() const;
  QString station_words(int station) const;
  void say(const QString& words, const char* tone);

  Desk& desk_;
  InstrumentHub& hub_;
  SweepMap* map_;
  QLabel *title_, *place_, *state_, *progress_, *note_, *checks_;
  QLineEdit *value_, *watts_;
  int current_ = -1;
  std::pair<book::Id, book::Id> shown_{0, 0};
};

}  // namespace sunbreak::desktop
