#pragma once

#include <QWidget>
#include <optional>
#include <string>
#include <vector>

#include <tuple>

#include "desktop/desk/desk.h"
#include "evaluation/measured_spectra.h"

class QCheckBox;
class QComboBox;
class QGridLayout;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QSpinBox;
class QVBoxLayout;

namespace sunbreak::desktop {

class InstrumentHub;
class SpectrumChart;

/// Spectrum: what the light is made of. Spectra of the test lie over each other; figures are of the one that is chosen,
/// or of a mix of two.
class SpectrumPage : public QWidget {
 public:
  SpectrumPage(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);
  void refresh();
  /// Brings in what was pasted, dropped or read from a file.
  void bring_in(const std::string& bytes, const QString& origin, const std::string& source);
  /// Puts the keyboard where spectra are chosen.
  void take_focus();

 private:
  QWidget* make_side(QWidget* ground);
  void build_sensor(QVBoxLayout& column, QWidget* side);
  /// Asks the spectrometer; what it shows is kept at the height and setting at hand.
  void read_live();
  void take_live(const Spectrum& spectrum, const QString& identity);
  void show_own_band(const std::optional<SpectralCurve>& light);
  void show_sensor();
  /// Takes the sensor's factor under this light for all sweeps of the test, or takes it off.
  void correct_by_spectrum(bool on);
  void choose_file();
  void take_out();
  void show_all();
  void show_figures(const SpectrumFigures& figures);
  /// The light whose figures are shown: the chosen spectrum, or its mix.
  std::optional<SpectralCurve> shown_light() const;
  const evaluation::SpectrumRead* chosen() const;
  QString name_of(record::Id id) const;

  Desk& desk_;
  InstrumentHub& hub_;
  std::vector<evaluation::SpectrumRead> spectra_;
  std::vector<record::MeasuredSpectrum> rows_;  ///< what spectra_ were worked out of
  SpectrumChart* chart_;
  QListWidget* list_;
  QComboBox *scale_, *mix_;
  QSpinBox* share_;
  QCheckBox* difference_;
  QPushButton *add_, *remove_;
  QLabel *figures_of_, *notes_, *problem_, *mix_with_;
  QWidget *figures_, *choices_;
  QGridLayout* grid_;
  /// The test, configuration, height and setting that the spectrometer was asked at.
  std::tuple<record::Id, record::Id, record::Id, record::Id> at_hand() const;

  std::tuple<record::Id, record::Id, record::Id, record::Id> asked_at_{};
  QPushButton *live_, *correct_;
  QLineEdit* own_band_;
  QLabel *own_share_, *own_name_, *sensor_head_, *sensor_;
  std::optional<double> sensor_factor_, sensor_uncertainty_;
  bool corrected_ = false;
};

}  // namespace sunbreak::desktop
