#include "desktop/read/spectrum_page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QShortcut>
#include <QSpinBox>
#include <QVBoxLayout>

#include "core/spectrum/spectral_mix.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/read/spectrum_chart.h"
#include "desktop/read/spectrum_dialog.h"
#include "desktop/widgets/elided_combo.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"
#include "evaluation/sensor_spectrum.h"
#include "evaluation/spectrum_words.h"
#include "exchange/files/read_file.h"
#include "record/configurations.h"
#include "record/spectrum_samples.h"

namespace sunbreak::desktop {
namespace {

constexpr int side_width = 348;
constexpr int row_height = 20, most_rows = 6;
constexpr std::size_t most_lines = 6;

}  // namespace

SpectrumPage::SpectrumPage(Desk& desk, InstrumentHub& hub, QWidget* parent) : QWidget(parent), desk_(desk), hub_(hub) {
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
  live_ = new QPushButton(tr("Read it (L)"), side);
  live_->setObjectName("liveSpectrum");
  live_->setToolTip(tr("Asks the spectrometer; its spectrum is kept at the height and setting at hand"));
  buttons->addWidget(live_);
  buttons->addWidget(add_);
  buttons->addWidget(remove_);
  buttons->addStretch();
  column->addLayout(buttons);
  choices_ = new QWidget(side);
  auto* options = new QGridLayout(choices_);
  options->setContentsMargins(0, 0, 0, 0);
  options->setHorizontalSpacing(8);
  constexpr int letters = 8;  // long names make neither of them wider than the column
  scale_ = new ElidedCombo(letters, side);
  scale_->setObjectName("spectrumNormalization");
  scale_->setAccessibleName(tr("What spectra are brought to before they lie over each other"));
  scale_->addItem(tr("the same PPFD"));
  scale_->addItem(tr("the same peak"));
  options->addWidget(new QLabel(tr("Shown at"), side), 0, 0);
  options->addWidget(scale_, 0, 1, 1, 2);
  mix_ = new ElidedCombo(letters, side);
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
  auto* own = new QHBoxLayout;
  own_name_ = quiet_label(tr("Own band, nm"), side);
  own->addWidget(own_name_);
  own_band_ = new QLineEdit(side);
  own_band_->setObjectName("ownBand");
  own_band_->setAccessibleName(tr("Own band of photons, from and to in nm"));
  own_band_->setPlaceholderText(tr("640–680"));
  own_band_->setFixedWidth(92);
  own->addWidget(own_band_);
  own_share_ = new QLabel(side);
  own_share_->setObjectName("ownShare");
  own_share_->setWordWrap(true);
  own->addWidget(own_share_, 1);
  column->addLayout(own);
  build_sensor(*column, side);
  problem_ = wrapped_label({}, side);
  problem_->setObjectName("spectrumMixProblem");
  set_tone(problem_, "bad");
  column->addWidget(problem_);
  column->addStretch();
  connect(add_, &QPushButton::clicked, this, &SpectrumPage::choose_file);
  connect(live_, &QPushButton::clicked, this, &SpectrumPage::read_live);
  auto* ask = new QShortcut(QKeySequence(Qt::Key_L), this);
  ask->setContext(Qt::WidgetWithChildrenShortcut);
  connect(ask, &QShortcut::activated, this, &SpectrumPage::read_live);
  connect(&hub_, &InstrumentHub::spectrum_taken, this, &SpectrumPage::take_live);
  connect(&hub_, &InstrumentHub::spectrum_failed, this, [this](const QString& words) {
    live_->setEnabled(!desk_.read_only());
    if (isVisible()) desk_.warn(words);
  });
  connect(own_band_, &QLineEdit::textChanged, this, [this] { show_own_band(shown_light()); });
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
    if (row.id == id) return text_of(evaluation::spectrum_name(row));
  return {};
}

void SpectrumPage::refresh() {
  if (!desk_.test()) return;
  add_->setEnabled(!desk_.read_only());
  live_->setEnabled(!desk_.read_only());
  show_sensor();
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
    if (!light)
      left_out << tr("%1: %2").arg(name, text_of(light.problem().sentence()));
    else if (lines.size() < most_lines)
      lines.push_back({text_of(name), std::move(light.value())});
  };
  const auto light = shown_light();
  const drawing::SpectrumScale scale =
      normalization == Normalization::Photons ? drawing::percent_of_ppfd : drawing::highest_is_one;
  if (two && difference_->isChecked()) {
    const evaluation::SpectrumRead& second = spectra_[static_cast<std::size_t>(other)];
    auto rest = difference(one->curve, second.curve, normalization);
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
  chart_->show_lines(std::move(lines), scale,
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
  own_name_->setVisible(light.has_value());
  own_band_->setVisible(light.has_value());
  show_own_band(light);
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

void SpectrumPage::build_sensor(QVBoxLayout& column, QWidget* side) {
  sensor_head_ = heading_label(tr("The sensor under this light"), side);
  column.addWidget(sensor_head_);
  sensor_ = wrapped_label({}, side);
  sensor_->setObjectName("sensorUnderLight");
  column.addWidget(sensor_);
  correct_ = new QPushButton(side);
  correct_->setObjectName("correctBySpectrum");
  auto* row = new QHBoxLayout;
  row->addWidget(correct_);
  row->addStretch();
  column.addLayout(row);
  connect(correct_, &QPushButton::clicked, this, [this] { correct_by_spectrum(!corrected_); });
}

void SpectrumPage::show_sensor() {
  const auto told = evaluation::spectral_correction_here(*desk_.test());
  const auto& sweeps = desk_.test()->sweeps;
  corrected_ = std::ranges::any_of(sweeps, [](const record::Sweep& s) { return s.spectral_factor != 1; });
  sensor_factor_.reset();
  QString words;
  if (told && *told) {
    const SpectralCorrection& c = told->value();
    sensor_factor_ = c.factor, sensor_uncertainty_ = c.standard_uncertainty;
    words = tr("Its readings × %1 ± %2 are PPFD here. ")
                .arg(c.factor, 0, 'f', 3)
                .arg(2 * c.factor * c.standard_uncertainty, 0, 'f', 3);
    words += c.finding.empty() ? tr("It is within 2 % under this light.") : text_of(c.finding);
    for (const std::string& note : c.notes) words += QStringLiteral(" ") + text_of(note);
  } else if (told) {
    words = text_of(told->problem().sentence());
  } else {
    words = tr("Its response is not on record: bring it in with the sensor, on Home.");
  }
  if (corrected_) words += tr(" All sweeps are corrected by a factor of the spectrum.");
  sensor_->setText(words);
  const bool shown = !desk_.test()->spectra.empty();
  sensor_head_->setVisible(shown);
  sensor_->setVisible(shown);
  correct_->setVisible(shown && (sensor_factor_ || corrected_));
  correct_->setText(corrected_ ? tr("Take the correction off") : tr("Correct all sweeps by it"));
  correct_->setEnabled(!sweeps.empty() && !desk_.read_only());
}

void SpectrumPage::correct_by_spectrum(bool on) {
  if (on && !sensor_factor_) return;
  const bool kept =
      desk_.edits().make(on ? tr("correction by the spectrum") : tr("take a correction off"), [&](book::Edit& e) {
        for (record::Sweep sweep : desk_.test()->sweeps) {
          sweep.spectral_factor = on ? *sensor_factor_ : 1;
          e.save(sweep);
        }
        // What the tester stated stays; what the factor stated goes with it.
        record::Test test = desk_.test()->test;
        const auto of_factor = sensor_uncertainty_ ? std::optional(100 * *sensor_uncertainty_) : std::nullopt;
        if (on && !test.spectral_uncertainty_pct) test.spectral_uncertainty_pct = of_factor;
        if (!on && test.spectral_uncertainty_pct == of_factor) test.spectral_uncertainty_pct.reset();
        e.save(test);
      });
  if (!kept) return;
  desk_.say(
      on ? tr("All sweeps of this test are corrected by × %1. Ctrl+Z takes it back.").arg(*sensor_factor_, 0, 'f', 3)
         : tr("The correction is off. Ctrl+Z brings it back."));
}

void SpectrumPage::show_own_band(const std::optional<SpectralCurve>& light) {
  const QString text = own_band_->text().trimmed();
  own_share_->clear();
  if (!light || text.isEmpty()) return;
  const auto band = own_band(text_of(text));
  if (!band) return own_share_->setText(text_of(band.problem().remedy));
  const BandShare share = band_share(*light, band.value());
  own_share_->setText(!share.any() ? tr("not measured")
                                   : tr("%1 % of the photons%2")
                                         .arg(100 * share.share, 0, 'f', 1)
                                         .arg(share.whole ? QString() : tr(", as far as measured")));
}

std::tuple<record::Id, record::Id, record::Id, record::Id> SpectrumPage::at_hand() const {
  const auto [test, configuration] = desk_.shown();
  return {test, configuration, desk_.rung() ? desk_.rung()->id : 0, desk_.stop() ? desk_.stop()->id : 0};
}

void SpectrumPage::read_live() {
  if (!desk_.test() || desk_.read_only() || !live_->isEnabled()) return;
  live_->setEnabled(false);
  asked_at_ = at_hand();
  desk_.say(tr("The spectrometer is asked …"));
  hub_.read_spectrum();
}

void SpectrumPage::take_live(const Spectrum& spectrum, const QString& identity) {
  live_->setEnabled(!desk_.read_only());
  if (!desk_.test() || at_hand() != asked_at_)
    return desk_.warn(
        tr("The spectrum came when another test, height or setting was at hand. It was not kept: read it "
           "again here."));
  record::MeasuredSpectrum row;
  row.test_id = desk_.test()->test.id;
  row.taken_at = desk_.clock().utc_text();
  row.name = "read " + row.taken_at.substr(11, 5);
  record::put_spectrum(row, spectrum);
  row.source = identity.contains("simulated") ? "simulated" : "live";
  row.origin = text_of(identity.section(',', 1, 2));
  if (const record::Stop* stop = desk_.stop()) row.percent = stop->percent;
  if (const record::Rung* rung = desk_.rung()) row.height_m = rung->height_m;
  row.configuration_id = record::configuration_of(*desk_.test());
  if (desk_.edits().make(tr("spectrum"), [&](book::Edit& e) { e.add(row); }))
    desk_.say(tr("The spectrum is in the lab book. Ctrl+Z takes that back."));
  if (isVisible()) take_focus();
}

void SpectrumPage::choose_file() {
  const QString path = file_to_open(this, tr("Bring in a spectrum"), {},
                                    tr("Spectra (*.csv *.txt *.tsv *.xml *.spdx *.sp);;All files (*)"));
  if (path.isEmpty()) return;
  const auto bytes = exchange::read_file(text_of(path));
  if (!bytes) return desk_.warn(text_of(bytes.problem().sentence()));
  bring_in(bytes.value(), QFileInfo(path).fileName(), "file");
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
