#pragma once

#include <QWidget>
#include <optional>

#include "desktop/desk/desk.h"
#include "evaluation/test_light.h"

class QLabel;
class QLineEdit;

namespace sunbreak::desktop {

class FiguresTable;
class LightMaps;
class LightSide;

/// Why there is no whole light to look at yet: it is being found, or nothing is read.
QString no_light_yet(const Desk& desk);

/// The test's whole light: what the fixture gives, how it hangs, what the walls do; and any sweep between those walked.
class LightPage : public QWidget {
 public:
  explicit LightPage(Desk& desk, QWidget* parent = nullptr);
  void refresh();

 private:
  void show_found();
  using Predicted = std::optional<Result<evaluation::PredictedFigures>>;
  void show_maps(const Predicted& predicted);
  void show_between(const Predicted& predicted);
  void take_between();

  Desk& desk_;
  QLabel *words_, *left_out_, *between_words_;
  FiguresTable* table_;
  LightSide* side_;
  LightMaps* maps_;
  QLineEdit *height_, *dimmer_;
};

}  // namespace sunbreak::desktop
