#include "desktop/lineup/lineup_view.h"

#include <QClipboard>
#include <QComboBox>
#include <QDragEnterEvent>
#include <QDropEvent>
#include <QFileInfo>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QPushButton>
#include <QSplitter>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <algorithm>

#include "desktop/lineup/curves_over_page.h"
#include "desktop/lineup/kept_dialog.h"
#include "desktop/lineup/lineup_strip.h"
#include "desktop/lineup/lineup_work.h"
#include "desktop/lineup/maps_page.h"
#include "desktop/lineup/member_detail.h"
#include "desktop/lineup/over_time_page.h"
#include "desktop/lineup/own_index_dialog.h"
#include "desktop/lineup/pair_page.h"
#include "desktop/lineup/scatter_page.h"
#include "desktop/lineup/suits_page.h"
#include "desktop/lineup/way_field.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/framed.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/lineup/lamp_ways.h"
#include "evaluation/lineup/members_provenance.h"
#include "gathering/line_up_json.h"

namespace sunbreak::desktop {
LineUpView::LineUpView(Desk& desk, QWidget* parent)
    : StageView(parent), desk_(desk), work_(new LineUpWork(desk, this)), writing_(desk, this) {
  setObjectName("ground");
  setAttribute(Qt::WA_StyledBackground);
  setAcceptDrops(true);
  setProperty("showsFocus", true);  // the page that has the keyboard is marked among the tabs
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 8, 12, 8);
  column->setSpacing(4);
  auto* head = new QHBoxLayout;
  head->setSpacing(6);
  head->addWidget(quiet_label(tr("Line up by"), this));
  figure_ = new QComboBox(this);
  figure_->setObjectName("lineupFigure");
  figure_->setAccessibleName(tr("Figure"));
  figure_->setToolTip(tr("B  the figure that they are lined up by"));
  for (const auto& f : evaluation::lineup_figures()) figure_->addItem(text_of(f.label), text_of(f.id));
  figure_->addItem(tr("An index of your own…"), QString());
  connect(figure_, &QComboBox::activated, this, [this] {
    const std::string id = text_of(figure_->currentData().toString());
    if (id.empty()) return weigh();
    change([&](record::SavedLineUp& a) { a.figure = id; });
  });
  head->addWidget(figure_, 2);
  way_ = new WayField(this);
  connect(way_, &WayField::chosen, this, [this](const std::string& way) {
    change([&](record::SavedLineUp& a) { a.way = way; });
    strip_->setFocus(Qt::OtherFocusReason);
  });
  connect(way_, &WayField::refused, this, [this](const Problem& problem) { desk_.warn(text_of(problem.sentence())); });
  head->addWidget(way_, 1);
  head->addWidget(quiet_label(tr("of"), this));
  filter_ = new QLineEdit(this);
  filter_->setObjectName("lineupFilter");
  filter_->setAccessibleName(tr("Who is in it"));
  filter_->setMinimumWidth(90);
  filter_->setPlaceholderText(tr("F  all, or: LED price<300"));
  connect(filter_, &QLineEdit::returnPressed, this,
          [this] { change([this](record::SavedLineUp& a) { a.filter = text_of(filter_->text()); }); });
  head->addWidget(filter_, 1);
  sure_ = new QComboBox(this);
  sure_->setObjectName("lineupSure");
  sure_->setAccessibleName(tr("How sure ranks are"));
  sure_->addItem(tr("each pair"));
  sure_->addItem(tr("all pairs"));
  sure_->setToolTip(tr("H  ranks by each pair for itself, or by all pairs together (Holm)"));
  connect(sure_, &QComboBox::activated, this,
          [this](int at) { change([at](record::SavedLineUp& a) { a.all_pairs = at == 1; }); });
  head->addWidget(sure_);
  const auto button = [&](const QString& text, const char* name, const QString& tip) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(name);
    b->setToolTip(tip);
    b->setFocusPolicy(Qt::NoFocus);
    head->addWidget(b);
    return b;
  };
  guests_ = button(tr("G Guests…"), "lineupGuests", tr("Other testers' packages, from a folder; or drop them here."));
  connect(guests_, &QPushButton::clicked, this, &LineUpView::choose_guests);
  save_ =
      button(tr("S Keep"), "lineupSave", tr("Keeps what is lined up, by what and how; Shift+S keeps it as another."));
  connect(save_, &QPushButton::clicked, this, [this] { save(false); });
  kept_ = button(tr("K Kept…"), "lineupKept", tr("Line-ups that were kept, and guests, to open or send home."));
  connect(kept_, &QPushButton::clicked, this, &LineUpView::show_kept);
  column->addLayout(head);
  declared_ = wrapped_label({}, this);
  declared_->setObjectName("lineupDeclared");
  column->addWidget(declared_);
  auto* bar = new QHBoxLayout;
  bar->setSpacing(2);
  for (const auto& [page, text] :
       {std::pair{OnStrip, tr("1 Strip")}, std::pair{AsMaps, tr("2 Maps")}, std::pair{AsScatter, tr("3 Two figures")},
        std::pair{AsCurves, tr("4 Curves")}, std::pair{AsPair, tr("5 Side by side")},
        std::pair{AsSuits, tr("6 A room")}, std::pair{OverTime, tr("7 Over time")}}) {
    auto* tab = new QPushButton(text, this);
    tab->setCheckable(true);
    tab->setProperty("plain", true);
    tab->setProperty("tab", true);
    tab->setFocusPolicy(Qt::NoFocus);
    tab->setObjectName(QStringLiteral("lineupPage%1").arg(page + 1));
    connect(tab, &QPushButton::clicked, this, [this, to = page] { show_page(to); });
    bar->addWidget(tab);
    tabs_.push_back(tab);
  }
  bar->addSpacing(12);
  state_ = wrapped_label({}, this);
  state_->setObjectName("lineupState");
  bar->addWidget(state_, 1);
  cancel_ = new QPushButton(tr("Esc  Stop"), this);
  cancel_->setObjectName("lineupCancel");
  cancel_->setFocusPolicy(Qt::NoFocus);
  cancel_->hide();
  connect(cancel_, &QPushButton::clicked, work_, &LineUpWork::cancel);
  bar->addWidget(cancel_);
  column->addLayout(bar);

  strip_ = new LineUpStrip(desk_, this);
  detail_ = new MemberDetail(desk_, this);
  detail_->setMinimumWidth(300);
  pages_ = new QStackedWidget(this);
  auto* across = new QSplitter(Qt::Horizontal, pages_);
  across->setChildrenCollapsible(false);
  across->addWidget(framed(strip_, across));
  across->addWidget(detail_);
  across->setStretchFactor(0, 3);
  across->setStretchFactor(1, 1);
  across->setSizes({700, 330});
  pages_->addWidget(across);
  suits_ = new SuitsPage(desk_, pages_);
  shown_pages_ = {detail_,
                  new MapsPage(desk_, pages_),
                  new ScatterPage(desk_, pages_),
                  new CurvesOverPage(desk_, pages_),
                  new PairPage(desk_, pages_),
                  suits_,
                  new OverTimePage(desk_, pages_)};
  for (std::size_t i = 1; i < shown_pages_.size(); ++i) pages_->addWidget(shown_pages_[i]);
  column->addWidget(pages_, 1);
  tabs_.front()->setChecked(true);

  connect(work_, &LineUpWork::changed, this, &LineUpView::refresh);
  connect(work_, &LineUpWork::progressed, this, &LineUpView::show_state);
  connect(strip_, &LineUpStrip::moved, this, &LineUpView::show_scene);
  connect(strip_, &LineUpStrip::opened, this, [this] {
    if (work_->stopped()) return work_->go_on();
    if (strip_->second() < 0 || strip_->second() == strip_->chosen())
      return desk_.say(tr("Choose a second one with the space bar; Enter shows the two side by side."));
    show_page(AsPair);
  });
}

void LineUpView::fill_ways() {
  std::vector<std::string> ways{"as-measured", "open-floor", "white-tent"};
  if (const auto& shown = work_->shown(); shown && shown->lineup) {
    // Those that this line-up's reasons call for stand first.
    std::vector<std::string> called;
    const auto& groups = shown->lineup->groups();
    for (std::size_t g = 1; g < groups.size(); ++g)
      for (const Unlike& u : shown->lineup->why_not(groups.front().front(), groups[g].front()))
        for (const std::string& way : u.switches)
          if (std::ranges::find(called, way) == called.end()) called.push_back(way);
    for (const std::string& way : called)
      if (std::ranges::find(ways, way) == ways.end()) ways.push_back(way);
    if (!shown->ready.target_name.empty()) ways.push_back("best:" + shown->ready.target_name);
  }
  for (const char* way : {"equal-watts:150", "equal-center:400", "height:45cm", "footprint:60x60cm", "grid:6x6"})
    ways.emplace_back(way);
  if (const auto board = evaluation::lamp_board(desk_.book().all<record::CheckLampReading>("ORDER BY taken_at"),
                                                desk_.book().all<record::Meter>("ORDER BY id")))
    for (const std::string& lamp : evaluation::lamp_ways(board.value())) ways.push_back(lamp);
  way_->show_ways(work_->asked().way, ways, desk_.units());
}

void LineUpView::arrive() {
  refresh();
  if (pages_->currentIndex() == AsSuits)
    suits_->begin();
  else
    take_keyboard();
}

bool LineUpView::take_keyboard() {
  strip_->setFocus(Qt::OtherFocusReason);
  return true;
}

void LineUpView::showEvent(QShowEvent* event) {
  StageView::showEvent(event);
  work_->set_in_sight(true);
}

void LineUpView::hideEvent(QHideEvent* event) {
  StageView::hideEvent(event);
  work_->set_in_sight(false);
}

void LineUpView::refresh() {
  const record::SavedLineUp& asked = work_->asked();
  const int figure = figure_->findData(text_of(asked.figure));
  figure_->setCurrentIndex(figure >= 0 ? figure : figure_->count() - 1);
  if (!way_->is_typed_in() || !work_->working()) fill_ways();
  if (!filter_->hasFocus()) filter_->setText(text_of(asked.filter));
  sure_->setCurrentIndex(asked.all_pairs ? 1 : 0);
  save_->setEnabled(!desk_.read_only());
  guests_->setEnabled(!desk_.read_only());
  const auto& shown = work_->shown();
  if (!work_->working() && shown) strip_->show_lineup(shown);
  strip_->set_stopped(work_->stopped());
  show_state();
  show_scene();
}

void LineUpView::show_state() {
  const auto& shown = work_->shown();
  cancel_->setVisible(work_->working());
  if (work_->working()) {
    const gathering::Filling f = work_->filling();
    set_tone(state_, "");
    return state_->setText(f.of > 0 ? tr("%1 of %2 tests…").arg(f.done).arg(f.of) : tr("Reading what is on record…"));
  }
  if (work_->stopped()) {
    set_tone(state_, "attention");
    return state_->setText(tr("Stopped. Enter goes on; what is done is kept."));
  }
  if (!shown) return state_->clear();
  if (shown->problem) {
    set_tone(state_, "attention");
    declared_->clear();
    return state_->setText(marked_attention(text_of(shown->problem->sentence())));
  }
  set_tone(state_, "");
  declared_->setText(text_of(gathering::declared_way(shown->ready, desk_.units())));
  const auto in = static_cast<int>(shown->lineup->members().size());
  QStringList words{tr("%1 of %2").arg(in).arg(shown->all)};
  if (shown->left_out > 0) words << tr("%1 left out by hand (R brings them back)").arg(shown->left_out);
  const auto& groups = shown->lineup->groups();
  if (groups.size() > 1 && groups.front().size() == 1)
    words << tr("none of which may be held against another");
  else if (groups.size() > 1)
    words << tr("in %1 groups that may not be held against each other").arg(groups.size());
  if (const std::string simulated = evaluation::provenance_count_words(*shown->lineup); !simulated.empty())
    words << text_of(simulated);
  if (!shown->refused.empty()) {
    words << counted(std::ssize(shown->refused), tr("package left out"), tr("packages left out"));
    QStringList tips;
    for (const auto& r : shown->refused)
      tips << tr("%1: %2").arg(QFileInfo(text_of(r.file.string())).fileName(), text_of(r.problem.sentence()));
    state_->setToolTip(tips.join("\n"));
  } else {
    state_->setToolTip({});
  }
  state_->setText(words.join(", "));
}

void LineUpView::show_scene() {
  const auto& shown = work_->shown();
  if (!shown || !shown->lineup) return;
  const LineUpScene scene{shown, {strip_->chosen(), strip_->second()}, strip_->in_order()};
  shown_pages_[static_cast<std::size_t>(pages_->currentIndex())]->show_scene(scene);
}

void LineUpView::show_page(Page page) {
  pages_->setCurrentIndex(page);
  for (std::size_t i = 0; i < tabs_.size(); ++i) tabs_[i]->setChecked(static_cast<int>(i) == page);
  show_scene();
  if (page == AsSuits)
    suits_->begin();
  else if (page == OnStrip)
    strip_->setFocus(Qt::OtherFocusReason);
  else
    setFocus(Qt::OtherFocusReason);
}

bool LineUpView::page(int by) { return shown_pages_[static_cast<std::size_t>(pages_->currentIndex())]->turn(by); }

void LineUpView::change(const std::function<void(record::SavedLineUp&)>& change) {
  record::SavedLineUp asked = work_->asked();
  change(asked);
  work_->ask(std::move(asked));
}

void LineUpView::use_switch() {
  const auto& shown = work_->shown();
  const int chosen = strip_->chosen();
  if (!shown || !shown->lineup || chosen < 0 || shown->lineup->groups().empty()) return;
  const auto& groups = shown->lineup->groups();
  const int first = strip_->second() >= 0 ? strip_->second() : groups.front().front();
  const auto why = shown->lineup->why_not(first, chosen);
  if (why.empty()) return desk_.say(tr("It may be held against the first as it stands. Go to one that stands apart."));
  std::string way = work_->asked().way;
  for (const Unlike& u : why) {
    if (u.switches.empty())
      return desk_.warn(tr("Nothing here makes them alike: %1.").arg(text_of(why_not_words(why))));
    const std::string joined = (way == "as-measured" ? "" : way + "+") + u.switches.front();
    if (parse_way(joined)) way = joined;
  }
  // Parts that do not go together were left out above; the reasons that stay are told anew on the strip.
  change([&](record::SavedLineUp& a) { a.way = way_id(parse_way(way).value()); });
}

void LineUpView::leave_out() {
  const auto& shown = work_->shown();
  const int chosen = strip_->chosen();
  if (!shown || !shown->lineup || chosen < 0) return;
  const auto& entrant = shown->lineup->members()[static_cast<std::size_t>(chosen)].entrant;
  change([&](record::SavedLineUp& a) {
    if (a.left_out.empty()) a.left_out = "\n";
    a.left_out += lineup_key(entrant) + "\n";
  });
  desk_.say(tr("%1 is left out. R brings all back.").arg(member_name(entrant)));
}

void LineUpView::weigh() {
  OwnIndexDialog dialog(work_->asked().figure, this);
  if (dialog.exec() != QDialog::Accepted) return refresh();
  change([&](record::SavedLineUp& a) { a.figure = dialog.figure(); });
}

void LineUpView::show_kept() {
  KeptDialog dialog(desk_, work_->asked().id, this);
  const bool taken = dialog.exec() == QDialog::Accepted;
  if (dialog.guests_changed()) work_->look_again();
  if (taken && dialog.chosen()) work_->ask(*dialog.chosen());
}

void LineUpView::save(bool as_another) {
  if (desk_.read_only()) return;
  record::SavedLineUp asked = work_->asked();
  if (as_another) asked.id = 0, asked.name.clear();
  if (asked.name.empty())
    asked.name = text_of(tr("Line-up of %1").arg(text_of(desk_.clock().utc_text().substr(0, 10))));
  const QString problem = desk_.edits().plan([&]() -> std::optional<Problem> {
    desk_.book().edit("keep a line-up", [&](book::Edit& e) {
      if (asked.id != 0 && desk_.book().find<record::SavedLineUp>(asked.id))
        e.save(asked);
      else
        asked.id = 0, asked.id = e.add(asked);
    });
    return {};
  });
  if (!problem.isEmpty()) return desk_.warn(problem);
  work_->ask(asked);
  desk_.say(tr("Kept: the stage opens with this line-up. Ctrl+Z takes it back."));
}

void LineUpView::choose_guests() {
  if (desk_.read_only()) return;
  const QStringList files = files_to_open(this, tr("Other testers' packages"), {}, tr("Data packages (*.zip)"));
  if (!files.isEmpty()) add_guests(files);
}

void LineUpView::add_guests(const QStringList& paths) {
  QStringList taken;
  const auto known = desk_.book().all<record::Guest>();
  for (const QString& path : paths) {
    const std::string place = text_of(QFileInfo(path).absoluteFilePath());
    if (std::ranges::none_of(known, [&](const record::Guest& g) { return g.path == place; })) taken << text_of(place);
  }
  if (taken.isEmpty()) {
    work_->look_again();
    return desk_.say(tr("They are guests already: looked at again."));
  }
  const QString problem = desk_.edits().plan([&]() -> std::optional<Problem> {
    desk_.book().edit("invite guests", [&](book::Edit& e) {
      for (const QString& path : taken) e.add(record::Guest{0, text_of(path)});
    });
    return {};
  });
  if (!problem.isEmpty()) return desk_.warn(problem);
  work_->look_again();
  desk_.say(tr("%1 invited: they are only read, and worked out from their readings. Ctrl+Z sends them home.")
                .arg(counted(taken.size(), tr("place"), tr("places"))));
}

void LineUpView::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls() && !desk_.read_only()) event->acceptProposedAction();
}

void LineUpView::dropEvent(QDropEvent* event) {
  QStringList paths;
  for (const QUrl& url : event->mimeData()->urls())
    if (url.isLocalFile()) paths << url.toLocalFile();
  if (paths.isEmpty()) return;
  event->acceptProposedAction();
  add_guests(paths);
}

void LineUpView::keyPressEvent(QKeyEvent* event) {
  if (event->modifiers() == Qt::ShiftModifier && event->key() == Qt::Key_S) return save(true);
  const int page = event->key() - Qt::Key_1;
  if (event->modifiers() == Qt::NoModifier && page >= OnStrip && page <= OverTime)
    return show_page(static_cast<Page>(page));
  if (event->modifiers() == Qt::NoModifier) switch (event->key()) {
      case Qt::Key_B:
        return figure_->setFocus(Qt::ShortcutFocusReason);
      case Qt::Key_W:
        return way_->begin();
      case Qt::Key_F:
        return filter_->setFocus(Qt::ShortcutFocusReason);
      case Qt::Key_H:
        return change([](record::SavedLineUp& a) { a.all_pairs = !a.all_pairs; });
      case Qt::Key_P:
        return change([](record::SavedLineUp& a) { a.price_counts = !a.price_counts; });
      case Qt::Key_U:
        return use_switch();
      case Qt::Key_G:
        return choose_guests();
      case Qt::Key_S:
        return save(false);
      case Qt::Key_K:
        return show_kept();
      case Qt::Key_E:
        return writing_.write(work_->shown(), {strip_->chosen(), strip_->second()});
      case Qt::Key_I:
        return weigh();
      case Qt::Key_R:
        return change([](record::SavedLineUp& a) { a.left_out.clear(); });
      case Qt::Key_Delete:
        return leave_out();
      case Qt::Key_Escape:
        if (writing_.working()) {
          writing_.stop();
          return desk_.say(tr("Stopped: no file is half written."));
        }
        if (work_->working()) return work_->cancel();
        if (pages_->currentIndex() != OnStrip) return show_page(OnStrip);
        break;
      case Qt::Key_Return:
      case Qt::Key_Enter:
        if (work_->stopped()) return work_->go_on();
        break;
      case Qt::Key_Down:
        return strip_->step(1);
      case Qt::Key_Up:
        return strip_->step(-1);
      default:
        break;
    }
  StageView::keyPressEvent(event);
}

std::vector<KeyHint> LineUpView::keys() const {
  return {{tr("1 to 7"), tr("strip, maps, two figures, curves, side by side, a room, over time")},
          {tr("Up, Down"), tr("go through the fixtures")},
          {tr("Space"), tr("the second one; Enter shows both side by side")},
          {"B", tr("the figure that they are lined up by")},
          {"W", tr("the way: what is made alike")},
          {"F", tr("who is in it")},
          {"U", tr("make the chosen one comparable with the first")},
          {"H", tr("ranks sure for each pair, or for all pairs")},
          {"P", tr("dominance with the price, or without")},
          {tr("Delete, R"), tr("leave one out; bring all back")},
          {"G", tr("guests: other testers' packages")},
          {"I", tr("an index of your own")},
          {tr("S, Shift+S"), tr("keep this line-up; keep it as another")},
          {"K", tr("kept line-ups and guests")},
          {"E", tr("write it: page, workbook, table, stills")},
          {"Ctrl+C", tr("copy the line-up as a table")}};
}

QString LineUpView::copy() {
  const auto& shown = work_->shown();
  if (!shown || !shown->lineup || shown->lineup->members().empty()) return {};
  QGuiApplication::clipboard()->setText(text_of(gathering::line_up_table(*shown->lineup, shown->ready, desk_.units())));
  return tr("The line-up is on the clipboard as a table.");
}

}  // namespace sunbreak::desktop
