#include "desktop/walk/walk_side.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QVBoxLayout>

#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {
namespace {

constexpr int chair_width = 320;

QPushButton* mode_button(const QString& text, const char* name, const QString& tip, QWidget* parent) {
  auto* button = new QPushButton(text, parent);
  button->setObjectName(name);
  button->setToolTip(tip);
  button->setFocusPolicy(Qt::TabFocus);
  return button;
}

}  // namespace

WalkSide::WalkSide(QWidget* parent) : QWidget(parent) {
  setObjectName("sideColumn");
  setAttribute(Qt::WA_StyledBackground);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 12, 24, 12);
  layout->setSpacing(6);
  turn = quiet_label(tr("Next station"), this);
  turn->setObjectName("walkTurn");
  layout->addWidget(turn);
  place = wrapped_label({}, this);
  place->setObjectName("walkPlace");
  layout->addWidget(place);
  where = quiet_label({}, this);
  where->setObjectName("walkWhere");
  layout->addWidget(where);
  state = wrapped_label({}, this);
  state->setProperty("quiet", true);
  layout->addWidget(state);
  auto* row = new QHBoxLayout;
  value = new QLineEdit(this);
  value->setObjectName("walkValue");
  value->setMaxLength(12);
  value->setAccessibleName(tr("Reading at the next station"));
  row->addWidget(value, 1);
  unit_ = quiet_label(tr("µmol/m²/s"), this);
  row->addWidget(unit_, 0, Qt::AlignBottom);
  layout->addLayout(row);
  doing_ = quiet_label({}, this);
  doing_->setObjectName("walkDoing");
  doing_->setWordWrap(true);
  layout->addWidget(doing_);
  hold_ = new QProgressBar(this);
  hold_->setTextVisible(false);
  hold_->setRange(0, 100);
  hold_->setFixedHeight(6);
  hold_->setAccessibleName(tr("How much of the hold has passed"));
  layout->addWidget(hold_);
  note = wrapped_label({}, this);
  note->setMinimumHeight(52);
  note->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  note->setObjectName("walkNote");
  layout->addWidget(note);
  verdict = wrapped_label({}, this);
  verdict->setObjectName("walkVerdict");
  layout->addWidget(verdict);
  checks = wrapped_label({}, this);
  checks->setObjectName("walkChecks");
  set_tone(checks, "attention");
  layout->addWidget(checks);
  list_checks = mode_button({}, "walkListChecks", tr("All checks of this test, to look at or to set aside (L)"), this);
  layout->addWidget(list_checks);

  chair_ = new QWidget(this);
  auto* chair = new QVBoxLayout(chair_);
  chair->setContentsMargins(0, 0, 0, 0);
  chair->setSpacing(6);
  chair->addWidget(thin_rule(chair_));
  auto* watts_row = new QHBoxLayout;
  watts_row->addWidget(quiet_label(tr("At the wall"), chair_));
  watts = new QLineEdit(chair_);
  watts->setObjectName("walkWatts");
  size_letters(watts, 20, true);
  watts->setAccessibleName(tr("Watts at the wall for this sweep"));
  watts_row->addWidget(watts, 1);
  watts_row->addWidget(quiet_label(tr("W"), chair_));
  chair->addLayout(watts_row);
  caution_ = wrapped_label(tr("Do not look into the lit fixture. Keep hands and sleeves off hot surfaces."), chair_);
  caution_->setProperty("quiet", true);
  chair->addWidget(caution_);
  chair->addWidget(thin_rule(chair_));
  chair_layout_ = chair;
  layout->addWidget(chair_);
  auto* modes = new QHBoxLayout;
  modes->setSpacing(4);
  hands_free = mode_button(tr("Hands-free"), "walkHandsFree", tr("Take the live value when it holds still (H)"), this);
  hands_free->setCheckable(true);
  arms_length =
      mode_button(tr("Arm's length"), "walkArmsLength", tr("Full screen, readable from two meters (V)"), this);
  arms_length->setCheckable(true);
  tones = mode_button(tr("Tones"), "walkTones", tr("A tone for what was kept and for what needs a look (T)"), this);
  tones->setCheckable(true);
  for (QPushButton* button : {hands_free, arms_length, tones}) modes->addWidget(button);
  layout->addLayout(modes);
  keys_ = wrapped_label(
      tr("Enter keep · Space live value · H hands-free · N skip · R repeat · F reference · M declare missing · "
         "C next check · L all checks · W watts · F1 all keys"),
      this);
  keys_->setProperty("quiet", true);
  layout->addWidget(keys_);
  layout->addStretch();
  auto* ways = new QHBoxLayout;
  bring = new QPushButton(tr("Bring in a table…"), this);
  bring->setToolTip(tr("Or paste a block of cells, or drop files on the window"));
  ways->addWidget(bring);
  read_map = new QPushButton(tr("Read the map"), this);
  ways->addWidget(read_map);
  layout->addLayout(ways);
  set_arms_length(false);
}

void WalkSide::show_unit(const QString& unit) { unit_->setText(unit); }

void WalkSide::set_arms_length(bool on) {
  arms_length->setChecked(on);
  size_letters(turn, on ? 28 : 13, on);
  size_letters(place, on ? 40 : 18, true);
  size_letters(where, on ? 32 : 14, on);
  size_letters(value, on ? 100 : 48, true);
  size_letters(unit_, on ? 24 : 13, false);
  size_letters(doing_, on ? 28 : 13, on);
  size_letters(note, on ? 28 : 13, false);
  size_letters(verdict, on ? 24 : 13, false);
  size_letters(checks, on ? 24 : 13, false);
  hold_->setFixedHeight(on ? 16 : 6);
  chair_->setVisible(!on);
  bring->setVisible(!on);
  read_map->setVisible(!on);
  state->setVisible(!on);
  if (on) {
    setMinimumWidth(480);
    setMaximumWidth(QWIDGETSIZE_MAX);
  } else {
    setFixedWidth(chair_width);
  }
}

void WalkSide::resizeEvent(QResizeEvent* event) {
  // In a low window what F1 tells gives way to what the walk needs.
  keys_->setVisible(!arms_length->isChecked() && height() >= 640);
  QWidget::resizeEvent(event);
}

void WalkSide::say(const QString& words, const char* tone) {
  note->setText(words);
  set_tone(note, tone);
}

void WalkSide::show_doing(const QString& words, double share) {
  doing_->setText(words);
  hold_->setValue(static_cast<int>(100 * share));
  const bool busy = !words.isEmpty();
  doing_->setVisible(busy);
  hold_->setVisible(busy);
}

void WalkSide::add_to_chair(QWidget* widget) { chair_layout_->addWidget(widget); }

void WalkSide::show_mode(bool is_hands_free, bool silenced, int samples) {
  hands_free->setChecked(is_hands_free);
  tones->setChecked(!silenced);
  hands_free->setText(samples > 1 ? tr("Hands-free ×%1").arg(samples) : tr("Hands-free"));
}

}  // namespace sunbreak::desktop
