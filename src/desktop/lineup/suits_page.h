#pragma once

#include <QTimer>
#include <atomic>

#include "desktop/desk/background.h"
#include "desktop/lineup/lineup_page.h"
#include "gathering/suits_work.h"

class QLineEdit;
class QPushButton;

namespace sunbreak::desktop {

class FiguresTable;

/// The question turned round: a room, a crop, hours, a tariff, a budget; which of the fixtures in the line-up do it.
class SuitsPage : public LineUpPage {
  Q_OBJECT
 public:
  explicit SuitsPage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;
  /// Puts the keyboard into the first field.
  void begin();
  bool working() const { return background_.working(); }
  const std::vector<std::optional<evaluation::SuitAnswer>>& answers() const { return answers_; }

 private:
  Result<evaluation::SuitQuestion> question() const;
  void work();
  void show_answers();
  void show_progress();

  LineUpScene scene_;
  bool filled_ = false;
  QLineEdit *room_, *height_, *low_, *high_, *hours_, *years_, *tariff_, *budget_;
  QComboBox *walls_, *rule_, *order_;
  QPushButton *ask_, *cancel_;
  QLabel* state_;
  FiguresTable* table_;
  std::vector<evaluation::Entrant> entrants_;  ///< that were asked about
  std::optional<evaluation::SuitQuestion> asked_;
  std::vector<std::optional<evaluation::SuitAnswer>> answers_;
  std::shared_ptr<std::atomic<int>> done_ = std::make_shared<std::atomic<int>>(0);
  QTimer tick_;
  Background background_;
};

}  // namespace sunbreak::desktop
