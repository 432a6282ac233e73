#include "desktop/desk/edits.h"

#include <QScopedValueRollback>

#include "book/plan.h"
#include "book/test_rows.h"
#include "book/trouble.h"
#include "desktop/desk/desk.h"
#include "desktop/widgets/text.h"
#include "evaluation/lux_walk.h"
#include "record/configurations.h"
#include "record/plan_grid.h"

namespace sunbreak::desktop {

using book::Edit;
using record::Id;

bool Edits::at_a_sweep() const {
  if (!desk_.test() || !desk_.rung() || !desk_.stop()) return false;
  const record::Fault* fault = desk_.sweep() ? desk_.test()->apart(desk_.sweep()->id) : nullptr;
  if (fault)
    desk_.warn(
        tr("This sweep is set apart, since it holds what cannot be (%1). Nothing was kept: mend that value where "
           "it came from, or walk another sweep.")
            .arg(text_of(fault->words())));
  if (fault) return false;
  if (const auto missing = evaluation::lux_factor_missing(*desk_.test())) {
    desk_.warn(text_of(missing->sentence()));
    return false;
  }
  return true;
}

bool Edits::of_its_meter(const TakenValue& value) const {
  if (!record::walked_by_lux(*desk_.test()) || (value.source != "live" && value.source != "simulated")) return true;
  desk_.warn(
      tr("The connected sensor tells PPFD, and this test is walked by a lux meter. Nothing was kept: type what "
         "the lux meter shows, or choose the connected sensor on Rig."));
  return false;
}

bool Edits::make(const QString& label, const std::function<void(Edit&)>& change) {
  if (desk_.read_only()) {
    desk_.warn(tr("This window is read-only: %1. Nothing was changed.").arg(text_of(desk_.book().why_read_only())));
    return false;
  }
  try {
    desk_.book().edit(text_of(label), change);
    return true;
  } catch (const std::exception& e) {
    desk_.warn(text_of(book::trouble_with(desk_.book().file(), e).sentence()));
    return false;
  }
}

QString Edits::plan(const std::function<std::optional<Problem>()>& change) {
  if (desk_.read_only()) return tr("This window is read-only: nothing was changed.");
  try {
    const auto problem = change();
    return problem ? text_of(problem->sentence()) : QString();
  } catch (const std::exception& e) {
    return text_of(book::trouble_with(desk_.book().file(), e).sentence());
  }
}

std::optional<record::TestRecord> Edits::rehearse(const std::function<QString()>& change) {
  std::optional<record::TestRecord> draft;
  if (!desk_.test() || desk_.read_only()) return draft;
  const QScopedValueRollback trial(rehearsing_, true);
  try {
    desk_.book().rehearse(
        [&] {
          if (!change().isEmpty()) draft.reset();
        },
        [&] {
          draft = book::load_test(desk_.book(), desk_.test()->test.id);
          if (draft) record::keep_configuration(*draft, desk_.test()->configuration_id);
        });
  } catch (const std::exception&) {
    return {};  // what cannot be tried now is told when it is to be kept
  }
  return draft;
}

std::function<std::optional<LongerLook>()> Edits::longer_look(int station, const TakenValue& value) const {
  evaluation::StationState taken;
  taken.kind = evaluation::StationState::Read;
  taken.raw = value.raw;
  taken.taken_s = record::seconds_of(desk_.clock().utc_text());
  taken.samples = value.samples;
  taken.spread = value.spread;
  const record::Sweep* present = desk_.sweep();
  const Correction correction = present ? record::correction_of(*present) : record::correction_of(*desk_.test());
  return [view = *desk_.view(), correction, station, taken] {
    return evaluation::longer_look(view, correction, station, taken);
  };
}

bool Edits::accept(int station, const TakenValue& value) {
  if (!at_a_sweep() || !of_its_meter(value)) return false;
  const record::TestRecord& test = *desk_.test();
  return make(tr("reading"), [&](Edit& e) {
    const Id sweep = book::sweep_for(e, test, desk_.rung()->id, desk_.stop()->id).id;
    e.accept({0, sweep, station, value.raw, value.source, desk_.clock().utc_text(), value.samples, value.spread});
    if (value.source != "simulated" || test.test.simulated) return;
    record::Test marked = test.test;
    marked.simulated = true;
    e.save(marked);
  });
}

bool Edits::accept_beside(int station, const std::string& purpose, const TakenValue& value) {
  if (!at_a_sweep() || !of_its_meter(value)) return false;
  return make(purpose == "reference" ? tr("reading of the reference") : tr("repeat reading"), [&](Edit& e) {
    const record::Sweep sweep = book::sweep_for(e, *desk_.test(), desk_.rung()->id, desk_.stop()->id);
    e.add(record::SideReading{0, sweep.id, station, purpose, value.raw, value.source, desk_.clock().utc_text(),
                              value.samples, value.spread});
  });
}

bool Edits::declare_missing(int station) {
  if (!at_a_sweep()) return false;
  return make(tr("missing station"), [&](Edit& e) {
    e.declare_missing(book::sweep_for(e, *desk_.test(), desk_.rung()->id, desk_.stop()->id).id, station,
                      "declared while walking");
  });
}

bool Edits::clear_station(int station) {
  const record::Sweep* chosen = desk_.sweep();
  return chosen && make(tr("clear a station"), [&](Edit& e) { e.clear_station(chosen->id, station); });
}

bool Edits::set_watts(std::optional<double> watts) {
  if (!at_a_sweep()) return false;
  return make(tr("watts at the wall"), [&](Edit& e) {
    record::Sweep sweep = book::sweep_for(e, *desk_.test(), desk_.rung()->id, desk_.stop()->id);
    sweep.power_w = watts;
    sweep.power_carried_from.clear();
    e.save(sweep);
    if (!watts) return;
    record::WallReading reading;
    reading.test_id = desk_.test()->test.id;
    reading.sweep_id = sweep.id;
    reading.configuration_id = record::configuration_of(*desk_.test());
    reading.power_w = watts;
    reading.taken_at = desk_.clock().utc_text();
    e.add(reading);
  });
}

bool Edits::carry_watts(double watts, const std::string& read_at) {
  if (!at_a_sweep()) return false;
  return make(tr("watts carried over"), [&](Edit& e) {
    record::Sweep sweep = book::sweep_for(e, *desk_.test(), desk_.rung()->id, desk_.stop()->id);
    sweep.power_w = watts;
    sweep.power_carried_from = read_at;
    e.save(sweep);
  });
}

bool Edits::set_aside(const evaluation::TestFinding& c, const std::string& reason) {
  return desk_.test() && make(tr("set a check aside"), [&](Edit& e) {
           e.add(record::Dismissal{0, desk_.test()->test.id, c.sweep_id ? std::optional(c.sweep_id) : std::nullopt,
                                   c.check.id, evaluation::stations_text(c.check), c.check.saw, reason,
                                   desk_.clock().utc_text(), record::configuration_of(*desk_.test())});
         });
}

bool Edits::take_up_again(Id dismissal_id) {
  return make(tr("take a check up again"), [&](Edit& e) { e.erase<record::Dismissal>(dismissal_id); });
}

void Edits::step_history(bool undoing) {
  const auto label = undoing ? desk_.book().undo_label() : desk_.book().redo_label();
  if (!label) return desk_.say(undoing ? tr("Nothing to undo.") : tr("Nothing to redo."));
  try {
    const std::shared_ptr<const record::TestRecord> before = desk_.snapshot();
    if (undoing ? desk_.book().undo() : desk_.book().redo()) {
      emit desk_.stepped_in_history(before && desk_.test() ? record::walk_change(*before, *desk_.test())
                                                           : std::nullopt);
      desk_.say(
          (undoing ? tr("Undone: %1. Ctrl+Shift+Z brings it back.") : tr("Done again: %1.")).arg(text_of(*label)));
    }
  } catch (const std::exception& e) {
    desk_.warn(text_of(book::trouble_with(desk_.book().file(), e).sentence()));
  }
}

}  // namespace sunbreak::desktop
