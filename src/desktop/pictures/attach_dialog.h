#pragma once

#include <QDialog>

#include "desktop/desk/background.h"
#include "desktop/pictures/picture_of.h"

class QComboBox;
class QLabel;
class QLineEdit;

namespace sunbreak::desktop {

/// Attaches one picture: shows it, says what of it is not kept, and asks what it shows and what it is of.
class AttachDialog : public QDialog {
 public:
  AttachDialog(Desk& desk, pictures::CleanPicture picture, const QString& origin, const PictureOf& of,
               QWidget* parent = nullptr);

 private:
  void attach();

  Desk& desk_;
  pictures::CleanPicture picture_;
  QString origin_;
  std::vector<std::pair<PictureOf, QString>> owners_;
  QLabel *preview_, *told_;
  QLineEdit* caption_;
  QComboBox *kind_, *of_;
  Background background_;
};

/// Asks for a picture's file and attaches it; says what is wrong with one that cannot be. False where none was.
bool attach_from_file(Desk& desk, const PictureOf& of, QWidget* parent);
/// The same of files, one after the other.
bool attach_files(Desk& desk, const QStringList& paths, const PictureOf& of, QWidget* parent);
/// The same of what the clipboard holds: a picture, or the names of files.
bool attach_from_clipboard(Desk& desk, const PictureOf& of, QWidget* parent);
/// Whether the clipboard holds either.
bool clipboard_holds_picture();
/// Whether it holds nothing else: a spreadsheet copies a picture of its cells beside their text.
bool clipboard_holds_only_picture();

/// Whether a file's first bytes are those of a picture that can be attached.
bool is_picture_file(const QString& path);

}  // namespace sunbreak::desktop
