#include "desktop/lineup/scatter_page.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "desktop/lineup/lineup_scene.h"
#include "desktop/paint/drawn_widget.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "drawing/scatter_plot.h"

namespace sunbreak::desktop {

using evaluation::LineUp;
using evaluation::LineUpFigure;

ScatterPage::ScatterPage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  QVBoxLayout* column = whole_column();
  auto* head = new QHBoxLayout;
  const auto choice = [&](const QString& name, const char* object, const char* begins) {
    head->addWidget(quiet_label(name, this));
    auto* box = new QComboBox(this);
    box->setObjectName(object);
    box->setAccessibleName(name);
    for (const LineUpFigure& f : evaluation::lineup_figures()) box->addItem(text_of(f.label), text_of(f.id));
    box->setCurrentIndex(box->findData(begins));
    connect(box, &QComboBox::activated, this, &ScatterPage::draw);
    head->addWidget(box);
    return box;
  };
  y_ = choice(tr("Upward"), "scatterY", "mean_ppfd");
  x_ = choice(tr("Across"), "scatterX", "lowest_over_mean");
  head->addStretch();
  column->addLayout(head);
  chart_ = new DrawnWidget(tr("Two figures"), this);
  chart_->setObjectName("scatter");
  column->addWidget(chart_, 1);
  words_ = wrapped_label({}, this);
  words_->setObjectName("scatterWords");
  words_->setProperty("quiet", true);
  column->addWidget(words_);
}

void ScatterPage::show_scene(const LineUpScene& scene) {
  scene_ = scene;
  draw();
}

void ScatterPage::draw() {
  if (!scene_.shown || !scene_.shown->lineup) return chart_->show_drawing({}, {});
  const LineUp& lineup = *scene_.shown->lineup;
  const auto figure_at = [](const QComboBox* box) {
    return evaluation::lineup_figures()[static_cast<std::size_t>(box->currentIndex())];
  };
  const LineUpFigure fx = figure_at(x_), fy = figure_at(y_);
  const auto xs = lineup.standings(fx.id), ys = lineup.standings(fy.id);
  drawing::ScatterPlot plot;
  const auto name_of = [&](const LineUpFigure& f) {
    const std::string unit = evaluation::shown_unit(f, desk_.units(), lineup.terms().currency);
    return std::string(f.label) + (unit.empty() ? "" : ", " + unit);
  };
  plot.x_name = name_of(fx), plot.y_name = name_of(fy);
  plot.x_per_stored = evaluation::shown_per_stored(fx, desk_.units());
  plot.y_per_stored = evaluation::shown_per_stored(fy, desk_.units());
  plot.less_x_is_better = fx.better == Better::Less, plot.less_y_is_better = fy.better == Better::Less;
  // One group only: others may not be held against it.
  const auto& groups = lineup.groups();
  const auto group = std::ranges::find_if(
      groups, [&](const std::vector<int>& g) { return std::ranges::find(g, scene_.chosen.first) != g.end(); });
  QStringList front;
  int lacking = 0;
  for (const int m : group == groups.end() ? (groups.empty() ? std::vector<int>{} : groups.front()) : *group) {
    const auto i = static_cast<std::size_t>(m);
    if (std::isnan(xs[i].value) || std::isnan(ys[i].value)) {
      ++lacking;
      continue;
    }
    plot.points.push_back(
        {xs[i].value, ys[i].value, xs[i].expanded(), ys[i].expanded(), short_name(scene_, m), role_of(scene_, m)});
  }
  mark_frontier(plot);
  for (const auto& p : plot.points)
    if (p.on_frontier) front << text_of(p.name);
  QString words = plot.points.empty() ? tr("Nobody has both figures in this way.")
                                      : tr("On the frontier, by value: %1.").arg(front.join(", "));
  if (lacking > 0) words += " " + tr("%1 of those that may be compared lack one of the two.").arg(lacking);
  if (groups.size() > 1) words += " " + tr("Only those that may be held against the chosen one are drawn.");
  words_->setText(words);
  chart_->show_drawing([plot](drawing::Canvas& c, const drawing::Box& room) { draw_scatter(c, room, plot); }, words);
}

}  // namespace sunbreak::desktop
