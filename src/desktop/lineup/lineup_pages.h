#pragma once

#include <QWidget>
#include <memory>

#include "desktop/lineup/lineup_work.h"

class QComboBox;
class QLabel;
class QVBoxLayout;

namespace sunbreak::desktop {

class DrawnWidget;
class FiguresTable;
class LightMaps;

/// Who is chosen in a line-up; −1 for none.
struct ChosenTwo {
  int first = -1, second = -1;
};

/// What a page of Line-up is shown: the line-up, who is chosen, and everyone in the order they stand in.
struct LineUpScene {
  std::shared_ptr<const ShownLineUp> shown;
  ChosenTwo chosen;
  std::vector<int> order;
};

/// A page of the stage beside the strip.
class LineUpPage : public QWidget {
  Q_OBJECT
 public:
  explicit LineUpPage(Desk& desk, QWidget* parent = nullptr);
  virtual void show_scene(const LineUpScene& scene) = 0;
  /// A page up or down of what it shows; false where it has no pages.
  virtual bool turn(int /*by*/) { return false; }

 protected:
  Desk& desk_;
};

/// All that is to be said of the one that is chosen, and of it beside the second.
class MemberDetail : public LineUpPage {
  Q_OBJECT
 public:
  explicit MemberDetail(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;

 private:
  QLabel *head_, *words_;
  FiguresTable* figures_;
};

/// Maps of all side by side on one light scale.
class MapsPage : public LineUpPage {
  Q_OBJECT
 public:
  explicit MapsPage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;
  bool turn(int by) override;

 private:
  void show_part();
  LineUpScene scene_;
  int first_ = 0;
  std::vector<LightMaps*> rows_;
  QLabel* words_;
};

/// Any two figures against each other, with the frontier.
class ScatterPage : public LineUpPage {
  Q_OBJECT
 public:
  explicit ScatterPage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;

 private:
  void draw();
  LineUpScene scene_;
  QComboBox *x_, *y_;
  DrawnWidget* chart_;
  QLabel* words_;
};

/// Profiles through the middle, and the area at or above each PPFD, over each other.
class CurvesOverPage : public LineUpPage {
  Q_OBJECT
 public:
  explicit CurvesOverPage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;

 private:
  DrawnWidget *profiles_, *areas_;
  QLabel* words_;
};

/// Two beside each other: their maps, what one has over the other, and a sentence for each figure.
class PairPage : public LineUpPage {
  Q_OBJECT
 public:
  explicit PairPage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;

 private:
  QLabel *head_, *why_not_;
  LightMaps* maps_;
  FiguresTable* table_;
};

/// Retests of one unit over the years.
class OverTimePage : public LineUpPage {
  Q_OBJECT
 public:
  explicit OverTimePage(Desk& desk, QWidget* parent = nullptr);
  void show_scene(const LineUpScene& scene) override;

 private:
  DrawnWidget* chart_;
  QLabel* words_;
};

}  // namespace sunbreak::desktop
