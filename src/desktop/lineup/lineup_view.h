#pragma once

#include <vector>

#include "desktop/desk/desk.h"
#include "desktop/desk/stage_view.h"
#include "desktop/lineup/lineup_page.h"
#include "desktop/lineup/lineup_writing.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QStackedWidget;

namespace sunbreak::desktop {

class LineUpStrip;
class MemberDetail;
class LineUpWork;
class SuitsPage;
class WayField;

/// Line-up: fixtures held against each other by one figure, in one declared way.
class LineUpView : public StageView {
  Q_OBJECT
 public:
  enum Page { OnStrip, AsMaps, AsScatter, AsCurves, AsPair, AsSuits, OverTime };
  explicit LineUpView(Desk& desk, QWidget* parent = nullptr);

  void show_page(Page page);
  LineUpWork& work() { return *work_; }
  void arrive() override;
  bool take_keyboard() override;
  std::vector<KeyHint> keys() const override;
  QString copy() override;
  bool page(int by) override;

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;

 private:
  void refresh();
  void show_state();
  void show_scene();
  /// Asks for what is asked now with one thing of it changed.
  void change(const std::function<void(record::SavedLineUp&)>& change);
  /// Makes the chosen one's group comparable with the first, by the first way that does.
  void use_switch();
  void leave_out();
  /// Over the kept one that is open, or as another.
  void save(bool as_another);
  /// Asks for an index of the user's own.
  void weigh();
  void show_kept();
  void choose_guests();
  void add_guests(const QStringList& paths);
  void fill_ways();

  Desk& desk_;
  LineUpWork* work_;
  LineUpStrip* strip_;
  QComboBox *figure_, *sure_;
  WayField* way_;
  QLineEdit* filter_;
  QLabel *declared_, *state_;
  QPushButton *cancel_, *guests_, *save_, *kept_;
  QStackedWidget* pages_;
  std::vector<QPushButton*> tabs_;
  std::vector<LineUpPage*> shown_pages_;
  MemberDetail* detail_;
  SuitsPage* suits_;
  LineUpWriting writing_;
};

}  // namespace sunbreak::desktop
