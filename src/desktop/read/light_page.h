#pragma once

#include <QWidget>
#include <memory>
#include <optional>

#include "desktop/desk/background.h"
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
  /// What lies between the heights is worked out on another thread, once for each place stood at.
  struct Between {
    std::shared_ptr<const evaluation::Evaluation> of;
    double height_m = 0, percent = 0;
    bool operator==(const Between&) const = default;
  };
  using Predicted = std::optional<Result<evaluation::PredictedFigures>>;
  void show_found();
  void ask_between();
  void show_maps();
  void show_between();
  void take_between();

  Desk& desk_;
  std::optional<Between> asked_;
  Predicted predicted_;  ///< empty while the answer is on its way
  bool missed_ = false;  ///< trouble kept it away: it is asked for again when the page is shown anew
  QLabel *words_, *left_out_, *height_words_, *between_words_;
  FiguresTable* table_;
  LightSide* side_;
  LightMaps* maps_;
  QLineEdit *height_, *dimmer_;
  Background predicting_;
};

}  // namespace sunbreak::desktop
