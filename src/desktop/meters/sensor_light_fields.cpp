#include "desktop/meters/sensor_light_fields.h"

#include <QFileInfo>

#include "core/spectrum/spectral_response.h"
#include "core/spectrum/tungsten_lamp.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/question.h"
#include "exchange/files/read_file.h"
#include "exchange/spectra/spectrum_file.h"
#include "record/spectrum_samples.h"

namespace sunbreak::desktop {
namespace {

struct FileOfLight {
  QString name;
  exchange::SpectrumFile file;
};

/// Asks for a file of spectra; what is wrong with it is said.
std::optional<FileOfLight> file_of_light(Desk& desk, QWidget* window, const QString& title,
                                         const exchange::SpectrumOptions& options) {
  const QString path =
      file_to_open(window, title, {}, QObject::tr("Spectra (*.csv *.txt *.tsv *.xml *.spdx *.sp);;All files (*)"));
  if (path.isEmpty()) return {};
  const auto bytes = exchange::read_file(text_of(path));
  if (!bytes) {
    desk.warn(text_of(bytes.problem().sentence()));
    return {};
  }
  auto read = exchange::read_spectra(bytes.value(), options);
  if (!read) {
    desk.warn(text_of(read.problem().sentence()));
    return {};
  }
  return FileOfLight{QFileInfo(path).fileName(), std::move(read.value())};
}

void bring_response(Desk& desk, record::Id id, QWidget* window) {
  const auto light =
      file_of_light(desk, window, QObject::tr("Bring in a sensor's response"), {SpectralScale::Photons, {}});
  auto meter = desk.book().find<record::Meter>(id);
  if (!light || !meter) return;
  const int answer = ask(window, {QObject::tr("Response of a sensor"),
                                  QObject::tr("%1: what are its values the sensor's signal for?").arg(light->name),
                                  {},
                                  "responseScale",
                                  {{QObject::tr("a photon of each wavelength"), "perPhoton", Answer::Leads},
                                   {QObject::tr("a watt of each wavelength"), "perWatt"}}});
  if (answer < 0) return;
  SpectralResponse response;
  const Spectrum& values = light->file.spectra.front().spectrum;
  response.wavelengths_nm = values.wavelengths_nm;
  response.per_photon = values.values;
  if (answer == 1)
    for (std::size_t i = 0; i < response.per_photon.size(); ++i) response.per_photon[i] /= values.wavelengths_nm[i];
  if (const auto problem = response_problem(response)) return desk.warn(text_of(problem->sentence()));
  record::put_response(*meter, response);
  meter->response_origin = text_of(light->name);
  desk.edits().make(QObject::tr("response of a sensor"), [&](book::Edit& e) { e.save(*meter); });
}

void bring_reference_light(Desk& desk, record::Id id, QWidget* window) {
  const auto light = file_of_light(desk, window, QObject::tr("Bring in the light of a calibration"), {});
  auto meter = desk.book().find<record::Meter>(id);
  if (!light || !meter) return;
  if (light->file.scale_needed)
    return desk.warn(QObject::tr("%1 does not say whether its values are photons or power. Nothing was taken: name the "
                                 "unit in its header.")
                         .arg(light->name));
  record::put_reference_light(*meter, light->file.spectra.front().spectrum);
  meter->reference_light_name = text_of(light->name);
  desk.edits().make(QObject::tr("light of a calibration"), [&](book::Edit& e) { e.save(*meter); });
}

}  // namespace

void add_sensor_light_fields(Form& form, Desk& desk, const WhichId& id, QWidget* window) {
  form.heading(QObject::tr("Under other lights"));
  const auto meter = [&desk, id] { return desk.book().find<record::Meter>(id()); };
  form.note([meter]() -> QString {
    const auto m = meter();
    if (!m || m->response_nm.empty())
      return QObject::tr("Its response is not on record: how far it is off under red or far red cannot be told.");
    const auto response = record::response_of(*m);
    if (!response) return QObject::tr("Its response on record is not sound: bring it in again.");
    return QObject::tr("Response from %1, %2 to %3 nm.")
        .arg(text_of(m->response_origin))
        .arg(response->wavelengths_nm.front())
        .arg(response->wavelengths_nm.back());
  });
  form.choice(
          QObject::tr("Calibrated under"),
          [meter] {
            std::vector<Choice> choices{{QObject::tr("not stated"), ""},
                                        {QObject::tr(tungsten_lamp_name), tungsten_lamp_name}};
            if (const auto m = meter();
                m && !m->reference_light_nm.empty() && m->reference_light_name != tungsten_lamp_name)
              choices.push_back({text_of(m->reference_light_name), text_of(m->reference_light_name)});
            return choices;
          },
          [meter] {
            const auto m = meter();
            return QVariant(m && !m->reference_light_nm.empty() ? text_of(m->reference_light_name) : QString());
          },
          [&desk, meter](const QVariant& v) {
            auto m = meter();
            if (!m || v.toString() == text_of(m->reference_light_name)) return QString();
            if (v.toString() == tungsten_lamp_name) {
              record::put_reference_light(*m, tungsten_lamp());
              m->reference_light_name = tungsten_lamp_name;
            } else {
              m->reference_light_nm = m->reference_light = m->reference_light_name = {};
            }
            return desk.edits().make(QObject::tr("light of a calibration"), [&](book::Edit& e) { e.save(*m); })
                       ? QString()
                       : QObject::tr("Not kept.");
          })
      ->setObjectName("calibratedUnder");
  form.button_row(
      {{QObject::tr("Its response…"), [&desk, id, window] { bring_response(desk, id(), window); }},
       {QObject::tr("Light of its calibration…"), [&desk, id, window] { bring_reference_light(desk, id(), window); }}});
}

}  // namespace sunbreak::desktop
