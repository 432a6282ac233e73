#include "desktop/walk/walk_view.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "core/bench/walk_order.h"
#include "desktop/desk/test_log.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/paint/station_words.h"
#include "desktop/paint/sweep_map.h"
#include "desktop/walk/sweep_table_text.h"
#include "desktop/walk/walk_side.h"
#include "desktop/widgets/flow_layout.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/takers.h"
#include "desktop/widgets/text.h"
#include "exchange/tables/cell_numbers.h"

namespace sunbreak::desktop {

using evaluation::StationState;
using instruments::LinkState;
using instruments::Measures;

namespace {
constexpr double second_look_agrees = 0.015;

bool is_done(const StationState& s) { return s.kind != StationState::Untouched; }
}  // namespace

WalkView::WalkView(Desk& desk, InstrumentHub& hub, TestLog& log, QWidget* parent)
    : StageView(parent), desk_(desk), hub_(hub), log_(log), taker_(hub) {
  auto* middle = new QWidget(this);
  middle->setObjectName("ground");
  middle->setAttribute(Qt::WA_StyledBackground);
  auto* middle_layout = new QVBoxLayout(middle);
  middle_layout->setContentsMargins(16, 12, 16, 8);
  auto* head = new FlowLayout(nullptr, 12);
  title_ = figure_label(20, middle);
  progress_ = quiet_label({}, middle);
  progress_->setObjectName("walkProgress");
  head->addWidget(title_);
  head->addWidget(progress_);
  settling_ = new QLabel(middle);
  settling_->setObjectName("walkSettling");
  head->addWidget(settling_);
  middle_layout->addLayout(head);
  map_ = new SweepMap(desk_, middle);
  middle_layout->addWidget(map_, 1);
  side_ = new WalkSide(this);
  side_->value->installEventFilter(this);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(middle, 1);
  layout->addWidget(side_);
  connect_all();
}

void WalkView::connect_all() {
  connect(map_, &SweepMap::picked, this, [this](int station) { move_to(station); });
  connect(side_->watts, &QLineEdit::editingFinished, this, &WalkView::take_watts);
  connect(side_->bring, &QPushButton::clicked, this, &WalkView::wants_file);
  connect(side_->read_map, &QPushButton::clicked, this, [this] { emit go(3); });
  connect(side_->hands_free, &QPushButton::clicked, this, [this] { letter_key(Qt::Key_H); });
  connect(side_->arms_length, &QPushButton::clicked, this, [this] { letter_key(Qt::Key_V); });
  connect(side_->tones, &QPushButton::clicked, this, [this] { letter_key(Qt::Key_T); });
  connect(side_->list_checks, &QPushButton::clicked, this, &WalkView::list_checks);
  connect(&desk_, &Desk::changed, this, &WalkView::refresh);
  connect(&taker_, &LiveTaker::taken, this, &WalkView::on_held);
  taker_.set_longer_look([this](const HeldValue& held) { return longer_look(held); });
  connect(&taker_, &LiveTaker::changed, this, &WalkView::refresh_live);
  connect(&taker_, &LiveTaker::cannot_reach, this, [this] {
    tones_.play(Tone::Look);
    say(tr("The carriage cannot reach this station: it stays unread. Read it by hand, or press M to declare it "
           "missing."),
        "attention");
    skip();
  });
  connect(&hub_, &InstrumentHub::changed, this, &WalkView::refresh_live);
  connect(&log_, &TestLog::judged, this, &WalkView::refresh_settling);
  connect(&desk_.worked_out(), &WorkedOut::progressed, this, &WalkView::refresh_settling);
}

void WalkView::refresh() {
  if (!desk_.test() || !desk_.view() || !desk_.rung() || !desk_.stop()) return;
  const std::pair now{desk_.rung()->id, desk_.stop()->id};
  const auto& states = desk_.view()->states;
  const bool other_sweep = now != shown_ || current_ >= static_cast<int>(states.size());
  if (other_sweep) {
    shown_ = now;
    turn_ = Turn::Station;
    left_off_ = second_look_ = -1;
    reference_put_off_ = 0;
    side_->value->setText({});  // clear() would leave an undo step in the field
    say({}, "");
    const auto& walk = desk_.walk();
    const auto unread = std::find_if(walk.begin(), walk.end(), [&](int i) { return !is_done(states[i]); });
    current_ = walk.empty() ? -1 : unread == walk.end() ? walk.front() : *unread;
    hub_.hang_simulated(desk_.rung()->height_m, desk_.stop()->percent);
  }
  taker_.set_samples(desk_.test()->test.samples_a_reading);
  title_->setText(
      tr("%1 · %2 %")
          .arg(text_of(length_text(desk_.rung()->height_m, desk_.units())), show_number(desk_.stop()->percent)));
  const int read = desk_.view()->read(), missing = desk_.view()->missing();
  QString words = tr("%1 of %2 stations read").arg(read).arg(states.size());
  if (missing > 0) words += tr(", %1 missing").arg(missing);
  if (desk_.view()->drift.exists())
    words += (desk_.view()->drift.significant() ? tr(" · drift %1 %, corrected") : tr(" · drift %1 %, within noise"))
                 .arg(100 * desk_.view()->drift.largest_change(), 0, 'f', 1);
  progress_->setText(words);
  if (!side_->watts->hasFocus()) side_->watts->setText(desk_.sweep() ? show_number(desk_.sweep()->power_w) : QString());
  side_->value->setReadOnly(desk_.read_only());
  side_->watts->setReadOnly(desk_.read_only());
  side_->show_mode(taker_.hands_free(), tones_.silenced(), desk_.test()->test.samples_a_reading);
  refresh_settling();
  refresh_checks();
  if (other_sweep)
    move_to(current_);
  else
    describe_current();
  refresh_live();
}

/// Walking before light and watts have settled is allowed; the sweep says so.
void WalkView::refresh_settling() {
  if (!desk_.test()) return;
  const evaluation::WalkedState* walked = desk_.sweep() ? desk_.worked_out().walked(desk_.sweep()->id) : nullptr;
  const bool begun = walked && walked->began_s > 0;
  const bool logged = !log_.log().samples.empty();
  const auto kind = begun                                            ? walked->kind
                    : log_.settling().state == SettledState::Settled ? evaluation::WalkedState::Settled
                                                                     : evaluation::WalkedState::NotSettled;
  QString words;
  if (begun && kind != evaluation::WalkedState::NotKnown)
    words = kind == evaluation::WalkedState::Settled ? tr("walked settled")
                                                     : marked_attention(tr("walked before it had settled"));
  else if (!begun && logged)
    words = kind == evaluation::WalkedState::Settled
                ? tr("light and watts have settled")
                : marked_attention(tr("not settled yet: a sweep walked now is marked so"));
  settling_->setText(words);
  settling_->setToolTip(text_of(begun ? walked->words : log_.settling().words));
  settling_->setVisible(!words.isEmpty());
  set_tone(settling_, kind == evaluation::WalkedState::Settled ? "good" : "attention");
}

void WalkView::refresh_live() {
  if (!isVisible()) return;
  const auto live = hub_.channel(Measures::Light).live();
  side_->value->setPlaceholderText(live ? QString::number(*live, 'f', 1) : QString());
  side_->show_doing(taker_.doing(), taker_.progress());
}

void WalkView::describe_current() {
  if (current_ < 0 || !desk_.view()) return;
  const Layout& layout = desk_.view()->layout;
  side_->turn->setText(turn_ == Turn::Reference   ? tr("Reference, once more for drift")
                       : turn_ == Turn::Repeat    ? tr("The same station again, for repeatability")
                       : desk_.view()->complete() ? tr("All stations are read; at hand")
                                                  : tr("Next station"));
  set_tone(side_->turn, turn_ == Turn::Station ? "" : "attention");
  side_->place->setText(station_words(layout, current_).replace(", ", ",\n"));
  side_->where->setText(station_place(layout, current_, desk_.units()));
  const StationState& state = desk_.view()->states[current_];
  QString words;
  switch (state.kind) {
    case StationState::Read:
      words = tr("Read %1 raw, %2 corrected. A new value takes its place; the old one stays on record.")
                  .arg(text_of(short_number(state.raw, 2)), text_of(ppfd_text(desk_.view()->ppfd[current_])));
      break;
    case StationState::Missing:
      words = tr("Declared missing. Type a value if it can be read after all.");
      break;
    case StationState::Untouched:
      words = tr("Not read yet.");
      break;
  }
  if (turn_ == Turn::Reference) words = tr("Kept beside the sweep: it scales the readings to the start of the walk.");
  if (turn_ == Turn::Repeat) words = tr("Kept beside the sweep: it tells how well readings repeat.");
  side_->state->setText(words);
}

void WalkView::move_to(int station, Turn turn, bool again) {
  current_ = station;
  turn_ = turn;
  map_->set_current(station);
  if (station < 0 || !desk_.view()) return;
  describe_current();
  const Station& s = desk_.view()->layout.stations[station];
  taker_.aim({s.x_m, s.y_m}, again);
  if (isVisible() && !side_->watts->hasFocus()) side_->value->setFocus();
}

void WalkView::move_by(int columns, int rows) {
  if (!desk_.view() || current_ < 0) return;
  const Layout& layout = desk_.view()->layout;
  if (!layout.is_lattice()) {
    const int last = static_cast<int>(layout.stations.size()) - 1;
    return move_to(std::clamp(current_ + columns - rows, 0, last));
  }
  const Station& s = layout.stations[current_];
  move_to(layout.index(std::clamp(s.column + columns, 0, layout.columns - 1),
                       std::clamp(s.row + rows, 0, layout.rows - 1)));
}

void WalkView::advance() {
  const auto& walk = desk_.walk();
  if (desk_.reference_due() && desk_.view()->read() >= reference_put_off_) {
    left_off_ = current_;
    return move_to(reference_station(desk_.view()->layout), Turn::Reference);
  }
  const auto here = std::find(walk.begin(), walk.end(), left_off_ >= 0 ? std::exchange(left_off_, -1) : current_);
  const auto unread = [&](int i) { return !is_done(desk_.view()->states[i]); };
  auto next = std::find_if(here, walk.end(), unread);
  if (next == walk.end()) next = std::find_if(walk.begin(), walk.end(), unread);
  if (next != walk.end()) return move_to(*next);
  turn_ = Turn::Station;
  const bool was_hands_free = taker_.hands_free();
  taker_.set_hands_free(false);
  describe_current();
  map_->set_current(current_);
  side_->show_mode(false, tones_.silenced(), desk_.test()->test.samples_a_reading);
  tones_.play(Tone::Done);
  say((desk_.sweep() && desk_.sweep()->power_w
           ? tr("Every station of this sweep is read. Page Down takes the next height, Alt+4 reads the map.")
           : tr("Every station of this sweep is read. The watts at the wall are still missing: without them there is "
                "no efficacy.")) +
          (was_hands_free ? tr(" H goes on hands-free there.") : QString()),
      "good");
}

void WalkView::step_back() {
  const auto& walk = desk_.walk();
  const auto here = std::find(walk.begin(), walk.end(), current_);
  if (here != walk.end() && here != walk.begin()) move_to(*(here - 1));
}

void WalkView::skip() {
  if (turn_ == Turn::Reference)
    reference_put_off_ = desk_.view()->read() + std::max(desk_.test()->test.reference_every / 4, 1);
  if (turn_ != Turn::Station) return advance();
  const auto& walk = desk_.walk();
  const auto here = std::find(walk.begin(), walk.end(), current_);
  const auto unread = [&](int i) { return i != current_ && !is_done(desk_.view()->states[i]); };
  auto next = here == walk.end() ? here : std::find_if(here + 1, walk.end(), unread);
  if (next == walk.end()) next = std::find_if(walk.begin(), walk.end(), unread);
  if (next == walk.end()) return say(tr("No other station is left to read."), "attention");
  move_to(*next);
}

void WalkView::accept_typed() {
  const QString text = side_->value->text().trimmed();
  if (text.isEmpty() || current_ < 0) return;
  const auto reading = exchange::cell_reading(text_of(text), {text.contains(',') ? ',' : '.', false, {}});
  if (!reading.ppfd) {
    tones_.play(Tone::Look);
    return say(
        tr("%1. Nothing was kept: correct it, or press M if the station cannot be read.").arg(text_of(reading.refusal)),
        "bad");
  }
  take({*reading.ppfd, "typed"}, text);
}

void WalkView::accept_live() {
  if (current_ >= 0 && taker_.take()) return;
  tones_.play(Tone::Look);
  say(tr("There is no live value to take: no sensor is connected, or it is silent. Type the value, or connect the "
         "sensor with Ctrl+I."),
      "bad");
}

bool WalkView::simulated_light() const { return hub_.computed(Measures::Light); }

TakenValue WalkView::taken_of(const HeldValue& held) const {
  TakenValue value{held.value, simulated_light() ? "simulated" : "live", held.samples};
  if (held.samples > 1) value.spread = held.spread;
  return value;
}

void WalkView::on_held(const HeldValue& held) {
  if (isVisible() && current_ >= 0) take(taken_of(held), QString::number(held.value, 'f', 1));
}

std::optional<LongerLook> WalkView::longer_look(const HeldValue& held) const {
  if (!isVisible() || current_ < 0 || turn_ != Turn::Station) return {};
  return desk_.edits().longer_look(current_, taken_of(held));
}

void WalkView::take(const TakenValue& value, const QString& words) {
  const int station = current_;
  if (turn_ != Turn::Station) {
    const bool reference = turn_ == Turn::Reference;
    if (!desk_.edits().accept_beside(station, reference ? "reference" : "repeat", value)) return;
    const StationState& first = desk_.view()->states[station];
    const bool comparable = first.kind == StationState::Read && first.raw > 0;
    say(comparable ? tr("%1 kept: %2 % against its reading in the sweep.")
                         .arg(words)
                         .arg(100 * (value.raw / first.raw - 1), 0, 'f', 1)
                   : tr("%1 kept.").arg(words),
        "good");
    side_->value->setText({});
    tones_.play(Tone::Kept);
    return advance();
  }
  const StationState& present = desk_.view()->states[station];
  const double before = present.kind == StationState::Read ? present.raw : 0;
  if (!desk_.edits().accept(station, value)) return;
  side_->value->setText({});
  say(tr("%1 kept.").arg(words), "good");
  const bool wrong = flagged(station);
  tones_.play(wrong ? Tone::Look : Tone::Kept);
  // Hands-free, the sensor still stands there: what looks wrong is read once more before it is left.
  if (wrong && taker_.hands_free() && hub_.carriage_state() == LinkState::Live && second_look_ != station) {
    second_look_ = station;
    move_to(station, Turn::Station, true);
    warn_of(station);
    return;
  }
  advance();
  if (!warn_of(station) && before > 0 && second_look_ == station &&
      std::abs(value.raw / before - 1) > second_look_agrees)
    say(tr("The second look reads %1 instead of %2; the first stays on record.").arg(words).arg(before, 0, 'f', 1),
        "good");
}

void WalkView::take_watts() {
  if (side_->watts->isReadOnly()) return;
  const QString present = desk_.sweep() ? show_number(desk_.sweep()->power_w) : QString();
  if (side_->watts->text() == present) return;
  const QString problem = take_number({0, 20000}, [this](std::optional<double> v) {
    return desk_.edits().set_watts(v) ? QString() : tr("Not kept.");
  })(side_->watts->text().trimmed());
  if (!problem.isEmpty()) return say(problem, "bad");
  say(tr("Watts kept."), "good");
}

void WalkView::say(const QString& words, const char* tone) { side_->say(words, tone); }

void WalkView::set_arms_length(bool on) {
  if (on == arms_length_) return;
  arms_length_ = on;
  side_->set_arms_length(on);
  static_cast<QHBoxLayout*>(layout())->setStretch(1, on ? 1 : 0);
  emit arms_length_wanted(on);
  side_->value->setFocus();
}

bool WalkView::eventFilter(QObject* watched, QEvent* event) {
  if (watched == side_->value && event->type() == QEvent::KeyPress && edit_key(static_cast<QKeyEvent*>(event)))
    return true;
  return StageView::eventFilter(watched, event);
}

void WalkView::hideEvent(QHideEvent* event) {
  taker_.set_hands_free(false);  // nothing is taken that no one sees
  set_arms_length(false);
  StageView::hideEvent(event);
}

bool WalkView::copy() {
  if (!desk_.view() || desk_.view()->read() == 0) return false;
  QApplication::clipboard()->setText(sweep_table_text(*desk_.view()));
  return true;
}

void WalkView::arrive() {
  shown_ = {0, 0};
  refresh();
  side_->value->setFocus(Qt::OtherFocusReason);
}

}  // namespace sunbreak::desktop
