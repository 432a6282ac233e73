#include "desktop/publish/publish_view.h"

#include <QCheckBox>
#include <QDir>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <QSettings>
#include <QStandardPaths>
#include <QVBoxLayout>
#include <cerrno>

#include "desktop/paint/painter_canvas.h"
#include "desktop/publish/report_preview.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "exchange/files/new_file.h"
#include "exchange/package/data_package.h"

namespace sunbreak::desktop {

namespace fs = std::filesystem;

namespace {

constexpr int most_readings_previewed = 600, most_names_tried = 1000;

QString default_folder() {
  return QSettings()
      .value("publish/folder", QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation) + "/Sunbreak")
      .toString();
}

/// A file name from a title: letters, digits and dashes.
QString slug(const QString& title) {
  static const QRegularExpression other("[^\\p{L}\\p{N}]+");
  QString name = title.toLower().replace(other, "-");
  while (name.startsWith('-')) name.remove(0, 1);
  while (name.endsWith('-')) name.chop(1);
  return name.isEmpty() ? QStringLiteral("test") : name.left(80);
}

struct Written {
  fs::path file;
  std::optional<std::string> problem;
};

/// Writes under the first name that is still free: an earlier file is never written over.
Written write_under_free_name(const fs::path& folder, const QString& stem, const QString& ending,
                              const std::string& content) {
  std::error_code error;
  fs::create_directories(folder, error);
  if (error) return {folder, exchange::cannot_write(folder, error.value()).sentence()};
  for (int n = 1; n <= most_names_tried; ++n) {
    const QString name = n == 1 ? stem + ending : QStringLiteral("%1-%2%3").arg(stem).arg(n).arg(ending);
    const fs::path file = folder / text_of(name);
    const auto status = fs::symlink_status(file, error);
    if (fs::exists(status)) continue;
    const auto problem = exchange::write_new_file(file, content);
    return {file, problem ? std::optional(problem->sentence()) : std::nullopt};
  }
  return {folder, exchange::cannot_write(folder / text_of(stem + ending), EEXIST).sentence()};
}

}  // namespace

PublishView::PublishView(Desk& desk, QWidget* parent) : StageView(parent), desk_(desk), writing_(this) {
  preview_ = new ReportPreview(this);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(preview_, 1);
  layout->addWidget(build_side());
  connect(&desk_, &Desk::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

QWidget* PublishView::build_side() {
  auto* side = new QWidget(this);
  side->setObjectName("sideColumn");
  side->setAttribute(Qt::WA_StyledBackground);
  side->setFixedWidth(320);
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(24, 16, 24, 16);
  column->setSpacing(8);
  column->addWidget(heading_label(tr("What goes in"), side));
  all_sweeps_ = new QCheckBox(tr("All sweeps of the test"), side);
  all_sweeps_->setObjectName("allSweeps");
  readings_ = new QCheckBox(tr("Tables of readings"), side);
  for (QCheckBox* box : {all_sweeps_, readings_}) {
    box->setChecked(true);
    column->addWidget(box);
    connect(box, &QCheckBox::toggled, this, &PublishView::refresh);
  }
  column->addWidget(thin_rule(side));
  column->addWidget(heading_label(tr("Disclosure"), side));
  gaps_ = wrapped_label({}, side);
  column->addWidget(gaps_);
  fill_gaps_ = new QPushButton(tr("Fill it in on Rig"), side);
  fill_gaps_->setObjectName("fillGaps");
  connect(fill_gaps_, &QPushButton::clicked, this, [this] { emit go(Stage::Rig, first_gap_); });
  column->addWidget(fill_gaps_, 0, Qt::AlignLeft);
  column->addWidget(thin_rule(side));
  column->addWidget(heading_label(tr("Write to the folder"), side));
  auto* row = new QHBoxLayout;
  folder_ = new QLineEdit(default_folder(), side);
  folder_->setObjectName("publishFolder");
  folder_->setAccessibleName(tr("Folder to write to"));
  row->addWidget(folder_, 1);
  auto* choose = new QPushButton(tr("…"), side);
  choose->setAccessibleName(tr("Choose the folder"));
  connect(choose, &QPushButton::clicked, this, [this] {
    const QString folder = folder_to_save_in(this, tr("Folder to write to"), folder_->text());
    if (!folder.isEmpty()) folder_->setText(folder);
  });
  row->addWidget(choose);
  column->addLayout(row);
  const auto add = [&](QPushButton* button, const char* name, void (PublishView::*act)()) {
    button->setObjectName(name);
    connect(button, &QPushButton::clicked, this, act);
    column->addWidget(button);
  };
  add(primary_button(tr("Write the HTML page"), side), "writePage", &PublishView::write_page);
  add(new QPushButton(tr("Write the data package"), side), "writePackage", &PublishView::write_package);
  add(new QPushButton(tr("Write a table for a spreadsheet"), side), "writeTable", &PublishView::write_table);
  written_ = wrapped_label({}, side);
  written_->setObjectName("written");
  written_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  column->addWidget(written_);
  auto* about = wrapped_label(tr("The page needs no network and no script. From the package anyone can recompute every "
                                 "figure; Sunbreak reads it back."),
                              side);
  about->setProperty("quiet", true);
  column->addWidget(about);
  column->addStretch();
  return side;
}

void PublishView::refresh() {
  if (!desk_.test()) return;
  report::ReportOptions options = chosen_options();
  options.figures_apart = true;
  options.palette = palette_of_look();
  options.most_readings_printed = most_readings_previewed;
  preview_->show_report(whole_test(desk_), options);

  const record::TestRecord& b = *desk_.test();
  QStringList missing;
  first_gap_.clear();
  const auto need = [&](bool stated, const QString& name, const char* field) {
    if (stated) return;
    missing << name;
    if (first_gap_.isEmpty()) first_gap_ = field;
  };
  need(!b.fixture.obtained.empty(), tr("how the unit was obtained"), "obtained");
  need(!b.fixture.interest.empty(), tr("payment or interest"), "interest");
  need(!b.fixture.serial.empty(), tr("unit serial"), "serial");
  need(!b.test.tested_by.empty(), tr("who measured"), "testedBy");
  need(!b.test.tested_on.empty(), tr("when"), "testedOn");
  need(b.test.mains_v.has_value(), tr("mains voltage"), "mainsVoltage");
  need(b.test.mains_hz.has_value(), tr("mains frequency"), "mainsFrequency");
  fill_gaps_->setVisible(!missing.isEmpty());
  gaps_->setText(missing.isEmpty() ? tr("Everything is stated.")
                                   : marked_attention(tr("Will read “not stated”: %1.").arg(missing.join(", "))));
  set_tone(gaps_, missing.isEmpty() ? "good" : "attention");
}

void PublishView::write(const QString& ending, std::function<std::string()> make) {
  waiting_.push_back({ending, std::move(make)});
  go_on_writing();
}

/// Makes and writes the next file beside the interface and says what came of it.
void PublishView::go_on_writing() {
  if (writing_.working() || waiting_.empty() || !desk_.test()) return;
  auto [ending, make] = std::move(waiting_.front());
  waiting_.pop_front();
  const QString stem = slug(text_of(record::title_of(*desk_.test()))), folder = folder_->text();
  written_->setText(tr("Writing %1…").arg(stem + ending));
  set_tone(written_, "");
  writing_.ask(
      [folder, stem, ending, make = std::move(make)](auto) -> Written {
        try {
          return write_under_free_name(text_of(folder), stem, ending, make());
        } catch (const std::exception& e) {
          return {text_of(stem + ending),
                  text_of(tr("%1 could not be made (%2).").arg(stem + ending, QString::fromUtf8(e.what())))};
        }
      },
      [this, folder](const Written& written) {
        if (!written.problem) QSettings().setValue("publish/folder", folder);
        written_->setText(written.problem ? text_of(*written.problem)
                                          : tr("Written: %1").arg(text_of(written.file.string())));
        set_tone(written_, written.problem ? "bad" : "good");
        go_on_writing();
      });
}

report::ReportOptions PublishView::chosen_options() const {
  report::ReportOptions options;
  options.units = desk_.units();
  options.readings_table = readings_->isChecked();
  if (!all_sweeps_->isChecked() && desk_.sweep()) options.sweeps = {desk_.sweep()->id};
  return options;
}

void PublishView::write_page() {
  if (!desk_.test()) return;
  write(".html", [whole = whole_test(desk_), options = chosen_options()] { return page_of(whole(), options).html; });
}

void PublishView::write_package() {
  if (!desk_.test()) return;
  write(".zip", [get = whole_test(desk_)] {
    const WholeTest whole = get();
    return exchange::zip_bytes(
        exchange::make_package(*whole.record, whole.evaluations, whole.pictures,
                                                     exchange::WithLight::Yes, whole.audits()));
  });
}

void PublishView::write_table() {
  if (!desk_.test()) return;
  write(".csv", [whole = whole_test(desk_)] { return exchange::spreadsheet_csv(whole().evaluations); });
}

void PublishView::arrive() {
  written_->clear();
  refresh();
  preview_->setFocus(Qt::OtherFocusReason);
}

bool PublishView::page(int by) {
  preview_->page(by);
  return true;
}

std::vector<KeyHint> PublishView::keys() const {
  return {{tr("Page Up, Page Down"), tr("scroll the preview")},
          {tr("Tab"), tr("to what goes in and the files to write")}};
}

}  // namespace sunbreak::desktop
