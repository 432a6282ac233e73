#pragma once

#include <QWidget>
#include <optional>

#include "drawing/spectrum_plot.h"

namespace sunbreak::desktop {

/// Spectra over each other; the wavelength under the mouse is read out.
class SpectrumChart : public QWidget {
 public:
  explicit SpectrumChart(QWidget* parent = nullptr);
  void show_lines(std::vector<drawing::SpectrumLine> lines, const drawing::SpectrumScale& scale,
                  const QString& empty_words);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent* event) override;

 private:
  std::vector<drawing::SpectrumLine> lines_;
  drawing::SpectrumScale scale_ = drawing::highest_is_one;
  QString empty_words_;
  std::optional<double> pointed_x_;
};

}  // namespace sunbreak::desktop
