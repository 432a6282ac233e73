#include "desktop/lineup/lineup_pages.h"

#include <QComboBox>
#include <QDate>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <ranges>
#include <set>

#include "core/figures/area_curve.h"
#include "core/sweep/difference.h"
#include "desktop/lineup/lineup_strip.h"
#include "desktop/paint/drawn_widget.h"
#include "desktop/paint/light_maps.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"
#include "drawing/curve_overlay.h"
#include "drawing/scatter_plot.h"
#include "drawing/time_plot.h"
#include "evaluation/light_words.h"

namespace sunbreak::desktop {

using drawing::BarRole;
using evaluation::LineUp;
using evaluation::LineUpEntry;
using evaluation::LineUpFigure;
using evaluation::LineUpMember;

namespace {

constexpr int maps_a_row = 4, map_rows = 2, most_curves = 8, most_names = 8, profile_steps = 60;
constexpr double area_step_m = 0.02;

const LineUpMember& member(const LineUpScene& scene, int number) {
  return scene.shown->lineup->members()[static_cast<std::size_t>(number)];
}

BarRole role_of(const LineUpScene& scene, int number) {
  return number == scene.chosen.first    ? BarRole::Chosen
         : number == scene.chosen.second ? BarRole::Second
                                         : BarRole::Plain;
}

Layout layout_of(const LineUpEntry& e) { return lay_out(e.footprint, e.grid).value(); }
bool has_light(const LineUpEntry& e) {
  return !e.none && !e.ppfd.empty() && std::ranges::any_of(e.ppfd, [](double v) { return std::isfinite(v); });
}

/// One light scale over all members.
drawing::ScaleRange scale_over(const LineUpScene& scene) {
  double low = INFINITY, high = -INFINITY;
  for (const int m : scene.order)
    for (const double e : member(scene, m).entry->ppfd)
      if (std::isfinite(e)) low = std::min(low, e), high = std::max(high, e);
  return low <= high ? drawing::round_range(low, high) : drawing::ScaleRange{};
}

/// The fixture's name, or the test's where several in the line-up have that fixture.
std::string short_name(const LineUpScene& scene, int number) {
  const evaluation::Entrant& e = member(scene, number).entrant;
  const auto same = std::ranges::count_if(scene.shown->lineup->members(),
                                          [&](const LineUpMember& m) { return m.entrant.fixture == e.fixture; });
  return same > 1 ? member_name(e).toStdString() : e.fixture;
}

QString value_text(const LineUpScene& scene, const LineUpFigure& f, int number, UnitSystem units) {
  const Standing s = scene.shown->lineup->standing(f.id, number);
  return text_of(
      evaluation::shown_with_uncertainty(f, s.value, s.expanded(), units, scene.shown->lineup->terms().currency));
}

RowMap map_of(const LineUpScene& scene, int number, const drawing::ScaleRange& range, UnitSystem units) {
  const LineUpEntry& e = *member(scene, number).entry;
  RowMap map;
  map.title = member_name(member(scene, number).entrant);
  map.foot = LineUpPage::tr("%1, %2 %3")
                 .arg(text_of(length_text(e.height_m, units)), QString::number(e.percent, 'g', 4),
                      e.power_w ? LineUpPage::tr("% · %1 W").arg(*e.power_w, 0, 'f', 0) : QStringLiteral("%"));
  map.layout = layout_of(e), map.values = e.ppfd;
  map.scale = {range};
  map.predicted = !e.changes.empty();
  return map;
}

QVBoxLayout* page_column(QWidget* page) {
  page->setObjectName("ground");
  page->setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(page);
  column->setContentsMargins(0, 6, 0, 0);
  column->setSpacing(6);
  return column;
}

/// Those that are drawn where not all have room: the chosen two, then the best.
std::vector<int> shown_few(const LineUpScene& scene, int most) {
  std::vector<int> few;
  for (const int m : {scene.chosen.first, scene.chosen.second})
    if (m >= 0 && has_light(*member(scene, m).entry)) few.push_back(m);
  for (const int m : scene.order)
    if (std::ssize(few) < most && std::ranges::find(few, m) == few.end() && has_light(*member(scene, m).entry))
      few.push_back(m);
  return few;
}

}  // namespace

LineUpPage::LineUpPage(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {}

// The one chosen.

MemberDetail::MemberDetail(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  setObjectName("ground");
  QVBoxLayout* side = scrolled_column(this);
  head_ = heading_label({}, this);
  head_->setWordWrap(true);
  side->addWidget(head_);
  words_ = wrapped_label({}, this);
  words_->setObjectName("lineupWords");
  words_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  side->addWidget(words_);
  figures_ = new FiguresTable({tr("Figure"), tr("Value")}, tr("Figures"), this);
  figures_->setObjectName("lineupFigures");
  side->addWidget(figures_);
  side->addStretch();
}

void MemberDetail::show_scene(const LineUpScene& scene) {
  const int m = scene.chosen.first;
  if (!scene.shown || !scene.shown->lineup || m < 0) {
    head_->setText({});
    words_->setText(scene.shown && scene.shown->all > 0
                        ? QString()
                        : tr("Tests of this lab book, and other testers' packages, stand here side by side."));
    figures_->show_rows({});
    return;
  }
  const LineUp& lineup = *scene.shown->lineup;
  const LineUpMember& here = member(scene, m);
  head_->setText(member_name(here.entrant));
  QStringList lines;
  if (const std::string why = lineup.why_none(m); !why.empty()) {
    lines << tr("No value in this way: %1.").arg(text_of(why));
    if (here.entry->none && !here.entry->none->remedy.empty())
      lines << tr("What would help: %1.").arg(text_of(here.entry->none->remedy));
  } else {
    lines << tr("Rank %1%2.")
                 .arg(text_of(LineUp::rank_words(lineup.ranking().rank(m))),
                      lineup.terms().sure == Sure::AllPairs ? tr(", sure for all pairs together") : QString());
  }
  QStringList ties;
  const std::vector<int> tied = lineup.ranking().ties(m);
  for (const int t : tied) {
    if (ties.size() == most_names) {
      ties << tr("%1 more").arg(std::ssize(tied) - most_names);
      break;
    }
    ties << text_of(short_name(scene, t));
  }
  if (!ties.isEmpty()) lines << tr("Not told apart from: %1.").arg(ties.join(", "));
  QStringList dominated;
  const std::vector<int>& by = lineup.dominated()[static_cast<std::size_t>(m)];
  for (const int d : by | std::views::take(most_names)) dominated << member_name(member(scene, d).entrant);
  if (std::ssize(by) > most_names) dominated << tr("%1 more").arg(std::ssize(by) - most_names);
  if (!dominated.isEmpty())
    lines << tr("Dominated by %1: nowhere worse in light, evenness%2, better in one beyond uncertainty.")
                 .arg(dominated.join(", "), lineup.terms().price_counts ? tr(", watts and price") : tr(" and watts"));
  for (const std::string& change : here.entry->changes) lines << text_of(change);
  if (scene.chosen.second >= 0 && scene.chosen.second != m) {
    const auto why = lineup.why_not(m, scene.chosen.second);
    const QString other = member_name(member(scene, scene.chosen.second).entrant);
    if (!why.empty()) {
      lines << tr("May not be held against %1: %2.").arg(other, text_of(why_not_words(why)));
      QStringList ways;
      for (const Unlike& u : why)
        for (const std::string& way : u.switches) ways << text_of(way);
      lines << (ways.isEmpty() ? tr("Nothing here makes them alike.")
                               : tr("What makes them alike: %1.").arg(ways.join(", ")));
    } else {
      const auto& standings = lineup.ranking().standings();
      const StandingDifference d =
          difference(standings[static_cast<std::size_t>(m)], standings[static_cast<std::size_t>(scene.chosen.second)]);
      if (std::isfinite(d.value))
        lines << tr("Beside %1: %2, %3. Enter shows both.")
                     .arg(other,
                          text_of(evaluation::shown_with_uncertainty(lineup.figure(), d.value, d.expanded,
                                                                     desk_.units(), lineup.terms().currency)),
                          d.beyond() ? tr("beyond its uncertainty") : tr("within its uncertainty"));
    }
  }
  if (const auto differs = scene.shown->differs.find(here.entrant.guest); differs != scene.shown->differs.end()) {
    lines << tr("Its package states what its readings do not give:");
    for (const std::string& words : differs->second) lines << "· " + text_of(words);
  }
  words_->setText(lines.join("\n"));
  std::vector<std::vector<FigureCell>> rows;
  for (const LineUpFigure& f : evaluation::lineup_figures()) {
    const Standing s = lineup.standing(f.id, m);
    if (std::isnan(s.value)) continue;
    rows.push_back(
        {{text_of(f.label), text_of(f.meaning)},
         {text_of(evaluation::shown_with_uncertainty(f, s.value, s.expanded(), desk_.units(), lineup.terms().currency)),
          {}}});
  }
  figures_->show_rows(rows);
}

// Maps.

MapsPage::MapsPage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  QVBoxLayout* column = page_column(this);
  words_ = wrapped_label({}, this);
  words_->setProperty("quiet", true);
  column->addWidget(words_);
  for (int r = 0; r < map_rows; ++r) {
    rows_.push_back(new LightMaps(desk_, this));
    column->addWidget(rows_.back(), 1);
  }
}

void MapsPage::show_scene(const LineUpScene& scene) {
  scene_ = scene;
  std::erase_if(scene_.order, [&](int m) { return !has_light(*member(scene, m).entry); });
  if (first_ >= std::ssize(scene_.order)) first_ = 0;
  show_part();
}

bool MapsPage::turn(int by) {
  const int page = maps_a_row * map_rows, to = first_ + by * page;
  if (to < 0 || to >= std::ssize(scene_.order)) return true;
  first_ = to;
  show_part();
  return true;
}

void MapsPage::show_part() {
  const int count = static_cast<int>(scene_.order.size()), page = maps_a_row * map_rows;
  words_->setText(
      count == 0 ? tr("No light is known in this way.")
      : count <= page
          ? tr("All on one light scale, µmol/m²/s. A dashed frame: predicted, dimmed or averaged by the way.")
          : tr("%1 to %2 of %3, all on one light scale, µmol/m²/s. Page Up and Page Down turn.")
                .arg(first_ + 1)
                .arg(std::min(count, first_ + page))
                .arg(count));
  const drawing::ScaleRange range = count > 0 ? scale_over(scene_) : drawing::ScaleRange{};
  for (int r = 0; r < map_rows; ++r) {
    std::vector<RowMap> maps;
    for (int i = first_ + r * maps_a_row; i < std::min(count, first_ + (r + 1) * maps_a_row); ++i)
      maps.push_back(map_of(scene_, scene_.order[static_cast<std::size_t>(i)], range, desk_.units()));
    rows_[static_cast<std::size_t>(r)]->setVisible(!maps.empty());
    rows_[static_cast<std::size_t>(r)]->show_maps(std::move(maps));
  }
}

// Two figures.

ScatterPage::ScatterPage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  QVBoxLayout* column = page_column(this);
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

// Curves over each other.

CurvesOverPage::CurvesOverPage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  QVBoxLayout* column = page_column(this);
  auto* across = new QHBoxLayout;
  across->setSpacing(20);
  profiles_ = new DrawnWidget(tr("Profiles"), this);
  profiles_->setObjectName("lineupProfiles");
  areas_ = new DrawnWidget(tr("Area curves"), this);
  areas_->setObjectName("lineupAreas");
  across->addWidget(profiles_, 1);
  across->addWidget(areas_, 1);
  column->addLayout(across, 1);
  words_ = wrapped_label({}, this);
  words_->setProperty("quiet", true);
  column->addWidget(words_);
}

void CurvesOverPage::show_scene(const LineUpScene& scene) {
  drawing::CurveOverlay profiles, areas;
  const LengthUnit unit = surface_unit(desk_.units());
  profiles.x_name = text_of(tr("from the left, through the middle, %1").arg(text_of(symbol(unit))));
  profiles.y_name = areas.x_name = "PPFD, µmol/m²/s";
  areas.y_name = text_of(tr("Share of the area at or above, %"));
  const auto few = scene.shown && scene.shown->lineup ? shown_few(scene, most_curves) : std::vector<int>{};
  for (const int m : few) {
    const LineUpEntry& e = *member(scene, m).entry;
    const Layout layout = layout_of(e);
    const Field field(layout, e.ppfd);
    if (!field.exists()) continue;
    const Rectangle& area = field.area();
    drawing::OverlaidCurve profile{short_name(scene, m), {}, role_of(scene, m)}, curve = profile;
    double highest = 0;
    for (const double v : e.ppfd)
      if (std::isfinite(v)) highest = std::max(highest, v);
    for (int i = 0; i <= profile_steps; ++i) {
      const double along = area.width_m * i / profile_steps;
      profile.points.push_back({from_m(along, unit), field.at(area.left_m + along, area.front_m + area.depth_m / 2)});
    }
    const AreaCurve above(field.raster(area_step_m));
    for (int i = 0; i <= profile_steps; ++i) {
      const double ppfd = highest * i / profile_steps;
      curve.points.push_back({ppfd, 100 * above.area_m2_at_or_above(ppfd) / area.area_m2()});
    }
    profiles.curves.push_back(std::move(profile)), areas.curves.push_back(std::move(curve));
  }
  words_->setText(
      profiles.curves.empty() ? tr("No light between stations is known in this way.")
      : std::ssize(scene.order) > std::ssize(few)
          ? tr("The chosen two and the best of the others; %1 of %2.").arg(few.size()).arg(scene.order.size())
          : QString());
  profiles_->show_drawing([profiles](drawing::Canvas& c, const drawing::Box& room) { draw_curves(c, room, profiles); },
                          tr("PPFD along a line through the middle of %1 fixtures").arg(profiles.curves.size()));
  areas_->show_drawing([areas](drawing::Canvas& c, const drawing::Box& room) { draw_curves(c, room, areas); },
                       tr("Share of the area at or above each PPFD of %1 fixtures").arg(areas.curves.size()));
}

// Two side by side.

PairPage::PairPage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  setObjectName("ground");
  QVBoxLayout* column = scrolled_column(this);
  head_ = heading_label({}, this);
  head_->setWordWrap(true);
  column->addWidget(head_);
  why_not_ = wrapped_label({}, this);
  why_not_->setObjectName("pairWhyNot");
  column->addWidget(why_not_);
  maps_ = new LightMaps(desk_, this);
  maps_->setMinimumHeight(230);
  column->addWidget(maps_);
  table_ = new FiguresTable({tr("Figure"), tr("First"), tr("Second"), tr("Difference"), tr("In words")},
                            tr("Figure by figure"), this);
  table_->setObjectName("pairTable");
  table_->set_spare_columns({4});
  column->addWidget(table_);
  column->addStretch();
}

void PairPage::show_scene(const LineUpScene& scene) {
  const auto [a, b] = scene.chosen;
  if (!scene.shown || !scene.shown->lineup || a < 0 || b < 0 || a == b) {
    head_->setText(tr("Choose a second one with the space bar on the strip."));
    why_not_->clear();
    maps_->show_maps({});
    table_->show_rows({});
    return;
  }
  const LineUp& lineup = *scene.shown->lineup;
  const LineUpMember &first = member(scene, a), &second = member(scene, b);
  head_->setText(tr("%1 beside %2").arg(member_name(first.entrant), member_name(second.entrant)));
  const auto why = lineup.why_not(a, b);
  QStringList ways;
  for (const Unlike& u : why)
    for (const std::string& way : u.switches) ways << text_of(way);
  why_not_->setText(
      why.empty() ? QString()
                  : marked_attention(tr("May not be held against each other: %1. %2")
                                         .arg(text_of(why_not_words(why)),
                                              ways.isEmpty() ? tr("Nothing here makes them alike.")
                                                             : tr("What makes them alike: %1.").arg(ways.join(", ")))));
  set_tone(why_not_, why.empty() ? "" : "attention");
  std::vector<RowMap> maps;
  if (has_light(*first.entry) && has_light(*second.entry)) {
    LineUpScene two = scene;
    two.order = {a, b};
    const drawing::ScaleRange range = scale_over(two);
    maps.push_back(map_of(scene, a, range, desk_.units()));
    maps.push_back(map_of(scene, b, range, desk_.units()));
    const Layout layout = layout_of(*first.entry);
    const auto off = difference(layout, first.entry->ppfd, layout_of(*second.entry), second.entry->ppfd);
    double most = 1;
    for (const double d : off)
      if (std::isfinite(d)) most = std::max(most, std::abs(d));
    if (why.empty())
      maps.push_back({tr("First less second"),
                      tr("µmol/m²/s"),
                      layout,
                      off,
                      {{-most, most}, true},
                      {0, true, "µmol/m²/s"},
                      {},
                      true});
  }
  maps_->show_maps(std::move(maps));
  std::vector<std::vector<FigureCell>> rows;
  if (why.empty())
    for (const evaluation::PairSentence& s : pair_sentences(lineup, a, b, desk_.units())) {
      const LineUpFigure& f =
          evaluation::lineup_figures()[static_cast<std::size_t>(evaluation::lineup_figure_index(s.figure_id))];
      const double per = evaluation::shown_per_stored(f, desk_.units());
      const QString off = tr("%1 ± %2").arg(text_of((s.difference.value > 0 ? "+" : "") +
                                                    evaluation::plain_number(s.difference.value * per, f.decimals + 1)),
                                            QString::number(s.difference.expanded * per, 'f', f.decimals + 1));
      rows.push_back({{text_of(f.label), text_of(f.meaning)},
                      {value_text(scene, f, a, desk_.units()), {}},
                      {value_text(scene, f, b, desk_.units()), {}},
                      {off, {}},
                      {text_of(s.words), {}}});
    }
  table_->show_rows(rows);
}

// One unit over the years.

OverTimePage::OverTimePage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  QVBoxLayout* column = page_column(this);
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
                                     text_of((d.value > 0 ? "+" : "") + evaluation::shown_with_uncertainty(
                                                                            lineup.figure(), d.value, d.expanded,
                                                                            desk_.units(), lineup.terms().currency)),
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
