#include "desktop/read/spectrum_page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFile>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>
#include <QVBoxLayout>

#include "core/spectrum/spectral_mix.h"
#include "desktop/read/spectrum_chart.h"
#include "desktop/read/spectrum_dialog.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"
#include "evaluation/spectrum_words.h"

namespace sunbreak::desktop {
namespace {

constexpr int side_width = 348;
constexpr int row_height = 20, most_rows = 6;
constexpr std::size_t most_lines = 6;

}  // namespace

SpectrumPage::SpectrumPage(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("spectrumPage");
  auto* whole = new QVBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  auto* ground = new QWidget(this);
  ground->setObjectName("ground");
  ground->setAttribute(Qt::WA_StyledBackground);
  whole->addWidget(ground);
  auto* row = new QHBoxLayout(ground);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(12);
  auto* left = new QVBoxLayout;
  chart_ = new SpectrumChart(ground);
  left->addWidget(chart_, 1);
  notes_ = wrapped_label({}, ground);
  notes_->setObjectName("spectrumNotes");
  notes_->setProperty("quiet", true);
  left->addWidget(notes_);
  row->addLayout(left, 1);
  row->addWidget(make_side(ground));
}

QWidget* SpectrumPage::make_side(QWidget* ground) {
  auto* side = new QWidget(ground);
  side->setFixedWidth(side_width);
  QVBoxLayout* column = scrolled_column(side);
  column->setSpacing(6);
  column->addWidget(heading_label(tr("Spectra of this light"), side));
  list_ = new QListWidget(side);
  list_->setObjectName("spectra");
  list_->setAccessibleName(tr("Spectra; arrows choose whose figures are shown, Space lays one over the others"));
  column->addWidget(list_);
  auto* buttons = new QHBoxLayout;
  add_ = new QPushButton(tr("Bring one in…"), side);
  add_->setObjectName("addSpectrum");
  remove_ = new QPushButton(tr("Take it out"), side);
  remove_->setObjectName("removeSpectrum");
  buttons->addWidget(add_);
  buttons->addWidget(remove_);
  buttons->addStretch();
  column->addLayout(buttons);
  choices_ = new QWidget(side);
  auto* options = new QGridLayout(choices_);
  options->setContentsMargins(0, 0, 0, 0);
  options->setHorizontalSpacing(8);
  scale_ = new QComboBox(side);
  scale_->setObjectName("spectrumNormalization");
  scale_->setAccessibleName(tr("What spectra are brought to before they lie over each other"));
  scale_->addItem(tr("the same PPFD"));
  scale_->addItem(tr("the same peak"));
  options->addWidget(new QLabel(tr("Shown at"), side), 0, 0);
  options->addWidget(scale_, 0, 1, 1, 2);
  mix_ = new QComboBox(side);
  mix_->setObjectName("spectrumMix");
  mix_->setAccessibleName(tr("A second spectrum, mixed with the chosen one"));
  share_ = new QSpinBox(side);
  share_->setObjectName("spectrumShare");
  share_->setAccessibleName(tr("Share of the PPFD that the second gives, %"));
  share_->setRange(0, 100);
  share_->setValue(50);
  share_->setSuffix(tr(" %"));
  mix_with_ = new QLabel(tr("Mixed with"), side);
  options->addWidget(mix_with_, 1, 0);
  options->addWidget(mix_, 1, 1);
  options->addWidget(share_, 1, 2);
  options->setColumnStretch(1, 1);
  // Long names make neither of them wider than the column.
  for (QComboBox* box : {scale_, mix_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(8);
  }
  difference_ = new QCheckBox(tr("Draw what the second has more"), choices_);
  difference_->setObjectName("spectrumDifference");
  options->addWidget(difference_, 2, 0, 1, 3);
  options->addWidget(thin_rule(choices_), 3, 0, 1, 3);
  column->addWidget(choices_);
  figures_of_ = heading_label({}, side);
  figures_of_->setWordWrap(true);
  figures_of_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  column->addWidget(figures_of_);
  figures_ = new QWidget(side);
  figures_->setObjectName("spectrumFigures");
  grid_ = new QGridLayout(figures_);
  grid_->setContentsMargins(0, 0, 0, 0);
  grid_->setHorizontalSpacing(10);
  grid_->setVerticalSpacing(3);
  grid_->setColumnStretch(1, 1);
  column->addWidget(figures_);
  problem_ = wrapped_label({}, side);
  problem_->setObjectName("spectrumMixProblem");
  set_tone(problem_, "bad");
  column->addWidget(problem_);
  column->addStretch();
  connect(add_, &QPushButton::clicked, this, &SpectrumPage::choose_file);
  connect(remove_, &QPushButton::clicked, this, &SpectrumPage::take_out);
  connect(list_, &QListWidget::itemChanged, this, &SpectrumPage::show_all);
  connect(list_, &QListWidget::currentRowChanged, this, &SpectrumPage::show_all);
  connect(scale_, &QComboBox::currentIndexChanged, this, &SpectrumPage::show_all);
  connect(mix_, &QComboBox::currentIndexChanged, this, &SpectrumPage::show_all);
  connect(share_, &QSpinBox::valueChanged, this, &SpectrumPage::show_all);
  connect(difference_, &QCheckBox::toggled, this, &SpectrumPage::show_all);
  return side;
}

QString SpectrumPage::name_of(record::Id id) const {
  for (const record::MeasuredSpectrum& row : rows_)
    if (row.id == id)
      return row.percent ? tr("%1 · %2 %").arg(text_of(row.name), show_number(*row.percent)) : text_of(row.name);
  return {};
}

void SpectrumPage::refresh() {
  if (!desk_.test()) return;
  add_->setEnabled(!desk_.read_only());
  if (desk_.test()->spectra != rows_) {
    const record::Id at = chosen() ? chosen()->id : 0;
    std::vector<record::Id> known, shown;
    for (std::size_t i = 0; i < spectra_.size(); ++i) {
      known.push_back(spectra_[i].id);
      if (list_->item(static_cast<int>(i))->checkState() == Qt::Checked) shown.push_back(spectra_[i].id);
    }
    rows_ = desk_.test()->spectra;
    spectra_ = evaluation::measured_spectra(*desk_.test());
    const QSignalBlocker quiet_list(list_), quiet_mix(mix_);
    list_->clear();
    mix_->clear();
    mix_->addItem(tr("nothing"));
    int row = 0, current = 0;
    for (const evaluation::SpectrumRead& one : spectra_) {
      auto* item = new QListWidgetItem(name_of(one.id), list_);
      item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable);
      const bool is_new = std::ranges::find(known, one.id) == known.end();
      item->setCheckState(is_new || std::ranges::find(shown, one.id) != shown.end() ? Qt::Checked : Qt::Unchecked);
      if (one.id == at || (is_new && !known.empty())) current = row;
      mix_->addItem(name_of(one.id));
      ++row;
    }
    list_->setCurrentRow(spectra_.empty() ? -1 : current);
    list_->setFixedHeight(row_height * std::clamp(list_->count(), 2, most_rows) + 6);
  }
  show_all();
}

const evaluation::SpectrumRead* SpectrumPage::chosen() const {
  const int row = list_->currentRow();
  return row >= 0 && row < std::ssize(spectra_) ? &spectra_[static_cast<std::size_t>(row)] : nullptr;
}

std::optional<SpectralCurve> SpectrumPage::shown_light() const {
  const evaluation::SpectrumRead* one = chosen();
  if (!one) return std::nullopt;
  const int other = mix_->currentIndex() - 1;
  if (other < 0 || other >= std::ssize(spectra_)) return one->curve;
  auto mix = mixed(one->curve, spectra_[static_cast<std::size_t>(other)].curve, share_->value() / 100.0);
  problem_->setText(mix ? QString() : text_of(mix.problem().sentence()));
  return mix ? std::optional(SpectralCurve(std::move(mix.value()))) : std::nullopt;
}

void SpectrumPage::show_all() {
  const auto normalization = scale_->currentIndex() == 0 ? Normalization::Photons : Normalization::Peak;
  const evaluation::SpectrumRead* one = chosen();
  const int other = mix_->currentIndex() - 1;
  const bool two = one && other >= 0 && other < std::ssize(spectra_);
  problem_->clear();
  std::vector<drawing::SpectrumLine> lines;
  QStringList left_out;
  const auto add = [&](const QString& name, const SpectralCurve& curve) {
    auto light = normalized(curve, normalization);
    if (light && normalization == Normalization::Photons)
      for (double& value : light.value().values) value *= 100;
    if (!light)
      left_out << tr("%1: %2").arg(name, text_of(light.problem().sentence()));
    else if (lines.size() < most_lines)
      lines.push_back({text_of(name), std::move(light.value())});
  };
  const auto light = shown_light();
  QString scale_words = normalization == Normalization::Photons ? tr("photons per nm, % of the PPFD")
                                                                : tr("photons per nm, the highest of each is 1");
  if (two && difference_->isChecked()) {
    const evaluation::SpectrumRead& second = spectra_[static_cast<std::size_t>(other)];
    auto rest = difference(one->curve, second.curve, normalization);
    if (rest && normalization == Normalization::Photons)
      for (double& value : rest.value().values) value *= 100;
    if (rest && spectrum_problem(rest.value()) == std::nullopt)
      lines.push_back({text_of(tr("%1 less %2").arg(name_of(second.id), name_of(one->id))), std::move(rest.value())});
    else
      left_out << (rest ? tr("The two do not differ.") : text_of(rest.problem().sentence()));
  } else {
    if (two && light) add(tr("the mix"), *light);
    for (std::size_t i = 0; i < spectra_.size(); ++i)
      if (list_->item(static_cast<int>(i))->checkState() == Qt::Checked)
        add(name_of(spectra_[i].id), spectra_[i].curve);
  }
  chart_->show_lines(std::move(lines), scale_words,
                     spectra_.empty()
                         ? tr("No spectrum of this light is on record. Bring in what a spectrometer wrote: a "
                              "table, TM-27 or CGATS, as a file, pasted or dropped.")
                         : tr("No spectrum is ticked."));
  remove_->setEnabled(one && !desk_.read_only());
  for (QWidget* widget : std::initializer_list<QWidget*>{list_, remove_, choices_})
    widget->setVisible(!spectra_.empty());
  for (QWidget* widget : std::initializer_list<QWidget*>{mix_with_, mix_, share_, difference_})
    widget->setVisible(spectra_.size() > 1);
  share_->setEnabled(two);
  difference_->setEnabled(two);
  figures_of_->setText(!one  ? QString()
                       : two ? tr("%1 with %2 % of %3")
                                   .arg(name_of(one->id))
                                   .arg(share_->value())
                                   .arg(name_of(spectra_[static_cast<std::size_t>(other)].id))
                             : name_of(one->id));
  figures_->setVisible(light.has_value());
  QStringList notes;
  if (light) {
    const SpectrumFigures figures = two ? spectrum_figures(*light) : one->figures;
    show_figures(figures);
    for (const std::string& note : figures.notes) notes << text_of(note);
  }
  notes_->setText((left_out + notes).join(QStringLiteral(" ")));
  problem_->setVisible(!problem_->text().isEmpty());
}

void SpectrumPage::show_figures(const SpectrumFigures& figures) {
  const auto rows = evaluation::spectrum_rows(figures);
  for (int i = 0; i < static_cast<int>(rows.size()); ++i) {
    const evaluation::SpectrumRow& row = rows[static_cast<std::size_t>(i)];
    if (!grid_->itemAtPosition(i, 0)) {
      grid_->addWidget(quiet_label({}, figures_), i, 0, Qt::AlignTop);
      auto* value = wrapped_label({}, figures_);
      value->setTextInteractionFlags(Qt::TextSelectableByMouse);
      grid_->addWidget(value, i, 1, Qt::AlignTop);
    }
    auto* label = qobject_cast<QLabel*>(grid_->itemAtPosition(i, 0)->widget());
    auto* value = qobject_cast<QLabel*>(grid_->itemAtPosition(i, 1)->widget());
    label->setText(text_of(row.label));
    value->setText(text_of(row.value));
    value->setObjectName(QStringLiteral("spectrum_") + text_of(row.id));
    label->setToolTip(text_of(row.definition));
    value->setToolTip(text_of(row.definition));
    label->show(), value->show();
  }
  for (int i = static_cast<int>(rows.size()); i < grid_->rowCount(); ++i)
    for (int column = 0; column < 2; ++column)
      if (auto* item = grid_->itemAtPosition(i, column)) item->widget()->hide();
}

void SpectrumPage::choose_file() {
  const QString path = file_to_open(this, tr("Bring in a spectrum"), {},
                                    tr("Spectra (*.csv *.txt *.tsv *.xml *.spdx *.sp);;All files (*)"));
  if (path.isEmpty()) return;
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly))
    return desk_.say(
        tr("%1 cannot be read: %2. Check its rights.").arg(QFileInfo(path).fileName(), file.errorString()));
  bring_in(file.readAll().toStdString(), QFileInfo(path).fileName(), "file");
}

void SpectrumPage::bring_in(const std::string& bytes, const QString& origin, const std::string& source) {
  if (!desk_.test()) return;
  SpectrumDialog dialog(desk_, bytes, origin, source, this);
  dialog.exec();
  take_focus();
}

void SpectrumPage::take_out() {
  const evaluation::SpectrumRead* one = chosen();
  if (!one) return;
  const record::Id id = one->id;
  if (desk_.edits().make(tr("take out a spectrum"), [&](book::Edit& e) { e.erase<record::MeasuredSpectrum>(id); }))
    desk_.say(tr("The spectrum is out. Ctrl+Z brings it back."));
  take_focus();
}

void SpectrumPage::take_focus() {
  if (list_->count() > 0)
    list_->setFocus(Qt::OtherFocusReason);
  else
    add_->setFocus(Qt::OtherFocusReason);
}

}  // namespace sunbreak::desktop
