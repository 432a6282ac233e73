#include "desktop/shell/desk.h"

#include <fmt/format.h>

#include <QFutureWatcher>
#include <QSettings>
#include <QtConcurrent>
#include <algorithm>
#include <cmath>

#include "book/plan.h"
#include "book/test_rows.h"
#include "core/bench/walk_order.h"
#include "core/sweep/field.h"
#include "desktop/shell/room_lights.h"
#include "desktop/widgets/text.h"
#include "evaluation/rig_model.h"

namespace sunbreak::desktop {

using book::Edit;
using record::Id;

namespace {
constexpr std::size_t most_checked_at_once = 600;
}

Desk::Desk(std::unique_ptr<book::Book> book, QObject* parent) : QObject(parent), book_(std::move(book)) {
  units_ = QSettings().value("units").toString() == "imperial" ? UnitSystem::Imperial : UnitSystem::Metric;
  book_->on_change = [this] {
    if (known_change_)
      known_change_();
    else
      reload();
    work_out();
    emit changed();
  };
}

void Desk::set_units(UnitSystem units) {
  units_ = units;
  QSettings().setValue("units", units == UnitSystem::Imperial ? "imperial" : "metric");
  work_out();
  emit changed();
}

void Desk::open_test(std::optional<Id> id) {
  test_ = id ? book::load_test(*book_, *id) : std::nullopt;
  rung_id_ = stop_id_ = 0;
  reload();
  if (test_) {
    for (const record::Rung& rung : test_->rungs)
      for (const record::Stop& stop : test_->stops) {
        if (rung_id_) break;
        const record::Sweep* sweep = test_->sweep(rung.id, stop.id);
        if (const evaluation::SweepView* view = sweep ? view_of(sweep->id) : nullptr; view && view->complete())
          continue;
        rung_id_ = rung.id, stop_id_ = stop.id;
      }
  }
  work_out();
  emit changed();
}

const record::Rung* Desk::rung() const { return test_ ? test_->rung(rung_id_) : nullptr; }
const record::Stop* Desk::stop() const { return test_ ? test_->stop(stop_id_) : nullptr; }
const record::Sweep* Desk::sweep() const { return test_ ? test_->sweep(rung_id_, stop_id_) : nullptr; }

void Desk::choose(Id rung_id, Id stop_id) {
  rung_id_ = rung_id, stop_id_ = stop_id;
  work_out();
  emit changed();
}

void Desk::choose_fullest() {
  if (!test_) return;
  int most = 0;
  std::pair<Id, Id> fullest{rung_id_, stop_id_};
  for (const record::Rung& rung : test_->rungs)
    for (const record::Stop& stop : test_->stops) {
      const record::Sweep* candidate = test_->sweep(rung.id, stop.id);
      const evaluation::SweepView* view = candidate ? view_of(candidate->id) : nullptr;
      if (!view || view->read() <= most) continue;
      most = view->read();
      fullest = {rung.id, stop.id};
    }
  choose(fullest.first, fullest.second);
}

namespace {
/// The id `by` places further on in a list, stopping at its ends.
template <typename Step>
Id stepped(const std::vector<Step>& steps, Id id, int by) {
  if (steps.empty()) return 0;
  const auto found = std::find_if(steps.begin(), steps.end(), [&](const Step& s) { return s.id == id; });
  const auto at = std::clamp<std::ptrdiff_t>(found - steps.begin() + by, 0, std::ssize(steps) - 1);
  return steps[static_cast<std::size_t>(at)].id;
}
}  // namespace

void Desk::step_rung(int by) {
  if (test_) choose(stepped(test_->rungs, rung_id_, by), stop_id_);
}

void Desk::step_stop(int by) {
  if (test_) choose(rung_id_, stepped(test_->stops, stop_id_, by));
}

bool Desk::step_by_arrow(int key) {
  switch (key) {
    case Qt::Key_Up:
      step_rung(-1);
      return true;
    case Qt::Key_Down:
      step_rung(1);
      return true;
    case Qt::Key_Left:
      step_stop(-1);
      return true;
    case Qt::Key_Right:
      step_stop(1);
      return true;
    default:
      return false;
  }
}

std::optional<Band> Desk::band() const {
  if (!test_ || test_->test.target_high_ppfd <= test_->test.target_low_ppfd) return {};
  return Band{test_->test.target_low_ppfd, test_->test.target_high_ppfd};
}

void Desk::reload() {
  views_.clear();
  sweep_checks_.clear();
  if (test_) test_ = book::load_test(*book_, test_->test.id);
  if (!test_) return;
  for (const record::Sweep& s : test_->sweeps)
    if (auto view = evaluation::view_sweep(*test_, s)) {
      views_.emplace(s.id, std::move(view.value()));
      check_sweep(s);
    }
}

void Desk::check_sweep(const record::Sweep& sweep) {
  if (views_.at(sweep.id).states.size() > most_checked_at_once) return check_beside(sweep.id);
  sweep_checks_[sweep.id] = evaluation::checks_of(*test_, sweep, views_.at(sweep.id), hang_);
}

/// A dense scan is checked on another thread; what changes meanwhile is checked once that is done.
void Desk::check_beside(Id sweep_id) {
  if (const auto running = checking_.find(sweep_id); running != checking_.end()) {
    running->second = true;
    return;
  }
  checking_[sweep_id] = false;
  const auto sweep =
      std::find_if(test_->sweeps.begin(), test_->sweeps.end(), [&](auto& s) { return s.id == sweep_id; });
  auto* watcher = new QFutureWatcher<std::vector<Check>>(this);
  connect(watcher, &QFutureWatcher<std::vector<Check>>::finished, this, [this, watcher, sweep_id] {
    watcher->deleteLater();
    const bool again = checking_[sweep_id];
    checking_.erase(sweep_id);
    if (!view_of(sweep_id)) return;
    if (again) return check_beside(sweep_id);
    sweep_checks_[sweep_id] = watcher->result();
    gather_checks();
    emit changed();
  });
  watcher->setFuture(
      QtConcurrent::run([plan = record::without_readings(*test_), sweep = *sweep, view = views_.at(sweep_id),
                         hang = hang_] { return evaluation::checks_of(plan, sweep, view, hang); }));
}

void Desk::work_out() {
  view_.reset();
  figures_.reset();
  walk_.clear();
  all_checks_.clear();
  scale_ = {};
  if (!test_) return;
  if (!test_->rung(rung_id_)) rung_id_ = test_->rungs.empty() ? 0 : test_->rungs.front().id;
  if (!test_->stop(stop_id_)) stop_id_ = test_->stops.empty() ? 0 : test_->stops.front().id;

  double lowest = INFINITY, highest = -INFINITY;
  for (const auto& [id, view] : views_)
    for (const double ppfd : view.ppfd)
      if (!std::isnan(ppfd)) lowest = std::min(lowest, ppfd), highest = std::max(highest, ppfd);
  scale_ = report::round_range(lowest, highest);
  if (const record::Sweep* chosen = sweep()) {
    const auto sizes = units_ == UnitSystem::Metric ? usual_metric_sizes() : usual_foot_sizes();
    if (const evaluation::SweepView* view = view_of(chosen->id)) {
      view_ = *view;
      figures_ = sweep_figures(view_->layout, view_->ppfd, evaluation::figure_context(*test_, *chosen, sizes));
    }
  } else if (auto layout = lay_out(record::footprint_of(test_->bench), record::grid_of(test_->test))) {
    const std::size_t count = layout.value().stations.size();
    view_ = evaluation::SweepView{std::move(layout.value()),
                                  std::vector<evaluation::StationState>(count),
                                  std::vector<double>(count, unread),
                                  {},
                                  {}};
  }
  if (view_) walk_ = evaluation::walk_of(test_->test, view_->layout);

  gather_checks();
  judge_hang();
}

void Desk::gather_checks() {
  all_checks_.clear();
  for (const auto& [id, checks] : sweep_checks_)
    for (const Check& check : checks) all_checks_.push_back({id, check, {}});
  for (evaluation::TestCheck& check : evaluation::checks_between(*test_, views_))
    all_checks_.push_back(std::move(check));
  for (evaluation::TestCheck& c : all_checks_)
    c.set_aside = evaluation::dismissal_of(*test_, c.sweep_id, c.check, view_of(c.sweep_id));
}

void Desk::judge_hang() {
  // Only a probe that is being read asks for it.
  if (!view_ || !rung() || !test_->test.opening_probe || view_->read() == 0 || view_->complete()) return;
  const FixtureOutline outline = evaluation::outline_of(test_->fixture, test_->bench);
  const Room room = evaluation::room_of(test_->bench);
  const record::Fixture& f = test_->fixture;
  const auto& w = room.reflectance;
  const std::string question =
      fmt::format("{} {} {} {} {} {} {} {} {} {} {} {} {} {} {} {} {} {} {} {}", room.width_m, room.depth_m,
                  room.height_m, w.left, w.right, w.front, w.back, w.ceiling, outline.width_m, outline.depth_m,
                  outline.units, outline.unit_spacing_m, outline.unit_tilt_deg, outline.across, outline.deep,
                  outline.beam_angle_deg, rung()->height_m, f.id, view_->layout.columns, view_->layout.rows);
  if (question == hang_question_) return;
  hang_question_ = question;
  hang_ = {};
  auto* watcher = new QFutureWatcher<HangResponse>(this);
  connect(watcher, &QFutureWatcher<HangResponse>::finished, this, [this, watcher, question] {
    watcher->deleteLater();
    if (question != hang_question_ || !test_) return;  // an answer to a stale question
    hang_ = watcher->result();
    for (const record::Sweep& s : test_->sweeps)
      if (view_of(s.id) && !view_of(s.id)->complete()) check_sweep(s);
    work_out();
    emit changed();
  });
  watcher->setFuture(
      QtConcurrent::run([room, outline, layout = view_->layout, height_m = rung()->height_m]() -> HangResponse {
        return hang_response(*light_of(room), nominal_fixture(outline), layout, height_m);
      }));
}

const evaluation::SweepView* Desk::view_of(Id sweep_id) const {
  const auto found = views_.find(sweep_id);
  return found == views_.end() ? nullptr : &found->second;
}

std::vector<Check> Desk::checks() const {
  std::vector<Check> open;
  if (const record::Sweep* chosen = sweep())
    for (const evaluation::TestCheck& c : all_checks_)
      if (c.sweep_id == chosen->id && !c.set_aside) open.push_back(c.check);
  return open;
}

int Desk::open_checks_of(Id sweep_id) const {
  return static_cast<int>(std::count_if(all_checks_.begin(), all_checks_.end(), [&](const evaluation::TestCheck& c) {
    return c.sweep_id == sweep_id && !c.set_aside;
  }));
}

bool Desk::set_aside(const evaluation::TestCheck& c, const std::string& reason) {
  return test_ && edit(tr("set a check aside"), [&](Edit& e) {
           e.add(record::Dismissal{0, test_->test.id, c.sweep_id ? std::optional(c.sweep_id) : std::nullopt, c.check.id,
                                   evaluation::stations_text(c.check), c.check.saw, reason, clock_.utc_text()});
         });
}

bool Desk::take_up_again(Id dismissal_id) {
  return edit(tr("take a check up again"), [&](Edit& e) { e.erase<record::Dismissal>(dismissal_id); });
}

bool Desk::reference_due() const {
  if (!test_ || !view_ || !sweep() || test_->test.reference_every <= 0 || !view_->layout.is_lattice()) return false;
  const evaluation::StationState& own = view_->states[reference_station(view_->layout)];
  double last = own.kind == evaluation::StationState::Read && own.at_the_bench ? own.taken_s : -INFINITY;
  for (const record::SideReading& s : view_->side_readings)
    if (s.purpose == "reference") last = std::max(last, record::seconds_of(s.taken_at));
  const auto since = std::count_if(view_->states.begin(), view_->states.end(), [&](const evaluation::StationState& s) {
    return s.kind == evaluation::StationState::Read && s.at_the_bench && s.taken_s > last;
  });
  return since >= test_->test.reference_every;
}

bool Desk::edit(const QString& label, const std::function<void(Edit&)>& change) {
  if (read_only()) {
    warn(
        tr("This window is read-only, because another one has the lab book open; nothing was changed. Close the other "
           "window and open the book again."));
    return false;
  }
  try {
    book_->edit(text_of(label), change);
    return true;
  } catch (const std::exception& e) {
    warn(tr("The lab book could not be written (%1); the last change is not kept. Free some space or check the disk, "
            "then try again.")
             .arg(e.what()));
    return false;
  }
}

QString Desk::plan(const std::function<std::optional<Problem>()>& change) {
  if (read_only()) return tr("This window is read-only: nothing was changed.");
  try {
    const auto problem = change();
    return problem ? text_of(problem->sentence()) : QString();
  } catch (const std::exception& e) {
    return tr("The lab book could not be written (%1); the change is not kept. Free some space or check the disk, then "
              "try again.")
        .arg(e.what());
  }
}

std::optional<record::TestRecord> Desk::rehearse(const std::function<QString()>& change) {
  std::optional<record::TestRecord> draft;
  if (!test_ || read_only()) return draft;
  try {
    book_->rehearse(
        [&] {
          if (!change().isEmpty()) draft.reset();
        },
        [&] { draft = book::load_test(*book_, test_->test.id); });
  } catch (const std::exception&) {
    return {};  // what cannot be tried now is told when it is to be kept
  }
  return draft;
}

std::optional<LongerLook> Desk::longer_look(int station, const TakenValue& value) const {
  if (!view_) return {};
  evaluation::StationState taken;
  taken.kind = evaluation::StationState::Read;
  taken.raw = value.raw;
  taken.taken_s = record::seconds_of(clock_.utc_text());
  taken.samples = value.samples;
  taken.spread = value.spread;
  const record::Sweep* present = sweep();
  return evaluation::longer_look(*view_, present ? record::correction_of(*present) : record::correction_of(*test_),
                                 station, taken);
}

bool Desk::accept(int station, const TakenValue& value) {
  if (!test_ || !rung() || !stop()) return false;
  const record::Sweep* present = sweep();
  record::Reading reading{
      0, present ? present->id : 0, station, value.raw, value.source, clock_.utc_text(), value.samples, value.spread};
  const bool marks_simulated = value.source == "simulated" && !test_->test.simulated;
  if (present && view_of(present->id) && !marks_simulated)
    known_change_ = [&] {
      test_->readings.push_back(reading);
      auto placement = std::find_if(
          test_->placements.begin(), test_->placements.end(),
          [&](const record::Placement& p) { return p.sweep_id == reading.sweep_id && p.station == station; });
      if (placement == test_->placements.end())
        placement = test_->placements.insert(placement, {0, reading.sweep_id, station, std::nullopt, ""});
      placement->reading_id = reading.id;
      placement->note.clear();
      evaluation::SweepView& view = views_.at(present->id);
      view.states[station] = evaluation::state_of(reading);
      view.correct(record::correction_of(*present));
      check_sweep(*present);
    };
  const bool kept = edit(tr("reading"), [&](Edit& e) {
    if (!present) reading.sweep_id = book::sweep_for(e, *test_, rung_id_, stop_id_).id;
    reading.id = e.accept(reading);
    if (!marks_simulated) return;
    record::Test marked = test_->test;
    marked.simulated = true;
    e.save(marked);
  });
  known_change_ = nullptr;
  return kept;
}

bool Desk::accept_beside(int station, const std::string& purpose, const TakenValue& value) {
  if (!test_ || !rung() || !stop()) return false;
  return edit(purpose == "reference" ? tr("reading of the reference") : tr("repeat reading"), [&](Edit& e) {
    const record::Sweep sweep = book::sweep_for(e, *test_, rung_id_, stop_id_);
    e.add(record::SideReading{0, sweep.id, station, purpose, value.raw, value.source, clock_.utc_text(), value.samples,
                              value.spread});
  });
}

void Desk::take_log_part(const record::LogPart& part) {
  if (!test_ || part.test_id != test_->test.id) return;
  auto& parts = test_->log_parts;
  const auto present =
      std::find_if(parts.begin(), parts.end(), [&](const record::LogPart& p) { return p.id == part.id; });
  if (present == parts.end())
    parts.push_back(part);
  else
    *present = part;
}

bool Desk::declare_missing(int station) {
  if (!test_ || !rung() || !stop()) return false;
  return edit(tr("missing station"), [&](Edit& e) {
    e.declare_missing(book::sweep_for(e, *test_, rung_id_, stop_id_).id, station, "declared while walking");
  });
}

bool Desk::clear_station(int station) {
  const record::Sweep* chosen = sweep();
  return chosen && edit(tr("clear a station"), [&](Edit& e) { e.clear_station(chosen->id, station); });
}

bool Desk::set_watts(std::optional<double> watts) {
  if (!test_ || !rung() || !stop()) return false;
  return edit(tr("watts at the wall"), [&](Edit& e) {
    record::Sweep sweep = book::sweep_for(e, *test_, rung_id_, stop_id_);
    sweep.power_w = watts;
    e.save(sweep);
    if (!watts) return;
    record::WallReading reading;
    reading.test_id = test_->test.id;
    reading.sweep_id = sweep.id;
    reading.power_w = watts;
    reading.taken_at = clock_.utc_text();
    e.add(reading);
  });
}

void Desk::step_history(bool undoing) {
  const auto label = undoing ? book_->undo_label() : book_->redo_label();
  if (!label) return say(undoing ? tr("Nothing to undo.") : tr("Nothing to redo."));
  try {
    if (undoing ? book_->undo() : book_->redo())
      say((undoing ? tr("Undone: %1. Ctrl+Shift+Z brings it back.") : tr("Done again: %1.")).arg(text_of(*label)));
  } catch (const std::exception& e) {
    warn(tr("This step could not be taken back (%1); the lab book is as it was.").arg(e.what()));
  }
}

void Desk::undo() { step_history(true); }
void Desk::redo() { step_history(false); }

}  // namespace sunbreak::desktop
