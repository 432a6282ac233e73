#include "desktop/read/target_fields.h"

#include <QRegularExpression>

#include "book/target_shelf.h"
#include "desktop/shelf/record_fields.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

using record::Test;

namespace {

QString store(Desk& desk, const std::function<void(Test&)>& alter) {
  if (!desk.test()) return {};
  Test test = desk.test()->test;
  alter(test);
  if (test.target_high_ppfd <= test.target_low_ppfd)
    return QObject::tr("The band's high end has to lie above its low end; nothing was changed.");
  return desk.edits().make(QObject::tr("crop target"), [&](book::Edit& e) { e.save(test); }) ? QString()
                                                                                             : QObject::tr("Not kept.");
}

}  // namespace

QString target_words(const record::CropTarget& t) {
  return QStringLiteral("%1: %2, %3–%4 %5, %6 h")
      .arg(text_of(t.set_name), text_of(t.name), show_number(t.low, 0), show_number(t.high, 0),
           t.by_daily_light ? QObject::tr("mol/m²/d") : QObject::tr("µmol/m²/s"), show_number(t.photoperiod_h, 1));
}

void add_target_fields(Form& form, Desk& desk) {
  form.choice(
      QObject::tr("Target"),
      [&desk] {
        std::vector<Choice> choices{{QObject::tr("own band"), QVariant(qlonglong(0))}};
        for (const record::CropTarget& t : book::crop_targets(desk.book()))
          choices.push_back({target_words(t), QVariant(qlonglong(t.id))});
        return choices;
      },
      [&desk] {
        const auto present =
            desk.test() ? evaluation::target_of(book::crop_targets(desk.book()), desk.test()->test) : std::nullopt;
        return QVariant(qlonglong(present ? present->id : 0));
      },
      [&desk](const QVariant& v) -> QString {
        const auto target = desk.book().find<record::CropTarget>(v.toLongLong());
        return target ? store(desk, [&](Test& test) { evaluation::set_target(test, *target); }) : QString();
      });
  const auto number = [&](const QString& name, double Test::*member, const NumberRange& range, const QString& unit) {
    return form.line(
        name, [=, &desk] { return desk.test() ? show_number(desk.test()->test.*member, 1) : QString(); },
        parse_number_field(range,
                           [=, &desk](std::optional<double> v) {
                             return store(desk, [&](Test& test) {
                               if (member == &Test::photoperiod_h) return evaluation::set_photoperiod(test, *v);
                               test.*member = *v;
                               test.target_by_daily_light = false;
                               if (!evaluation::target_of(book::crop_targets(desk.book()), test))
                                 test.target_name = "own band";
                             });
                           }),
        [unit] { return unit; });
  };
  number(QObject::tr("Band, from"), &Test::target_low_ppfd, {0, 5000, false}, "µmol/m²/s")->setObjectName("targetLow");
  number(QObject::tr("Band, to"), &Test::target_high_ppfd, {1, 6000, false}, "µmol/m²/s")->setObjectName("targetHigh");
  number(QObject::tr("Photoperiod"), &Test::photoperiod_h, {0.1, 24, false}, "h/day")->setObjectName("photoperiod");
}

namespace {

/// "75 × 75, 100 × 140" in the surface unit, or with units of their own.
std::optional<std::vector<Footprint>> typed_sizes(const QString& text, UnitSystem units, QString* problem) {
  std::vector<Footprint> sizes;
  static const QRegularExpression between("[,;]"), times("[x×*]");
  for (const QString& part : text.split(between, Qt::SkipEmptyParts)) {
    if (part.trimmed().isEmpty()) continue;
    const QStringList sides = part.split(times);
    const auto width = typed_length_m(sides.front().trimmed(), units),
               depth = typed_length_m(sides.back().trimmed(), units);
    if (sides.size() > 2 || !width || !depth || *width < 0.05 || *width > 20 || *depth < 0.05 || *depth > 20) {
      *problem = QObject::tr(
                     "'%1' is no size from 5 cm to 20 m; nothing was changed. Type sizes like 75 × 75, 100 × "
                     "140.")
                     .arg(part.trimmed());
      return {};
    }
    sizes.push_back({*width, *depth});
  }
  return sizes;
}

}  // namespace

void add_own_sizes(Form& form, Desk& desk) {
  form.line(
          QObject::tr("Own sizes"),
          [&desk] {
            QStringList words;
            if (desk.test())
              for (const record::OwnSize& own : desk.test()->own_sizes)
                words << QStringLiteral("%1 × %2").arg(show_length(own.width_m, desk.units()),
                                                       show_length(own.depth_m, desk.units()));
            return words.join(", ");
          },
          [&desk](const QString& text) -> QString {
            QString problem;
            const auto sizes = typed_sizes(text, desk.units(), &problem);
            if (!sizes || !desk.test()) return problem;
            return desk.edits().make(QObject::tr("own sizes"),
                                     [&](book::Edit& e) {
                                       for (const record::OwnSize& old : desk.test()->own_sizes)
                                         e.erase<record::OwnSize>(old.id);
                                       for (const Footprint& size : *sizes)
                                         e.add(record::OwnSize{0, desk.test()->test.id, size.width_m, size.depth_m});
                                     })
                       ? QString()
                       : QObject::tr("Not kept.");
          },
          [&desk] { return text_of(symbol(surface_unit(desk.units()))); }, QObject::tr("such as 75 × 75, 100 × 140"))
      ->setObjectName("ownSizes");
}

}  // namespace sunbreak::desktop
