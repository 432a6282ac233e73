#include "desktop/read/read_view.h"

#include <QApplication>
#include <QClipboard>
#include <QDateTime>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <cmath>

#include "core/sweep/cut.h"
#include "desktop/paint/station_words.h"
#include "desktop/read/all_sweeps.h"
#include "desktop/read/cut_chart.h"
#include "desktop/read/elsewhere_page.h"
#include "desktop/read/field_map.h"
#include "desktop/read/figures_column.h"
#include "desktop/read/light_page.h"
#include "desktop/read/pictures_page.h"
#include "desktop/read/read_tools.h"
#include "desktop/read/retest_page.h"
#include "desktop/read/save_picture.h"
#include "desktop/read/spectrum_page.h"
#include "desktop/read/targets_page.h"
#include "desktop/read/trust_page.h"
#include "desktop/walk/sweep_table_text.h"
#include "desktop/widgets/elided_label.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/flow_layout.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/provenance.h"

namespace sunbreak::desktop {
namespace {

constexpr int small_width = 960;
constexpr double fine_step_m = 0.01, cut_turn_degrees = 15, zoom_step = 1.5;

}  // namespace

ReadView::ReadView(Desk& desk, InstrumentHub& hub, QWidget* parent) : StageView(parent), desk_(desk), hub_(hub) {
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Map of the sweep"));
  figures_ = new FiguresColumn(desk_, this);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(make_middle(), 1);
  layout->addWidget(figures_);
  connect(&desk_, &Desk::changed, this, [this] {
    if (isVisible()) refresh();
  });
  connect(&desk_.worked_out(), &WorkedOut::progressed, this, [this] {
    if (!isVisible() || !desk_.view()) return;
    figures_->show_judgement();
    if (settings_.quantity == Quantity::Difference) state_->setText(difference_words());
  });
}

QWidget* ReadView::make_middle() {
  auto* middle = new QWidget(this);
  middle->setObjectName("ground");
  middle->setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(middle);
  column->setContentsMargins(12, 10, 12, 8);
  column->setSpacing(4);
  auto* head = new QHBoxLayout;
  title_ = figure_label(20, middle);
  state_ = new ElidedLabel(middle);
  head->addWidget(title_);
  head->addSpacing(16);
  provenance_ = wrapped_label({}, middle);
  provenance_->setObjectName("readProvenance");
  set_tone(provenance_, "attention");
  head->addWidget(state_, 1);
  column->addLayout(head);
  column->addWidget(provenance_);
  // Where all of them do not fit beside each other they go on in a second line.
  auto* strip = new QWidget(middle);
  strip->setObjectName("ground");
  auto* tabs = new FlowLayout(strip, 2);
  for (const auto& [page, text] : {std::pair{MapPage, tr("1 Map")}, std::pair{SweepsPage, tr("2 All sweeps")},
                                   std::pair{TargetPage, tr("3 Targets")}, std::pair{SurePage, tr("4 How sure")},
                                   std::pair{LightsPage, tr("5 Whole light")}, std::pair{RoomsPage, tr("6 Elsewhere")},
                                   std::pair{RetestsPage, tr("7 Retest")}, std::pair{PhotosPage, tr("8 Pictures")},
                                   std::pair{SpectraPage, tr("9 Spectrum")}}) {
    auto* tab = new QPushButton(text, middle);
    tab->setCheckable(true);
    tab->setProperty("plain", true);
    tab->setProperty("tab", true);
    tab->setFocusPolicy(Qt::NoFocus);  // each has its key; Tab goes from figure to figure
    tab->setObjectName(QStringLiteral("readPage%1").arg(page + 1));
    connect(tab, &QPushButton::clicked, this, [this, to = page] { show_page(to); });
    tabs->addWidget(tab);
    tabs_.push_back(tab);
  }
  tools_ = new ReadTools(desk_, settings_, this);
  tools_->add_picture_menu(*head);
  tabs->addWidget(tools_->other_choice());
  column->addWidget(strip);
  pages_ = new QStackedWidget(middle);
  pages_->addWidget(make_map_page());
  sweeps_ = new AllSweeps(desk_, settings_, pages_);
  targets_ = new TargetsPage(desk_, pages_);
  trust_ = new TrustPage(desk_, pages_);
  light_ = new LightPage(desk_, pages_);
  elsewhere_ = new ElsewherePage(desk_, pages_);
  retest_ = new RetestPage(desk_, pages_);
  pictures_ = new PicturesPage(desk_, pages_);
  spectrum_ = new SpectrumPage(desk_, hub_, pages_);
  for (QWidget* page :
       std::initializer_list<QWidget*>{sweeps_, targets_, trust_, light_, elsewhere_, retest_, pictures_, spectrum_})
    pages_->addWidget(page);
  column->addWidget(pages_, 1);
  connect(sweeps_, &AllSweeps::opened, this, [this] { show_page(MapPage); });
  connect(targets_, &TargetsPage::opened, this, [this] { show_page(MapPage); });
  connect(trust_, &TrustPage::go, this, &StageView::go);
  connect(retest_, &RetestPage::go, this, &StageView::go);
  tabs_[MapPage]->setChecked(true);
  return middle;
}

QWidget* ReadView::make_map_page() {
  auto* page = new QWidget(this);
  page->setObjectName("ground");
  page->setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(page);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addWidget(tools_);
  map_ = new FieldMap(desk_, settings_, page);
  column->addWidget(map_, 1);
  cut_ = new CutChart(page);
  cut_->hide();
  column->addWidget(cut_);
  readout_ = new ElidedLabel(page);
  readout_->setObjectName("readout");
  column->addWidget(readout_);
  connect(tools_, &ReadTools::changed, this, &ReadView::settings_changed);
  connect(tools_, &ReadTools::wants_cut, map_, &FieldMap::step_cut);
  connect(tools_, &ReadTools::wants_picture_copied, this, &ReadView::copy_picture);
  connect(tools_, &ReadTools::wants_picture_saved, this, &ReadView::save_picture);
  connect(map_, &FieldMap::pointed, this, &ReadView::read_out);
  connect(map_, &FieldMap::cut_changed, this, [this] {
    tools_->refresh();
    show_cut();
  });
  return page;
}

void ReadView::refresh() {
  if (!desk_.test() || !desk_.view() || !desk_.rung() || !desk_.stop()) return;
  if (const record::Id test = desk_.test()->test.id; test != test_id_) {
    // What was looked at on another test means nothing here.
    test_id_ = test;
    settings_.cut.reset();
    settings_.outside.reset();
    settings_.zoom = 1;
    settings_.pointed = -1;
  }
  tools_->refresh();
  desk_.worked_out().want_budgets(settings_.quantity == Quantity::Difference ? settings_.other : 0);
  const bool predicted = desk_.between_m() && of_light();
  title_->setText((predicted ? tr("%1 · %2 %, predicted") : tr("%1 · %2 %"))
                      .arg(text_of(length_text(predicted ? *desk_.between_m() : desk_.rung()->height_m, desk_.units())),
                           show_number(predicted ? *desk_.between_percent() : desk_.stop()->percent)));
  state_->setText(predicted                                    ? tr("nobody walked it")
                  : settings_.quantity == Quantity::Difference ? difference_words()
                                                               : state_words());
  const bool computed = desk_.view() && desk_.view()->simulated();
  const std::string note = desk_.test() ? evaluation::provenance_note(desk_.test()->test, computed) : std::string();
  provenance_->setText(marked_attention(text_of(note)));
  provenance_->setToolTip(desk_.test() ? text_of(evaluation::altered_words(desk_.test()->test)) : QString());
  provenance_->setVisible(!note.empty());
  figures_->refresh();
  map_->renew();
  show_cut();
  read_out(settings_.pointed);
  if (pages_->currentIndex() == SweepsPage) sweeps_->update();
  if (pages_->currentIndex() == TargetPage) targets_->refresh();
  if (pages_->currentIndex() == SurePage) trust_->refresh();
  if (pages_->currentIndex() == LightsPage) light_->refresh();
  if (pages_->currentIndex() == RoomsPage) elsewhere_->refresh();
  if (pages_->currentIndex() == RetestsPage) retest_->refresh();
  if (pages_->currentIndex() == PhotosPage) pictures_->refresh();
  if (pages_->currentIndex() == SpectraPage) spectrum_->refresh();
  // The sweep that a difference is taken from is of no account where no difference is shown.
  tools_->other_choice()->setVisible(settings_.quantity == Quantity::Difference &&
                                     pages_->currentIndex() <= SweepsPage);
}

QString ReadView::state_words() const {
  QStringList words{tr("%1 of %2 stations").arg(desk_.view()->read()).arg(desk_.view()->states.size()),
                    text_of(desk_.test()->bench.name)};
  if (!desk_.test()->test.door.empty()) words << tr("door %1").arg(text_of(desk_.test()->test.door));
  return words.join(QStringLiteral(" · "));
}

/// How the means of the two sweeps compare; what both were measured with cancels.
QString ReadView::difference_words() const {
  const evaluation::SweepView* other = compared(desk_, settings_);
  if (!other || !desk_.figures()) return {};
  const double ratio = desk_.figures()->mean_ppfd / area_mean(other->layout, other->ppfd);
  if (!std::isfinite(ratio)) return {};
  QString words = tr("mean %1 % of theirs").arg(100 * ratio, 0, 'f', 1);
  const Budget *mine = desk_.worked_out().budget(),
               *its = settings_.outside ? nullptr : desk_.worked_out().budget_of(settings_.other);
  if (mine && its)
    words += tr(", sure to ± %1 % since the meters are shared")
                 .arg(100 * ratio * ratio_uncertainty(*mine, *its, "mean_ppfd"), 0, 'f', 1);
  return words;
}

void ReadView::settings_changed() { refresh(); }

void ReadView::resizeEvent(QResizeEvent* event) {
  StageView::resizeEvent(event);
  make_room();
}

/// In a small window the figures make way for what is wide.
void ReadView::make_room() {
  // Whole light and other rooms are of the test, not of the sweep whose figures these are.
  const bool of_the_sweep = pages_->currentIndex() < LightsPage;
  figures_->setVisible(of_the_sweep && (width() >= small_width || pages_->currentIndex() == MapPage));
}

bool ReadView::of_light() const { return pages_->currentIndex() == LightsPage || pages_->currentIndex() == RoomsPage; }

/// Whole light, and standing between the rungs, are for as long as their pages are in sight.
void ReadView::offer_light() {
  const bool in_sight = isVisible() && of_light();
  desk_.offer_between(in_sight);
  desk_.worked_out().want_light(in_sight);
}

void ReadView::showEvent(QShowEvent* event) {
  StageView::showEvent(event);
  offer_light();
}

void ReadView::hideEvent(QHideEvent* event) {
  StageView::hideEvent(event);
  offer_light();
}

void ReadView::show_page(Page page) {
  pages_->setCurrentIndex(page);
  offer_light();
  for (std::size_t i = 0; i < tabs_.size(); ++i) tabs_[i]->setChecked(static_cast<int>(i) == page);
  make_room();
  refresh();
  if (page == SweepsPage)
    sweeps_->setFocus();
  else if (page == TargetPage)
    targets_->findChild<QWidget*>("targetFits")->setFocus();
  else if (page == SpectraPage)
    spectrum_->take_focus();
  else
    setFocus(Qt::OtherFocusReason);
}

void ReadView::show_cut() {
  cut_->setVisible(settings_.cut.has_value());
  if (!settings_.cut || !desk_.view()) return;
  const ShownValues shown = shown_values(desk_, *desk_.view(), settings_);
  cut_->show_cut(cut(Field(desk_.view()->layout, shown.values), settings_.cut->first, settings_.cut->second),
                 shown.text, shown.band, desk_.units());
}

void ReadView::read_out(int station) {
  if (!desk_.view() || station < 0 || station >= std::ssize(desk_.view()->states))
    return readout_->setText(tr("Point at a station, or use the arrow keys, for its record. Wheel or + and − zoom."));
  const evaluation::SweepView& view = *desk_.view();
  const evaluation::StationState& s = view.states[station];
  QStringList words{station_place(view.layout, station, desk_.units())};
  if (s.kind == evaluation::StationState::Read) {
    const ShownValues shown = shown_values(desk_, view, settings_);
    words << tr("%1 %2").arg(text_of(shown.text.text(shown.values[station])), text_of(shown.text.unit));
    words << tr("raw %1, corrected %2").arg(show_number(s.raw, 2), show_number(view.ppfd[station], 2));
    if (s.samples > 1)
      words << tr("mean of %1 values%2")
                   .arg(s.samples)
                   .arg(s.spread ? tr(", spread %1").arg(show_number(*s.spread, 2)) : QString());
    if (std::isfinite(s.taken_s))
      words << QDateTime::fromMSecsSinceEpoch(static_cast<qint64>(1000 * s.taken_s)).toString("yyyy-MM-dd hh:mm");
    QStringList open;
    for (const Finding& finding : desk_.worked_out().findings())
      if (std::find(finding.stations.begin(), finding.stations.end(), station) != finding.stations.end())
        open << text_of(finding.saw);
    words << (open.isEmpty() ? tr("no check open") : QStringLiteral("◣ ") + open.join("; "));
  } else {
    words << (s.kind == evaluation::StationState::Missing ? tr("declared missing") : tr("not read yet"));
  }
  readout_->setText(words.join(QStringLiteral(" · ")));
}

void ReadView::arrive() {
  refresh();
  take_keyboard();
}

bool ReadView::take_keyboard() {
  setFocus(Qt::OtherFocusReason);
  return true;
}

void ReadView::keyPressEvent(QKeyEvent* event) {
  const int page = event->key() - Qt::Key_1;
  if (event->modifiers() == Qt::NoModifier && page >= MapPage && page <= SpectraPage)
    return show_page(static_cast<Page>(page));
  if (event->key() == Qt::Key_E && event->modifiers() == Qt::ControlModifier) return save_picture();
  if (event->key() == Qt::Key_C && event->modifiers() == (Qt::ControlModifier | Qt::ShiftModifier))
    return copy_picture();
  if (event->key() == Qt::Key_Q && !(event->modifiers() & ~Qt::ShiftModifier)) {
    constexpr int count = 4;
    const int step = event->modifiers() & Qt::ShiftModifier ? count - 1 : 1;
    return tools_->choose(static_cast<Quantity>((static_cast<int>(settings_.quantity) + step) % count));
  }
  if (pages_->currentIndex() == MapPage && map_key(event)) return;
  StageView::keyPressEvent(event);
}

bool ReadView::map_key(QKeyEvent* event) {
  if (!desk_.view()) return false;
  const auto flip = [&](bool MapSettings::*which) {
    settings_.*which = !(settings_.*which);
    settings_changed();
    return true;
  };
  const bool fine = event->modifiers() & Qt::ShiftModifier, pan = event->modifiers() & Qt::ControlModifier;
  const Layout& layout = desk_.view()->layout;
  const auto arrow = [&](int right, int back) {
    const double across = layout.measured.width_m / std::max(1, layout.columns),
                 deep = layout.measured.depth_m / std::max(1, layout.rows);
    if (pan)
      map_->move_by(right * across, back * deep);
    else if (settings_.cut)
      map_->move_cut(right * (fine ? fine_step_m : across), back * (fine ? fine_step_m : deep));
    else
      map_->point_beside(right, back);
    return true;
  };
  switch (event->key()) {
    case Qt::Key_Left:
      return arrow(-1, 0);
    case Qt::Key_Right:
      return arrow(1, 0);
    case Qt::Key_Up:
      return arrow(0, 1);
    case Qt::Key_Down:
      return arrow(0, -1);
    case Qt::Key_Plus:
    case Qt::Key_Equal:
      return map_->zoom_by(zoom_step), true;
    case Qt::Key_Minus:
      return map_->zoom_by(1 / zoom_step), true;
    case Qt::Key_0:
      return map_->zoom_by(0), true;
    default:
      break;
  }
  if (event->modifiers() & ~Qt::ShiftModifier) return false;
  switch (event->key()) {
    case Qt::Key_N:
      return flip(&MapSettings::numbers);
    case Qt::Key_C:
      return flip(&MapSettings::contours);
    case Qt::Key_L:
      return flip(&MapSettings::fixture);
    case Qt::Key_F:
      return flip(&MapSettings::footprints);
    case Qt::Key_G:
      return flip(&MapSettings::rings);
    case Qt::Key_V:
      return flip(&MapSettings::coverage);
    case Qt::Key_S:
      return flip(&MapSettings::own_scale);
    case Qt::Key_D:
      tools_->step_other();
      return true;
    case Qt::Key_X:
      if (layout.is_lattice()) map_->step_cut();
      return true;
    case Qt::Key_R:
      map_->turn_cut(fine ? -cut_turn_degrees : cut_turn_degrees);
      return true;
    default:
      return false;
  }
}

QString ReadView::copy() { return copy_sweep_table(desk_.view()); }

bool ReadView::take_table(const std::string& bytes, const QString& origin, const std::string& source) {
  if (pages_->currentIndex() != SpectraPage) return false;
  spectrum_->bring_in(bytes, origin, source);
  return true;
}

void ReadView::draw_picture(QPainter& p, const QRectF& room, bool in_vectors) const {
  const bool all = pages_->currentIndex() == SweepsPage;
  p.setPen(title_->palette().color(QPalette::WindowText));
  p.setFont(title_->font());
  QString words = text_of(record::title_of(*desk_.test()));
  if (!all) words += QStringLiteral(" · ") + title_->text();
  if (const std::string note = evaluation::provenance_note(desk_.test()->test, desk_.view()->simulated());
      !note.empty())
    words += QStringLiteral(" · ") + text_of(note);
  p.drawText(QRectF(room.left() + 48, room.top() + 8, room.width() - 64, 24), Qt::AlignLeft | Qt::AlignVCenter,
             shown_values(desk_, *desk_.view(), settings_).title + QStringLiteral(" · ") + words);
  const QRectF below = room.adjusted(0, 36, 0, 0);
  if (all)
    sweeps_->paint_page(p, below, in_vectors);
  else
    map_->paint_picture(p, below, in_vectors);
}

void ReadView::copy_picture() {
  if (!desk_.test() || !desk_.view()) return;
  QApplication::clipboard()->setImage(
      picture([this](QPainter& p, const QRectF& room, bool in_vectors) { draw_picture(p, room, in_vectors); },
              QSize(1600, 1600)));
  desk_.say(tr("The picture is on the clipboard, 1600 px wide."));
}

void ReadView::save_picture() {
  if (!desk_.test() || !desk_.view()) return;
  const QString name = text_of(record::title_of(*desk_.test())) + " " + title_->text();
  SavePicture dialog([this](QPainter& p, const QRectF& room, bool in_vectors) { draw_picture(p, room, in_vectors); },
                     QString(name).replace(QStringLiteral(" · "), " ").replace('/', '-'), this);
  dialog.exec();
}

std::vector<KeyHint> ReadView::keys() const {
  return {{tr("1 … 9"), tr("map, all sweeps, targets, how sure, whole light, elsewhere, retest, pictures, spectrum")},
          {tr("Q"), tr("PPFD, daily light, percent of the mean, difference; Shift+Q goes back")},
          {tr("D"), tr("take the difference from the next sweep")},
          {tr("N · C"), tr("numbers, contours on or off")},
          {tr("X"), tr("a cut across, deep, along each diagonal, none; arrows move it, R turns it")},
          {tr("Arrows"), tr("the record of a station; with Ctrl they move a zoomed map")},
          {tr("+ − 0"), tr("nearer, farther, the whole map")},
          {tr("L F G V"), tr("fixture, usual footprints, rings, rectangles and circle in band")},
          {tr("S"), tr("a scale of its own, or one for all sweeps of the test")},
          {tr("Tab"), tr("from figure to figure, each with its definition")},
          {tr("Ctrl+C"), tr("copy the sweep as a table, far row first")},
          {tr("Ctrl+Shift+C · Ctrl+E"), tr("copy, save the picture")},
          {tr("Ctrl+V"), tr("bring in a block of cells from a spreadsheet")}};
}

}  // namespace sunbreak::desktop
