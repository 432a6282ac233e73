#pragma once

#include <QDialog>
#include <functional>
#include <optional>

#include "core/result.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPainter;

namespace sunbreak::desktop {

/// Draws a picture into a room; `in_vectors` where it has no pixels.
using DrawPicture = std::function<void(QPainter&, const QRectF&, bool in_vectors)>;

/// A picture of so many pixels, on the ground of the look.
QImage picture(const DrawPicture& draw, const QSize& size);

/// Writes it as PNG or SVG, by the file's ending; a Problem where it cannot be written.
std::optional<Problem> write_picture(const DrawPicture& draw, const QSize& size, const QString& file);

/// Asks for kind and size of a picture, then for the file.
class SavePicture : public QDialog {
 public:
  SavePicture(DrawPicture draw, const QString& name, QWidget* parent = nullptr);

 private:
  void save();
  DrawPicture draw_;
  QString name_;
  QComboBox* kind_;
  QLineEdit *width_, *height_;
  QLabel* problem_;
};

}  // namespace sunbreak::desktop
