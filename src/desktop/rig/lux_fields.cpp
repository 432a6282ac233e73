#include "desktop/rig/lux_fields.h"

#include <algorithm>

#include "book/plan.h"
#include "book/test_rows.h"
#include "desktop/shelf/figures_at_stake.h"
#include "desktop/shelf/record_fields.h"
#include "evaluation/lux_walk.h"
#include "record/plan_grid.h"

namespace sunbreak::desktop {
namespace {

constexpr record::Id no_factor = 0;

QString factor_words(const record::FittedLuxFactor& f) {
  return QObject::tr("%1: k = %2, %3 to %4 lx")
      .arg(text_of(f.name))
      .arg(f.k, 0, 'f', 5)
      .arg(f.lowest_lux, 0, 'f', 0)
      .arg(f.highest_lux, 0, 'f', 0);
}

QString take_factor(Desk& desk, record::Id id) {
  const record::TestRecord& test = *desk.test();
  std::optional<record::FittedLuxFactor> factor;
  if (id == no_factor && book::readings_of(desk.book(), test.test.id) > 0)
    return QObject::tr("The readings of this test are lux: without a factor they are no PPFD. Choose another factor.");
  if (id != no_factor) {
    factor = desk.book().find<record::FittedLuxFactor>(id);
    if (!factor) return QObject::tr("This factor is no longer on the shelf.");
    if (const auto refused = evaluation::lux_factor_refused(test, *factor)) return text_of(refused->sentence());
  }
  std::optional<record::TestRecord> all;
  if (!test.configurations.empty()) all = book::load_test(desk.book(), test.test.id);
  const record::TestRecord& whole = all ? *all : test;
  const auto choose = [&] {
    return desk.edits().make(QObject::tr("lux factor"),
                             [&](book::Edit& e) { book::choose_lux_factor(e, whole, factor); })
               ? QString()
               : QObject::tr("Not kept.");
  };
  if (!test.readings.empty() &&
      !agreed_for_figures(
          desk, QObject::tr("All readings of this test are lux, and are brought to PPFD by this factor."), choose))
    return {};
  return choose();
}

}  // namespace

void add_lux_fields(Form& form, Desk& desk) {
  form.choice(
          QObject::tr("Its light is"),
          [] {
            std::vector<Choice> choices{{QObject::tr("not stated"), ""}};
            for (const char* word : record::light_classes) choices.push_back({QObject::tr(word), word});
            return choices;
          },
          [&desk] { return QVariant(desk.test() ? text_of(desk.test()->test.light_class) : QString()); },
          [&desk](const QVariant& v) {
            return desk.test() ? store_member(desk, desk.test()->test.id, &record::Test::light_class,
                                              text_of(v.toString()), QObject::tr("class of light"))
                               : QString();
          })
      ->setObjectName("lightClass");
  form.choice(
          QObject::tr("Factor of the lux meter"),
          [&desk] {
            std::vector<Choice> choices{{QObject::tr("none"), QVariant::fromValue<qlonglong>(no_factor)}};
            if (desk.test() && record::walked_by_lux(*desk.test()))
              for (const record::FittedLuxFactor& f : desk.test()->lux_factors)
                if (f.meter_id == desk.test()->test.sensor_id)
                  choices.push_back({factor_words(f), QVariant::fromValue<qlonglong>(f.id)});
            return choices;
          },
          [&desk] {
            const record::FittedLuxFactor* f = desk.test() ? record::lux_factor_of(*desk.test()) : nullptr;
            return QVariant::fromValue<qlonglong>(f ? f->id : no_factor);
          },
          [&desk](const QVariant& v) { return desk.test() ? take_factor(desk, v.toLongLong()) : QString(); })
      ->setObjectName("luxFactor");
  form.note([&desk]() -> QString {
    if (!desk.test() || !record::walked_by_lux(*desk.test()))
      return QObject::tr("Only where the light meter is a lux meter.");
    const record::FittedLuxFactor* f = record::lux_factor_of(*desk.test());
    if (!f)
      return QObject::tr(
          "A lux meter weighs light as the eye does. Until a factor is found under this very light, or "
          "one of its class, nothing can be read: Home, Lux factor.");
    return evaluation::found_under_fixture(*f, desk.test()->fixture.id)
               ? QObject::tr("Found under this fixture: its sweeps are graded as any other.")
               : QObject::tr("Found under another fixture: its sweeps are spot grade.");
  });
}

}  // namespace sunbreak::desktop
