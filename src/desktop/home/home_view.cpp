#include "desktop/home/home_view.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>

#include "book/plan.h"
#include "desktop/home/duplicate_dialog.h"
#include "desktop/home/shelf_list.h"
#include "desktop/home/test_cards.h"
#include "desktop/shelf/record_fields.h"
#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {

HomeView::HomeView(Desk& desk, InstrumentHub& hub, QWidget* parent) : StageView(parent), desk_(desk) {
  shelf_ = new ShelfList(desk_, hub, this);
  auto* middle = new QWidget(this);
  middle->setObjectName("ground");
  middle->setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(middle);
  column->setContentsMargins(24, 16, 16, 8);
  auto* head = new QHBoxLayout;
  new_ = primary_button(tr("New test"), middle);
  new_->setObjectName("newTest");
  new_->setToolTip(tr("Ctrl+N"));
  duplicate_ = new QPushButton(tr("Duplicate the plan…"), middle);
  duplicate_->setToolTip(
      tr("Ctrl+D: the same bench, grid, heights and settings for the next fixture, without the readings"));
  auto* bring = new QPushButton(tr("Bring in a data package…"), middle);
  search_ = new QLineEdit(middle);
  search_->setObjectName("search");
  search_->setPlaceholderText(tr("Search tests (Ctrl+F)"));
  search_->setAccessibleName(tr("Search tests"));
  search_->setMaximumWidth(280);
  head->addWidget(new_);
  head->addWidget(duplicate_);
  head->addWidget(bring);
  head->addStretch();
  head->addWidget(search_, 1);
  column->addLayout(head);
  column->addSpacing(8);
  empty_ = wrapped_label({}, middle);
  column->addWidget(empty_);
  cards_ = new TestCards(desk_, middle);
  cards_->setObjectName("cards");
  column->addWidget(cards_, 1);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(shelf_);
  layout->addWidget(middle, 1);

  connect(new_, &QPushButton::clicked, this, &HomeView::start_test);
  connect(duplicate_, &QPushButton::clicked, this, &HomeView::duplicate);
  connect(bring, &QPushButton::clicked, this, &HomeView::wants_package);
  connect(search_, &QLineEdit::textChanged, this, &HomeView::refresh);
  connect(search_, &QLineEdit::returnPressed, this, [this] {
    if (const auto only = cards_->only()) emit open(*only, {});
  });
  connect(cards_, &TestCards::open, this, [this](record::Id id) { emit open(id, {}); });
  const auto key = [this](const QKeySequence& keys, auto act) {
    auto* shortcut = new QShortcut(keys, this);
    shortcut->setContext(Qt::WidgetWithChildrenShortcut);
    connect(shortcut, &QShortcut::activated, this, act);
  };
  key(QKeySequence("Ctrl+D"), &HomeView::duplicate);
  key(QKeySequence::Find, [this] { search_->setFocus(); });
  auto* del = new QShortcut(QKeySequence::Delete, cards_);
  del->setContext(Qt::WidgetShortcut);
  connect(del, &QShortcut::activated, this, &HomeView::remove);
  connect(&desk_, &Desk::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

void HomeView::refresh() {
  shelf_->fill();
  cards_->fill(search_->text());
  const bool none = cards_->count() == 0;
  empty_->setVisible(none);
  empty_->setText(search_->text().isEmpty() ? tr("No test yet. A test is one fixture on one bench: start one with New "
                                                 "test, and describe the fixture and the bench on Rig.")
                                            : tr("No test holds these words."));
  duplicate_->setEnabled(!none && !desk_.read_only());
  new_->setEnabled(!desk_.read_only());
}

void HomeView::start_test() {
  record::Id id = 0;
  if (desk_.read_only()) return desk_.warn(tr("This window is read-only: a test cannot be added here."));
  const QString problem = desk_.edits().plan([&]() -> std::optional<Problem> {
    id = book::new_test(desk_.book(), desk_.units());
    return {};
  });
  if (!problem.isEmpty()) return desk_.warn(problem);
  emit open(id, Stage::Rig);
}

void HomeView::duplicate() {
  const auto test = desk_.book().find<record::Test>(cards_->chosen());
  if (!test) return;
  if (desk_.read_only()) return desk_.warn(tr("This window is read-only: a test cannot be added here."));
  DuplicateDialog dialog(desk_.book(), *test, this);
  if (dialog.exec() != QDialog::Accepted) return;
  record::Id id = 0;
  const QString problem = desk_.edits().plan([&]() -> std::optional<Problem> {
    id = book::duplicate_plan(desk_.book(), test->id, dialog.fixture_id());
    return {};
  });
  if (!problem.isEmpty()) return desk_.warn(problem);
  emit open(id, Stage::Rig);
}

void HomeView::remove() {
  const record::Id id = cards_->chosen();
  if (id && store_member(desk_, id, &record::Test::removed, true, tr("take a test off the lab book's pages")).isEmpty())
    desk_.say(tr("The test is off the page; nothing of it is lost. Ctrl+Z puts it back."));
}

void HomeView::arrive() {
  refresh();
  take_keyboard();
}

bool HomeView::take_keyboard() {
  if (cards_->count() > 0)
    cards_->setFocus(Qt::OtherFocusReason);
  else
    new_->setFocus(Qt::OtherFocusReason);
  return true;
}

std::vector<KeyHint> HomeView::keys() const {
  return {{tr("Arrows, Enter"), tr("choose a test, open it")},
          {tr("Ctrl+N"), tr("new test")},
          {tr("Ctrl+D"), tr("duplicate the chosen test's plan for the next fixture")},
          {tr("Ctrl+F"), tr("search")},
          {tr("Ctrl+K"), tr("check lamp: today's reading, charts, who has moved")},
          {tr("Ctrl+U"), tr("lux factor: what makes PPFD of a lux meter's values")},
          {tr("Ctrl+T"), tr("two sensors held against each other")},
          {tr("Delete"), tr("take the chosen test off the page; undoable")}};
}

}  // namespace sunbreak::desktop
