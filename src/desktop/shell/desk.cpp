#include "desktop/shell/desk.h"

#include <QSettings>
#include <algorithm>
#include <cmath>

#include "book/plan.h"
#include "core/checks/walk_checks.h"

namespace sunbreak::desktop {

using book::Edit;
using book::Id;

namespace {
constexpr std::size_t most_checked_at_once = 600;
}

Desk::Desk(std::unique_ptr<book::Book> book, QObject* parent) : QObject(parent), book_(std::move(book)) {
  units_ = QSettings().value("units").toString() == "imperial" ? UnitSystem::Imperial : UnitSystem::Metric;
  book_->on_change = [this] {
    refresh();
    emit changed();
  };
}

void Desk::set_units(UnitSystem units) {
  units_ = units;
  QSettings().setValue("units", units == UnitSystem::Imperial ? "imperial" : "metric");
  refresh();
  emit changed();
}

void Desk::open_test(std::optional<Id> id) {
  test_ = id ? book::load_bundle(*book_, *id) : std::nullopt;
  rung_id_ = stop_id_ = 0;
  if (test_) {
    for (const book::Rung& rung : test_->rungs)
      for (const book::Stop& stop : test_->stops) {
        if (rung_id_) break;
        const book::Sweep* sweep = test_->sweep(rung.id, stop.id);
        const auto view = sweep ? std::optional(book::view_sweep(*test_, *sweep)) : std::nullopt;
        if (view && view->ok() &&
            view->value().read() + view->value().missing() == static_cast<int>(view->value().states.size()))
          continue;
        rung_id_ = rung.id, stop_id_ = stop.id;
      }
  }
  refresh();
  emit changed();
}

const book::Rung* Desk::rung() const { return test_ ? test_->rung(rung_id_) : nullptr; }
const book::Stop* Desk::stop() const { return test_ ? test_->stop(stop_id_) : nullptr; }
const book::Sweep* Desk::sweep() const { return test_ ? test_->sweep(rung_id_, stop_id_) : nullptr; }

void Desk::choose(Id rung_id, Id stop_id) {
  rung_id_ = rung_id, stop_id_ = stop_id;
  refresh();
  emit changed();
}

void Desk::choose_fullest() {
  if (!test_) return;
  int most = 0;
  std::pair<Id, Id> fullest{rung_id_, stop_id_};
  for (const book::Rung& rung : test_->rungs)
    for (const book::Stop& stop : test_->stops) {
      const book::Sweep* candidate = test_->sweep(rung.id, stop.id);
      const auto view = candidate ? std::optional(book::view_sweep(*test_, *candidate)) : std::nullopt;
      if (!view || !view->ok() || view->value().read() <= most) continue;
      most = view->value().read();
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

std::optional<Band> Desk::band() const {
  if (!test_ || test_->test.target_high_ppfd <= test_->test.target_low_ppfd) return {};
  return Band{test_->test.target_low_ppfd, test_->test.target_high_ppfd};
}

void Desk::refresh() {
  view_.reset();
  figures_.reset();
  checks_.clear();
  scale_ = {};
  if (test_) test_ = book::load_bundle(*book_, test_->test.id);
  if (!test_) return;
  if (!test_->rung(rung_id_)) rung_id_ = test_->rungs.empty() ? 0 : test_->rungs.front().id;
  if (!test_->stop(stop_id_)) stop_id_ = test_->stops.empty() ? 0 : test_->stops.front().id;

  double lowest = INFINITY, highest = -INFINITY;
  for (const book::Sweep& s : test_->sweeps) {
    const auto view = book::view_sweep(*test_, s);
    if (!view) continue;
    for (const double ppfd : view.value().ppfd)
      if (!std::isnan(ppfd)) lowest = std::min(lowest, ppfd), highest = std::max(highest, ppfd);
    if (&s == sweep()) view_ = view.value();
  }
  scale_ = report::round_range(lowest, highest);
  if (const book::Sweep* chosen = sweep()) {
    const auto sizes = units_ == UnitSystem::Metric ? usual_metric_sizes() : usual_foot_sizes();
    if (view_) figures_ = sweep_figures(view_->layout, view_->ppfd, book::figure_context(*test_, *chosen, sizes));
    if (view_ && view_->states.size() <= most_checked_at_once) {
      std::vector<double> raw;
      for (const book::StationState& state : view_->states)
        raw.push_back(state.kind == book::StationState::Read ? state.raw : unread);
      const book::Meter* sensor = test_->meter(test_->test.sensor_id);
      checks_ = walk_checks(view_->layout, raw, view_->ppfd, sensor ? sensor->range_max : std::nullopt);
    }
  } else if (auto layout = lay_out(book::footprint_of(test_->bench), book::grid_of(test_->test))) {
    const std::size_t count = layout.value().stations.size();
    view_ = book::SweepView{std::move(layout.value()), std::vector<book::StationState>(count),
                            std::vector<double>(count, unread)};
  }
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

bool Desk::accept(int station, double raw, const std::string& source) {
  if (!test_ || !rung() || !stop()) return false;
  return edit(tr("reading"), [&](Edit& e) {
    const book::Sweep sweep = book::sweep_for(e, *test_, rung_id_, stop_id_);
    e.accept({0, sweep.id, station, raw, source, book::utc_now()});
    if (source != "simulated" || test_->test.simulated) return;
    book::Test marked = test_->test;
    marked.simulated = true;
    e.save(marked);
  });
}

bool Desk::declare_missing(int station) {
  if (!test_ || !rung() || !stop()) return false;
  return edit(tr("missing station"), [&](Edit& e) {
    e.declare_missing(book::sweep_for(e, *test_, rung_id_, stop_id_).id, station, "declared while walking");
  });
}

bool Desk::clear_station(int station) {
  const book::Sweep* chosen = sweep();
  return chosen && edit(tr("clear a station"), [&](Edit& e) { e.clear_station(chosen->id, station); });
}

bool Desk::set_watts(std::optional<double> watts) {
  if (!test_ || !rung() || !stop()) return false;
  return edit(tr("watts at the wall"), [&](Edit& e) {
    book::Sweep sweep = book::sweep_for(e, *test_, rung_id_, stop_id_);
    sweep.power_w = watts;
    e.save(sweep);
    if (!watts) return;
    book::WallReading reading;
    reading.sweep_id = sweep.id;
    reading.power_w = watts;
    reading.taken_at = book::utc_now();
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
