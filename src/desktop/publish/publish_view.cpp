#include "desktop/publish/publish_view.h"

#include <QCheckBox>
#include <QClipboard>
#include <QDesktopServices>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSettings>
#include <QUrl>
#include <QVBoxLayout>
#include <map>

#include "book/target_shelf.h"
#include "desktop/paint/painter_canvas.h"
#include "desktop/publish/form_list.h"
#include "desktop/publish/parts_dialog.h"
#include "desktop/publish/publish_folder.h"
#include "desktop/publish/publish_log.h"
#include "desktop/publish/report_preview.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "exchange/files/digest.h"

namespace sunbreak::desktop {

namespace fs = std::filesystem;

namespace {

constexpr int most_readings_previewed = 600, most_names_tried = 1000;

/// Where a form goes: over the file that was written of it last, where nobody changed that since; else under the first
/// name that is free.
std::pair<fs::path, exchange::Existing> place_for(const fs::path& usual, const std::optional<LastWritten>& last) {
  if (last && last->is_own(usual)) return {usual, exchange::Existing::Replace};
  std::error_code error;
  fs::path file = usual;
  for (int n = 2; n <= most_names_tried && fs::exists(fs::symlink_status(file, error)); ++n)
    file = usual.parent_path() / (usual.stem().string() + "-" + std::to_string(n) + usual.extension().string());
  return {file, exchange::Existing::Keep};
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
  all_sweeps_->setChecked(true);
  connect(all_sweeps_, &QCheckBox::toggled, this, &PublishView::refresh);
  column->addWidget(all_sweeps_);
  parts_ = new QPushButton(side);
  parts_->setObjectName("pageParts");
  connect(parts_, &QPushButton::clicked, this, &PublishView::choose_parts);
  column->addWidget(parts_, 0, Qt::AlignLeft);
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
  folder_ = new QLineEdit(publish_folder(), side);
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
  forms_ = new FormList(side);
  connect(forms_, &FormList::wanted, this, [this](const publishing::Form* form) { write({form}); });
  column->addWidget(forms_, 1);
  auto* acts = new QHBoxLayout;
  write_all_ = primary_button(tr("W  Write what is ticked"), side);
  write_all_->setObjectName("writeTicked");
  connect(write_all_, &QPushButton::clicked, this, [this] { write(forms_->ticked()); });
  acts->addWidget(write_all_, 1);
  stop_ = new QPushButton(tr("Esc  Stop"), side);
  stop_->setObjectName("stopWriting");
  stop_->hide();
  connect(stop_, &QPushButton::clicked, this, &PublishView::stop_writing);
  acts->addWidget(stop_);
  column->addLayout(acts);
  written_ = wrapped_label({}, side);
  written_->setObjectName("written");
  written_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  column->addWidget(written_);
  after_ = new QWidget(side);
  auto* after = new QHBoxLayout(after_);
  after->setContentsMargins(0, 0, 0, 0);
  after->setSpacing(4);
  const auto act = [&](const QString& text, const char* name, auto what) {
    auto* button = new QPushButton(text, after_);
    button->setProperty("plain", true);
    button->setObjectName(name);
    connect(button, &QPushButton::clicked, this, what);
    after->addWidget(button);
  };
  act(tr("O Open"), "openWritten",
      [this] { QDesktopServices::openUrl(QUrl::fromLocalFile(text_of(last_file_.string()))); });
  act(tr("F Folder"), "showWritten",
      [this] { QDesktopServices::openUrl(QUrl::fromLocalFile(text_of(last_file_.parent_path().string()))); });
  act(tr("P Copy path"), "copyWritten", [this] {
    QGuiApplication::clipboard()->setText(text_of(last_file_.string()));
    desk_.say(tr("The file's path is on the clipboard."));
  });
  after->addStretch();
  after_->hide();
  column->addWidget(after_);
  return side;
}

void PublishView::refresh() {
  if (!desk_.test()) return;
  const std::size_t out = report::all_parts.count() - chosen_parts().count();
  parts_->setText(out == 0 ? tr("T  All parts of the page…") : tr("T  Parts of the page, %1 left out…").arg(out));
  report::ReportOptions options = chosen_options();
  options.palette = palette_of_look();
  options.most_readings_printed = most_readings_previewed;
  preview_->show_report(whole_test(desk_), options);

  const record::TestRecord& b = *desk_.test();
  forms_->show_standing(PublishLog(desk_.book(), b.test.id), b);
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

void PublishView::write(const std::vector<const publishing::Form*>& forms) {
  if (!desk_.test() || forms.empty()) return;
  waiting_.insert(waiting_.end(), forms.begin(), forms.end());
  go_on_writing();
}

/// Makes and writes all that waits beside the interface, and says what came of it.
void PublishView::go_on_writing() {
  if (writing_.working() || waiting_.empty() || !desk_.test()) return;
  const std::vector<const publishing::Form*> forms(waiting_.begin(), waiting_.end());
  waiting_.clear();
  ++job_;
  to_write_ = static_cast<int>(forms.size()), done_ = files_ = 0;
  troubles_.clear();
  stop_->show();
  set_tone(written_, "");
  written_->setText(
      tr("Writing %1…").arg(to_write_ == 1 ? text_of(forms.front()->label) : tr("%1 files").arg(to_write_)));
  const record::Id test = desk_.test()->test.id;
  const PublishLog log(desk_.book(), test);
  std::map<const publishing::Form*, std::optional<LastWritten>> lasts;
  for (const publishing::Form* form : forms) lasts[form] = log.last(text_of(form->id));
  writing_.ask(
      [this, job = job_, test, forms, lasts, state = log.now(), folder = text_of(folder_->text()),
       get = whole_test(desk_), options = chosen_options()](std::stop_token stop) {
        WholeTest whole = get();
        publishing::Publication p;
        p.whole = whole.record, p.evaluations = whole.evaluations, p.pictures = whole.pictures;
        p.earlier = whole.earlier, p.audit = whole.audits, p.line_up = whole.line_up;
        p.sweeps = options.sweeps, p.parts = options.parts, p.units = options.units;
        p.targets = options.targets;
        // Where people measure in inches, paper is Letter.
        p.paper = options.units == UnitSystem::Imperial ? publishing::Paper::Letter : publishing::Paper::A4;
        const auto files = publishing::publish(
            p, forms, folder,
            [&](const publishing::Form& form, const fs::path& usual) { return place_for(usual, lasts.at(&form)); },
            [&](const publishing::Written& w) {
              LastWritten as = state;
              for (const fs::path& file : w.files) as.files.emplace_back(file, exchange::digest_of_file(file));
              QMetaObject::invokeMethod(
                  this, [this, job, test, w, as] { take_written(job, test, w, as); }, Qt::QueuedConnection);
            },
            stop);
        return static_cast<int>(files.size());
      },
      [this, folder = folder_->text()](int) {
        stop_->hide();
        if (troubles_.isEmpty()) keep_publish_folder(folder);
        show_last();
        go_on_writing();
      },
      [this] {
        waiting_.clear();
        stop_->hide();
        set_tone(written_, "bad");
        written_->setText(tr("%1, none of them half: the message below says why.").arg(written_so_far()));
      });
}

void PublishView::take_written(int job, record::Id test, const publishing::Written& w, const LastWritten& as) {
  const PublishLog log(desk_.book(), test);
  if (!w.problem) log.keep(text_of(w.form->id), as);  // of a job that was stopped, too
  if (desk_.test() && desk_.test()->test.id == test) forms_->show_standing(log, *desk_.test());
  if (job != job_) return;
  ++done_;
  if (w.problem) troubles_ << text_of(w.problem->sentence());
  files_ += static_cast<int>(w.files.size());
  if (!w.files.empty()) last_file_ = w.files.back();
  if (done_ < to_write_) written_->setText(tr("%1…").arg(written_so_far()));
}

/// A form may be one file or many: what is counted is called by its name.
QString PublishView::written_so_far() const {
  return tr("%1 of %2 are written (%3)")
      .arg(done_ - static_cast<int>(troubles_.size()))
      .arg(counted(to_write_, tr("form"), tr("forms")), counted(files_, tr("file"), tr("files")));
}

void PublishView::show_last() {
  after_->setVisible(files_ > 0);
  if (!troubles_.isEmpty()) {
    set_tone(written_, "bad");
    return written_->setText((files_ > 0 ? written_so_far() + ".\n" : QString()) + troubles_.join("\n"));
  }
  set_tone(written_, "good");
  written_->setText(files_ == 1
                        ? tr("Written: %1").arg(text_of(last_file_.string()))
                        : tr("Written: %1 files in %2").arg(files_).arg(text_of(last_file_.parent_path().string())));
}

void PublishView::stop_writing() {
  if (!writing_.working()) return;
  writing_.drop();
  waiting_.clear();
  ++job_;
  stop_->hide();
  set_tone(written_, "attention");
  written_->setText(tr("Stopped: %1, none of them half.").arg(written_so_far()));
}

report::ReportOptions PublishView::chosen_options() const {
  report::ReportOptions options;
  options.units = desk_.units();
  options.parts = chosen_parts();
  options.targets = book::crop_targets(desk_.book());
  if (!all_sweeps_->isChecked() && desk_.sweep()) options.sweeps = {desk_.sweep()->id};
  return options;
}

void PublishView::choose_parts() {
  PartsDialog dialog(chosen_parts(), this);
  connect(&dialog, &PartsDialog::changed, this, [this](const report::PageParts& parts) {
    keep_parts(parts);
    refresh();
  });
  dialog.exec();
}

void PublishView::arrive() {
  written_->clear();
  after_->hide();
  refresh();
  take_keyboard();
}

bool PublishView::take_keyboard() {
  preview_->setFocus(Qt::OtherFocusReason);
  return true;
}

bool PublishView::page(int by) {
  preview_->page(by);
  return true;
}

std::vector<KeyHint> PublishView::keys() const {
  return {{tr("Page Up, Page Down"), tr("scroll the preview")},
          {tr("Tab"), tr("to what goes in and the files to write")},
          {"T", tr("which parts the page has")},
          {"W", tr("write all that is ticked")},
          {tr("O, F, P"), tr("what was written: open it, its folder, copy its path")}};
}

void PublishView::keyPressEvent(QKeyEvent* event) {
  const auto click = [](QWidget* within, const char* name) {
    if (auto* button = within->findChild<QPushButton*>(name); button && !within->isHidden()) button->click();
  };
  if (event->modifiers() == Qt::NoModifier) switch (event->key()) {
      case Qt::Key_W:
        return write_all_->click();
      case Qt::Key_T:
        return parts_->click();
      case Qt::Key_O:
        return click(after_, "openWritten");
      case Qt::Key_F:
        return click(after_, "showWritten");
      case Qt::Key_P:
        return click(after_, "copyWritten");
      case Qt::Key_Escape:
        if (writing_.working()) return stop_writing();
        break;
      default:
        break;
    }
  StageView::keyPressEvent(event);
}

}  // namespace sunbreak::desktop
