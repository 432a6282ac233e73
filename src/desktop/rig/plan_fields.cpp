#include "desktop/rig/plan_fields.h"

#include <algorithm>
#include <cmath>

#include "book/plan.h"
#include "core/bench/ladder.h"
#include "core/bench/tape.h"
#include "core/bench/walk_order.h"
#include "desktop/rig/rig_advice.h"
#include "desktop/walk/live_taker.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"
#include "evaluation/rig_model.h"

namespace sunbreak::desktop {

using record::Test;

namespace {

QString plan_words(const char* text) { return QCoreApplication::translate("Rig", text); }

QString unit_words(const Desk& desk) { return text_of(symbol(surface_unit(desk.units()))); }

QString plan_heights(Desk& desk, const std::vector<double>& heights_m) {
  return desk.edits().plan([&] { return book::plan_heights(desk.book(), *desk.test(), heights_m); });
}

/// A ready-made list is refused as a whole where one of its heights does not fit, and says so at the foot.
void take_heights(Desk& desk, const std::vector<double>& heights_m) {
  if (!desk.test()) return;
  if (const QString problem = plan_heights(desk, heights_m); !problem.isEmpty()) return desk.warn(problem);
  desk.say(plan_words("%1 heights planned. Ctrl+Z brings the others back.").arg(heights_m.size()));
}

void around_the_makers(Desk& desk) {
  if (!desk.test()) return;
  for (const record::Claim& c : desk.test()->claims)
    if (c.kind == "height_m") {
      const auto height =
          c.value ? std::optional((*c.value + c.value_to.value_or(*c.value)) / 2) : height_in_words(c.words);
      if (height) return take_heights(desk, heights_around(*height));
      return desk.warn(
          plan_words("The claimed hanging height, '%1', names no length. Write it like 45 cm.").arg(text_of(c.words)));
    }
  desk.warn(plan_words("No hanging height is claimed. Fill it in under what its maker claims, or take the ladder."));
}

QComboBox* test_choice(Form& form, Desk& desk, const QString& name, std::string Test::*member,
                       const std::vector<Choice>& choices) {
  return form.choice(
      name, [=] { return choices; },
      [&desk, member] { return QVariant(desk.test() ? text_of(desk.test()->test.*member) : QString()); },
      [&desk, member, name](const QVariant& v) {
        return store_in_test(desk, member, text_of(v.toString()), name.toLower());
      });
}

/// A line over a number of the test that always has a value.
template <typename Number>
QLineEdit* test_number(Form& form, Desk& desk, const QString& name, Number Test::*member, const NumberRange& range,
                       const QString& unit) {
  return form.line(
      name,
      [&desk, member] { return desk.test() ? show_number(static_cast<double>(desk.test()->test.*member)) : QString(); },
      parse_number_field({range.low, range.high, false},
                         [&desk, member, name](std::optional<double> v) {
                           return store_in_test(desk, member, static_cast<Number>(*v), name.toLower());
                         }),
      [unit] { return unit; });
}

}  // namespace

void add_height_fields(Form& form, Desk& desk) {
  form.line(
          plan_words("Heights"),
          [&desk] {
            QStringList texts;
            if (desk.test())
              for (const record::Rung& r : desk.test()->rungs)
                if (!r.extra)
                  texts << show_length(evaluation::tape_rule(*desk.test()).tape_m(r.height_m), desk.units());
            return texts.join(", ");
          },
          [&desk](const QString& text) -> QString {
            QString problem;
            auto heights = length_list(text, desk.units(), &problem);
            if (!heights || !desk.test()) return problem;
            for (double& h : *heights) h = evaluation::tape_rule(*desk.test()).height_m(h);
            return plan_heights(desk, *heights);
          },
          [&desk] { return unit_words(desk); }, plan_words("such as 75, 60, 45"))
      ->setObjectName("heights");
  form.note([&desk]() -> QString {
    if (!desk.test()) return {};
    const TapeRule rule = evaluation::tape_rule(*desk.test());
    const record::Meter* sensor = desk.test()->meter(desk.test()->test.sensor_id);
    if (rule.end == TapeEnd::Sensor) return {};
    if (!sensor || !sensor->receiving_height_m)
      return plan_words(
          "The sensor's own height is not on record, so nothing is taken off for it. It is kept on Home, under "
          "Meters.");
    QStringList texts;
    for (const record::Rung& r : desk.test()->rungs)
      if (!r.extra) texts << text_of(length_text(r.height_m, desk.units()));
    return plan_words("The sensor stands %1 high: to its receiving surface these are %2.")
        .arg(text_of(length_text(rule.receiving_height_m, desk.units())), texts.join(", "));
  });
  form.line(
          plan_words("Dimmer settings"),
          [&desk] {
            QStringList texts;
            if (desk.test())
              for (const record::Stop& s : desk.test()->stops)
                if (!s.extra) texts << show_number(s.percent);
            return texts.join(", ");
          },
          [&desk](const QString& text) -> QString {
            QString problem;
            const auto percents = number_list(text, &problem);
            if (!percents || !desk.test()) return problem;
            return desk.edits().plan([&] { return book::plan_stops(desk.book(), *desk.test(), *percents); });
          },
          [] { return QStringLiteral("%"); }, plan_words("100 where there is no dimmer"))
      ->setObjectName("stops");
  test_choice(form, desk, plan_words("Heights are from"), &Test::datum,
              {{plan_words("not stated"), ""},
               {plan_words("diodes"), "diodes"},
               {plan_words("lens"), "lens"},
               {plan_words("lamp underside"), "lamp underside"}})
      ->setObjectName("datum");
}

void add_height_details(Form& form, Desk& desk, RigAdvice& advice) {
  test_choice(form, desk, plan_words("Heights chosen by"), &Test::height_rule,
              {{plan_words("not stated"), ""},
               {plan_words("a fixed ladder"), "ladder"},
               {plan_words("what the maker recommends"), "maker"},
               {plan_words("what the center reads"), "center"},
               {plan_words("what is best for a target"), "target"}})
      ->setObjectName("heightRule");
  test_choice(form, desk, plan_words("The tape ends at"), &Test::tape_from,
              {{plan_words("the sensor's receiving surface"), "sensor"},
               {plan_words("the floor"), "floor"},
               {plan_words("a pretend canopy"), "canopy"}})
      ->setObjectName("tapeFrom");
  form.line(
          plan_words("Canopy over the floor"),
          [&desk] { return desk.test() ? show_length(desk.test()->test.canopy_height_m, desk.units()) : QString(); },
          parse_length_field([&desk] { return desk.units(); }, {0, 5},
                             [&desk](std::optional<double> v) {
                               return store_in_test(desk, &Test::canopy_height_m, v,
                                                    plan_words("height of the canopy"));
                             }),
          [&desk] { return unit_words(desk); }, plan_words("for a pretend canopy"))
      ->setObjectName("canopyHeight");
  form.button_row({{plan_words("Ladder"),
                    [&desk] {
                      if (desk.test())
                        take_heights(
                            desk, ladder_heights(desk.test()->bench.height_m, desk.test()->fixture.emitter_spacing_m));
                    }},
                   {plan_words("Around the maker's height"), [&desk] { around_the_makers(desk); }}});
  form.line(
          plan_words("Until the center reads"), [] { return QString(); },
          parse_number_field(
              {1, 5000},
              [&desk, &advice](std::optional<double> v) -> QString {
                if (!v || !desk.test()) return {};
                const auto ppf = claimed_ppf(*desk.test());
                if (!ppf)
                  return plan_words(
                      "No PPF is claimed, nor power with efficacy, so no height can be estimated. Fill "
                      "them in under what its maker claims.");
                desk.say(plan_words("Looking for the height at which the center reads %1 µmol/m²/s…").arg(*v));
                advice.find_height(*v, *ppf);
                return {};
              }),
          [] { return plan_words("µmol"); }, plan_words("adds that height"), Form::Preview::Off)
      ->setObjectName("centerReads");
  QObject::connect(&advice, &RigAdvice::height_found, &form, [&desk](double height_m, double ppfd) {
    if (!desk.test()) return;
    std::vector<double> heights{std::round(100 * height_m) / 100};
    for (const record::Rung& r : desk.test()->rungs)
      if (!r.extra) heights.push_back(r.height_m);
    if (const QString problem = plan_heights(desk, heights); !problem.isEmpty()) return desk.warn(problem);
    desk.say(
        plan_words(
            "By the claims and the model the center reads %1 µmol/m²/s at about %2; that height is in the plan now.")
            .arg(ppfd)
            .arg(text_of(length_text(heights.front(), desk.units()))));
  });
  QObject::connect(&advice, &RigAdvice::no_height, &form, [&desk](double ppfd) {
    desk.warn(
        plan_words("By the claims and the model the center does not read %1 µmol/m²/s at any height in this bench; no "
                   "height was added.")
            .arg(ppfd));
  });
}

void add_walk_fields(Form& form, Desk& desk) {
  test_choice(form, desk, plan_words("Order"), &Test::walk_order,
              {{plan_words("from the far wall to the door"), "far to door"},
               {plan_words("from the door to the far wall"), "door to far"},
               {plan_words("from the center outward"), "center outward"}})
      ->setObjectName("walkOrder");
  form.choice(
          plan_words("Corners and center first"),
          [] {
            return std::vector<Choice>{{plan_words("yes, for level and center"), true}, {plan_words("no"), false}};
          },
          [&desk] { return QVariant(desk.test() && desk.test()->test.opening_probe); },
          [&desk](const QVariant& v) {
            return store_in_test(desk, &Test::opening_probe, v.toBool(), plan_words("opening probe"));
          })
      ->setObjectName("openingProbe");
  test_number(form, desk, plan_words("Reference again every"), &Test::reference_every, {0, 500}, plan_words("stations"))
      ->setObjectName("referenceEvery");
  test_number(form, desk, plan_words("Live values a reading"), &Test::samples_a_reading, {1, 100}, plan_words("values"))
      ->setObjectName("samplesAReading");
  form.line(
      plan_words("Hands-free: holds within"), [] { return show_number(100 * hold_rule().tolerance); },
      parse_number_field({0.1, 20, false},
                         [](std::optional<double> v) {
                           HoldRule rule = hold_rule();
                           rule.tolerance = *v / 100;
                           set_hold_rule(rule);
                           return QString();
                         }),
      [] { return plan_words("± %"); }, {}, Form::Preview::Off);
  form.line(
      plan_words("for so long"), [] { return show_number(hold_rule().hold_s); },
      parse_number_field({0.05, 60, false},
                         [](std::optional<double> v) {
                           HoldRule rule = hold_rule();
                           rule.hold_s = *v;
                           set_hold_rule(rule);
                           return QString();
                         }),
      [] { return plan_words("s"); }, {}, Form::Preview::Off);
  form.choice(
          plan_words("Doubtful live values"),
          [] {
            return std::vector<Choice>{{plan_words("look longer at them"), true},
                                       {plan_words("take them as they are"), false}};
          },
          [] { return QVariant(looks_longer()); },
          [](const QVariant& v) {
            set_looks_longer(v.toBool());
            return QString();
          })
      ->setObjectName("lookLonger");
  test_number(form, desk, plan_words("Time a station"), &Test::seconds_a_reading, {0.5, 600}, plan_words("s"));
  test_number(form, desk, plan_words("Warming up"), &Test::warm_up_min, {0, 600}, plan_words("min"));
}

void add_checklist(Form& form, Desk& desk) {
  const std::vector<Choice> answers{
      {plan_words("not stated"), ""}, {plan_words("yes"), "yes"}, {plan_words("no"), "no"}};
  form.note([] {
    return plan_words(
        "Hang it from rated hangers and anchor points, with both hands; never stand under a load being raised. "
        "Mind the ladder.");
  });
  test_choice(form, desk, plan_words("Hung level, by a level"), &Test::checked_level, answers)
      ->setObjectName("checkedLevel");
  test_choice(form, desk, plan_words("Centered, by the tape"), &Test::checked_center, answers)
      ->setObjectName("checkedCenter");
  test_choice(form, desk, plan_words("Height at every corner"), &Test::checked_height, answers)
      ->setObjectName("checkedHeight");
  form.note([] {
    return plan_words(
        "Dry hands and floor, earthed outlet, meter within its rating, the load below what the circuit is rated "
        "for. Wiring and anything opened up is for a licensed electrician; local codes decide.");
  });
  test_choice(form, desk, plan_words("Fans as in use"), &Test::checked_fans, answers);
  form.note([&desk]() -> QString {
    if (!desk.test() || !desk.test()->test.control.empty())
      return desk.test() ? plan_words("Driven by: %1.").arg(text_of(desk.test()->test.control)) : QString();
    return plan_words("Driven by its knob, a bypass, a controller, its fade-in off? Note it under How it is driven.");
  });
  test_choice(form, desk, plan_words("Door while reading"), &Test::door,
              {{plan_words("not stated"), ""}, {plan_words("closed"), "closed"}, {plan_words("open"), "open"}})
      ->setObjectName("door");
  form.note([] {
    return plan_words(
        "Do not look into the lit fixture; wear suitable eye protection. Some fixtures emit UV or infrared that "
        "the eye does not see. Surfaces over 60 °C burn; lamps with ballasts are hot, under pressure or hold "
        "mercury.");
  });
}

}  // namespace sunbreak::desktop
