#pragma once

#include <QWidget>
#include <map>

#include "desktop/desk/desk.h"
#include "desktop/read/map_settings.h"

class QBoxLayout;
class QComboBox;
class QPushButton;
class QToolButton;
class QAction;

namespace sunbreak::desktop {

/// The row of choices over the map: what it shows, how, and what is drawn on it.
class ReadTools : public QWidget {
  Q_OBJECT
 public:
  ReadTools(Desk& desk, MapSettings& settings, QWidget* parent = nullptr);
  /// The choice of the sweep that a difference is taken from, for a place where nothing else moves for it.
  QWidget* other_choice() const;
  /// Adds the menu of the picture to a row that every page shows.
  void add_picture_menu(QBoxLayout& to);
  /// Shows the settings as they are.
  void refresh();
  void choose(Quantity quantity);
  /// The next sweep to take the difference from.
  void step_other();

 signals:
  void changed();
  void wants_cut();
  void wants_picture_copied();
  void wants_picture_saved();

 private:
  QToolButton* menu_button(const QString& text, const char* name);
  QPushButton* toggle(const QString& text, const QString& tip, const char* name);

  Desk& desk_;
  MapSettings& settings_;
  std::map<Quantity, QPushButton*> quantities_;
  QPushButton *numbers_, *contours_, *cut_;
  QComboBox* other_;
  QToolButton* drawn_ = nullptr;
  std::vector<std::pair<QAction*, bool MapSettings::*>> drawn_actions_;
};

}  // namespace sunbreak::desktop
