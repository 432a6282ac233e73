#include "desktop/read/trust_page.h"

#include <QGridLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <cmath>

#include "core/figures/figure_table.h"
#include "core/uncertainty/budget_words.h"
#include "desktop/read/shown_values.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/form.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

QString grade_text(Grade grade) {
  return (grade == Grade::Benchmark ? QStringLiteral("●●● ")
          : grade == Grade::Working ? QStringLiteral("●●○ ")
                                    : QStringLiteral("●○○ ")) +
         text_of(name(grade));
}

QString condition_name(std::string_view id) {
  static const std::map<std::string_view, QString> names{
      {"grid", TrustPage::tr("Grid")},           {"complete", TrustPage::tr("Complete")},
      {"settled", TrustPage::tr("Settled")},     {"drift", TrustPage::tr("Drift")},
      {"watts", TrustPage::tr("Watts")},         {"height", TrustPage::tr("Height")},
      {"calibration", TrustPage::tr("Sensor")},  {"walls", TrustPage::tr("Walls, door")},
      {"level", TrustPage::tr("Level, center")}, {"checks", TrustPage::tr("Checks")}};
  const auto found = names.find(id);
  return found == names.end() ? QString() : found->second;
}

struct Way {
  QString words;
  Stage stage;
  QString field{};  ///< the one on that stage that waits for what is missing
};

/// The field of Rig in which what a condition misses is stated.
QString field_for(std::string_view condition, const record::TestRecord& of) {
  if (condition == "grid") return "gridColumns";
  if (condition == "height") return of.test.datum.empty() ? "datum" : "sensorPicker";
  if (condition == "calibration") return "sensorPicker";
  if (condition == "level") return of.test.checked_level == "yes" ? "checkedCenter" : "checkedLevel";
  const record::Bench& b = of.bench;
  return b.wall_left.empty()    ? "wallLeft"
         : b.wall_right.empty() ? "wallRight"
         : b.wall_front.empty() ? "wallFront"
         : b.wall_back.empty()  ? "wallBack"
                                : "door";
}

Way way_to(const Condition& c, const record::TestRecord& of) {
  switch (c.where) {
    case Condition::Rig:
      return {TrustPage::tr("To Rig"), Stage::Rig, field_for(c.id, of)};
    case Condition::WarmUp:
      return {TrustPage::tr("To Warm-up"), Stage::WarmUp};
    default:
      return {TrustPage::tr("To Walk"), Stage::Walk, c.id == "watts" ? QStringLiteral("walkWatts") : QString()};
  }
}

}  // namespace

TrustPage::TrustPage(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("trustPage");
  auto* column = scrolled_column(this);
  QWidget* content = column->parentWidget();
  grade_ = figure_label(24, content);
  grade_->setObjectName("evidenceGrade");
  column->addWidget(grade_);
  grade_words_ = wrapped_label({}, content);
  grade_words_->setProperty("quiet", true);
  column->addWidget(grade_words_);
  weakest_ = new QPushButton(content);
  weakest_->setObjectName("weakestSweep");
  column->addWidget(weakest_, 0, Qt::AlignLeft);
  connect(weakest_, &QPushButton::clicked, this, [this] {
    const auto weakest = desk_.worked_out().weakest();
    for (const record::Sweep& s : desk_.test()->sweeps)
      if (weakest && s.id == weakest->second) return desk_.choose(s.rung_id, s.stop_id);
  });
  conditions_ = new QGridLayout;
  conditions_->setHorizontalSpacing(12);
  conditions_->setVerticalSpacing(2);
  conditions_->setColumnStretch(1, 1);
  column->addLayout(conditions_);
  column->addSpacing(8);
  column->addWidget(thin_rule(content));
  column->addWidget(heading_label(tr("Uncertainty budget, k = 2"), content));
  budget_words_ = wrapped_label({}, content);
  budget_words_->setObjectName("budgetWords");
  column->addWidget(budget_words_);
  budget_ =
      new FiguresTable({tr("part"), tr("size"), tr("mean"), tr("efficacy"), tr("evenness"), tr("where it comes from")},
                       tr("Uncertainty budget"), content);
  budget_->setObjectName("budgetTable");
  budget_->set_spare_columns({5});
  column->addWidget(budget_);
  origin_ = wrapped_label({}, content);
  origin_->setObjectName("budgetOrigin");
  origin_->setProperty("quiet", true);
  column->addWidget(origin_);
  connect(budget_, &QTableWidget::currentCellChanged, this, &TrustPage::show_origin);
  column->addSpacing(4);
  stated_ = new Form(content);
  stated_->heading(tr("State your own, as standard uncertainties"));
  const auto add = [&](const QString& name, const char* object, std::optional<double> record::Test::*field,
                       double scale, const QString& unit, const QString& hint) {
    stated_
        ->line(
            name,
            [=, this] {
              const auto value = desk_.test() ? desk_.test()->test.*field : std::nullopt;
              return value ? show_number(*value * scale, 2) : QString();
            },
            parse_number_field({0, 100},
                               [=, this](std::optional<double> v) -> QString {
                                 record::Test test = desk_.test()->test;
                                 test.*field = v ? std::optional(*v / scale) : std::nullopt;
                                 return desk_.edits().make(tr("stated uncertainty"),
                                                           [&](book::Edit& e) { e.save(test); })
                                            ? QString()
                                            : tr("Not kept.");
                               }),
            [=] { return unit; }, hint)
        ->setObjectName(object);
  };
  add(tr("Height"), "heightUncertainty", &record::Test::height_uncertainty_m, 1000, tr("mm"), tr("5 assumed"));
  add(tr("Place of a station"), "placeUncertainty", &record::Test::position_uncertainty_m, 1000, tr("mm"),
      tr("5 assumed"));
  add(tr("Footprint edges"), "edgeUncertainty", &record::Test::edge_uncertainty_m, 1000, tr("mm"), tr("3 assumed"));
  add(tr("Spectral response"), "spectralUncertainty", &record::Test::spectral_uncertainty_pct, 1, "%",
      tr("1.5 assumed"));
  add(tr("Cosine response"), "cosineUncertainty", &record::Test::cosine_uncertainty_pct, 1, "%", tr("1 assumed"));
  stated_->note([] { return tr("Sensor and power meter have theirs on the shelf (Home) and on Rig."); });
  column->addWidget(stated_);
  column->addStretch();
  connect(&desk_.worked_out(), &WorkedOut::progressed, this, [this] {
    if (isVisible()) refresh();
  });
}

void TrustPage::refresh() {
  if (!desk_.test()) return;
  show_evidence();
  show_budget();
  stated_->refresh();
  stated_->set_editable(!desk_.read_only());
}

void TrustPage::clear_conditions() {
  while (QLayoutItem* item = conditions_->takeAt(0)) {
    if (item->widget()) item->widget()->deleteLater();
    delete item;
  }
}

void TrustPage::show_evidence() {
  const record::Id sweep_id = desk_.sweep() ? desk_.sweep()->id : 0;
  const auto evidence = desk_.worked_out().evidence_of(sweep_id);
  if (!evidence) {
    shown_.clear();
    weakest_->hide();
    clear_conditions();
    const bool read = desk_.view() && desk_.view()->read() > 0;
    grade_->setText(read ? tr("Working it out…") : tr("No evidence yet"));
    return grade_words_->setText(read ? QString() : tr("This sweep has no reading. Walk it (Alt+3)."));
  }
  grade_->setText(tr("%1 grade").arg(grade_text(evidence->grade)));
  QString words = evidence->missing() == 0
                      ? tr("This sweep meets every condition.")
                      : tr("This sweep misses %1 of %2 conditions; benchmark misses none, working one "
                           "or two.")
                            .arg(evidence->missing())
                            .arg(evidence->conditions.size());
  const auto weakest = desk_.worked_out().weakest();
  if (weakest)
    words += tr(" The test is %1, as its weakest sweep, %2.")
                 .arg(grade_text(weakest->first), sweep_words(desk_, weakest->second));
  weakest_->setVisible(weakest && weakest->second != sweep_id && weakest->first < evidence->grade);
  if (weakest) weakest_->setText(tr("To the weakest sweep, %1").arg(sweep_words(desk_, weakest->second)));
  grade_words_->setText(words);
  // Made anew only where something changed: the keyboard may rest on one of the ways.
  if (shown_ == evidence->conditions) return;
  shown_ = evidence->conditions;
  clear_conditions();
  int row = 0;
  QWidget* home = grade_->parentWidget();
  for (const Condition& c : evidence->conditions) {
    auto* mark = new QLabel((c.met ? QStringLiteral("● ") : QStringLiteral("◣ ")) + condition_name(c.id), home);
    set_tone(mark, c.met ? "good" : "attention");
    conditions_->addWidget(mark, row, 0, Qt::AlignTop);
    auto* saw = wrapped_label(text_of(told(c)), home);
    conditions_->addWidget(saw, row, 1);
    if (!c.met) {
      const Way to = way_to(c, *desk_.test());
      auto* way = new QPushButton(to.words, home);
      way->setObjectName("way_" + text_of(c.id));
      way->setProperty("plain", true);
      connect(way, &QPushButton::clicked, this, [this, to] { emit go(to.stage, to.field); });
      conditions_->addWidget(way, row, 2, Qt::AlignTop);
    }
    ++row;
  }
}

/// Where the part under the keyboard comes from, since the table has no room for all of it.
void TrustPage::show_origin() {
  const Budget* budget = desk_.worked_out().budget();
  const int row = budget_->currentRow();
  if (!budget || row < 0 || row >= std::ssize(budget->contributions))
    return origin_->setText(budget ? tr("Choose a line to see where its size comes from.") : QString());
  const Contribution& c = budget->contributions[row];
  origin_->setText(text_of(c.label) + ": " + text_of(origin_words(c.term)) + ".");
}

void TrustPage::show_budget() {
  const Budget* budget = desk_.worked_out().budget();
  if (desk_.test()) budget_->name_column(4, text_of(figure(desk_.test()->test.evenness_lead).label));
  if (!budget) {
    budget_->show_rows({});
    return budget_words_->setText(desk_.figures() ? tr("Being worked out…") : QString());
  }
  std::vector<std::vector<FigureCell>> rows;
  for (const Contribution& c : budget->contributions) {
    std::vector<FigureCell> row{{text_of(c.label), {}, false}, {text_of(size_words(c, desk_.units())), {}, false}};
    for (const std::string_view id : budget_columns(desk_.test()->test.evenness_lead)) {
      const auto k = static_cast<std::size_t>(figure_index(id));
      row.push_back({text_of(share_words(c.standard[k], budget->values[k])), {}, budget->largest(id) == &c});
    }
    const QString origin = text_of(origin_words(c.term));
    row.push_back({origin, origin, false});
    rows.push_back(std::move(row));
  }
  const auto total = [&](const QString& name, auto part) {
    std::vector<FigureCell> row{{name, {}, false}, {}};
    for (const std::string_view id : budget_columns(desk_.test()->test.evenness_lead)) {
      const auto k = static_cast<std::size_t>(figure_index(id));
      row.push_back({text_of(share_words(part(id, k), budget->values[k])), {}, false});
    }
    row.push_back({});
    rows.push_back(std::move(row));
  };
  total(tr("one-way pull"), [&](std::string_view, std::size_t k) { return budget->bias[k]; });
  total(tr("± with k = 2"), [&](std::string_view id, std::size_t) { return budget->expanded(id); });
  budget_->show_rows(rows);
  show_origin();
  const Contribution* largest = budget->largest("mean_ppfd");
  budget_words_->setText(
      tr("Standard uncertainties as a share of each figure; the last line is %1. ◣ marks the largest part%2.")
          .arg(text_of(expanded_words),
               largest ? tr(": of the mean, %1").arg(text_of(largest->label).toLower()) : QString()));
}

}  // namespace sunbreak::desktop
