#include "desktop/read/spectrum_dialog.h"

#include <QComboBox>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "core/spectrum/spectral_mix.h"
#include "desktop/read/spectrum_chart.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/take_or_leave.h"
#include "desktop/widgets/text.h"
#include "record/configurations.h"
#include "record/spectrum_samples.h"

namespace sunbreak::desktop {

SpectrumDialog::SpectrumDialog(Desk& desk, std::string bytes, const QString& origin, std::string source,
                               QWidget* parent)
    : QDialog(parent), desk_(desk), bytes_(std::move(bytes)), source_(std::move(source)), origin_(origin) {
  setObjectName("spectrumDialog");
  setWindowTitle(tr("Bring in a spectrum"));
  resize(900, 640);
  build();
  read();
}

void SpectrumDialog::build() {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(8);
  auto* head = figure_label(20, this);
  head->setText(tr("Spectra of %1").arg(origin_));
  layout->addWidget(head);
  auto* choices = new QHBoxLayout;
  choices->addWidget(new QLabel(tr("Values are"), this));
  scale_ = new QComboBox(this);
  scale_->setObjectName("spectrumScale");
  scale_->setAccessibleName(tr("What the values are in proportion to"));
  scale_->addItem(tr("as the file says"));
  scale_->addItem(tr("photons per nm"));
  scale_->addItem(tr("power per nm"));
  choices->addWidget(scale_);
  choices->addSpacing(16);
  choices->addWidget(new QLabel(tr("Dimmer setting, %"), this));
  percent_ = new QLineEdit(this);
  percent_->setObjectName("spectrumPercent");
  percent_->setAccessibleName(tr("Dimmer setting that it was taken at, %"));
  percent_->setFixedWidth(64);
  if (desk_.stop()) percent_->setText(show_number(desk_.stop()->percent));
  choices->addWidget(percent_);
  choices->addStretch();
  layout->addLayout(choices);
  understood_ = wrapped_label({}, this);
  understood_->setObjectName("understood");
  layout->addWidget(understood_);
  auto* middle = new QHBoxLayout;
  list_ = new QListWidget(this);
  list_->setObjectName("spectraOfFile");
  list_->setAccessibleName(tr("Spectra of the file; Space takes or leaves one"));
  list_->setFixedWidth(220);
  middle->addWidget(list_);
  chart_ = new SpectrumChart(this);
  middle->addWidget(chart_, 1);
  layout->addLayout(middle, 1);
  findings_ = wrapped_label({}, this);
  findings_->setObjectName("findings");
  findings_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setWidget(findings_);
  scroll->setMaximumHeight(104);
  scroll->setAccessibleName(tr("What was noticed in the file"));
  layout->addWidget(scroll);
  problem_ = wrapped_label({}, this);
  problem_->setObjectName("spectrumProblem");
  set_tone(problem_, "bad");
  layout->addWidget(problem_);
  take_ = take_or_leave(*this, *layout, tr("Take what is ticked"), "takeSpectra");
  connect(take_, &QPushButton::clicked, this, &SpectrumDialog::take);
  connect(scale_, &QComboBox::currentIndexChanged, this, &SpectrumDialog::read);
  connect(list_, &QListWidget::itemChanged, this, &SpectrumDialog::show_chosen);
}

void SpectrumDialog::read() {
  exchange::SpectrumOptions options;
  if (scale_->currentIndex() > 0)
    options.scale = scale_->currentIndex() == 1 ? SpectralScale::Photons : SpectralScale::Power;
  auto read = exchange::read_spectra(bytes_, options);
  const QSignalBlocker quiet(list_);
  list_->clear();
  if (!read) {
    file_ = {};
    understood_->clear();
    findings_->clear();
    problem_->setText(text_of(read.problem().sentence()));
    return show_chosen();
  }
  file_ = std::move(read.value());
  QStringList understood, findings;
  for (const std::string& words : file_.understood) understood << text_of(words);
  understood_->setText(tr("Understood: %1.").arg(understood.join(QStringLiteral("; "))));
  for (const exchange::SpectrumDraft& draft : file_.spectra) {
    const QString title = draft.title.empty() ? tr("spectrum %1").arg(draft.column) : text_of(draft.title);
    auto* item = new QListWidgetItem(title, list_);
    item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable);
    item->setCheckState(Qt::Checked);
    item->setToolTip(title);
    for (const exchange::Finding& f : draft.findings)
      findings << (f.row > 0 ? tr("row %1: %2").arg(f.row).arg(text_of(f.words)) : text_of(f.words));
  }
  findings.removeDuplicates();
  findings_->setText(findings.isEmpty() ? tr("Nothing odd was noticed.") : findings.join(QStringLiteral("\n")));
  list_->setCurrentRow(0);
  problem_->setText(
      file_.scale_needed
          ? tr("Nothing in the file says whether its values are photons or power, and all figures depend on "
               "that. Choose it above.")
          : QString());
  show_chosen();
}

void SpectrumDialog::show_chosen() {
  std::vector<drawing::SpectrumLine> lines;
  bool any = false;
  for (int i = 0; i < list_->count(); ++i) {
    if (list_->item(i)->checkState() != Qt::Checked) continue;
    any = true;
    if (lines.size() == 6) continue;
    if (auto light =
            normalized(SpectralCurve(file_.spectra[static_cast<std::size_t>(i)].spectrum), Normalization::Peak))
      lines.push_back({text_of(list_->item(i)->text()), std::move(light.value())});
  }
  chart_->show_lines(std::move(lines), drawing::highest_is_one,
                     any ? tr("Nothing to be shown.") : tr("No spectrum is ticked."));
  problem_->setVisible(!problem_->text().isEmpty());
  take_->setEnabled(any && !file_.scale_needed && !desk_.read_only());
}

void SpectrumDialog::take() {
  const auto percent = percent_->text().trimmed().isEmpty() ? std::nullopt : typed_number(percent_->text());
  if (!percent_->text().trimmed().isEmpty() && !(percent && *percent >= 0 && *percent <= 200)) {
    problem_->setText(tr("'%1' is no dimmer setting from 0 to 200 %. Leave it empty where it is not known.")
                          .arg(percent_->text().left(40)));
    problem_->show();
    return percent_->setFocus();
  }
  std::vector<record::MeasuredSpectrum> rows;
  for (int i = 0; i < list_->count(); ++i) {
    if (list_->item(i)->checkState() != Qt::Checked) continue;
    const exchange::SpectrumDraft& draft = file_.spectra[static_cast<std::size_t>(i)];
    record::MeasuredSpectrum row;
    row.test_id = desk_.test()->test.id;
    row.name = draft.title.empty() ? text_of(QFileInfo(origin_).completeBaseName()) : draft.title;
    record::put_spectrum(row, draft.spectrum);
    row.source = source_;
    row.origin = text_of(origin_) + (file_.spectra.size() > 1 ? ", spectrum " + std::to_string(draft.column) : "");
    row.percent = percent;
    row.configuration_id = record::configuration_of(*desk_.test());
    rows.push_back(std::move(row));
  }
  std::vector<record::Id> ids;
  const bool kept = desk_.edits().make(tr("spectrum"), [&](book::Edit& e) {
    ids.clear();
    for (const record::MeasuredSpectrum& row : rows) ids.push_back(e.add(row));
  });
  if (!kept) return;
  taken_ = ids;
  desk_.say(tr("%1 in the lab book. Ctrl+Z takes that back.")
                .arg(counted(static_cast<qsizetype>(ids.size()), tr("spectrum is"), tr("spectra are"))));
  accept();
}

}  // namespace sunbreak::desktop
