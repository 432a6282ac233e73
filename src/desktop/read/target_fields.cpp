#include "desktop/read/target_fields.h"

#include <cmath>

#include "core/targets/target_sets.h"
#include "desktop/shelf/record_fields.h"
#include "desktop/widgets/takers.h"

namespace sunbreak::desktop {

using book::Test;

namespace {

QString words_of(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<int>(text.size())); }

QString store(Desk& desk, const std::function<void(Test&)>& alter) {
  if (!desk.test()) return {};
  Test test = desk.test()->test;
  alter(test);
  if (test.target_high_ppfd <= test.target_low_ppfd)
    return QObject::tr("The band's high end has to lie above its low end; nothing was changed.");
  return desk.edit(QObject::tr("crop target"), [&](book::Edit& e) { e.save(test); }) ? QString()
                                                                                     : QObject::tr("Not kept.");
}

QString key_of(std::string_view set, std::string_view target) { return words_of(set) + "/" + words_of(target); }

/// The shipped target a test has, or an empty key for one of its own.
QString present_key(const Test& test) {
  for (const TargetSet& set : shipped_target_sets())
    for (const Target& t : set.targets)
      if (test.target_name == t.name && std::abs(test.target_low_ppfd - t.low_ppfd) < 1e-6 &&
          std::abs(test.target_high_ppfd - t.high_ppfd) < 1e-6 && test.photoperiod_h == t.photoperiod_h)
        return key_of(set.name, t.name);
  return {};
}

}  // namespace

void add_target_fields(Form& form, Desk& desk) {
  form.choice(
      QObject::tr("Target"),
      [] {
        std::vector<Choice> choices{{QObject::tr("own band"), QString()}};
        for (const TargetSet& set : shipped_target_sets())
          for (const Target& t : set.targets)
            choices.push_back({QStringLiteral("%1: %2, %3–%4, %5 h")
                                   .arg(words_of(set.name), words_of(t.name))
                                   .arg(t.low_ppfd, 0, 'f', 0)
                                   .arg(t.high_ppfd, 0, 'f', 0)
                                   .arg(t.photoperiod_h),
                               key_of(set.name, t.name)});
        return choices;
      },
      [&desk] { return QVariant(desk.test() ? present_key(desk.test()->test) : QString()); },
      [&desk](const QVariant& v) -> QString {
        for (const TargetSet& set : shipped_target_sets())
          for (const Target& t : set.targets)
            if (v.toString() == key_of(set.name, t.name))
              return store(desk, [&](Test& test) {
                test.target_name = t.name;
                test.target_low_ppfd = t.low_ppfd;
                test.target_high_ppfd = t.high_ppfd;
                test.photoperiod_h = t.photoperiod_h;
              });
        return {};
      });
  const auto number = [&](const QString& name, double Test::*member, const NumberRange& range, const QString& unit) {
    return form.line(
        name, [=, &desk] { return desk.test() ? show_number(desk.test()->test.*member, 1) : QString(); },
        take_number(range,
                    [=, &desk](std::optional<double> v) {
                      return store(desk, [&](Test& test) {
                        test.*member = *v;
                        if (present_key(test).isEmpty()) test.target_name = "own band";
                      });
                    }),
        [unit] { return unit; });
  };
  number(QObject::tr("Band, from"), &Test::target_low_ppfd, {0, 5000, false}, "µmol/m²/s")->setObjectName("targetLow");
  number(QObject::tr("Band, to"), &Test::target_high_ppfd, {1, 6000, false}, "µmol/m²/s")->setObjectName("targetHigh");
  number(QObject::tr("Photoperiod"), &Test::photoperiod_h, {0.1, 24, false}, "h/day");
}

}  // namespace sunbreak::desktop
