#include "desktop/settle/curves_page.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <cmath>

#include "core/settle/settle_questions.h"
#include "core/targets/target_fit.h"
#include "desktop/settle/curve_chart.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/settle_words.h"

namespace sunbreak::desktop {
namespace {

/// A figure that is drawn: of what is predicted, and of a walked sweep where that has it.
struct DrawnFigure {
  QString name;
  double (*predicted)(const AreaLight&, const SettleSetting&);
  double (*expanded)(const SettleExpanded&);
  double (*measured)(const evaluation::SweepDigest&);
};

std::vector<DrawnFigure> drawn_figures() {
  const auto words = [](const char* text) { return CurvesPage::tr(text); };
  return {
      {words("Mean, µmol/m²/s"), [](const AreaLight& f, const SettleSetting&) { return f.mean; },
       [](const SettleExpanded& e) { return e.mean; }, [](const evaluation::SweepDigest& s) { return s.mean_ppfd; }},
      {words("Center: light on a leaf that far below, µmol/m²/s"),
       [](const AreaLight& f, const SettleSetting&) { return f.center; },
       [](const SettleExpanded& e) { return e.center; },
       [](const evaluation::SweepDigest& s) { return s.center_ppfd; }},
      {words("Highest, µmol/m²/s"), [](const AreaLight& f, const SettleSetting&) { return f.highest; },
       [](const SettleExpanded& e) { return e.highest; }, nullptr},
      {words("Lowest, µmol/m²/s"), [](const AreaLight& f, const SettleSetting&) { return f.lowest; },
       [](const SettleExpanded& e) { return e.lowest; }, nullptr},
      {words("Mean along the edge, µmol/m²/s"), [](const AreaLight& f, const SettleSetting&) { return f.edge; },
       [](const SettleExpanded& e) { return e.edge; }, nullptr},
      {words("Lowest ÷ mean"), [](const AreaLight& f, const SettleSetting&) { return f.lowest_over_mean(); },
       [](const SettleExpanded& e) { return e.lowest_over_mean; }, nullptr},
      {words("Watts at the wall"), [](const AreaLight&, const SettleSetting& s) { return s.power_w.value_or(unread); },
       [](const SettleExpanded&) { return 0.0; }, nullptr},
      {words("In band, % of the area"), [](const AreaLight& f, const SettleSetting&) { return 100 * f.in_band; },
       [](const SettleExpanded& e) { return 100 * e.in_band; }, nullptr}};
}

}  // namespace

CurvesPage::CurvesPage(Desk& desk, SettleWork& work, QWidget* parent) : QWidget(parent), desk_(desk), work_(work) {
  setObjectName("ground");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 8, 0, 0);
  column->setSpacing(8);
  auto* head = new QHBoxLayout;
  head->addWidget(quiet_label(tr("Figure"), this));
  figure_ = new QComboBox(this);
  figure_->setObjectName("settleFigure");
  figure_->setAccessibleName(tr("Figure"));
  for (const DrawnFigure& f : drawn_figures()) figure_->addItem(f.name);
  head->addWidget(figure_);
  head->addStretch();
  column->addLayout(head);
  auto* charts = new QHBoxLayout;
  charts->setSpacing(20);
  by_height_ = new CurveChart(this);
  by_height_->setObjectName("curveByHeight");
  by_setting_ = new CurveChart(this);
  by_setting_->setObjectName("curveBySetting");
  charts->addWidget(by_height_, 1);
  charts->addWidget(by_setting_, 1);
  column->addLayout(charts, 1);
  words_ = wrapped_label({}, this);
  words_->setObjectName("curveWords");
  column->addWidget(words_);
  connect(figure_, &QComboBox::activated, this, &CurvesPage::refresh);
  const auto in_sight = [this] {
    if (isVisible()) refresh();
  };
  connect(&work_, &SettleWork::moved, this, in_sight);
  connect(&work_, &SettleWork::field_changed, this, in_sight);
}

void CurvesPage::refresh() {
  const auto& maps = work_.maps();
  const auto& point = work_.point();
  if (!maps || !point || !desk_.test()) {
    by_height_->show_curve({});
    by_setting_->show_curve({});
    return words_->setText({});
  }
  const DrawnFigure drawn = drawn_figures()[static_cast<std::size_t>(figure_->currentIndex())];
  const Band band = work_.request().band;
  const LengthUnit unit = surface_unit(desk_.units());
  // Shares take long: their ± is worked out at a few points, and holds until the next.
  constexpr std::size_t every = 5;
  const bool of_share = figure_->currentIndex() == figure_->count() - 1;
  double last_expanded = 0;
  const auto at = [&](const SettleHeight& height, const SettleSetting& setting, double x, std::size_t place) {
    if (!of_share || place % every == 0)
      last_expanded = drawn.expanded(expanded_of(band, maps->shared_sd, height, setting, of_share));
    return CurveChart::Point{x, drawn.predicted(settle_figures(height, setting, band), setting), last_expanded};
  };
  CurveChart::Curve by_height, by_setting;
  by_height.y_name = tr("%1, at %2 %").arg(drawn.name, show_number(point->setting.percent, 1));
  by_height.x_name = tr("hanging height, %1").arg(text_of(symbol(unit)));
  for (const auto& height : maps->heights)
    by_height.predicted.push_back(
        at(*height, point->setting, from_m(height->height_m, unit), by_height.predicted.size()));
  by_height.here = from_m(point->height->height_m, unit);
  by_setting.y_name = tr("%1, at %2").arg(drawn.name, text_of(length_text(point->height->height_m, desk_.units())));
  by_setting.x_name = tr("dimmer, %");
  for (const SettleSetting& setting : maps->settings) {
    by_setting.predicted.push_back(at(*point->height, setting, setting.percent, by_setting.predicted.size()));
    if (setting.power_w) by_setting.above.emplace_back(setting.percent, tr("%1 W").arg(*setting.power_w, 0, 'f', 0));
  }
  by_setting.here = point->setting.percent;
  // A walked sweep's own figures, where they mean the same: those of the whole area.
  const bool whole = work_.light() && maps->lattice.area == evaluation::whole_area(*work_.light());
  constexpr double same_setting = 0.05, same_height_m = 1e-4;
  if (whole && drawn.measured)
    for (const record::Sweep& sweep : desk_.test()->sweeps) {
      const record::Rung* rung = desk_.test()->rung(sweep.rung_id);
      const record::Stop* stop = desk_.test()->stop(sweep.stop_id);
      const evaluation::SweepDigest* digest = sweep.confirms ? nullptr : desk_.digest_of(sweep.id);
      if (!rung || !stop || !digest || !digest->complete) continue;
      if (std::abs(stop->percent - point->setting.percent) < same_setting)
        by_height.measured.emplace_back(from_m(rung->height_m, unit), drawn.measured(*digest));
      if (std::abs(rung->height_m - point->height->height_m) < same_height_m)
        by_setting.measured.emplace_back(stop->percent, drawn.measured(*digest));
    }
  for (CurveChart::Curve* curve : {&by_height, &by_setting})
    std::erase_if(curve->predicted, [](const CurveChart::Point& p) { return std::isnan(p.y); });
  QStringList words;
  const double limit = work_.request().limits.max_ppfd.value_or(band.high);
  constexpr int center_row = 1, highest_row = 2;
  if (figure_->currentIndex() == center_row || figure_->currentIndex() == highest_row) {
    by_height.limit = by_setting.limit = limit;
    if (figure_->currentIndex() == center_row) {
      if (const auto height = height_where_center(*maps, point->setting, limit))
        words << tr("On the axis a leaf passes %1 µmol/m²/s where it is nearer than %2.")
                     .arg(limit, 0, 'f', 0)
                     .arg(text_of(length_text(height.value(), desk_.units())));
      else
        words << tr("On the axis %1 µmol/m²/s is passed at no height within reach.").arg(limit, 0, 'f', 0);
    }
  }
  words << QString::fromStdString(evaluation::settle_trade_words(*maps, *point, band, desk_.units()));
  by_height_->show_curve(std::move(by_height));
  by_setting_->show_curve(std::move(by_setting));
  words.removeAll({});
  words_->setText(words.join(' '));
}

}  // namespace sunbreak::desktop
