#pragma once

#include <QDialog>

#include "desktop/desk/background.h"
#include "desktop/pictures/picture_of.h"

class QLabel;

namespace sunbreak::desktop {

/// One picture, as large as there is room, and its caption.
class PictureDialog : public QDialog {
 public:
  PictureDialog(Desk& desk, const KeptPicture& picture, QWidget* parent = nullptr);

 private:
  QLabel* picture_;
  Background background_;
};

}  // namespace sunbreak::desktop
