#pragma once

#include <QDialog>
#include <string>
#include <vector>

#include "desktop/desk/desk.h"
#include "exchange/spectra/spectrum_file.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace sunbreak::desktop {

class SpectrumChart;

/// A file or a block of cells with spectra: what was understood, cell by cell, what it shows, and which of them the lab
/// book is to have. Nothing enters it before.
class SpectrumDialog : public QDialog {
 public:
  SpectrumDialog(Desk& desk, std::string bytes, const QString& origin, std::string source, QWidget* parent = nullptr);

  /// The records that were taken, once it is accepted.
  const std::vector<record::Id>& taken() const { return taken_; }

 private:
  void build();
  void read();
  void show_chosen();
  void take();

  Desk& desk_;
  std::string bytes_, source_;
  QString origin_;
  exchange::SpectrumFile file_;
  std::vector<record::Id> taken_;
  QComboBox* scale_;
  QLineEdit* percent_;
  QLabel *understood_, *findings_, *problem_;
  QListWidget* list_;
  SpectrumChart* chart_;
  QPushButton* take_;
};

}  // namespace sunbreak::desktop
