#pragma once

#include "desktop/desk/desk.h"
#include "desktop/desk/stage_view.h"
#include "desktop/read/map_settings.h"

class QLabel;
class QPushButton;
class QStackedWidget;

namespace sunbreak::desktop {

class InstrumentHub;

class AllSweeps;
class CutChart;
class FieldMap;
class ElsewherePage;
class FiguresColumn;
class LightPage;
class PicturesPage;
class ReadTools;
class RetestPage;
class SpectrumPage;
class TargetsPage;
class TrustPage;

/// Read: the map of the chosen sweep, all sweeps beside each other, how targets are met, how sure it all is; and every
/// figure that is worked out from the sweep.
class ReadView : public StageView {
  Q_OBJECT
 public:
  enum Page { MapPage, SweepsPage, TargetPage, SurePage, LightsPage, RoomsPage, RetestsPage, PhotosPage, SpectraPage };

  ReadView(Desk& desk, InstrumentHub& hub, QWidget* parent = nullptr);
  void arrive() override;
  bool take_keyboard() override;
  std::vector<KeyHint> keys() const override;
  QString copy() override;
  bool take_table(const std::string& bytes, const QString& origin, const std::string& source) override;

  MapSettings& settings() { return settings_; }
  void show_page(Page page);
  /// Shows the settings as they are now.
  void settings_changed();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QWidget* make_middle();
  QWidget* make_map_page();
  void refresh();
  void make_room();
  void offer_light();
  /// Whether the page at hand is of the whole light, where predictions are shown.
  bool of_light() const;
  QString state_words() const;
  QString difference_words() const;
  void show_cut();
  void read_out(int station);
  bool map_key(QKeyEvent* event);
  void copy_picture();
  void save_picture();
  void draw_picture(QPainter& p, const QRectF& room, bool in_vectors) const;

  Desk& desk_;
  InstrumentHub& hub_;
  MapSettings settings_;
  record::Id test_id_ = 0;  ///< that the settings are for
  QLabel *title_, *provenance_, *state_, *readout_;
  std::vector<QPushButton*> tabs_;
  QStackedWidget* pages_;
  ReadTools* tools_;
  FieldMap* map_;
  CutChart* cut_;
  AllSweeps* sweeps_;
  TargetsPage* targets_;
  TrustPage* trust_;
  LightPage* light_;
  ElsewherePage* elsewhere_;
  RetestPage* retest_;
  PicturesPage* pictures_;
  SpectrumPage* spectrum_;
  FiguresColumn* figures_;
};

}  // namespace sunbreak::desktop
