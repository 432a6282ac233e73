#include "desktop/lineup/over_time_page.h"

#include <QDate>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <set>

#include "desktop/lineup/lineup_scene.h"
#include "desktop/paint/drawn_widget.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "drawing/time_plot.h"
#include "evaluation/light_words.h"

namespace sunbreak::desktop {

using evaluation::LineUp;

OverTimePage::OverTimePage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  QVBoxLayout* column = whole_column();
  chart_ = new DrawnWidget(tr("Over time"), this);
  chart_->setObjectName("overTime");
  column->addWidget(chart_, 1);
  words_ = wrapped_label({}, this);
  words_->setObjectName("overTimeWords");
  column->addWidget(words_);
}

void OverTimePage::show_scene(const LineUpScene& scene) {
  const int chosen = scene.chosen.first;
  if (!scene.shown || !scene.shown->lineup || chosen < 0) {
    words_->clear();
    return chart_->show_drawing({}, {});
  }
  const LineUp& lineup = *scene.shown->lineup;
  // Tests that repeat each other, by their marks, and those of a unit with the same serial number.
  const auto& members = lineup.members();
  std::set<int> unit{chosen};
  for (bool grown = true; grown;) {
    grown = false;
    for (int m = 0; m < std::ssize(members); ++m) {
      const evaluation::Entrant& e = members[static_cast<std::size_t>(m)].entrant;
      const bool same = std::ranges::any_of(unit, [&](int u) {
        const evaluation::Entrant& o = members[static_cast<std::size_t>(u)].entrant;
        return e.configuration_id == o.configuration_id &&
               ((!e.mark.empty() && (e.mark == o.retest_of || e.mark == o.mark)) ||
                (!e.retest_of.empty() && (e.retest_of == o.mark || e.retest_of == o.retest_of)) ||
                (!e.serial.empty() && e.serial == o.serial && e.fixture == o.fixture));
      });
      if (same && unit.insert(m).second) grown = true;
    }
  }
  std::vector<drawing::TimedEstimate> estimates;
  std::vector<int> in_time;
  for (const int m : unit) {
    const Standing& s = lineup.ranking().standings()[static_cast<std::size_t>(m)];
    const std::string& day = members[static_cast<std::size_t>(m)].entrant.tested_on;
    const QDate date = QDate::fromString(text_of(day), Qt::ISODate);
    if (!date.isValid() || std::isnan(s.value)) continue;
    estimates.push_back({static_cast<double>(date.toJulianDay()), day, s.value, s.expanded(), role_of(scene, m)});
    in_time.push_back(m);
  }
  std::vector<std::size_t> order(estimates.size());
  for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
  std::ranges::sort(order, {}, [&](std::size_t i) { return estimates[i].day; });
  QStringList lines;
  for (std::size_t k = 1; k < order.size(); ++k) {
    const int before = in_time[order[k - 1]], now = in_time[order[k]];
    const auto why = lineup.why_not(before, now);
    const auto& s = lineup.ranking().standings();
    const StandingDifference d = difference(s[static_cast<std::size_t>(now)], s[static_cast<std::size_t>(before)]);
    const QString dates = tr("%1 to %2").arg(text_of(estimates[order[k - 1]].date), text_of(estimates[order[k]].date));
    lines << (why.empty() ? tr("%1: %2, %3.")
                                .arg(dates,
                                     text_of(evaluation::shown_difference(lineup.figure(), d, desk_.units(),
                                                                          lineup.terms().currency)),
                                     d.beyond() ? tr("a change beyond its uncertainty")
                                                : tr("no change beyond its uncertainty"))
                          : tr("%1: may not be compared: %2.").arg(dates, text_of(why_not_words(why))));
  }
  if (order.size() < 2)
    lines
        << tr("%1 was tested once. A retest is made one on Rig (what it repeats), or shows by the same serial number.")
               .arg(text_of(members[static_cast<std::size_t>(chosen)].entrant.fixture));
  std::vector<drawing::TimedEstimate> sorted;
  for (const std::size_t i : order) sorted.push_back(estimates[i]);
  words_->setText(lines.join("\n"));
  const std::string unit_text = evaluation::shown_unit(lineup.figure(), desk_.units(), lineup.terms().currency);
  const std::string name = std::string(lineup.figure().label) + (unit_text.empty() ? "" : ", " + unit_text);
  const double per = evaluation::shown_per_stored(lineup.figure(), desk_.units());
  chart_->show_drawing(
      [sorted, name, per](drawing::Canvas& c, const drawing::Box& room) { draw_time_plot(c, room, sorted, name, per); },
      lines.join(" "));
}

}  // namespace sunbreak::desktop
