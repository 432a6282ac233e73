#include "desktop/widgets/file_dialogs.h"

#include <QCoreApplication>
#include <QFileDialog>
#include <QPushButton>

namespace sunbreak::desktop {
namespace {

QString dialog_words(const char* text) { return QCoreApplication::translate("files", text); }

struct Wanted {
  QFileDialog::AcceptMode accept = QFileDialog::AcceptOpen;
  QFileDialog::FileMode mode = QFileDialog::ExistingFile;
  QString accept_words;
};

QStringList chosen(QWidget* parent, const QString& title, const QString& start, const QString& kinds,
                   const Wanted& wanted, const std::function<void(QFileDialog&)>& set = {}) {
  QFileDialog dialog(parent, title, start, kinds);
  dialog.setObjectName("fileDialog");
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.setAcceptMode(wanted.accept);
  dialog.setFileMode(wanted.mode);
  dialog.setLabelText(QFileDialog::Accept, wanted.accept_words);
  dialog.setLabelText(QFileDialog::Reject, dialog_words("Leave it"));
  for (auto* button : dialog.findChildren<QPushButton*>()) button->setIcon({});
  for (const char* way_of_looking : {"listModeButton", "detailModeButton", "forwardButton"})
    if (auto* button = dialog.findChild<QWidget*>(way_of_looking)) button->hide();
  if (set) set(dialog);
  dialog.resize(720, 480);
  return dialog.exec() == QDialog::Accepted ? dialog.selectedFiles() : QStringList();
}

QString first_of(const QStringList& files) { return files.isEmpty() ? QString() : files.first(); }

}  // namespace

QString file_to_open(QWidget* parent, const QString& title, const QString& folder, const QString& kinds) {
  return first_of(chosen(parent, title, folder, kinds, {.accept_words = dialog_words("Open")}));
}

QStringList files_to_open(QWidget* parent, const QString& title, const QString& folder, const QString& kinds) {
  return chosen(parent, title, folder, kinds,
                {.mode = QFileDialog::ExistingFiles, .accept_words = dialog_words("Open")});
}

QString file_to_save(QWidget* parent, const QString& title, const QString& path, const QString& kinds) {
  return first_of(chosen(parent, title, path, kinds,
                         {QFileDialog::AcceptSave, QFileDialog::AnyFile, dialog_words("Save")},
                         [&](QFileDialog& dialog) { dialog.selectFile(path); }));
}

QString new_file(QWidget* parent, const QString& title, const QString& folder, const QString& kinds,
                 const QString& ending) {
  return first_of(chosen(parent, title, folder, kinds,
                         {QFileDialog::AcceptSave, QFileDialog::AnyFile, dialog_words("Save")},
                         [&](QFileDialog& dialog) {
                           dialog.setOption(QFileDialog::DontConfirmOverwrite);
                           dialog.setDefaultSuffix(ending);
                         }));
}

QString folder_to_save_in(QWidget* parent, const QString& title, const QString& folder) {
  return first_of(
      chosen(parent, title, folder, {}, {QFileDialog::AcceptOpen, QFileDialog::Directory, dialog_words("Save here")}));
}

}  // namespace sunbreak::desktop
