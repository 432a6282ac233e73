#include "desktop/meters/lux_factor_dialog.h"

#include <fmt/format.h>

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>

#include "book/shelf.h"
#include "book/test_rows.h"
#include "core/quantity/uncertain_text.h"
#include "core/spectrum/color.h"
#include "desktop/desk/desk.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/meters/meter_boxes.h"
#include "desktop/meters/pair_table.h"
#include "desktop/paint/drawn_widget.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/take_or_leave.h"
#include "desktop/widgets/text.h"
#include "drawing/pair_plots.h"
#include "evaluation/measured_spectra.h"
#include "exchange/files/new_file.h"
#include "exchange/tables/meter_tables.h"
#include "record/spectrum_samples.h"
#include "report/factor_card.h"

namespace sunbreak::desktop {
namespace {

/// How far a lux meter's own eye may be from the standard one, and what that does to a factor of a spectrum (k = 2).
constexpr double computed_expanded = 0.06;

}  // namespace

LuxFactorDialog::LuxFactorDialog(Desk& desk, InstrumentHub& hub, QWidget* parent)
    : QDialog(parent), desk_(desk), hub_(hub) {
  setObjectName("luxFactorDialog");
  setWindowTitle(tr("Lux factor"));
  resize(960, 660);
  build();
  look_for_spectrum();
  fit();
}

void LuxFactorDialog::build() {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(8);
  layout->addWidget(wrapped_label(
      tr("Read both meters at the same place, one after the other, at several levels: by the dimmer or the height, a "
         "factor of two or more from the lowest to the highest, five pairs at least."),
      this));
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(8);
  grid->setVerticalSpacing(6);
  int row = 0;
  const auto field = [&](const QString& name, QWidget* editor, int column) {
    auto* label = new QLabel(name, this);
    grid->addWidget(label, row, 2 * column);
    grid->addWidget(editor, row, 2 * column + 1);
    editor->setAccessibleName(name);
  };
  meter_ = meter_box(desk_, {"lux"}, tr("New lux meter"), "factorMeter", this);
  reference_ = meter_box(desk_, {"quantum", "spectrometer"}, {}, "factorReference", this);
  fixture_ = new QComboBox(this);
  fixture_->setObjectName("factorFixture");
  fixture_->addItem(tr("another light"), 0);
  for (const auto& f : book::on_shelf<record::Fixture>(desk_.book())) {
    fixture_->addItem(text_of(f.name), QVariant::fromValue<qlonglong>(f.id));
    if (desk_.test() && desk_.test()->fixture.id == f.id) fixture_->setCurrentIndex(fixture_->count() - 1);
  }
  class_ = new QComboBox(this);
  class_->setObjectName("factorClass");
  class_->addItem(tr("not stated"), "");
  for (const char* word : record::light_classes) class_->addItem(tr(word), word);
  if (desk_.test()) class_->setCurrentIndex(std::max(0, class_->findData(text_of(desk_.test()->test.light_class))));
  field(tr("Lux meter"), meter_, 0);
  field(tr("PPFD by"), reference_, 1);
  ++row;
  field(tr("Under"), fixture_, 0);
  field(tr("Its light is"), class_, 1);
  grid->setColumnStretch(1, 1);
  grid->setColumnStretch(3, 1);
  layout->addLayout(grid);
  auto* middle = new QHBoxLayout;
  middle->setSpacing(16);
  auto* left = new QVBoxLayout;
  table_ = new PairTable(tr("lux"), tr("PPFD, µmol/m²/s"), this);
  table_->setObjectName("luxPairs");
  table_->setAccessibleName(tr("Pairs of lux and PPFD"));
  table_->read_table = [](const std::string& bytes) -> std::optional<PairTable::Pairs> {
    const auto draft = exchange::read_lux_pairs(bytes);
    if (!draft) return std::nullopt;
    PairTable::Pairs pairs;
    for (const LuxPair& p : draft.value().pairs) pairs.emplace_back(p.lux, p.ppfd);
    return pairs;
  };
  left->addWidget(table_, 1);
  live_ = new QPushButton(tr("PPFD from the sensor (F5)"), this);
  live_->setObjectName("luxLive");
  live_->setAutoDefault(false);
  left->addWidget(live_);
  middle->addLayout(left);
  auto* right = new QVBoxLayout;
  picture_ = new DrawnWidget(tr("PPFD over lux"), this);
  picture_->setMinimumHeight(220);
  right->addWidget(picture_, 1);
  told_ = wrapped_label({}, this);
  told_->setObjectName("luxTold");
  right->addWidget(told_);
  spectrum_told_ = wrapped_label({}, this);
  spectrum_told_->setObjectName("luxBySpectrum");
  spectrum_told_->setProperty("quiet", true);
  right->addWidget(spectrum_told_);
  compute_ = new QPushButton(tr("Take the factor of the spectrum"), this);
  compute_->setObjectName("luxCompute");
  compute_->setAutoDefault(false);
  auto* compute_row = new QHBoxLayout;
  compute_row->addWidget(compute_);
  compute_row->addStretch();
  right->addLayout(compute_row);
  problem_ = wrapped_label({}, this);
  problem_->setObjectName("luxProblem");
  set_tone(problem_, "bad");
  right->addWidget(problem_);
  middle->addLayout(right, 1);
  layout->addLayout(middle, 1);
  auto* name_row = new QHBoxLayout;
  name_row->addWidget(new QLabel(tr("Kept as"), this));
  name_ = new QLineEdit(this);
  name_->setObjectName("factorName");
  name_->setAccessibleName(tr("Name of the factor"));
  name_row->addWidget(name_, 1);
  auto* card = new QPushButton(tr("Write the factor card…"), this);
  card->setObjectName("factorCard");
  card->setAutoDefault(false);
  card->setToolTip(tr("All factors of this lab book as a page: meters by lights, with ± and levels"));
  name_row->addWidget(card);
  connect(card, &QPushButton::clicked, this, &LuxFactorDialog::write_card);
  layout->addLayout(name_row);
  keep_ = take_or_leave(*this, *layout, tr("Keep the factor"), "keepFactor");
  keep_->setDefault(false);
  keep_->setAutoDefault(false);
  connect(table_, &PairTable::pairs_changed, this, [this] {
    by_spectrum_ = false;
    fit();
  });
  connect(table_, &PairTable::said, this, [this](const QString& words) { problem_->setText(words), problem_->show(); });
  connect(fixture_, &QComboBox::currentIndexChanged, this, [this] {
    look_for_spectrum();
    fit();
  });
  connect(&hub_, &InstrumentHub::changed, this, [this] { live_->setEnabled(live_light(hub_, {}).has_value()); });
  connect(live_, &QPushButton::clicked, this, &LuxFactorDialog::take_live);
  connect(new QShortcut(QKeySequence(Qt::Key_F5), this), &QShortcut::activated, this, &LuxFactorDialog::take_live);
  connect(compute_, &QPushButton::clicked, this, [this] {
    by_spectrum_ = true;
    show_fit();
  });
  connect(keep_, &QPushButton::clicked, this, &LuxFactorDialog::keep);
  table_->setFocus();
}

void LuxFactorDialog::look_for_spectrum() {
  spectrum_.reset(), computed_k_.reset();
  by_spectrum_ = false;
  const record::Id fixture = fixture_->currentData().toLongLong();
  if (fixture != 0)
    for (const auto& test :
         desk_.book().all<record::Test>("WHERE fixture_id = ? AND removed = 0 ORDER BY id DESC", fixture)) {
      record::TestRecord spectra;
      spectra.spectra = desk_.book().all<record::MeasuredSpectrum>("WHERE test_id = ? ORDER BY id", test.id);
      const auto full = evaluation::light_at_full(spectra);
      if (!full) continue;
      const double lux = lux_per_ppfd(*full);
      if (!(lux > 0)) continue;
      spectrum_ = full->spectrum();
      computed_k_ = 1 / lux;
      break;
    }
  name_->setText(tr("under %1").arg(fixture_->currentText()));
  compute_->setVisible(computed_k_.has_value());
}

void LuxFactorDialog::fit() {
  std::vector<LuxPair> pairs;
  for (const auto& [lux, ppfd] : table_->pairs()) pairs.push_back({lux, ppfd});
  fit_ = pairs.empty() ? std::nullopt : std::optional(lux_factor(pairs));
  show_fit();
}

void LuxFactorDialog::show_fit() {
  const bool fitted = fit_ && *fit_;
  drawing::PairLine plot{"lux", "PPFD, µmol/m²/s", {}, std::nullopt};
  for (const auto& [lux, ppfd] : table_->pairs()) plot.pairs.push_back({lux, ppfd});
  if (fitted) plot.slope = fit_->value().k;
  if (by_spectrum_) plot.slope = computed_k_;
  picture_->show_drawing(
      [plot](drawing::Canvas& c, const drawing::Box& room) { drawing::draw_pair_line(c, room, plot); },
      tr("%1 pairs").arg(plot.pairs.size()));
  QString told, problem = table_->problem();
  if (by_spectrum_) {
    told = tr("k = %1 µmol/m²/s per lx (1/k = %2), of the spectrum by the standard eye. The ± is what lux meters "
              "usually differ from it by.")
               .arg(text_of(uncertain_text(*computed_k_, computed_expanded * *computed_k_, 5)))
               .arg(1 / *computed_k_, 0, 'f', 2);
  } else if (fitted) {
    const LuxFactor& f = fit_->value();
    told = tr("k = %1 µmol/m²/s per lx (1/k = %2); R² %3, pairs within %4 % of the line, %5 to %6 lx.")
               .arg(text_of(uncertain_text(f.k, f.k_expanded, 5)))
               .arg(f.inverse(), 0, 'f', 2)
               .arg(f.r_squared, 0, 'f', 4)
               .arg(100 * f.scatter, 0, 'f', 1)
               .arg(f.lowest_lux, 0, 'f', 0)
               .arg(f.highest_lux, 0, 'f', 0);
    for (const std::string& reason : f.reasons)
      problem +=
          (problem.isEmpty() ? QString() : QStringLiteral("\n")) + tr("It does not hold: %1.").arg(text_of(reason));
  } else if (fit_) {
    told = text_of(fit_->problem().sentence());
  } else {
    told = tr("Type or paste pairs: the line is drawn as they come.");
  }
  told_->setText(told);
  QString by_spectrum;
  if (computed_k_) {
    by_spectrum =
        tr("By the spectrum on record of %1: k = %2.").arg(fixture_->currentText()).arg(*computed_k_, 0, 'f', 5);
    if (fitted) by_spectrum += tr(" The pairs say %1 %.").arg(100 * (fit_->value().k / *computed_k_ - 1), 0, 'f', 1);
  } else if (fixture_->currentData().toLongLong() != 0) {
    by_spectrum = tr("No spectrum of %1 is on record: the factor will be told by its fixture and class alone.")
                      .arg(fixture_->currentText());
  }
  spectrum_told_->setText(by_spectrum);
  problem_->setText(problem);
  problem_->setVisible(!problem.isEmpty());
  live_->setEnabled(hub_.channel(instruments::Measures::Light).live().has_value());
  keep_->setEnabled(!desk_.read_only() && (by_spectrum_ || (fitted && fit_->value().holds())));
}

void LuxFactorDialog::take_live() {
  const auto live = live_light(hub_, chosen_meter(reference_));
  if (!live) {
    problem_->setText(no_live_light());
    return problem_->show();
  }
  table_->fill(1, *live);
  table_->setFocus();
}

void LuxFactorDialog::write_card() {
  const auto page = report::factor_card(book::lux_factors_on_shelf(desk_.book()),
                                        desk_.book().all<record::Meter>("WHERE removed = 0 ORDER BY name"));
  const auto say = [&](const QString& words) { problem_->setText(words), problem_->show(); };
  if (!page) return say(text_of(page.problem().sentence()));
  const QString path = file_to_save(this, tr("Write the factor card"), tr("lux-factors.html"), tr("Pages (*.html)"));
  if (path.isEmpty()) return;
  const auto problem = exchange::write_new_file(text_of(path), page.value(), exchange::Existing::Replace);
  say(problem ? text_of(problem->sentence()) : tr("%1 is written.").arg(path));
}

std::optional<record::Meter> LuxFactorDialog::chosen_meter(const QComboBox* box) const {
  return desk_.book().find<record::Meter>(box->currentData().toLongLong());
}

void LuxFactorDialog::keep() {
  record::FittedLuxFactor row;
  row.name = text_of(name_->text().trimmed());
  row.light_class = text_of(class_->currentData().toString());
  if (const record::Id fixture = fixture_->currentData().toLongLong(); fixture != 0)
    row.fixture = text_of(fixture_->currentText()), row.fixture_id = fixture;
  row.made_on = desk_.clock().utc_text().substr(0, 10);
  if (spectrum_) record::put_light(row, *spectrum_);
  if (by_spectrum_) {
    row.source = "computed";
    row.k = *computed_k_, row.k_expanded = computed_expanded * *computed_k_;
  } else {
    const LuxFactor& f = fit_->value();
    row.source = "paired";
    row.k = f.k, row.k_expanded = f.k_expanded;
    row.lowest_lux = f.lowest_lux, row.highest_lux = f.highest_lux;
    std::vector<double> numbers;
    for (const auto& [lux, ppfd] : table_->pairs()) numbers.push_back(lux), numbers.push_back(ppfd);
    row.pairs = record::text_of_numbers(numbers);
    if (const auto reference = chosen_meter(reference_)) {
      row.reference = reference->name;
      row.reference_uncertainty_pct = reference->uncertainty_pct;
    }
  }
  const auto meter = chosen_meter(meter_);
  const bool kept = desk_.edits().make(tr("lux factor"), [&](book::Edit& e) {
    record::Meter fresh;
    fresh.kind = "lux", fresh.name = record::new_meter_name("lux");
    row.meter_id = meter ? meter->id : e.add(fresh);
    e.add(row);
  });
  if (!kept) return;
  desk_.say(
      tr("The factor is on the shelf: a test that this lux meter walks chooses it on Rig. Ctrl+Z takes it back."));
  accept();
}

}  // namespace sunbreak::desktop
