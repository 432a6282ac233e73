#include "desktop/walk/walk_view.h"
#include "desktop/hang/hang_panel.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <utility>

#include "core/bench/walk_order.h"
#include "core/quantity/uncertain_text.h"
#include "core/walk/height_course.h"
#include "desktop/desk/test_log.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/instruments/light_meter.h"
#include "desktop/paint/station_words.h"
#include "desktop/paint/sweep_map.h"
#include "desktop/walk/film_view.h"
#include "desktop/walk/sweep_table_text.h"
#include "desktop/walk/walk_side.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/flow_layout.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/provenance.h"
#include "exchange/tables/cell_numbers.h"

namespace sunbreak::desktop {

using evaluation::StationState;
using instruments::LinkState;
using instruments::Measures;

namespace {
constexpr double second_look_agrees = 0.015;
constexpr std::size_t most_stations_at_once = 700;
}  // namespace

WalkView::WalkView(Desk& desk, InstrumentHub& hub, TestLog& log, QWidget* parent)
    : StageView(parent), desk_(desk), hub_(hub), log_(log), taker_(hub, this) {
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
  stabilization_ = new QLabel(middle);
  stabilization_->setObjectName("walkSettling");
  head->addWidget(stabilization_);
  simulated_ = new QLabel(middle);
  simulated_->setObjectName("walkSimulated");
  set_tone(simulated_, "attention");
  head->addWidget(simulated_);
  middle_layout->addLayout(head);
  map_ = new SweepMap(desk_, middle);
  middle_layout->addWidget(map_, 1);
  side_ = new WalkSide(this);
  hang_ = new HangPanel("walk", desk_, hub_, this);
  side_->add_to_chair(hang_);
  side_->value->installEventFilter(this);
  side_->watts->installEventFilter(this);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(middle, 1);
  layout->addWidget(side_);
  film_ = new FilmView(desk_, this);
  connect_all();
}

void WalkView::connect_all() {
  connect(side_->value, &QLineEdit::textChanged, this, &WalkView::refresh_film);
  connect(map_, &SweepMap::picked, this, [this](int station) { move_to(station); });
  connect(side_->watts, &QLineEdit::editingFinished, this, [this] { take_watts(Kept::ByLeaving); });
  connect(side_->bring, &QPushButton::clicked, this, &WalkView::wants_file);
  connect(side_->read_map, &QPushButton::clicked, this, [this] { emit go(Stage::Read); });
  connect(side_->hands_free, &QPushButton::clicked, this, [this] { letter_key(Qt::Key_H); });
  connect(side_->arms_length, &QPushButton::clicked, this, [this] { letter_key(Qt::Key_V); });
  connect(side_->tones, &QPushButton::clicked, this, [this] { letter_key(Qt::Key_T); });
  connect(side_->list_checks, &QPushButton::clicked, this, &WalkView::list_checks);
  connect(&desk_, &Desk::leaving_sweep, this, [this] {
    if (side_->watts->hasFocus()) take_watts(Kept::ByLeaving);
  });
  connect(&desk_, &Desk::changed, this, &WalkView::refresh);
  connect(&desk_, &Desk::stepped_in_history, this, [this](const auto& touched) {
    if (touched) go_where(*touched);
  });
  connect(&taker_, &LiveTaker::taken, this, &WalkView::on_held);
  taker_.set_longer_look([this](const HeldValue& held, const auto& answer) { longer_look(held, answer); });
  connect(&taker_, &LiveTaker::changed, this, &WalkView::refresh_live);
  connect(&taker_, &LiveTaker::cannot_reach, this, [this] {
    tones_.play(Tone::Look);
    say(tr("The carriage cannot reach this station: it stays unread. Read it by hand, or press M to declare it "
           "missing."),
        "attention");
    skip();
  });
  connect(&hub_, &InstrumentHub::changed, this, &WalkView::refresh_live);
  connect(&log_, &TestLog::judged, this, &WalkView::refresh_stabilization);
  connect(&desk_.worked_out(), &WorkedOut::progressed, this, &WalkView::refresh_stabilization);
}

void WalkView::refresh() {
  if (!desk_.test() || !desk_.view() || !desk_.rung() || !desk_.stop()) return;
  const std::pair now{desk_.rung()->id, desk_.stop()->id};
  const auto& states = desk_.view()->states;
  const bool other_sweep = now != shown_ || current() >= static_cast<int>(states.size());
  if (other_sweep) {
    shown_ = now;
    course_.begin(desk_.sweep_on_walk());
    went_there_ = current() >= 0 && states[static_cast<std::size_t>(current())].kind == StationState::Untouched;
    side_->value->setText({});  // clear() would leave an undo step in the field
    find_last_read();
    offered_.reset();
    say({}, "");
    goes_on_from_watts_ = false;
    if (side_->watts->hasFocus()) {
      const QSignalBlocker kept_already(side_->watts);
      side_->value->setFocus(Qt::OtherFocusReason);
    }
    hub_.hang_simulated(desk_.rung()->height_m, desk_.stop()->percent);
  }
  taker_.set_samples(desk_.test()->test.samples_a_reading);
  title_->setText(
      tr("%1 · %2 %")
          .arg(text_of(length_text(desk_.rung()->height_m, desk_.units())), show_number(desk_.stop()->percent)));
  const int read = desk_.view()->read(), missing = desk_.view()->missing();
  // Before the first reading, and where the center says how high.
  hang_->setVisible(desk_.test()->test.height_rule_ppfd && read == 0);
  if (hang_->isVisibleTo(this)) hang_->refresh();
  QString words = tr("%1 of %2 stations read").arg(read).arg(states.size());
  if (missing > 0) words += tr(", %1 missing").arg(missing);
  if (desk_.view()->drift.exists())
    words += (desk_.view()->drift.significant() ? tr(" · drift %1, corrected") : tr(" · drift %1, within noise"))
                 .arg(text_of(uncertain_difference(100 * desk_.view()->drift.largest_change(), unread, 1, "%")));
  progress_->setText(words);
  if (!side_->watts->hasFocus()) side_->watts->setText(desk_.sweep() ? show_number(desk_.sweep()->power_w) : QString());
  side_->value->setReadOnly(desk_.read_only());
  side_->watts->setReadOnly(desk_.read_only());
  side_->show_mode(taker_.hands_free(), tones_.silenced(), desk_.test()->test.samples_a_reading);
  side_->show_unit(light_unit(desk_));
  refresh_stabilization();
  refresh_checks();
  if (other_sweep)
    follow_course();
  else
    describe_current();
  refresh_live();
}

/// Walking before light and watts have stabilized is allowed; the sweep says so.
void WalkView::refresh_stabilization() {
  if (!desk_.test()) return;
  const evaluation::WalkedState* walked = desk_.sweep() ? desk_.worked_out().walked(desk_.sweep()->id) : nullptr;
  const bool begun = walked && walked->began_s > 0;
  const bool logged = !log_.log().samples.empty();
  const auto kind = begun ? walked->kind
                    : log_.stabilization().state == StabilizationState::Stabilized
                        ? evaluation::WalkedState::Stabilized
                        : evaluation::WalkedState::NotStabilized;
  QString words;
  if (begun && kind != evaluation::WalkedState::NotKnown)
    words = kind == evaluation::WalkedState::Stabilized ? tr("walked settled")
                                                        : marked_attention(tr("walked before it had settled"));
  else if (!begun && logged)
    words = kind == evaluation::WalkedState::Stabilized
                ? tr("light and watts have settled")
                : marked_attention(tr("not settled yet: a sweep walked now is marked so"));
  stabilization_->setText(words);
  stabilization_->setToolTip(text_of(begun ? walked->words : log_.stabilization().words));
  stabilization_->setVisible(!words.isEmpty());
  set_tone(stabilization_, kind == evaluation::WalkedState::Stabilized ? "good" : "attention");
}

/// The sweep's latest reading, as it was read, and where.
void WalkView::find_last_read() {
  last_station_ = -1;
  const auto& states = desk_.view()->states;
  for (int i = 0; i < std::ssize(states); ++i)
    if (states[i].kind == StationState::Read &&
        (last_station_ < 0 || states[i].reading_id > states[last_station_].reading_id))
      last_station_ = i;
  last_kept_ = last_station_ < 0 ? QString() : text_of(short_number(states[last_station_].raw, 1));
}

void WalkView::refresh_live() {
  if (!isVisible()) return;
  const auto live = live_reading(desk_, hub_);
  side_->value->setPlaceholderText(live ? QString::number(*live, 'f', 1) : QString());
  const bool computed = desk_.view() && desk_.view()->simulated();
  simulated_->setText(computed            ? marked_attention(tr(evaluation::not_measured))
                      : simulated_light() ? marked_attention(tr("the light is simulated"))
                                          : QString());
  simulated_->setVisible(!simulated_->text().isEmpty());
  side_->show_doing(taker_.doing(), taker_.progress());
  refresh_film();
}

void WalkView::describe_current() {
  if (current() < 0 || !desk_.view()) return;
  const Layout& layout = desk_.view()->layout;
  side_->turn->setText(
      course_.turn() == Turn::Reference ? tr("Not the next on a list: the reference, once more for drift")
      : course_.turn() == Turn::Repeat  ? tr("The same station again, for repeatability")
      : desk_.view()->complete() ? desk_.view()->missing() > 0 ? tr("All others are read or declared missing; at hand")
                                                               : tr("All stations are read; at hand")
                                 : tr("Next station, number %1 of the walk")
                                       .arg(1 + std::ranges::find(desk_.walk(), current()) - desk_.walk().begin()));
  set_tone(side_->turn, course_.turn() == Turn::Station ? "" : "attention");
  const QString place = station_words(layout, current()).replace(", ", ",\n");
  const bool reference = course_.turn() == Turn::Reference;
  side_->place->setText(reference ? tr("Reference again:\n%1").arg(place) : place);
  set_tone(side_->place, reference ? "attention" : "");
  side_->where->setText(station_place(layout, current(), desk_.units()));
  const StationState& state = desk_.view()->states[current()];
  QString words;
  switch (state.kind) {
    case StationState::Read:
      words = tr("Read %1 raw, %2 corrected. A new value takes its place; the old one stays on record.")
                  .arg(text_of(short_number(state.raw, 2)), text_of(ppfd_text(desk_.view()->ppfd[current()])));
      break;
    case StationState::Missing:
      words = tr("Declared missing. Type a value if it can be read after all.");
      break;
    case StationState::Untouched:
      words = tr("Not read yet.");
      break;
  }
  if (course_.turn() == Turn::Reference)
    words = tr("Kept beside the sweep: it scales the readings to the start of the walk.");
  if (course_.turn() == Turn::Repeat) words = tr("Kept beside the sweep: it tells how well readings repeat.");
  side_->state->setText(words);
  refresh_film();
}

void WalkView::move_to(int station) {
  went_there_ = true;
  course_.go_to(station);
  follow_course();
}

void WalkView::follow_course(bool again) {
  map_->set_current(current());
  if (current() < 0 || !desk_.view()) return;
  describe_current();
  const Station& s = desk_.view()->layout.stations[current()];
  taker_.aim({s.x_m, s.y_m}, again);
  if (isVisible() && !side_->watts->hasFocus()) side_->value->setFocus();
}

void WalkView::advance() {
  const bool from_reference = course_.turn() == Turn::Reference;
  went_there_ = true;
  if (course_.advance(desk_.sweep_on_walk()) == WalkCourse::Step::Complete) return tell_complete();
  if (!from_reference && course_.turn() == Turn::Reference) tones_.play(Tone::Reference);
  follow_course();
}

void WalkView::tell_complete() {
  const bool was_hands_free = taker_.hands_free();
  taker_.set_hands_free(false);
  went_there_ = false;
  describe_current();
  map_->set_current(current());
  side_->show_mode(false, tones_.silenced(), desk_.test()->test.samples_a_reading);
  tones_.play(Tone::Done);
  const int missing = desk_.view()->missing();
  const QString all = missing == 0
                          ? tr("Every station of this sweep is read.")
                          : tr("Every station of this sweep is read or declared missing (%1 missing).").arg(missing);
  if (desk_.sweep() && desk_.sweep()->confirms)
    return say(tr("%1 Alt+5 goes back to Settle, which holds them against the prediction.").arg(all), "good");
  goes_on_from_watts_ = desk_.sweep() && !desk_.sweep()->power_w;
  const QString then = way_on() + '.' + (was_hands_free ? tr(" H goes on hands-free there.") : QString());
  if (goes_on_from_watts_ && isVisible()) return ask_for_watts(all, then);
  say(tr("%1 Enter %2").arg(all, then), "good");
}

/// At the end of a sweep without watts: what the wall meter shows is taken and told; else they are to be typed, in the
/// field that the keyboard goes to. Those of the same setting at another height are offered.
void WalkView::ask_for_watts(const QString& how, const QString& then) {
  const auto& wall = hub_.channel(Measures::Power);
  if (const auto live = wall.live(); live && *live > 0) {
    if (!desk_.edits().set_watts(std::round(*live * 10) / 10)) return;
    goes_on_from_watts_ = false;
    const bool settled = log_.stabilization().state == StabilizationState::Stabilized;
    return say(
        tr("%1 The wall meter shows %2 W now (%3): kept. Enter %4")
            .arg(how, show_number(desk_.sweep()->power_w), settled ? tr("settled") : tr("not judged as settled"), then),
        "good");
  }
  if (arms_length_)
    return say(tr("%1 The watts at the wall are still missing: without them there is no efficacy. W, then type them.")
                   .arg(how),
               "good");
  QString words = tr("%1 The watts at the wall are still missing: without them there is no efficacy. Type them; Enter "
                     "keeps them and %2")
                      .arg(how, then);
  offered_ = evaluation::watts_of_setting(*desk_.test(), desk_.sweep()->id);
  if (const auto& other = offered_) {
    side_->watts->setText(show_number(other->power_w));
    words =
        tr("%1 The watts at the wall are still missing. At %2 they were %3 W at this setting, read %4: Enter carries "
           "them, marked as carried; or type what the meter shows now. Then Enter %5")
            .arg(how, text_of(length_text(other->height_m, desk_.units())), show_number(other->power_w),
                 text_of(evaluation::ago_words(desk_.clock().now_s() - other->read_s)), then);
  }
  side_->watts->setFocus(Qt::OtherFocusReason);
  side_->watts->selectAll();
  say(words, "good");
}

void WalkView::go_where(const record::WalkChange& touched) {
  if (!isVisible() || !desk_.test() || !desk_.test()->rung(touched.rung_id) || !desk_.test()->stop(touched.stop_id))
    return;
  if (!desk_.rung() || !desk_.stop() || desk_.rung()->id != touched.rung_id || desk_.stop()->id != touched.stop_id)
    desk_.choose(touched.rung_id, touched.stop_id);
  goes_on_from_watts_ = false;
  find_last_read();
  offered_.reset();
  side_->value->setText({});
  say({}, "");
  if (touched.what == record::WalkChange::Watts) {
    side_->watts->setFocus(Qt::OtherFocusReason);
    side_->watts->selectAll();
    return refresh_live();
  }
  {
    const QSignalBlocker kept_already(side_->watts);
    side_->value->setFocus(Qt::OtherFocusReason);
  }
  const Turn turn = touched.what == record::WalkChange::Reference ? Turn::Reference
                    : touched.what == record::WalkChange::Repeat  ? Turn::Repeat
                                                                  : Turn::Station;
  if (desk_.view() && touched.station < std::ssize(desk_.view()->states)) {
    went_there_ = true;
    course_.go_to(touched.station, turn);
    follow_course(true);
  }
  refresh();
}

/// The sweep of the plan that is to be walked after this one: at this height first, then at the next one of the way
/// that the heights are walked; none where every one is read.
std::optional<std::pair<record::Id, record::Id>> WalkView::next_open_sweep() const {
  const record::TestRecord& test = *desk_.test();
  const auto complete = [&](record::Id rung, record::Id stop) {
    const record::Sweep* sweep = test.sweep(rung, stop);
    const evaluation::SweepDigest* digest = sweep ? desk_.digest_of(sweep->id) : nullptr;
    return digest && digest->complete;
  };
  const auto open_at = [&](const record::Rung& rung) -> std::optional<record::Id> {
    for (const record::Stop& stop : test.stops)
      if ((test.planned(rung, stop) || test.sweep(rung.id, stop.id)) && !complete(rung.id, stop.id)) return stop.id;
    return {};
  };
  std::vector<HeightState> heights;
  for (const record::Rung& rung : test.rungs)
    heights.push_back(!open_at(rung) ? HeightState::Done
                      : std::ranges::any_of(test.stops, [&](const auto& stop) { return complete(rung.id, stop.id); })
                          ? HeightState::Begun
                          : HeightState::Open);
  const auto here = std::ranges::find(test.rungs, desk_.rung()->id, &record::Rung::id);
  const auto next = next_height(heights, static_cast<std::size_t>(here - test.rungs.begin()));
  if (!next) return {};
  const record::Rung& rung = test.rungs[*next];
  return std::pair(rung.id, *open_at(rung));
}

/// What Enter does on a sweep that is read whole.
QString WalkView::way_on() const {
  const auto next = next_open_sweep();
  if (!next) return tr("reads the map: every sweep of the plan is read");
  return tr("goes on to %1 at %2 %")
      .arg(text_of(length_text(desk_.test()->rung(next->first)->height_m, desk_.units())),
           show_number(desk_.test()->stop(next->second)->percent));
}

void WalkView::go_on() {
  goes_on_from_watts_ = false;
  if (const auto next = next_open_sweep())
    desk_.choose(next->first, next->second);
  else
    emit go(Stage::Read);
}

void WalkView::skip() {
  switch (course_.skip(desk_.sweep_on_walk())) {
    case WalkCourse::Step::Moved:
      return follow_course();
    case WalkCourse::Step::Complete:
      return tell_complete();
    case WalkCourse::Step::NothingLeft:
      return say(tr("No other station is left to read."), "attention");
  }
}

void WalkView::accept_typed() {
  const QString text = side_->value->text().trimmed();
  if (current() < 0) return;
  if (text.isEmpty()) {
    if (course_.turn() != Turn::Station) return;
    if (course_.looked_again_at(current()))
      advance();
    else if (desk_.view() && desk_.view()->complete())
      go_on();
    return;
  }
  // What was read is replaced only where the tester went to it.
  if (course_.turn() == Turn::Station && !went_there_ && !course_.looked_again_at(current()) &&
      desk_.view()->states[current()].kind == StationState::Read) {
    tones_.play(Tone::Look);
    return say(
        tr("%1 was not kept: this station is read, and so are all others. Go to the one that is to be read again "
           "(arrow keys, or point at it), or W for the watts.")
            .arg(text),
        "attention");
  }
  const auto reading = exchange::cell_reading(
      text_of(text), {text.contains(',') ? ',' : '.', false, {}, record::walked_by_lux(*desk_.test()), true});
  if (!reading.ppfd) {
    tones_.play(Tone::Look);
    return say(
        tr("%1. Nothing was kept: correct it, or press M if the station cannot be read.").arg(text_of(reading.refusal)),
        "bad");
  }
  take({*reading.ppfd, "typed"}, text);
}

void WalkView::accept_live() {
  if (current() >= 0 && taker_.take()) return;
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
  if (isVisible() && current() >= 0) take(taken_of(held), QString::number(held.value, 'f', 1));
}

void WalkView::longer_look(const HeldValue& held, const LiveTaker::Answer& answer) {
  if (!isVisible() || current() < 0 || !desk_.view() || course_.turn() != Turn::Station) return answer({});
  const auto looked_at = desk_.edits().longer_look(current(), taken_of(held));
  if (desk_.view()->states.size() <= most_stations_at_once) return answer(looked_at());
  look_.ask([looked_at](std::stop_token) { return looked_at(); }, answer);
}

void WalkView::take(const TakenValue& value, const QString& words) {
  const int station = current();
  if (course_.turn() != Turn::Station) {
    const bool reference = course_.turn() == Turn::Reference;
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
  last_kept_ = words;
  last_station_ = station;
  refresh_live();
  say(kept_words(words, station), "good");
  const bool wrong = flagged(station);
  tones_.play(wrong ? Tone::Look : Tone::Kept);
  // Hands-free, the sensor still stands there: what looks wrong is read once more before it is left.
  if (wrong && taker_.hands_free() && hub_.carriage_state() == LinkState::Live && course_.look_again()) {
    follow_course(true);
    warn_of(station);
    return;
  }
  // A slipped digit is mended where the eye still is on the meter.
  if (value.source == "typed" && slipped(station) && course_.look_again()) {
    follow_course(true);
    warn_of(station, tr("Type it again, or Enter leaves it as it is."));
    return;
  }
  advance();
  if (!warn_of(station) && before > 0 && course_.looked_again_at(station) &&
      std::abs(value.raw / before - 1) > second_look_agrees)
    say(tr("The second look reads %1 instead of %2; the first stays on record.").arg(words).arg(before, 0, 'f', 1),
        "good");
}

bool WalkView::stands_offered() const { return offered_ && side_->watts->text() == show_number(offered_->power_w); }

void WalkView::take_watts(Kept kept) {
  if (side_->watts->isReadOnly()) return;
  const QString present = desk_.sweep() ? show_number(desk_.sweep()->power_w) : QString();
  if (side_->watts->text() == present) return;
  // What is only offered is kept by Enter, not by going elsewhere.
  if (stands_offered() && kept == Kept::ByEnter) {
    if (!desk_.edits().carry_watts(offered_->power_w, offered_->read_at)) return;
    offered_.reset();
    return say(tr("Watts kept, marked as carried."), "good");
  }
  if (stands_offered()) return side_->watts->setText(present);
  const QString problem = parse_number_field({0, 20000}, [this](std::optional<double> v) {
    return desk_.edits().set_watts(v) ? QString() : tr("Not kept.");
  })(side_->watts->text().trimmed());
  if (!problem.isEmpty()) return say(problem, "bad");
  say(tr("Watts kept."), "good");
}

void WalkView::say(const QString& words, const char* tone) {
  side_->say(words, tone);
  if (!std::exchange(told_, {}).empty() && desk_.view()) refresh_checks();
}

void WalkView::set_arms_length(bool on) {
  if (on == arms_length_) return;
  arms_length_ = on;
  side_->set_arms_length(on);
  static_cast<QHBoxLayout*>(layout())->setStretch(1, on ? 1 : 0);
  emit arms_length_wanted(on);
  side_->value->setFocus();
}

void WalkView::set_filmed(bool on) {
  if (on == !film_->isHidden()) return;
  film_->setVisible(on);
  film_->fit();
  film_->raise();
  emit arms_length_wanted(on || arms_length_);
  refresh_live();
  side_->value->setFocus();
}

void WalkView::refresh_film() {
  if (film_->isHidden()) return;
  // A value stands with the place that it was read at.
  const bool kept = side_->value->text().isEmpty() && !live_reading(desk_, hub_) && !last_kept_.isEmpty() &&
                    last_station_ >= 0 && desk_.view() && last_station_ < std::ssize(desk_.view()->states);
  film_->show_station(kept ? last_station_ : current(),
                      kept ? station_words(desk_.view()->layout, last_station_) : side_->place->text());
  film_->show_value(kept                             ? last_kept_
                    : side_->value->text().isEmpty() ? side_->value->placeholderText()
                                                     : side_->value->text(),
                    light_unit(desk_));
  film_->show_simulated(simulated_->text());
}

void WalkView::resizeEvent(QResizeEvent* event) {
  StageView::resizeEvent(event);
  film_->fit();
}

bool WalkView::eventFilter(QObject* watched, QEvent* event) {
  if (watched == side_->value && event->type() == QEvent::KeyPress && edit_key(static_cast<QKeyEvent*>(event)))
    return true;
  if (watched == side_->watts && event->type() == QEvent::KeyPress && watts_key(static_cast<QKeyEvent*>(event)))
    return true;
  return StageView::eventFilter(watched, event);
}

void WalkView::hideEvent(QHideEvent* event) {
  taker_.set_hands_free(false);  // nothing is taken that no one sees
  set_filmed(false);
  set_arms_length(false);
  StageView::hideEvent(event);
}

QString WalkView::copy() { return copy_sweep_table(desk_.view()); }

void WalkView::arrive() {
  shown_ = {0, 0};
  refresh();
  side_->value->setFocus(Qt::OtherFocusReason);
}

}  // namespace sunbreak::desktop
