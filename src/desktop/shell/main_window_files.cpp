#include <QDir>
#include <QFileInfo>
#include <QSettings>

#include "book/test_rows.h"
#include "core/visible.h"
#include "desktop/desk/stage_view.h"
#include "desktop/import/import_dialog.h"
#include "desktop/import/tables_dialog.h"
#include "desktop/pictures/attach_dialog.h"
#include "desktop/shell/main_window.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/question.h"
#include "desktop/widgets/text.h"
#include "exchange/files/read_file.h"
#include "exchange/package/data_package.h"
#include "exchange/tables/split_sweeps.h"

/// Files and tables that are brought in.
namespace sunbreak::desktop {
namespace {
bool is_zip_file(const QString& path) { return exchange::first_bytes(text_of(path), 2) == "PK"; }
}  // namespace

void MainWindow::choose_file() {
  const QStringList paths = files_to_open(
      this, tr("Tables of readings, a data package, or pictures"), QSettings().value("import/folder").toString(),
      tr("Tables, packages and pictures (*.csv *.tsv *.txt *.zip *.png *.jpg *.jpeg);;All files (*)"));
  if (paths.isEmpty()) return;
  QSettings().setValue("import/folder", QFileInfo(paths.first()).absolutePath());
  bring_in_files(paths);
}

void MainWindow::bring_in_files(const QStringList& paths) {
  if (std::all_of(paths.begin(), paths.end(), is_picture_file)) {
    if (!desk_->test() || !stage_)
      return desk_->say(tr("Open the test that the picture belongs to, then bring it in again."));
    attach_files(*desk_, paths, PictureOf::test(), this);
    return;
  }
  if (paths.size() == 1) return bring_in_file(paths.first());
  if (!desk_->test() || !stage_)
    return desk_->say(tr("Open the test that the readings belong to, then bring the tables in again."));
  std::vector<TableFile> files;
  for (const QString& path : paths) {
    if (is_zip_file(path)) return desk_->warn(tr("%1 is a package. Bring it in alone; nothing was taken.").arg(path));
    auto bytes = exchange::read_file(text_of(path));
    if (!bytes) return desk_->warn(text_of(bytes.problem().sentence()));
    files.push_back({QFileInfo(path).fileName(), std::move(bytes.value())});
  }
  TablesDialog dialog(*desk_, std::move(files), this);
  if (dialog.exec() == QDialog::Accepted) show_stage(Stage::Read);
}

void MainWindow::bring_in_file(const QString& path) {
  if (is_zip_file(path)) {
    record::PictureFiles pictures;
    auto test_record = exchange::read_package_file(text_of(path), &pictures);
    if (!test_record) return desk_->warn(text_of(test_record.problem().sentence()));
    if (const std::string& altered = test_record.value().test.altered;
        !altered.empty() && !taken_as_altered(path, altered))
      return;
    record::Id id = 0;
    const QString problem = desk_->edits().plan([&]() -> std::optional<Problem> {
      id = book::add_test(desk_->book(), test_record.value(), "bring in a data package", pictures);
      return {};
    });
    if (!problem.isEmpty()) return desk_->warn(problem);
    return open_test(id, Stage::Read, [this] {
      desk_->say(
          tr("%1 is in the lab book. Ctrl+Z takes it out again.").arg(text_of(record::title_of(*desk_->test()))));
    });
  }
  const auto bytes = exchange::read_file(text_of(path));
  if (!bytes) return desk_->warn(text_of(bytes.problem().sentence()));
  bring_in_table(bytes.value(), QFileInfo(path).fileName(), "file");
}

/// Lists what in a package is not as its writer left it, and asks whether it is to be taken so.
bool MainWindow::taken_as_altered(const QString& path, const std::string& altered) {
  const QStringList list{text_of(visible(altered))};
  const Question question{tr("Altered package"),
                          tr("%1 is not as its writer left it:").arg(QFileInfo(path).fileName()),
                          list,
                          "alteredPackage",
                          {{tr("Leave it"), "leaveAltered"}, {tr("Take it as it is"), "takeAltered"}}};
  if (ask(this, question) == 1) return true;
  desk_->say(tr("Nothing was taken. Ask for the package again from who measured."));
  return false;
}

void MainWindow::bring_in_table(std::string bytes, const QString& origin, const std::string& source) {
  if (!desk_->test() || !stage_ || !desk_->rung() || !desk_->stop())
    return desk_->say(tr("Open the test that the readings belong to, then bring the table in again."));
  if (front()->take_table(bytes, origin, source)) return;
  // A table that says another height or setting than the sweep at hand, or holds several, finds its own.
  std::vector<TableFile> tables;
  for (exchange::SweepPart& part : exchange::split_sweeps(bytes, surface_unit(desk_->units())))
    tables.push_back({text_of(part.name()), std::move(part.text)});
  if (tables.empty()) tables.push_back({origin, bytes});
  if (tables.size() > 1 || goes_elsewhere(*desk_, tables.front())) {
    TablesDialog dialog(*desk_, std::move(tables), this);
    if (dialog.exec() == QDialog::Accepted) show_stage(Stage::Read);
    return;
  }
  ImportDialog dialog(*desk_, std::move(bytes), origin, source, this);
  if (dialog.exec() == QDialog::Accepted) show_stage(Stage::Read);
}

}  // namespace sunbreak::desktop
