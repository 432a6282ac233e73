#pragma once

#include <QWidget>
#include <optional>
#include <string>
#include <vector>

#include "desktop/desk/desk.h"
#include "evaluation/measured_spectra.h"

class QCheckBox;
class QComboBox;
class QGridLayout;
class QLabel;
class QListWidget;
class QPushButton;
class QSpinBox;

namespace sunbreak::desktop {

class SpectrumChart;

/// Spectrum: what the light is made of. Spectra of the test lie over each other; figures are of the one that is chosen,
/// or of a mix of two.
class SpectrumPage : public QWidget {
  Q_OBJECT
 public:
  explicit SpectrumPage(Desk& desk, QWidget* parent = nullptr);
  void refresh();
  /// Brings in what was pasted, dropped or read from a file.
  void bring_in(const std::string& bytes, const QString& origin, const std::string& source);
  /// Puts the keyboard where spectra are chosen.
  void take_focus();

 private:
  QWidget* make_side(QWidget* ground);
  void choose_file();
  void take_out();
  void show_all();
  void show_figures(const SpectrumFigures& figures);
  /// The light whose figures are shown: the chosen spectrum, or its mix.
  std::optional<SpectralCurve> shown_light() const;
  const evaluation::SpectrumRead* chosen() const;
  QString name_of(record::Id id) const;

  Desk& desk_;
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
};

}  // namespace sunbreak::desktop
