#pragma once

#include <QHash>
#include <QPixmap>
#include <QWidget>
#include <set>

#include "desktop/desk/background.h"
#include "desktop/pictures/picture_of.h"

class QListWidget;
class QPushButton;

namespace sunbreak::desktop {

/// The pictures of one thing, small and side by side, with their captions: to add by file, paste or drop, to look at,
/// to take out. Files are read while the strip is in sight, beside the interface.
class PictureStrip : public QWidget {
 public:
  PictureStrip(Desk& desk, const PictureOf& of, QWidget* parent = nullptr);

  /// Shows the pictures of something else.
  void show_of(const PictureOf& of);
  void refresh();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;

 private:
  void draw_next();
  void open_chosen();
  void take_out();
  void fit_height();

  Desk& desk_;
  PictureOf of_;
  std::vector<KeptPicture> shown_;
  QListWidget* list_;
  QPushButton* paste_;
  QHash<QString, QPixmap> drawn_;  ///< by digest; a null one cannot be drawn
  Background background_;
};

}  // namespace sunbreak::desktop
