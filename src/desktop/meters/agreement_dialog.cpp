#include "desktop/meters/agreement_dialog.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>
#include <cmath>
#include <limits>
#include <map>

#include "book/test_rows.h"
#include "core/uncertainty/budget.h"
#include "desktop/desk/desk.h"
#include "desktop/instruments/instrument_hub.h"
#include "desktop/meters/meter_boxes.h"
#include "desktop/meters/pair_table.h"
#include "desktop/paint/drawn_widget.h"
#include "desktop/widgets/elided_combo.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "drawing/pair_plots.h"
#include "evaluation/paired_sweeps.h"
#include "exchange/tables/meter_tables.h"

namespace sunbreak::desktop {
namespace {

constexpr double unknown = std::numeric_limits<double>::quiet_NaN();

bool tells_lux(const std::optional<record::Meter>& meter) { return meter && meter->kind == "lux"; }

QString unit_of(const std::optional<record::Meter>& meter) {
  return tells_lux(meter) ? QStringLiteral("lx") : QStringLiteral("µmol/m²/s");
}

}  // namespace

AgreementDialog::AgreementDialog(Desk& desk, InstrumentHub& hub, QWidget* parent)
    : QDialog(parent), desk_(desk), hub_(hub) {
  setObjectName("agreementDialog");
  setWindowTitle(tr("Two sensors"));
  resize(1000, 680);
  build();
  compare();
}

void AgreementDialog::build() {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(8);
  layout->addWidget(
      wrapped_label(tr("The same light by two sensors: two sweeps of the same stations, or pairs read one "
                       "after the other. Differences are of the second from the first, which is trusted."),
                    this));
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(8);
  grid->setVerticalSpacing(6);
  const auto field = [&](int row, int column, const QString& name, QWidget* editor) {
    grid->addWidget(new QLabel(name, this), row, 2 * column);
    grid->addWidget(editor, row, 2 * column + 1);
    editor->setAccessibleName(name);
  };
  first_ = meter_box(desk_, {"quantum", "spectrometer", "lux"}, {}, "firstSensor", this);
  second_ = meter_box(desk_, {"quantum", "spectrometer", "lux"}, {}, "secondSensor", this);
  if (second_->count() > 1 && second_->currentIndex() == first_->currentIndex())
    second_->setCurrentIndex((first_->currentIndex() + 1) % second_->count());
  first_sweep_ = new ElidedCombo(24, this);
  first_sweep_->setObjectName("firstSweep");
  second_sweep_ = new ElidedCombo(24, this);
  second_sweep_->setObjectName("secondSweep");
  fill_sweeps();
  field(0, 0, tr("First, trusted"), first_);
  field(0, 1, tr("Second"), second_);
  field(1, 0, tr("Its sweep"), first_sweep_);
  field(1, 1, tr("Its sweep"), second_sweep_);
  kept_ = new QComboBox(this);
  kept_->setObjectName("keptComparison");
  drop_ = new QPushButton(tr("Drop them"), this);
  drop_->setObjectName("dropComparison");
  drop_->setAutoDefault(false);
  fill_kept();
  field(2, 0, tr("Pairs"), kept_);
  grid->addWidget(drop_, 2, 3, Qt::AlignLeft);
  grid->setColumnStretch(1, 1);
  grid->setColumnStretch(3, 1);
  layout->addLayout(grid);
  auto* middle = new QHBoxLayout;
  middle->setSpacing(16);
  auto* left = new QVBoxLayout;
  table_ = new PairTable(tr("first, %1").arg(unit_of({})), tr("second, %1").arg(unit_of({})), this);
  table_->setObjectName("sensorPairs");
  table_->setAccessibleName(tr("Pairs of the two sensors"));
  table_->read_table = [](const std::string& bytes) -> std::optional<PairTable::Pairs> {
    const auto draft = exchange::read_sensor_pairs(bytes);
    if (!draft) return std::nullopt;
    PairTable::Pairs pairs;
    for (const SensorPair& p : draft.value().pairs) pairs.emplace_back(p.first, p.second);
    return pairs;
  };
  left->addWidget(table_, 1);
  live_first_ = new QPushButton(tr("First, live (F5)"), this);
  live_second_ = new QPushButton(tr("Second, live (F6)"), this);
  for (QPushButton* button : {live_first_, live_second_}) {
    button->setAutoDefault(false);
    left->addWidget(button);
  }
  middle->addLayout(left);
  auto* right = new QVBoxLayout;
  auto* pictures = new QHBoxLayout;
  differences_ = new DrawnWidget(tr("Differences over the level"), this);
  map_ = new DrawnWidget(tr("The ratio at each station"), this);
  for (DrawnWidget* picture : {differences_, map_}) {
    picture->setMinimumSize(240, 240);
    pictures->addWidget(picture, 1);
  }
  right->addLayout(pictures, 1);
  told_ = wrapped_label({}, this);
  told_->setObjectName("agreementTold");
  right->addWidget(told_);
  figures_ = wrapped_label({}, this);
  figures_->setObjectName("agreementFigures");
  figures_->setProperty("quiet", true);
  right->addWidget(figures_);
  problem_ = wrapped_label({}, this);
  problem_->setObjectName("agreementProblem");
  set_tone(problem_, "bad");
  right->addWidget(problem_);
  middle->addLayout(right, 1);
  layout->addLayout(middle, 1);
  auto* buttons = new QHBoxLayout;
  carry_ = new QPushButton(this);
  carry_->setObjectName("carryCalibration");
  carry_->setAutoDefault(false);
  buttons->addWidget(carry_);
  buttons->addStretch();
  auto* done = primary_button(tr("Done"), this);
  done->setAutoDefault(false);
  buttons->addWidget(done);
  layout->addLayout(buttons);
  connect(done, &QPushButton::clicked, this, &QDialog::accept);
  connect(carry_, &QPushButton::clicked, this, &AgreementDialog::carry);
  connect(kept_, &QComboBox::activated, this, [this] {
    const record::Id chosen = kept_->currentData().toLongLong();
    keep() || desk_.read_only() ? open_kept(chosen) : fill_kept();
  });
  connect(drop_, &QPushButton::clicked, this, &AgreementDialog::drop_kept);
  for (QComboBox* box : {first_, second_})
    connect(box, &QComboBox::currentIndexChanged, this, &AgreementDialog::compare);
  for (QComboBox* box : {first_sweep_, second_sweep_})
    connect(box, &QComboBox::currentIndexChanged, this, &AgreementDialog::take_sweeps);
  connect(table_, &PairTable::pairs_changed, this, [this] {
    of_stations_.clear();
    compare();
    if (named()) keep();
  });
  connect(table_, &PairTable::said, this, [this](const QString& words) { problem_->setText(words), problem_->show(); });
  connect(&hub_, &InstrumentHub::changed, this, &AgreementDialog::show_live);
  connect(live_first_, &QPushButton::clicked, this, [this] { take_live(0); });
  connect(live_second_, &QPushButton::clicked, this, [this] { take_live(1); });
  connect(new QShortcut(QKeySequence(Qt::Key_F5), this), &QShortcut::activated, this, [this] { take_live(0); });
  connect(new QShortcut(QKeySequence(Qt::Key_F6), this), &QShortcut::activated, this, [this] { take_live(1); });
  table_->setFocus();
}

void AgreementDialog::fill_sweeps() {
  const book::Book& book = desk_.book();
  // Each table once: a lab book may hold thousands of tests.
  const auto by_id = []<typename Row>(std::vector<Row> rows) {
    std::map<record::Id, Row> found;
    for (Row& row : rows) found.emplace(row.id, std::move(row));
    return found;
  };
  const auto fixtures = by_id(book.all<record::Fixture>("ORDER BY id"));
  const auto rungs = by_id(book.all<record::Rung>("ORDER BY id"));
  const auto stops = by_id(book.all<record::Stop>("ORDER BY id"));
  const auto tests = by_id(book.all<record::Test>("WHERE removed = 0 ORDER BY id"));
  for (QComboBox* box : {first_sweep_, second_sweep_}) {
    box->addItem(tr("none: pairs below"), 0);
  }
  for (const auto& sweep : book.all<record::Sweep>("ORDER BY test_id, id")) {
    const auto test = tests.find(sweep.test_id);
    const auto rung = rungs.find(sweep.rung_id);
    const auto stop = stops.find(sweep.stop_id);
    if (test == tests.end() || rung == rungs.end() || stop == stops.end()) continue;
    const auto fixture = fixtures.find(test->second.fixture_id);
    const std::string& name = test->second.name;
    const QString words = tr("%1 · %2 · %3 %")
                              .arg(text_of(name.empty() && fixture != fixtures.end() ? fixture->second.name : name),
                                   text_of(length_text(rung->second.height_m, desk_.units())))
                              .arg(stop->second.percent, 0, 'g', 4);
    for (QComboBox* box : {first_sweep_, second_sweep_}) box->addItem(words, QVariant::fromValue<qlonglong>(sweep.id));
  }
}

void AgreementDialog::take_sweeps() {
  const record::Id first = first_sweep_->currentData().toLongLong(), second = second_sweep_->currentData().toLongLong();
  of_stations_.clear();
  if (first == 0 || second == 0) return compare();
  if (first == second) {
    compare();
    told_of_ = Problem{"Both are the same sweep", "it agrees with itself", "choose one that the other sensor walked"};
    return show_told();
  }
  const auto a = book::load_sweep(desk_.book(), first), b = book::load_sweep(desk_.book(), second);
  if (!a || !b) return compare();
  // The sensors are those that walked the sweeps; pairs are of the ones that stood there before.
  if (keep()) {
    open_ = {}, as_kept_.clear();
    table_->set_pairs({});
    fill_kept();
  }
  for (const auto& [record, box] : {std::pair{&*a, first_}, std::pair{&*b, second_}})
    if (record->test.sensor_id)
      if (const int at = box->findData(QVariant::fromValue<qlonglong>(*record->test.sensor_id)); at >= 0) {
        const QSignalBlocker quiet(box);
        box->setCurrentIndex(at);
      }
  auto pairs = evaluation::paired_stations(*a, a->sweeps.front(), *b, b->sweeps.front());
  if (!pairs) {
    told_of_ = pairs.problem();
    return show_told();
  }
  of_stations_ = std::move(pairs.value());
  compare();
}

void AgreementDialog::fill_kept() {
  const QSignalBlocker quiet(kept_);
  kept_->clear();
  kept_->addItem(tr("new ones"), QVariant::fromValue<qlonglong>(0));
  for (const auto& kept : desk_.book().all<record::SensorComparison>("ORDER BY taken_at DESC, id DESC")) {
    const int first = first_->findData(QVariant::fromValue<qlonglong>(kept.first_meter_id)),
              second = second_->findData(QVariant::fromValue<qlonglong>(kept.second_meter_id));
    const auto pairs = record::pairs_of(kept);
    if (first < 0 || second < 0) continue;  // of a meter that is off the shelf
    kept_->addItem(
        tr("%1 · %2 and %3 · %4")
            .arg(text_of(kept.taken_at.substr(0, 10)), first_->itemText(first), second_->itemText(second),
                 pairs ? counted(std::ssize(*pairs), tr("pair"), tr("pairs")) : tr("harmed, cannot be read")),
        QVariant::fromValue<qlonglong>(kept.id));
  }
  kept_->setCurrentIndex(std::max(0, kept_->findData(QVariant::fromValue<qlonglong>(open_.id))));
  drop_->setEnabled(open_.id != 0 && !desk_.read_only());
}

void AgreementDialog::open_kept(record::Id comparison_id) {
  const auto kept = desk_.book().find<record::SensorComparison>(comparison_id);
  open_ = kept.value_or(record::SensorComparison{});
  if (kept) {
    const QSignalBlocker quiet_first(first_), quiet_second(second_);
    first_->setCurrentIndex(first_->findData(QVariant::fromValue<qlonglong>(open_.first_meter_id)));
    second_->setCurrentIndex(second_->findData(QVariant::fromValue<qlonglong>(open_.second_meter_id)));
  }
  {
    const QSignalBlocker quiet_first(first_sweep_), quiet_second(second_sweep_);
    first_sweep_->setCurrentIndex(0), second_sweep_->setCurrentIndex(0);
  }
  of_stations_.clear();
  {
    const QSignalBlocker quiet(table_);
    table_->set_pairs(record::pairs_of(open_).value_or(record::SensorPairs{}));
  }
  as_kept_ = table_->pairs();
  compare();
  fill_kept();
}

bool AgreementDialog::named() const {
  return first_->currentData().toLongLong() != 0 && second_->currentData().toLongLong() != 0;
}

bool AgreementDialog::keep() {
  record::SensorComparison now = open_;
  const record::SensorPairs pairs = table_->pairs();
  now.first_meter_id = first_->currentData().toLongLong(), now.second_meter_id = second_->currentData().toLongLong();
  const bool same_sensors = now.first_meter_id == open_.first_meter_id && now.second_meter_id == open_.second_meter_id;
  if (pairs.empty() || (pairs == as_kept_ && same_sensors)) return true;
  if (desk_.read_only() || !of_stations_.empty()) return false;  // the sensors named are those of the sweeps
  if (!named()) {
    desk_.warn(tr("The pairs are not kept: no sensor is named. Put both on the shelf, and read them again."));
    return false;
  }
  record::put_pairs(now, pairs);
  now.taken_at = desk_.clock().utc_text();
  if (!desk_.edits().make(tr("keep a comparison of two sensors"), [&](book::Edit& e) {
        if (now.id == 0)
          now.id = e.add(now);
        else
          e.save(now);
      }))
    return false;
  open_ = now, as_kept_ = pairs;
  fill_kept();
  desk_.say(
      tr("Kept: %1 of %2 and %3. Two sensors… opens them again; Ctrl+Z takes the last change of them back.")
          .arg(counted(std::ssize(pairs), tr("pair"), tr("pairs")), first_->currentText(), second_->currentText()));
  return true;
}

void AgreementDialog::drop_kept() {
  if (open_.id == 0) return;
  if (!desk_.edits().make(tr("drop a comparison of two sensors"),
                          [&](book::Edit& e) { e.erase<record::SensorComparison>(open_.id); }))
    return;
  open_kept(0);
}

void AgreementDialog::done(int result) {
  keep();
  QDialog::done(result);
}

void AgreementDialog::compare() {
  std::vector<SensorPair> pairs = of_stations_;
  if (pairs.empty())
    for (const auto& [first, second] : table_->pairs()) pairs.push_back({first, second, std::nullopt});
  const auto share = [](const std::optional<record::Meter>& meter) {
    return meter && meter->uncertainty_pct ? *meter->uncertainty_pct / 100 : unknown;
  };
  told_of_.reset();
  const auto first_meter = meter_of(first_), second_meter = meter_of(second_);
  const bool in_ppfd = !of_stations_.empty();  // sweeps are compared as corrected
  const bool one_quantity =
      in_ppfd || !first_meter || !second_meter || tells_lux(first_meter) == tells_lux(second_meter);
  table_->setHorizontalHeaderLabels(
      {tr("first, %1").arg(unit_of(first_meter)), tr("second, %1").arg(unit_of(second_meter))});
  if (!pairs.empty() && !one_quantity)
    told_of_ = Problem{"One of the two tells lux and the other PPFD", "their ratio says nothing of either",
                       "find what brings them together by Lux factor"};
  if (!pairs.empty() && one_quantity) told_of_ = agreement(pairs, share(meter_of(first_)), share(meter_of(second_)));
  drawing::DifferencePlot plot;
  plot.x_name = text_of(tr("mean of both, %1").arg(in_ppfd ? unit_of({}) : unit_of(first_meter)));
  drawing::RatioMap map;
  for (const SensorPair& p : pairs) {
    plot.differences.push_back({(p.first + p.second) / 2, difference_pct(p)});
    if (p.place) map.stations.push_back({p.place->x_m, p.place->y_m, p.second / p.first});
  }
  if (told_of_ && *told_of_) {
    plot.mean_pct = told_of_->value().mean_difference_pct.value;
    plot.low_limit_pct = told_of_->value().low_limit_pct.value;
    plot.high_limit_pct = told_of_->value().high_limit_pct.value;
  }
  differences_->show_drawing(
      [plot](drawing::Canvas& c, const drawing::Box& room) { drawing::draw_differences(c, room, plot); },
      tr("%1 pairs").arg(pairs.size()));
  map_->setVisible(!map.stations.empty());
  map_->show_drawing([map](drawing::Canvas& c, const drawing::Box& room) { drawing::draw_ratio_map(c, room, map); },
                     tr("%1 stations").arg(map.stations.size()));
  show_told();
}

void AgreementDialog::show_told() {
  QString told = tr("Choose two sweeps, or type or paste pairs."), figures;
  const bool known = told_of_ && *told_of_;
  if (known) {
    const Agreement& a = told_of_->value();
    told = text_of(a.words);
    figures = tr("Ratio %1 (%2 to %3), mean difference %4 %, limits of agreement %5 to %6 %, proportion %7 (%8 to %9)")
                  .arg(a.ratio.value, 0, 'f', 4)
                  .arg(a.ratio.low, 0, 'f', 4)
                  .arg(a.ratio.high, 0, 'f', 4)
                  .arg(a.mean_difference_pct.value, 0, 'f', 2)
                  .arg(a.low_limit_pct.value, 0, 'f', 1)
                  .arg(a.high_limit_pct.value, 0, 'f', 1)
                  .arg(a.proportion.value, 0, 'f', 3)
                  .arg(a.proportion.low, 0, 'f', 3)
                  .arg(a.proportion.high, 0, 'f', 3);
    if (a.edge_pct) figures += tr(", edge over middle %1 %").arg(a.edge_pct->value, 0, 'f', 1);
    figures += QStringLiteral(".");
    figures.replace('-', QChar(0x2212));  // a minus, as the picture has it
  } else if (told_of_) {
    told = text_of(told_of_->problem().sentence());
  }
  told_->setText(told);
  figures_->setText(figures);
  const QString problem = of_stations_.empty() ? table_->problem() : QString();
  problem_->setText(problem);
  problem_->setVisible(!problem.isEmpty());
  show_live();
  const auto first = meter_of(first_), second = meter_of(second_);
  const bool one_factor = known && (told_of_->value().verdict == AgreementVerdict::Factor ||
                                    told_of_->value().verdict == AgreementVerdict::Agree);
  const bool apart = first && second && first->id != second->id;
  carry_->setEnabled(one_factor && apart && second->kind == "quantum" && !desk_.read_only());
  carry_->setText(apart ? tr("Carry the calibration of %1 over to %2").arg(text_of(first->name), text_of(second->name))
                        : tr("Carry the calibration over"));
}

void AgreementDialog::show_live() {
  const bool live = live_light(hub_, {}).has_value();
  for (const auto& [button, box] : {std::pair{live_first_, first_}, std::pair{live_second_, second_}})
    button->setEnabled(live && !tells_lux(meter_of(box)));  // what is live is PPFD
}

void AgreementDialog::take_live(int column) {
  const auto meter = meter_of(column == 0 ? first_ : second_);
  const auto live = live_light(hub_, meter);
  if (!live || tells_lux(meter)) {
    problem_->setText(tells_lux(meter) ? tr("A lux meter has no line to this computer: type what it shows.")
                                       : no_live_light());
    return problem_->show();
  }
  table_->fill(column, *live);
  table_->setFocus();
}

std::optional<record::Meter> AgreementDialog::meter_of(const QComboBox* box) const {
  return desk_.book().find<record::Meter>(box->currentData().toLongLong());
}

void AgreementDialog::carry() {
  const auto first = meter_of(first_);
  auto second = meter_of(second_);
  if (!first || !second || !told_of_ || !*told_of_) return;
  keep();  // before it, so that the calibration is what is taken back first
  const double of_first = first->uncertainty_pct ? *first->uncertainty_pct / 100 : BudgetQuestion{}.calibration.value;
  const CarriedCalibration carried = carried_calibration(told_of_->value(), second->factor, of_first);
  second->factor = carried.factor;
  second->uncertainty_pct = 100 * carried.standard_uncertainty;
  second->uncertainty_k = 1;
  second->calibrated_on = desk_.clock().utc_text().substr(0, 10);
  if (!desk_.edits().make(tr("carry a calibration over"), [&](book::Edit& e) { e.save(*second); })) return;
  told_->setText(
      tr("%1 has the factor %2 from now on, ± %3 % (k = 2), of which the comparison adds %4 %. What was read "
         "before keeps its own. Ctrl+Z takes it back.")
          .arg(text_of(second->name))
          .arg(carried.factor, 0, 'f', 4)
          .arg(200 * carried.standard_uncertainty, 0, 'f', 1)
          .arg(200 * carried.added, 0, 'f', 2));
  carry_->setEnabled(false);
}

}  // namespace sunbreak::desktop
