#include "desktop/settle/settle_view.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <cmath>

#include "book/settle_plan.h"
#include "desktop/settle/card_page.h"
#include "desktop/settle/curves_page.h"
#include "desktop/settle/field_chart.h"
#include "desktop/settle/field_page.h"
#include "desktop/settle/questions_page.h"
#include "desktop/settle/settle_fields.h"
#include "desktop/settle/settle_work.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/flow_layout.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/settle_words.h"

namespace sunbreak::desktop {

SettleView::SettleView(Desk& desk, QWidget* parent)
    : StageView(parent), desk_(desk), work_(new SettleWork(desk, this)) {
  setObjectName("ground");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 8, 12, 8);
  column->setSpacing(4);
  fields_ = new SettleFields(desk_, *work_, this);
  column->addWidget(fields_);
  auto* head = new QHBoxLayout;
  head->setSpacing(2);
  for (const auto& [page, text] :
       {std::pair{OnField, tr("1 Field")}, std::pair{InCurves, tr("2 Curves")},
        std::pair{AsQuestions, tr("3 Questions")}, std::pair{OnCard, tr("4 Settings card")}}) {
    auto* tab = new QPushButton(text, this);
    tab->setCheckable(true);
    tab->setProperty("plain", true);
    tab->setProperty("tab", true);
    tab->setFocusPolicy(Qt::NoFocus);
    tab->setObjectName(QStringLiteral("settlePage%1").arg(page + 1));
    connect(tab, &QPushButton::clicked, this, [this, to = page] { show_page(to); });
    head->addWidget(tab);
    tabs_.push_back(tab);
  }
  head->addSpacing(12);
  state_ = wrapped_label({}, this);
  state_->setObjectName("settleState");
  head->addWidget(state_, 1);
  way_on_ = new QPushButton(this);
  way_on_->setObjectName("settleWayOn");
  way_on_->hide();
  connect(way_on_, &QPushButton::clicked, this, [this] { emit go(way_to_); });
  head->addWidget(way_on_);
  confirm_ = new QPushButton(tr("C  Confirm this point"), this);
  confirm_->setObjectName("settleConfirm");
  confirm_->setToolTip(tr("A short walk of the stations that tell most, held against what is predicted."));
  connect(confirm_, &QPushButton::clicked, this, &SettleView::confirm);
  head->addWidget(confirm_);
  column->addLayout(head);
  pages_ = new QStackedWidget(this);
  field_ = new FieldPage(desk_, *work_, pages_);
  curves_ = new CurvesPage(desk_, *work_, pages_);
  questions_ = new QuestionsPage(desk_, *work_, pages_);
  card_ = new CardPage(desk_, *work_, pages_);
  for (QWidget* page : std::initializer_list<QWidget*>{field_, curves_, questions_, card_}) pages_->addWidget(page);
  column->addWidget(pages_, 1);
  tabs_[OnField]->setChecked(true);
  connect(field_, &FieldPage::said, this, [this](const QString& words) { desk_.warn(words); });
  connect(work_, &SettleWork::field_changed, this, [this] {
    // While a band is dragged nothing else of what is asked changes.
    if (work_->trying()) return;
    fields_->refresh();
    show_state();
  });
  connect(work_, &SettleWork::moved, this, &SettleView::show_state);
}

void SettleView::refresh() {
  fields_->refresh();
  show_state();
  if (pages_->currentIndex() == InCurves) curves_->refresh();
  if (pages_->currentIndex() == AsQuestions) questions_->refresh();
  if (pages_->currentIndex() == OnCard) card_->refresh();
}

/// What stands in the way of the field, or what it lacks, and the way there.
void SettleView::show_state() {
  const evaluation::TestLight* light = work_->light();
  confirm_->setEnabled(work_->point().has_value() && !desk_.read_only());
  const auto say = [&](const QString& words, const char* tone, std::optional<Stage> way = {},
                       const QString& name = {}) {
    set_tone(state_, tone);
    state_->setText(words);
    way_on_->setVisible(way.has_value());
    if (way) way_to_ = *way, way_on_->setText(name);
  };
  if (!desk_.test()) return say({}, "");
  if (!light)
    return desk_.worked_out().any_read() ? say(tr("Fitting beam, room and hanging to all readings of the test…"), "")
                                         : say(tr("No sweep has a reading. How to run it is told from walked heights."),
                                               "attention", Stage::Walk, tr("Walk one"));
  if (const auto& problem = work_->problem()) return say(marked_attention(text_of(problem->sentence())), "attention");
  if (!work_->maps()) return say(tr("Working the heights out…"), "");
  // What the last confirmation said of where one stands.
  const auto& point = work_->point();
  const record::Sweep* sweep =
      point ? book::confirmation_at(*desk_.test(), point->height->height_m, point->setting.percent) : nullptr;
  if (const auto& evaluation = desk_.worked_out().evaluation();
      sweep && (confirmed_of_ != evaluation || confirmed_id_ != sweep->id)) {
    confirmed_of_ = evaluation;
    confirmed_id_ = sweep->id;
    confirmed_ = evaluation::confirmation(*evaluation, *light, sweep->id);
  }
  if (sweep && confirmed_) {
    const evaluation::Confirmation& c = *confirmed_;
    if (!c.complete)
      return say(tr("%1 of %2 places of its confirmation are read.").arg(c.read).arg(c.places.size()), "", Stage::Walk,
                 tr("Walk on"));
    return say(c.confirmed ? text_of(c.words) : marked_attention(text_of(c.words)), c.confirmed ? "good" : "attention");
  }
  const auto lacks = evaluation::settle_lacks(*light);
  if (!lacks.empty())
    return say(text_of(lacks.front().words), "attention",
               lacks.front().from == evaluation::SettleLack::From::Walk ? Stage::Walk : Stage::WarmUp,
               lacks.front().from == evaluation::SettleLack::From::Walk ? tr("To Walk") : tr("To Warm-up"));
  say(light->way() == BetweenWay::Model
          ? tr("Predicted by the fitted room model.")
          : tr("Predicted by interpolation between the walked heights: the room model does not fit this test."),
      "");
}

void SettleView::show_page(Page page) {
  pages_->setCurrentIndex(page);
  for (std::size_t i = 0; i < tabs_.size(); ++i) tabs_[i]->setChecked(static_cast<int>(i) == page);
  refresh();
  if (page == OnField)
    field_->field()->setFocus(Qt::OtherFocusReason);
  else
    setFocus(Qt::OtherFocusReason);
}

void SettleView::arrive() {
  refresh();
  take_keyboard();
}

bool SettleView::take_keyboard() {
  if (pages_->currentIndex() == OnField)
    field_->field()->setFocus(Qt::OtherFocusReason);
  else
    setFocus(Qt::OtherFocusReason);
  return true;
}

void SettleView::showEvent(QShowEvent* event) {
  StageView::showEvent(event);
  work_->set_in_sight(true);
}

void SettleView::hideEvent(QHideEvent* event) {
  StageView::hideEvent(event);
  work_->set_in_sight(false);
}

void SettleView::keyPressEvent(QKeyEvent* event) {
  const int page = event->key() - Qt::Key_1;
  if (event->modifiers() == Qt::NoModifier && page >= OnField && page <= OnCard)
    return show_page(static_cast<Page>(page));
  if (event->modifiers() == Qt::NoModifier) switch (event->key()) {
      case Qt::Key_F:
        return field_->stand_on_answer(0);
      case Qt::Key_W:
        return field_->stand_on_answer(1);
      case Qt::Key_E:
        return field_->stand_on_answer(2);
      case Qt::Key_C:
        return confirm();
      case Qt::Key_T:
        return findChild<QWidget*>("settleTarget")->setFocus(Qt::ShortcutFocusReason);
      default:
        break;
    }
  StageView::keyPressEvent(event);
}

void SettleView::confirm() {
  const auto& point = work_->point();
  const evaluation::TestLight* light = work_->light();
  if (!point || !light || !desk_.test()) return;
  // Dials and tapes know whole millimeters and tenths.
  const auto [dimmest, brightest] = light->percents();
  const double height_m = std::round(1000 * point->height->height_m) / 1000,
               percent = std::clamp(std::round(10 * point->setting.percent) / 10, dimmest, brightest);
  std::pair<record::Id, record::Id> there{0, 0};
  const QString problem = desk_.edits().plan([&]() -> std::optional<Problem> {
    const auto setting = light->setting(percent);
    if (!setting) return setting.problem();
    const auto predicted = light->between().at(height_m, setting.value(), desk_.units());
    if (!predicted) return predicted.problem();
    auto planned = book::plan_confirmation(desk_.book(), *desk_.test(), height_m, percent, predicted.value().ppfd,
                                           light->question().fit.sweeps.front().layout);
    if (!planned) return planned.problem();
    there = planned.value();
    return {};
  });
  if (!problem.isEmpty()) return desk_.warn(problem);
  desk_.choose(there.first, there.second);
  emit go(Stage::Walk);
}

std::vector<KeyHint> SettleView::keys() const {
  return {{tr("1 to 4"), tr("field, curves, questions, settings card")},
          {tr("Arrows"), tr("move the point; with Shift five at a time")},
          {"Y", tr("the watts up in place of the dial, and back")},
          {"F, W, E", tr("stand on the fewest watts, the widest, the most even")},
          {"C", tr("confirm the point by a short walk")},
          {"T", tr("choose the target")},
          {"Ctrl+C", tr("copy the answers as a table")}};
}

QString SettleView::copy() {
  const auto& answers = work_->answers();
  if (!answers) return {};
  QStringList lines{
      tr("answer\theight_m\tdimmer_pct\tpower_w\tmean_ppfd\tedge_mean_ppfd\tlowest_ppfd\thighest_ppfd\tin_band_"
         "share\tlowest_over_mean\tchance")};
  for (const auto& [best, name] :
       {std::pair{&answers->best.fewest_watts, "fewest watts"}, std::pair{&answers->best.widest, "widest"},
        std::pair{&answers->best.most_even, "most even"}}) {
    if (!*best) continue;
    const SettlePoint& p = best->value();
    QStringList cells{QString(name)};
    for (const double value :
         {p.height->height_m, p.setting.percent, p.setting.power_w.value_or(NAN), p.figures.mean, p.figures.edge,
          p.figures.lowest, p.figures.highest, p.figures.in_band, p.figures.lowest_over_mean(), p.chance})
      cells << (std::isnan(value) ? QString() : QString::number(value, 'g', 6));
    lines << cells.join('\t');
  }
  QApplication::clipboard()->setText(lines.join('\n') + '\n');
  return tr("The answers are on the clipboard, a row each.");
}

}  // namespace sunbreak::desktop
