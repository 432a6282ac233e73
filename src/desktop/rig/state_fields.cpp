#include "desktop/rig/state_fields.h"

#include "book/plan.h"
#include "book/test_rows.h"
#include "desktop/rig/plan_fields.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"
#include "record/configurations.h"

namespace sunbreak::desktop {

using record::Id;
using record::Test;

namespace {

constexpr qlonglong new_configuration = -1;

QLineEdit* length_of_test(Form& form, Desk& desk, const QString& name, std::optional<double> Test::*member,
                          const QString& hint) {
  return form.line(
      name, [&desk, member] { return desk.test() ? show_length(desk.test()->test.*member, desk.units()) : QString(); },
      parse_length_field(
          [&desk] { return desk.units(); }, {0.005, 20},
          [&desk, member, name](std::optional<double> v) { return store_in_test(desk, member, v, name.toLower()); }),
      [&desk] { return text_of(symbol(surface_unit(desk.units()))); }, hint);
}

QLineEdit* number_of_test(Form& form, Desk& desk, const QString& name, std::optional<double> Test::*member,
                          const NumberRange& range, const QString& unit) {
  return form.line(
      name, [&desk, member] { return desk.test() ? show_number(desk.test()->test.*member) : QString(); },
      parse_number_field(
          range,
          [&desk, member, name](std::optional<double> v) { return store_in_test(desk, member, v, name.toLower()); }),
      [unit] { return unit; });
}

QLineEdit* count_of_test(Form& form, Desk& desk, const QString& name, int Test::*member) {
  return form.line(
      name, [&desk, member] { return desk.test() ? QString::number(desk.test()->test.*member) : QString(); },
      parse_number_field({1, 12, false}, [&desk, member, name](std::optional<double> v) {
        return store_in_test(desk, member, static_cast<int>(*v), name.toLower());
      }));
}

void add_one(Desk& desk) {
  if (!desk.test()) return;
  const auto names = record::configurations_of(*desk.test()).size();
  Id added = 0;
  const QString problem = desk.edits().plan([&]() -> std::optional<Problem> {
    const auto made = book::add_configuration(
        desk.book(), *desk.test(), text_of(QObject::tr("configuration %1").arg(static_cast<int>(names) + 1)));
    if (!made) return made.problem();
    added = made.value();
    return {};
  });
  if (!problem.isEmpty()) return desk.warn(problem);
  desk.choose_configuration(added);
  desk.say(QObject::tr(
      "A configuration with the same heights and settings. Name what was changed; { and } go between them."));
}

void take_out(Desk& desk) {
  if (!desk.test() || desk.test()->configuration_id == 0)
    return desk.say(QObject::tr("The fixture as it comes stays. Choose the configuration that is to go."));
  const Id id = desk.test()->configuration_id;
  const QString name = text_of(record::configuration_name(*desk.test(), id));
  desk.choose_configuration(0, [&desk, id, name] {
    if (desk.edits().make(QObject::tr("take out a configuration"),
                          [&](book::Edit& e) { e.erase<record::Configuration>(id); }))
      desk.say(QObject::tr("%1 is out, with its sweeps. Ctrl+Z brings it back.").arg(name));
  });
}

/// The other tests of fixtures of this one's name or maker, newest first.
std::vector<Choice> earlier_tests(Desk& desk) {
  std::vector<Choice> choices{{QObject::tr("no, a first test"), ""}};
  if (!desk.test()) return choices;
  const record::Fixture& fixture = desk.test()->fixture;
  for (const Test& t :
       desk.book().all<Test>("WHERE removed = 0 AND id <> ? AND fixture_id IN (SELECT id FROM fixture "
                             "WHERE name = ? OR (maker = ? AND maker <> '')) ORDER BY tested_on DESC, id DESC",
                             desk.test()->test.id, fixture.name, fixture.maker)) {
    const QString name = t.name.empty() ? text_of(fixture.name) : text_of(t.name);
    choices.push_back(
        {t.tested_on.empty() ? name : name + ", " + text_of(t.tested_on), QVariant::fromValue<qlonglong>(t.id)});
  }
  return choices;
}

QVariant repeated_test(Desk& desk) {
  if (!desk.test() || desk.test()->test.retest_of.empty()) return "";
  const auto found = desk.book().all<Test>("WHERE mark = ? ORDER BY id DESC LIMIT 1", desk.test()->test.retest_of);
  return found.empty() ? QVariant("") : QVariant::fromValue<qlonglong>(found.front().id);
}

}  // namespace

void add_arrangement_fields(Form& form, Desk& desk) {
  count_of_test(form, desk, QObject::tr("Units left to right"), &Test::unit_columns)->setObjectName("unitColumns");
  count_of_test(form, desk, QObject::tr("Units front to back"), &Test::unit_rows)->setObjectName("unitRows");
  length_of_test(form, desk, QObject::tr("Middle to middle, across"), &Test::unit_spacing_x_m,
                 QObject::tr("side by side where empty"))
      ->setObjectName("unitSpacingX");
  length_of_test(form, desk, QObject::tr("Middle to middle, deep"), &Test::unit_spacing_y_m,
                 QObject::tr("end to end where empty"))
      ->setObjectName("unitSpacingY");
  number_of_test(form, desk, QObject::tr("Turned, from above"), &Test::unit_turn_deg, {-180, 180}, QObject::tr("°"))
      ->setObjectName("unitTurn");
  number_of_test(form, desk, QObject::tr("Outer ones inward"), &Test::unit_tilt_deg, {-60, 60}, QObject::tr("°"))
      ->setObjectName("unitTilt");
  form.note([&desk]() -> QString {
    return desk.test() && desk.test()->test.unit_tilt_deg.value_or(0) != 0
               ? QObject::tr("The height of a tilted unit is that of its middle.")
               : QString();
  });
}

void add_configuration_fields(Form& form, Desk& desk) {
  form.choice(
          QObject::tr("Configuration"),
          [&desk] {
            std::vector<Choice> choices;
            if (desk.test())
              for (const Id id : record::configurations_of(*desk.test()))
                choices.push_back(
                    {text_of(record::configuration_name(*desk.test(), id)), QVariant::fromValue<qlonglong>(id)});
            choices.push_back({QObject::tr("Add one…"), QVariant::fromValue<qlonglong>(new_configuration)});
            return choices;
          },
          [&desk] { return QVariant::fromValue<qlonglong>(desk.test() ? desk.test()->configuration_id : 0); },
          [&desk](const QVariant& v) -> QString {
            if (v.toLongLong() == new_configuration)
              add_one(desk);
            else
              desk.choose_configuration(v.toLongLong());
            return {};
          })
      ->setObjectName("configuration");
  form.line(
          QObject::tr("What it is called"),
          [&desk] {
            return desk.test() ? text_of(record::configuration_name(*desk.test(), desk.test()->configuration_id))
                               : QString();
          },
          [&desk](const QString& text) -> QString {
            if (!desk.test()) return {};
            return desk.edits().plan(
                [&] { return book::rename_configuration(desk.book(), *desk.test(), text_of(text)); });
          },
          {}, QObject::tr("such as: two bars added"))
      ->setObjectName("configurationName");
  form.note([&desk]() -> QString {
    if (!desk.test() || desk.test()->configurations.empty())
      return QObject::tr(
          "Bars added, parts unplugged, other tubes: each state has its own sweeps, stair, log and temperatures.");
    return QObject::tr("Heights, settings and sweeps here are of this configuration alone. { and } go between them.");
  });
  form.button_row({{QObject::tr("Add a configuration"), [&desk] { add_one(desk); }},
                   {QObject::tr("Take this one out"), [&desk] { take_out(desk); }}});
}

void add_control_fields(Form& form, Desk& desk) {
  form.line(
          QObject::tr("Driven by"), [&desk] { return desk.test() ? text_of(desk.test()->test.control) : QString(); },
          [&desk](const QString& text) {
            return store_in_test(desk, &Test::control, text_of(text), QObject::tr("how it is driven"));
          },
          {}, QObject::tr("knob, bypass, controller, fade-in off"))
      ->setObjectName("control");
  form.line(
          QObject::tr("In this sweep"), [&desk] { return desk.sweep() ? text_of(desk.sweep()->control) : QString(); },
          [&desk](const QString& text) -> QString {
            if (!desk.sweep()) return QObject::tr("This sweep is not begun: it takes what the test says.");
            record::Sweep sweep = *desk.sweep();
            sweep.control = text_of(text);
            return desk.edits().make(QObject::tr("how it was driven"), [&](book::Edit& e) { e.save(sweep); })
                       ? QString()
                       : QObject::tr("Not kept.");
          },
          {}, QObject::tr("as the test says"))
      ->setObjectName("sweepControl");
}

void add_history_fields(Form& form, Desk& desk) {
  number_of_test(form, desk, QObject::tr("Hours already run"), &Test::hours_run, {0, 1e6}, QObject::tr("h"))
      ->setObjectName("hoursRun");
  form.choice(
          QObject::tr("A retest of"), [&desk] { return earlier_tests(desk); }, [&desk] { return repeated_test(desk); },
          [&desk](const QVariant& v) -> QString {
            if (!desk.test()) return {};
            const Id earlier = v == QVariant("") ? 0 : v.toLongLong();
            const std::string unit = desk.test()->test.retest_unit.empty() ? "same" : desk.test()->test.retest_unit;
            return desk.edits().make(
                       QObject::tr("retest"),
                       [&](book::Edit& e) { book::make_retest(e, desk.book(), desk.test()->test, earlier, unit); })
                       ? QString()
                       : QObject::tr("Not kept.");
          })
      ->setObjectName("retestOf");
  form.choice(
          QObject::tr("That was"),
          [] {
            return std::vector<Choice>{{QObject::tr("not stated"), ""},
                                       {QObject::tr("the same unit"), "same"},
                                       {QObject::tr("another unit of the model"), "another"}};
          },
          [&desk] { return QVariant(desk.test() ? text_of(desk.test()->test.retest_unit) : QString()); },
          [&desk](const QVariant& v) {
            return store_in_test(desk, &Test::retest_unit, text_of(v.toString()), QObject::tr("unit of the retest"));
          })
      ->setObjectName("retestUnit");
  form.note([&desk]() -> QString {
    if (!desk.test()) return {};
    if (desk.test()->test.retest_of.empty())
      return QObject::tr("Tests of fixtures of this name, or of its maker, can be repeated.");
    return repeated_test(desk) == QVariant("")
               ? QObject::tr("It repeats a test that is not in this lab book: nothing can be compared here.")
               : QObject::tr(
                     "What changed since stands on Read, under Retest. Hours run on both tests give the decay.");
  });
}

}  // namespace sunbreak::desktop
