#pragma once

#include <QWidget>

class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;
class QVBoxLayout;

namespace sunbreak::desktop {

/// The right-hand side of Walk: the next station in words, the value in huge digits, what was just said, and the watts;
/// at arm's length the same, larger, without what is for the chair.
class WalkSide : public QWidget {
 public:
  explicit WalkSide(QWidget* parent = nullptr);

  /// For reading from two meters.
  void set_arms_length(bool on);
  /// What the meter shows, as values are typed.
  void show_unit(const QString& unit);
  void say(const QString& words, const char* tone);
  void show_doing(const QString& words, double share);
  /// Something that belongs to the chair, not to arm's length.
  void add_to_chair(QWidget* widget);
  void show_mode(bool hands_free, bool silenced, int samples);

  QLabel *turn, *place, *where, *state, *note, *verdict, *checks;
  QLineEdit *value, *watts;
  QPushButton *hands_free, *arms_length, *tones, *list_checks, *bring, *read_map;

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  QLabel *doing_, *keys_, *unit_, *caution_;
  QProgressBar* hold_;
  QWidget* chair_;  ///< what is left out at arm's length
  QVBoxLayout* chair_layout_;
};

}  // namespace sunbreak::desktop
