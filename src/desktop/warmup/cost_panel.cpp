#include "desktop/warmup/cost_panel.h"

#include <QLabel>
#include <QVBoxLayout>

#include "book/target_shelf.h"
#include "core/power/running_cost.h"
#include "desktop/desk/desk.h"
#include "desktop/desk/test_log.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/form.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

/// Watts of the chosen sweep, or what the meter showed last.
std::optional<double> watts_of(Desk& desk, const evaluation::WallLog& log) {
  if (desk.sweep() && desk.sweep()->power_w) return desk.sweep()->power_w;
  if (!log.watts.empty()) return log.watts.back().value;
  return {};
}

double power_factor_of(const evaluation::WallLog& log) {
  for (auto s = log.samples.rbegin(); s != log.samples.rend(); ++s)
    if (s->power_factor > 0) return std::min(s->power_factor, 1.0);
  return 1;
}

}  // namespace

CostPanel::CostPanel(Desk& desk, TestLog& log, QWidget* parent) : QWidget(parent), desk_(desk), log_(log) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(6);
  layout->addWidget(heading_label(tr("Cost and heat"), this));
  form_ = new Form(this);
  const auto number = [&](const QString& name, const char* object, NumberRange range, auto record::Test::*field,
                          const QString& unit) {
    form_
        ->line(
            name, [=, this] { return desk_.test() ? show_number(desk_.test()->test.*field) : QString(); },
            parse_number_field(range,
                               [=, this](std::optional<double> v) -> QString {
                                 record::Test test = desk_.test()->test;
                                 if constexpr (std::is_same_v<decltype(test.*field), std::optional<double>&>)
                                   test.*field = v;
                                 else
                                   evaluation::set_photoperiod(test, v.value_or(test.*field));
                                 return desk_.edits().make(tr("cost and heat"), [&](book::Edit& e) { e.save(test); })
                                            ? QString()
                                            : tr("Not kept.");
                               }),
            [=] { return unit; })
        ->setObjectName(object);
  };
  number(tr("Photoperiod"), "costHours", {0, 24, false}, &record::Test::photoperiod_h, tr("h a day"));
  number(tr("Tariff"), "tariff", {0, 100}, &record::Test::tariff_per_kwh, tr("per kWh"));
  form_
      ->line(
          tr("Currency"), [this] { return desk_.test() ? text_of(desk_.test()->test.tariff_currency) : QString(); },
          [this](const QString& text) -> QString {
            record::Test test = desk_.test()->test;
            test.tariff_currency = text_of(text.left(8));
            return desk_.edits().make(tr("currency"), [&](book::Edit& e) { e.save(test); }) ? QString()
                                                                                            : tr("Not kept.");
          })
      ->setObjectName("currency");
  number(tr("Mains"), "mainsVolts", {50, 500}, &record::Test::mains_v, tr("V"));
  number(tr("Circuit rated"), "circuitAmperes", {1, 400}, &record::Test::circuit_a, tr("A"));
  table_ = new FiguresTable({tr("Each"), tr("kWh"), tr("Money")}, tr("Energy and money"), this);
  table_->setObjectName("costTable");
  layout->addWidget(table_);
  words_ = wrapped_label({}, this);
  words_->setObjectName("costWords");
  layout->addWidget(words_);
  layout->addWidget(form_);
  layout->addStretch();
  connect(&desk_, &Desk::changed, this, [this] {
    if (isVisible()) refresh();
  });
  connect(&log_, &TestLog::judged, this, &CostPanel::refresh);
  refresh();
}

void CostPanel::showEvent(QShowEvent* event) {
  refresh();
  QWidget::showEvent(event);
}

void CostPanel::refresh() {
  if (!desk_.test()) return;
  const record::Test& test = desk_.test()->test;
  form_->refresh();
  form_->set_editable(!desk_.read_only());
  const auto watts = watts_of(desk_, log_.log());
  std::vector<std::vector<FigureCell>> rows;
  QStringList words;
  bool attention = false;
  if (!watts) {
    words << tr("Log or type the watts at the wall: energy, heat and the circuit's share follow from them.");
  } else {
    const RunningCost c = running_cost(*watts, test.photoperiod_h, test.tariff_per_kwh.value_or(0));
    const auto row = [&](const QString& name, double days, double kwh, double money) {
      rows.push_back({{name, days > 1 ? tr("%1 days").arg(days) : QString(), false},
                      {QString::number(kwh, 'f', kwh < 100 ? 1 : 0), {}, false},
                      {test.tariff_per_kwh ? QString::number(money, 'f', 2) + " " + text_of(test.tariff_currency)
                                           : QStringLiteral("–"),
                       {},
                       false}});
    };
    row(tr("day"), 1, c.kwh_day, c.money_day);
    row(tr("week"), days_a_week, c.kwh_week, c.money_week);
    row(tr("month"), days_a_month, c.kwh_month, c.money_month);
    row(tr("year"), days_a_year, c.kwh_year, c.money_year);
    words << tr("%1 W · heat %2 BTU/h").arg(*watts, 0, 'f', 1).arg(heat_btu_h(*watts), 0, 'f', 0);
    if (test.mains_v) {
      const double amperes = mains_current_a(*watts, *test.mains_v, power_factor_of(log_.log()));
      words << tr("%1 A at %2 V").arg(amperes, 0, 'f', 2).arg(*test.mains_v, 0, 'f', 0);
      if (test.circuit_a) {
        const double share = amperes / *test.circuit_a;
        attention = share > continuous_load_share;
        words.last() += tr(", %1 % of the circuit").arg(100 * share, 0, 'f', 0);
        words << (attention ? marked_attention(tr("More than a circuit usually carries for hours. Plug it elsewhere; "
                                                  "ask a licensed electrician."))
                            : tr("Local rules decide what a circuit may carry for hours; ask a licensed electrician."));
      }
    }
    const Footprint f = record::footprint_of(desk_.test()->bench);
    const double area_m2 = f.width_m * f.depth_m;
    words << (desk_.units() == UnitSystem::Metric
                  ? tr("%1 W/m² of footprint; a rule of thumb, no measure of light.").arg(*watts / area_m2, 0, 'f', 0)
                  : tr("%1 W/ft² of footprint; a rule of thumb, no measure of light.")
                        .arg(*watts / square_feet(area_m2), 0, 'f', 1));
  }
  table_->show_rows(rows);
  words_->setText(words.join("\n"));
  set_tone(words_, attention ? "attention" : "");
}

}  // namespace sunbreak::desktop
