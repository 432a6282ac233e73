#include "desktop/settle/field_page.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QResizeEvent>
#include <QVBoxLayout>
#include <cmath>

#include "core/figures/figure_table.h"
#include "core/power/running_cost.h"
#include "core/quantity/daily_light.h"
#include "core/quantity/uncertain_text.h"
#include "core/uncertainty/budget.h"
#include "desktop/desk/worked_out.h"
#include "desktop/paint/light_maps.h"
#include "desktop/settle/field_chart.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/settle_words.h"

namespace sunbreak::desktop {
namespace {

constexpr int beside_px = 300, small_height_px = 500, least_map_px = 120;

std::vector<const Result<SettlePoint>*> in_order(const SettleAnswers& answers) {
  return {&answers.fewest_watts, &answers.widest, &answers.most_even};
}

}  // namespace

FieldPage::FieldPage(Desk& desk, SettleWork& work, QWidget* parent) : QWidget(parent), desk_(desk), work_(work) {
  setObjectName("ground");
  setAttribute(Qt::WA_StyledBackground);
  auto* outer = new QHBoxLayout(this);
  outer->setContentsMargins(0, 4, 0, 0);
  outer->setSpacing(14);
  auto* left = new QVBoxLayout;
  left->setSpacing(4);
  field_ = new FieldChart(desk_, work_, this);
  left->addWidget(field_, 1);
  auto* rows = new QGridLayout;
  rows->setHorizontalSpacing(10);
  rows->setVerticalSpacing(2);
  rows->setColumnStretch(1, 1);
  int row = 0;
  for (const QString& name : {tr("F  fewest watts"), tr("W  widest"), tr("E  most even")}) {
    auto* button = new QPushButton(name, this);
    button->setProperty("plain", true);
    button->setObjectName(QStringLiteral("settleAnswer%1").arg(row));
    connect(button, &QPushButton::clicked, this, [this, row] { stand_on_answer(row); });
    rows->addWidget(button, row, 0, Qt::AlignLeft | Qt::AlignTop);
    QLabel* words = wrapped_label({}, this);
    words->setObjectName(QStringLiteral("settleAnswerWords%1").arg(row));
    rows->addWidget(words, row, 1, Qt::AlignVCenter);
    answers_.push_back(button);
    answer_words_.push_back(words);
    ++row;
  }
  left->addLayout(rows);
  costs_ = wrapped_label({}, this);
  costs_->setObjectName("settleCosts");
  left->addWidget(costs_);
  outer->addLayout(left, 1);
  auto* beside = new QVBoxLayout;
  beside->setSpacing(4);
  map_ = new LightMaps(desk_, this);
  map_->setObjectName("settleMap");
  map_->setFixedWidth(beside_px);
  map_->setMinimumHeight(least_map_px);
  beside->addWidget(map_, 1);
  chance_ = wrapped_label({}, this);
  chance_->setObjectName("settleChance");
  chance_->setFixedWidth(beside_px);
  beside->addWidget(chance_);
  figures_ = new FiguresTable({tr("predicted"), tr("value"), tr("± k = 2")}, tr("Figures at the point"), this);
  figures_->setObjectName("settleFigures");
  figures_->setFixedWidth(beside_px);
  beside->addWidget(figures_);
  outer->addLayout(beside);
  connect(&work_, &SettleWork::moved, this, &FieldPage::show_point);
  connect(&work_, &SettleWork::answered, this, &FieldPage::show_answers);
  connect(&work_, &SettleWork::field_changed, this, &FieldPage::show_answers);
  connect(&desk_.worked_out(), &WorkedOut::progressed, this, [this] {
    if (isVisible()) show_point();
  });
}

void FieldPage::show_point() {
  const auto& point = work_.point();
  if (!point || !desk_.test() || !work_.maps()) {
    map_->show_maps({});
    figures_->show_rows({});
    return chance_->setText({});
  }
  const SettleMaps& maps = *work_.maps();
  const Rectangle& area = maps.lattice.area;
  const AreaLight& f = point->figures;
  RowMap map;
  const bool walked = work_.light() && work_.light()->read_at(point->height->height_m, point->setting.percent);
  map.title = (walked ? tr("%1, as walked") : tr("%1, predicted"))
                  .arg(text_of(evaluation::settle_place_words(*point, desk_.units())));
  map.foot = tr("%1 to %2 µmol/m²/s").arg(f.lowest, 0, 'f', 0).arg(f.highest, 0, 'f', 0);
  map.layout =
      lay_out({area.width_m, area.depth_m}, Grid{GridKind::Cells, maps.lattice.columns, maps.lattice.rows, 0, 0, {}})
          .value();
  map.values = settle_cells_ppfd(*point->height, point->setting);
  map.scale.range = desk_.scale();
  map.scale.range.high = std::max(map.scale.range.high, drawing::round_range(f.lowest, f.highest).high);
  map.band = work_.request().band;
  map.predicted = !walked;
  map_->show_maps({std::move(map)});
  figures_->name_column(0, walked ? tr("as walked") : tr("predicted"));
  SettleExpanded e = expanded_of(work_.request().band, maps.shared_sd, *point->height, point->setting);
  // Of what was walked the ± is the sweep's own, as Read has it.
  const auto sweep = work_.light() ? evaluation::sweep_at(*work_.light(), maps, *point) : std::nullopt;
  const Budget* budget = sweep ? desk_.worked_out().budget_of(*sweep) : nullptr;
  if (sweep && !budget) desk_.worked_out().want_budgets(*sweep);
  if (budget) e = evaluation::as_read(e, *budget);
  std::vector<std::vector<FigureCell>> rows;
  const auto add = [&](const QString& name, double value, double expanded, int decimals, const QString& unit) {
    const Told shown = told(value, expanded, decimals);
    rows.push_back({{name, {}, false},
                    {(text_of(shown.value) + " " + unit).trimmed(), {}, false},
                    {text_of(shown.expanded), {}, false}});
  };
  const auto add_figure = [&](std::string_view id, double value, double expanded) {
    const Figure& as = figure(id);
    const Told shown = shown_told(as, value, sweep && !budget ? unread : expanded, desk_.units());
    rows.push_back({{text_of(as.label), {}, false},
                    {(text_of(shown.value) + " " + text_of(shown_unit(as, desk_.units()))).trimmed(), {}, false},
                    {text_of(shown.expanded), {}, false}});
  };
  const QString light = tr("µmol/m²/s");
  add_figure("mean_ppfd", f.mean, e.mean);
  add_figure("edge_ppfd", f.edge, e.edge);
  // In a small window the map keeps its room.
  const bool all = height() >= small_height_px;
  if (all) add_figure("centre_ppfd", f.center, e.center);
  if (all) add(tr("Corners"), f.corners, e.corners, 0, light);
  add_figure("lowest_ppfd", f.lowest, e.lowest);
  add_figure("highest_ppfd", f.highest, e.highest);
  add(tr("In band"), 100 * f.in_band, 100 * e.in_band, 0, "%");
  add_figure("lowest_over_mean", f.lowest_over_mean(), e.lowest_over_mean);
  const double hours = desk_.test()->test.photoperiod_h;
  if (all) add(tr("Daily light, mean"), dli_mol_m2_d(f.mean, hours), dli_mol_m2_d(e.mean, hours), 1, tr("mol/m²/d"));
  if (const auto watts = point->setting.power_w) {
    const auto tariff = desk_.test()->test.tariff_per_kwh;
    const RunningCost cost = running_cost(*watts, hours, tariff.value_or(0));
    add(tr("Energy, %1 h a day").arg(show_number(hours, 1)), cost.kwh_day, NAN, 2, tr("kWh"));
    if (tariff && all) add(tr("Cost a day"), cost.money_day, NAN, 2, text_of(desk_.test()->test.tariff_currency));
  }
  figures_->show_rows(rows);
  const ServingVerdict v = judged(work_.request().rule, work_.request().band, f);
  const std::string lacking = lacking_words(work_.request().rule, work_.request().band, f);
  QString words = v.met()                     ? tr("The rule is met here")
                  : v.too_dim && v.too_bright ? tr("Too uneven here for the rule: %1").arg(text_of(lacking))
                  : v.too_dim                 ? tr("Too dim here for the rule: %1").arg(text_of(lacking))
                                              : tr("Too bright here for the rule: %1").arg(text_of(lacking));
  words += tr("; it holds with a chance of %1.").arg(text_of(chance_text(point->chance)));
  if (point->height->beyond) words += tr(" Beyond the measured heights.");
  set_tone(chance_, v.met() ? "good" : "attention");
  chance_->setText(v.met() ? words : marked_attention(words));
}

void FieldPage::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  if ((event->oldSize().height() < small_height_px) != (height() < small_height_px)) show_point();
}

void FieldPage::show_answers() {
  const auto& answers = work_.answers();
  const bool fresh = answers && answers->maps == work_.maps() && answers->request == work_.request();
  for (std::size_t i = 0; i < answer_words_.size(); ++i) {
    QLabel* label = answer_words_[i];
    answers_[i]->setEnabled(fresh);
    if (!fresh) {
      set_tone(label, "");
      label->setText(work_.maps() ? tr("working it out…") : QString());
      continue;
    }
    const Result<SettlePoint>& best = *in_order(answers->best)[i];
    set_tone(label, best ? "" : "attention");
    label->setToolTip({});
    if (i == 0 && !best && answers->best.instead && work_.light()) {
      label->setText(marked_attention(
          text_of(evaluation::instead_words(answers->request, *answers->best.instead, *work_.light(), desk_.units()))));
      label->setToolTip(text_of(best.problem().sentence()));
    } else if (best) {
      const SettlePoint& p = best.value();
      label->setText(tr("%1: edge %2, mean %3, %4–%5 µmol/m²/s, %6 % in band, %7 sure")
                         .arg(text_of(evaluation::settle_place_words(p, desk_.units())))
                         .arg(p.figures.edge, 0, 'f', 0)
                         .arg(p.figures.mean, 0, 'f', 0)
                         .arg(p.figures.lowest, 0, 'f', 0)
                         .arg(p.figures.highest, 0, 'f', 0)
                         .arg(100 * p.figures.in_band, 0, 'f', 0)
                         .arg(text_of(chance_text(p.chance))));
    } else {
      label->setText(marked_attention(text_of(best.problem().seen)) + ".");
      label->setToolTip(text_of(best.problem().sentence()));
    }
  }
  QStringList costs;
  if (fresh) {
    for (const std::string& words : evaluation::settle_cost_words(answers->best, answers->maps->lattice, desk_.units()))
      costs << text_of(words);
    if (answers->best.fewest_watts) {
      const std::string price =
          evaluation::settle_price_words(answers->likely, answers->best.fewest_watts.value(), answers->request.sure);
      if (!price.empty()) costs << text_of(price);
    }
  }
  costs_->setText(costs.join(' '));
}

void FieldPage::stand_on_answer(int which) {
  const auto& answers = work_.answers();
  if (!answers) return;
  const Result<SettlePoint>& best = *in_order(answers->best)[static_cast<std::size_t>(which)];
  if (best) return work_.stand_on(best.value());
  if (which == 0 && answers->best.instead) return work_.stand_on(answers->best.instead->point);
  emit said(text_of(best.problem().sentence()));
}

}  // namespace sunbreak::desktop
