#pragma once

#include "desktop/desk/desk.h"
#include "desktop/widgets/form.h"

namespace sunbreak::desktop {

class RigAdvice;

/// Where heights are measured from, the heights and the dimmer settings.
void add_height_fields(Form& form, Desk& desk);
/// Where the tape ends, and ready-made lists of heights.
void add_height_details(Form& form, Desk& desk, RigAdvice& advice);

/// How sweeps are walked: order, opening probe, reference, samples, hands-free, times.
void add_walk_fields(Form& form, Desk& desk);

/// What is to be checked before the walk, each beside its caution; the answers count for the evidence.
void add_checklist(Form& form, Desk& desk);

/// Stores a member of the test on the desk; empty where it was kept.
template <typename Value>
QString store_in_test(Desk& desk, Value record::Test::*member, const Value& value, const QString& label) {
  if (!desk.test()) return {};
  record::Test test = desk.test()->test;
  test.*member = value;
  return desk.edits().make(label, [&](book::Edit& e) { e.save(test); }) ? QString() : QObject::tr("Not kept.");
}

}  // namespace sunbreak::desktop
