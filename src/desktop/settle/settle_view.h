#pragma once

#include <vector>

#include "desktop/desk/desk.h"
#include "desktop/desk/stage_view.h"
#include "evaluation/confirmation.h"

class QLabel;
class QPushButton;
class QStackedWidget;

namespace sunbreak::desktop {

class CardPage;
class CurvesPage;
class FieldPage;
class QuestionsPage;
class SettleFields;
class SettleWork;

/// How to run the fixture: which height, which dimmer setting, how many hours.
class SettleView : public StageView {
  Q_OBJECT
 public:
  enum Page { OnField, InCurves, AsQuestions, OnCard };
  explicit SettleView(Desk& desk, QWidget* parent = nullptr);

  void show_page(Page page);
  SettleWork& work() { return *work_; }
  void arrive() override;
  bool take_keyboard() override;
  std::vector<KeyHint> keys() const override;
  QString copy() override;

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  void refresh();
  void show_state();
  /// Plans the few stations that tell whether the point is as predicted, and goes to walk them.
  void confirm();

  Desk& desk_;
  SettleWork* work_;
  SettleFields* fields_;
  QLabel* state_;
  QPushButton *way_on_, *confirm_;
  QStackedWidget* pages_;
  std::vector<QPushButton*> tabs_;
  FieldPage* field_;
  CurvesPage* curves_;
  QuestionsPage* questions_;
  CardPage* card_;
  Stage way_to_ = Stage::Walk;
  /// The confirmation last looked at, while its readings are the same.
  std::shared_ptr<const evaluation::Evaluation> confirmed_of_;
  record::Id confirmed_id_ = 0;
  std::optional<evaluation::Confirmation> confirmed_;
};

}  // namespace sunbreak::desktop
