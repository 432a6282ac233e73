#pragma once

#include <QString>
#include <QStringList>

class QWidget;

namespace sunbreak::desktop {

/// Dialogs over files in the look of the house; empty where none was chosen.
QString file_to_open(QWidget* parent, const QString& title, const QString& folder, const QString& kinds);
QStringList files_to_open(QWidget* parent, const QString& title, const QString& folder, const QString& kinds);
/// A file that is there already is asked about once before it is named again.
QString file_to_save(QWidget* parent, const QString& title, const QString& path, const QString& kinds);
/// A name for a file that is not there yet; the caller refuses one that is.
QString new_file(QWidget* parent, const QString& title, const QString& folder, const QString& kinds,
                 const QString& ending);
QString folder_to_save_in(QWidget* parent, const QString& title, const QString& folder);

}  // namespace sunbreak::desktop
