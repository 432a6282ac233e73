#include "desktop/warmup/temperature_dialog.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "desktop/desk/desk.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/form.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/heat_by_state.h"
#include "evaluation/stabilization.h"
#include "evaluation/stair_records.h"
#include "record/configurations.h"

namespace sunbreak::desktop {

TemperatureDialog::TemperatureDialog(Desk& desk, QWidget* parent) : QDialog(parent), desk_(desk) {
  setObjectName("temperatureDialog");
  setWindowTitle(tr("Add a temperature"));
  resize(540, 600);
  taken_.place = "driver";
  taken_.method = "infrared";
  // The state is the one the fixture is in, as far as that is known.
  if (desk_.rung()) taken_.height_m = desk_.rung()->height_m;
  const evaluation::LampState lamp =
      evaluation::lamp_at(desk_.test()->lamp_events, record::seconds_of(desk_.clock().utc_text()));
  taken_.percent = lamp.percent && !lamp.off ? lamp.percent
                   : desk_.stop()            ? std::optional(desk_.stop()->percent)
                                             : std::nullopt;
  // The instrument of the last one is likely the one at hand.
  if (!desk_.test()->temperatures.empty()) {
    const record::Temperature& last = desk_.test()->temperatures.back();
    taken_.method = last.method;
    taken_.emissivity_set = last.emissivity_set;
    taken_.reflected_c = last.reflected_c;
  }
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  auto* caution =
      wrapped_label(tr("Do not touch: surfaces over 60 °C (140 °F) burn. Leave covers closed; what is inside is for a "
                       "licensed electrician."),
                    this);
  caution->setProperty("quiet", true);
  layout->addWidget(caution);
  used_ = desk_.book().all<record::Temperature>("WHERE material <> '' ORDER BY id");
  form_ = new Form(this);
  build_form();
  layout->addWidget(form_);
  result_ = wrapped_label({}, this);
  result_->setObjectName("temperatureResult");
  layout->addWidget(result_);
  layout->addStretch();
  auto* row = new QHBoxLayout;
  row->addStretch();
  auto* leave = new QPushButton(tr("Leave it"), this);
  leave->setAutoDefault(false);
  auto* take = primary_button(tr("Keep it"), this);
  take->setObjectName("keepTemperature");
  row->addWidget(leave);
  row->addWidget(take);
  layout->addLayout(row);
  connect(leave, &QPushButton::clicked, this, &QDialog::reject);
  connect(take, &QPushButton::clicked, this, &TemperatureDialog::keep);
  show_result();
  findChild<QWidget*>("temperatureRead")->setFocus();
}

void TemperatureDialog::build_form() {
  const auto changed = [this] {
    show_result();
    return QString();
  };
  form_
      ->choice(
          tr("Place"),
          [] {
            return std::vector<Choice>{{tr("driver"), "driver"},
                                       {tr("bar or sink, top"), "bar top"},
                                       {tr("bar or sink, underside"), "bar underside"},
                                       {tr("ballast"), "ballast"},
                                       {tr("lamp"), "lamp"},
                                       {tr("leaf"), "leaf"},
                                       {tr("swatch of canopy"), "swatch"},
                                       {tr("tent wall"), "tent wall"},
                                       {tr("floor or substrate"), "floor"},
                                       {tr("air"), "air"}};
          },
          [this] { return QVariant(text_of(taken_.place)); },
          [=, this](const QVariant& v) {
            taken_.place = text_of(v.toString());
            if (taken_.place != "swatch") taken_.material.clear();
            return changed();
          })
      ->setObjectName("temperaturePlace");
  form_
      ->line(
          tr("Swatch of"), [this] { return text_of(taken_.material); },
          [=, this](const QString& text) {
            taken_.material = text_of(text.toLower());
            if (!text.isEmpty()) taken_.place = "swatch";
            for (const evaluation::Swatch& s : evaluation::swatches(used_))
              if (s.material == taken_.material) taken_.emissivity_true = s.emissivity;
            form_->refresh();
            return changed();
          },
          [] { return QString(); }, swatch_names())
      ->setObjectName("swatchMaterial");
  form_
      ->choice(
          tr("How"),
          [] {
            return std::vector<Choice>{
                {tr("infrared thermometer"), "infrared"}, {tr("thermal camera"), "camera"}, {tr("contact"), "contact"}};
          },
          [this] { return QVariant(text_of(taken_.method)); },
          [=, this](const QVariant& v) {
            taken_.method = text_of(v.toString());
            return changed();
          })
      ->setObjectName("temperatureMethod");
  const auto unit = [this] { return text_of(std::string(temperature_unit(desk_.units()))); };
  const auto temperature = [=, this](double low_c, double high_c, std::function<void(std::optional<double>)> store) {
    const UnitSystem units = desk_.units();
    return parse_number_field({shown_temperature(low_c, units), shown_temperature(high_c, units)},
                              [=](std::optional<double> v) {
                                store(v ? std::optional(celsius_of_shown(*v, units)) : std::nullopt);
                                return changed();
                              });
  };
  const auto number = [&](const QString& name, const char* object, NumberRange range,
                          std::optional<double> record::Temperature::*field, const QString& its_unit,
                          const QString& hint) {
    form_
        ->line(
            name, [=, this] { return show_number(taken_.*field); },
            parse_number_field(range,
                               [=, this](std::optional<double> v) {
                                 taken_.*field = v;
                                 return changed();
                               }),
            [=] { return its_unit; }, hint)
        ->setObjectName(object);
  };
  form_
      ->line(
          tr("Read"),
          [this] { return read_ ? show_number(shown_temperature(taken_.read_c, desk_.units()), 1) : QString(); },
          temperature(-60, 1200,
                      [=, this](std::optional<double> c) {
                        read_ = c.has_value();
                        taken_.read_c = c.value_or(0);
                      }),
          unit)
      ->setObjectName("temperatureRead");
  const auto of_picture = [&](const QString& name, const char* object,
                              std::optional<double> record::Temperature::*field, const QString& hint) {
    form_
        ->line(
            name,
            [=, this] {
              return taken_.*field ? show_number(shown_temperature(*(taken_.*field), desk_.units()), 1) : QString();
            },
            temperature(-60, 1200, [=, this](std::optional<double> c) { taken_.*field = c; }), unit, hint)
        ->setObjectName(object);
  };
  of_picture(tr("Hottest of a picture"), "temperatureHottest", &record::Temperature::hottest_c,
             tr("of a thermal camera"));
  of_picture(tr("Coldest of it"), "temperatureColdest", &record::Temperature::coldest_c, {});
  number(tr("Emissivity set"), "emissivitySet", {0.01, 1}, &record::Temperature::emissivity_set, {},
         tr("of the instrument"));
  number(tr("of the surface"), "emissivityTrue", {0.01, 1}, &record::Temperature::emissivity_true, {},
         tr("paint, tape, leaf 0.95"));
  form_
      ->line(
          tr("Reflected"),
          [this] {
            return taken_.reflected_c ? show_number(shown_temperature(*taken_.reflected_c, desk_.units()), 1)
                                      : QString();
          },
          temperature(-60, 400, [this](std::optional<double> c) { taken_.reflected_c = c; }), unit,
          tr("the air where empty"))
      ->setObjectName("reflected");
  form_
      ->choice(
          tr("Bare or polished metal"),
          [] {
            return std::vector<Choice>{{tr("no"), false}, {tr("yes"), true}};
          },
          [this] { return QVariant(taken_.bare_metal); },
          [=, this](const QVariant& v) {
            taken_.bare_metal = v.toBool();
            return changed();
          })
      ->setObjectName("bareMetal");
  form_
      ->line(
          tr("Hung at"), [this] { return show_length(taken_.height_m, desk_.units()); },
          parse_length_field([this] { return desk_.units(); }, {0.01, 10},
                             [=, this](std::optional<double> v) {
                               taken_.height_m = v;
                               return changed();
                             }),
          [this] { return text_of(symbol(surface_unit(desk_.units()))); })
      ->setObjectName("temperatureHeight");
  number(tr("Dimmer"), "temperatureDimmer", {0, 200}, &record::Temperature::percent, tr("%"), {});
}

QString TemperatureDialog::swatch_names() const {
  QStringList names;
  for (const evaluation::Swatch& s : evaluation::swatches(used_)) names << text_of(s.material);
  return names.join(", ");
}

void TemperatureDialog::show_result() {
  QStringList words;
  set_tone(result_, "");
  if (read_) {
    taken_.taken_at = desk_.clock().utc_text();
    const TemperatureShot shot = evaluation::shot_of(*desk_.test(), taken_, desk_.units());
    const auto surface = surface_temperature_c(shot);
    words << (surface ? tr("The surface is at %1 %2%3.")
                            .arg(shown_temperature(surface.value(), desk_.units()), 0, 'f', 1)
                            .arg(text_of(std::string(temperature_unit(desk_.units()))))
                            .arg(shot.air_c && taken_.place != "air"
                                     ? tr(", %1 %2 over air")
                                           .arg(shown_rise(surface.value() - *shot.air_c, desk_.units()), 0, 'f', 1)
                                           .arg(text_of(std::string(rise_unit(desk_.units()))))
                                     : QString())
                      : text_of(surface.problem().sentence()));
    const auto checks = temperature_checks(shot);
    if (!checks.empty() || !surface) set_tone(result_, "attention");
    for (const Finding& c : checks) words << marked_attention(text_of(c.saw + ": " + c.effect + "; " + c.remedy + "."));
  }
  result_->setText(words.join("\n"));
}

void TemperatureDialog::keep() {
  if (QWidget* typing = focusWidget()) typing->clearFocus();
  if (!read_) return result_->setText(tr("Nothing was read yet: type the temperature, or leave it."));
  const auto surface = surface_temperature_c(evaluation::shot_of(*desk_.test(), taken_, desk_.units()));
  if (!surface) return show_result();
  taken_.test_id = desk_.test()->test.id;
  taken_.configuration_id = record::configuration_of(*desk_.test());
  taken_.taken_at = desk_.clock().utc_text();
  if (desk_.edits().make(tr("temperature"), [&](book::Edit& e) { e.add(taken_); })) accept();
}

}  // namespace sunbreak::desktop
