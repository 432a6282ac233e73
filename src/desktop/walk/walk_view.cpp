#include "desktop/walk/walk_view.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "book/import/cell_numbers.h"
#include "core/bench/walk_order.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/paint/sweep_map.h"
#include "desktop/walk/sweep_table_text.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/takers.h"

namespace sunbreak::desktop {

using book::StationState;

WalkView::WalkView(Desk& desk, InstrumentHub& hub, QWidget* parent) : StageView(parent), desk_(desk), hub_(hub) {
  auto* middle = new QWidget(this);
  middle->setObjectName("ground");
  middle->setAttribute(Qt::WA_StyledBackground);
  auto* middle_layout = new QVBoxLayout(middle);
  middle_layout->setContentsMargins(16, 12, 16, 8);
  auto* head = new QHBoxLayout;
  title_ = figure_label(20, middle);
  progress_ = quiet_label({}, middle);
  head->addWidget(title_);
  head->addSpacing(16);
  head->addWidget(progress_);
  head->addStretch();
  middle_layout->addLayout(head);
  map_ = new SweepMap(desk_, middle);
  middle_layout->addWidget(map_, 1);
  connect(map_, &SweepMap::picked, this, &WalkView::move_to);

  auto* side = new QWidget(this);
  side->setObjectName("sideColumn");
  side->setAttribute(Qt::WA_StyledBackground);
  side->setFixedWidth(304);
  build_side(side);

  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(middle, 1);
  layout->addWidget(side);
  connect(&desk_, &Desk::changed, this, &WalkView::refresh);
}

void WalkView::build_side(QWidget* side) {
  auto* layout = new QVBoxLayout(side);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(8);
  layout->addWidget(quiet_label(tr("Next station"), side));
  place_ = figure_label(20, side);
  place_->setWordWrap(true);
  place_->setObjectName("walkPlace");
  layout->addWidget(place_);
  state_ = quiet_label({}, side);
  state_->setWordWrap(true);
  layout->addWidget(state_);
  auto* row = new QHBoxLayout;
  value_ = new QLineEdit(side);
  value_->setObjectName("walkValue");
  value_->setStyleSheet("font-size: 48px; font-weight: bold;");
  value_->setMaxLength(12);
  value_->setAccessibleName(tr("Reading at the next station"));
  value_->installEventFilter(this);
  row->addWidget(value_, 1);
  row->addWidget(quiet_label(tr("µmol/m²/s"), side), 0, Qt::AlignBottom);
  layout->addLayout(row);
  note_ = wrapped_label({}, side);
  note_->setMinimumHeight(52);
  note_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  note_->setObjectName("walkNote");
  layout->addWidget(note_);
  layout->addWidget(thin_rule(side));
  auto* watts_row = new QHBoxLayout;
  watts_row->addWidget(quiet_label(tr("At the wall"), side));
  watts_ = new QLineEdit(side);
  watts_->setObjectName("walkWatts");
  watts_->setStyleSheet("font-size: 20px; font-weight: bold;");
  watts_->setAccessibleName(tr("Watts at the wall for this sweep"));
  watts_row->addWidget(watts_, 1);
  watts_row->addWidget(quiet_label(tr("W"), side));
  layout->addLayout(watts_row);
  connect(watts_, &QLineEdit::editingFinished, this, &WalkView::take_watts);
  auto* caution = wrapped_label(tr("Do not look into the lit fixture. Keep hands and sleeves off hot surfaces."), side);
  caution->setProperty("quiet", true);
  layout->addWidget(caution);
  checks_ = wrapped_label({}, side);
  checks_->setObjectName("walkChecks");
  set_tone(checks_, "attention");
  layout->addWidget(checks_);
  layout->addWidget(thin_rule(side));
  auto* keys = wrapped_label(tr("Enter  accept and go on\nSpace  take the live value\nArrows  another station\nM  "
                                "station is missing\nC  next thing worth a look\nDelete  take "
                                "a reading back\nCtrl+Z  undo"),
                             side);
  keys->setProperty("quiet", true);
  layout->addWidget(keys);
  layout->addStretch();
  auto* bring = new QPushButton(tr("Bring in a table…"), side);
  bring->setToolTip(tr("Or paste a block of cells, or drop a file on the window"));
  connect(bring, &QPushButton::clicked, this, &WalkView::wants_file);
  layout->addWidget(bring);
  auto* next = new QPushButton(tr("Read the map"), side);
  connect(next, &QPushButton::clicked, this, [this] { emit go(3); });
  layout->addWidget(next);
}

std::vector<int> WalkView::order() const {
  return desk_.view() ? serpentine_from_far(desk_.view()->layout) : std::vector<int>{};
}

QString WalkView::station_words(int station) const {
  const Station& s = desk_.view()->layout.stations[station];
  const double unit = meters_per(surface_unit(desk_.units()));
  const QString place = tr("x %1 · y %2 %3")
                            .arg(text_of(short_number(s.x_m / unit, 1)), text_of(short_number(s.y_m / unit, 1)),
                                 QString::fromUtf8(symbol(surface_unit(desk_.units())).data()));
  if (!s.name.empty()) return text_of(s.name) + "\n" + place;
  return tr("Row %1 from the door, %2 from left").arg(s.row + 1).arg(s.column + 1) + "\n" + place;
}

void WalkView::refresh() {
  if (!desk_.test() || !desk_.view() || !desk_.rung() || !desk_.stop()) return;
  const std::pair now{desk_.rung()->id, desk_.stop()->id};
  const auto& states = desk_.view()->states;
  if (now != shown_ || current_ >= static_cast<int>(states.size())) {
    shown_ = now;
    value_->setText({});  // clear() would leave an undo step in the field
    say({}, "");
    const auto walk = order();
    const auto unread =
        std::find_if(walk.begin(), walk.end(), [&](int i) { return states[i].kind == StationState::Untouched; });
    current_ = walk.empty() ? -1 : unread == walk.end() ? walk.front() : *unread;
  }
  title_->setText(
      tr("%1 · %2 %")
          .arg(text_of(length_text(desk_.rung()->height_m, desk_.units())), show_number(desk_.stop()->percent)));
  const int read = desk_.view()->read(), missing = desk_.view()->missing();
  QString words = tr("%1 of %2 stations read").arg(read).arg(states.size());
  if (missing > 0) words += tr(", %1 missing").arg(missing);
  progress_->setText(words);
  if (!watts_->hasFocus()) watts_->setText(desk_.sweep() ? show_number(desk_.sweep()->power_w) : QString());
  QStringList open;
  for (const Check& check : desk_.checks()) open << marked_attention(text_of(check.saw));
  if (open.size() > 3) open = open.mid(0, 3) << tr("and %1 more").arg(open.size() - 3);
  checks_->setText(open.join('\n'));
  checks_->setVisible(!open.isEmpty());
  value_->setReadOnly(desk_.read_only());
  watts_->setReadOnly(desk_.read_only());
  move_to(current_);
}

void WalkView::move_to(int station) {
  current_ = station;
  map_->set_current(station);
  if (station < 0 || !desk_.view()) return;
  place_->setText(station_words(station));
  const StationState& state = desk_.view()->states[station];
  switch (state.kind) {
    case StationState::Read:
      state_->setText(tr("Read %1 raw, %2 corrected. Type to replace it; the old value stays on record.")
                          .arg(text_of(short_number(state.raw, 2)), text_of(ppfd_text(desk_.view()->ppfd[station]))));
      break;
    case StationState::Missing:
      state_->setText(tr("Declared missing. Type a value if it can be read after all."));
      break;
    case StationState::Untouched:
      state_->setText(tr("Not read yet."));
      break;
  }
  if (isVisible() && !watts_->hasFocus()) value_->setFocus();
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
  const auto walk = order();
  const auto here = std::find(walk.begin(), walk.end(), current_);
  if (here == walk.end()) return;
  const auto unread = [&](int i) { return desk_.view()->states[i].kind == StationState::Untouched; };
  auto next = std::find_if(here, walk.end(), unread);
  if (next == walk.end()) next = std::find_if(walk.begin(), walk.end(), unread);
  if (next != walk.end()) return move_to(*next);
  move_to(current_);
  say(desk_.sweep() && desk_.sweep()->power_w
          ? tr("Every station of this sweep is read. Page Down takes the next height, Alt+4 reads the map.")
          : tr("Every station of this sweep is read. The watts at the wall are still missing: without them there is no "
               "efficacy."),
      "good");
}

void WalkView::step_back() {
  const auto walk = order();
  const auto here = std::find(walk.begin(), walk.end(), current_);
  if (here != walk.end() && here != walk.begin()) move_to(*(here - 1));
}

void WalkView::accept_typed() {
  const QString text = value_->text().trimmed();
  if (text.isEmpty() || current_ < 0) return;
  const auto reading = book::cell_reading(text_of(text), {text.contains(',') ? ',' : '.', false, {}});
  if (!reading.ppfd)
    return say(
        tr("%1. Nothing was kept: correct it, or press M if the station cannot be read.").arg(text_of(reading.refusal)),
        "bad");
  const int station = current_;
  if (!desk_.accept(station, *reading.ppfd, "typed")) return;
  value_->setText({});
  say(tr("%1 kept.").arg(text), "good");
  advance();
  warn_of(station);
}

/// Says at once what looks wrong with a reading just taken.
bool WalkView::warn_of(int station) {
  for (const Check& check : desk_.checks())
    if (std::find(check.stations.begin(), check.stations.end(), station) != check.stations.end()) {
      say(marked_attention(tr("%1: %2. C goes there.").arg(text_of(check.saw), text_of(check.remedy))), "attention");
      return true;
    }
  return false;
}

void WalkView::go_to_next_check() {
  const auto walk = order();
  const auto flagged = [&](int station) {
    for (const Check& check : desk_.checks())
      if (std::find(check.stations.begin(), check.stations.end(), station) != check.stations.end()) return true;
    return false;
  };
  const auto here = std::find(walk.begin(), walk.end(), current_);
  auto next = here == walk.end() ? walk.end() : std::find_if(here + 1, walk.end(), flagged);
  if (next == walk.end()) next = std::find_if(walk.begin(), walk.end(), flagged);
  if (next == walk.end()) return say(tr("No station of this sweep looks wrong."), "good");
  move_to(*next);
  warn_of(*next);
}

void WalkView::accept_live() {
  const auto live = hub_.channel(instruments::Measures::Light).live();
  if (!live)
    return say(tr("There is no live value to take: no sensor is connected, or it is silent. Type the value, or connect "
                  "the sensor with Ctrl+I."),
               "bad");
  const int station = current_;
  if (current_ < 0 || !desk_.accept(current_, *live, hub_.simulated() ? "simulated" : "live")) return;
  value_->setText({});
  say(tr("%1 kept, as the sensor shows it.").arg(*live, 0, 'f', 1), "good");
  advance();
  warn_of(station);
}

void WalkView::take_watts() {
  if (watts_->isReadOnly()) return;
  const QString present = desk_.sweep() ? show_number(desk_.sweep()->power_w) : QString();
  if (watts_->text() == present) return;
  const QString problem = take_number({0, 20000}, [this](std::optional<double> v) {
    return desk_.set_watts(v) ? QString() : tr("Not kept.");
  })(watts_->text().trimmed());
  if (!problem.isEmpty()) return say(problem, "bad");
  say(tr("Watts kept."), "good");
}

void WalkView::say(const QString& words, const char* tone) {
  note_->setText(words);
  set_tone(note_, tone);
}

bool WalkView::edit_key(QKeyEvent* key) {
  switch (key->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
      accept_typed();
      return true;
    case Qt::Key_C:
      if (key->modifiers() & ~Qt::ShiftModifier) return false;
      go_to_next_check();
      return true;
    case Qt::Key_Space:
      accept_live();
      return true;
    case Qt::Key_Left:
      move_by(-1, 0);
      return true;
    case Qt::Key_Right:
      move_by(1, 0);
      return true;
    case Qt::Key_Up:
      move_by(0, 1);
      return true;
    case Qt::Key_Down:
      move_by(0, -1);
      return true;
    case Qt::Key_BracketLeft:
      desk_.step_stop(-1);
      return true;
    case Qt::Key_BracketRight:
      desk_.step_stop(1);
      return true;
    case Qt::Key_M:
      if (key->modifiers() & ~Qt::ShiftModifier) return false;
      value_->setText({});
      if (current_ >= 0 && desk_.declare_missing(current_)) {
        say(tr("Kept as a missing station: the figures will say so."), "attention");
        advance();
      }
      return true;
    case Qt::Key_Delete:
      if (!value_->text().isEmpty()) return false;
      if (current_ >= 0) desk_.clear_station(current_);
      return true;
    case Qt::Key_Backspace:
      if (!value_->text().isEmpty()) return false;
      step_back();
      return true;
    case Qt::Key_Escape:
      value_->setText({});
      return true;
    default:
      break;
  }
  if (key->matches(QKeySequence::Paste)) {
    const QString text = QApplication::clipboard()->text();
    if (!text.trimmed().contains('\t') && !text.trimmed().contains('\n')) return false;
    emit pasted(text);
    return true;
  }
  return false;
}

bool WalkView::eventFilter(QObject* watched, QEvent* event) {
  if (watched == value_ && event->type() == QEvent::KeyPress && edit_key(static_cast<QKeyEvent*>(event))) return true;
  return StageView::eventFilter(watched, event);
}

bool WalkView::copy() {
  if (!desk_.view() || desk_.view()->read() == 0) return false;
  QApplication::clipboard()->setText(sweep_table_text(*desk_.view()));
  return true;
}

void WalkView::arrive() {
  shown_ = {0, 0};
  refresh();
  value_->setFocus(Qt::OtherFocusReason);
}

std::vector<KeyHint> WalkView::keys() const {
  return {{tr("Enter"), tr("accept the typed value and go to the next station")},
          {tr("Space"), tr("take the sensor's live value and go on")},
          {tr("Arrows"), tr("another station")},
          {tr("Backspace"), tr("the station before, where nothing is typed")},
          {tr("C"), tr("go to the next station that is worth a look")},
          {tr("M"), tr("declare the station missing")},
          {tr("Delete"), tr("take the station's reading back")},
          {tr("Ctrl+V"), tr("bring in a block of cells from a spreadsheet")},
          {tr("Ctrl+C"), tr("copy the sweep as a table, far row first")}};
}

}  // namespace sunbreak::desktop
