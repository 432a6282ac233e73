#include "desktop/lineup/kept_dialog.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include "desktop/lineup/lineup_scene.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/lineup/own_index.h"

namespace sunbreak::desktop {
namespace {

QString kept_line(const record::SavedLineUp& l, UnitSystem units) {
  const int at = evaluation::lineup_figure_index(l.figure);
  const QString figure =
      at >= 0 ? text_of(evaluation::lineup_figures()[static_cast<std::size_t>(at)].label) : KeptDialog::tr("own index");
  QString words = KeptDialog::tr("%1: by %2, %3").arg(text_of(l.name), figure, way_told(l.way, units));
  if (!l.filter.empty()) words += KeptDialog::tr(", of %1").arg(text_of(l.filter));
  return words;
}

}  // namespace

KeptDialog::KeptDialog(Desk& desk, record::Id open_now, QWidget* parent)
    : QDialog(parent), desk_(desk), open_now_(open_now) {
  setObjectName("keptLineUps");
  setWindowTitle(tr("Kept line-ups, and guests"));
  resize(640, 520);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(8);
  const auto button = [this](QHBoxLayout* row, const QString& text, const char* name, auto act) {
    auto* b = new QPushButton(text, this);
    b->setObjectName(name);
    b->setAutoDefault(false);
    b->setEnabled(!desk_.read_only());
    connect(b, &QPushButton::clicked, this, act);
    row->addWidget(b);
    return b;
  };
  const auto list = [this](const char* name, const QString& told_as) {
    auto* l = new QListWidget(this);
    l->setObjectName(name);
    l->setAccessibleName(told_as);
    l->installEventFilter(this);
    return l;
  };
  column->addWidget(heading_label(tr("Kept line-ups"), this));
  lineups_ = list("keptList", tr("Kept line-ups"));
  connect(lineups_, &QListWidget::itemActivated, this, [this] { open(); });
  column->addWidget(lineups_, 2);
  auto* naming = new QHBoxLayout;
  name_ = new QLineEdit(this);
  name_->setObjectName("keptName");
  name_->setAccessibleName(tr("Name"));
  name_->setPlaceholderText(tr("what the chosen one is called"));
  name_->setEnabled(!desk_.read_only());
  connect(name_, &QLineEdit::returnPressed, this, &KeptDialog::rename);
  connect(lineups_, &QListWidget::currentRowChanged, this, [this](int row) {
    name_->setText(row >= 0 && row < std::ssize(kept_) ? text_of(kept_[static_cast<std::size_t>(row)].name)
                                                       : QString());
  });
  naming->addWidget(name_, 1);
  button(naming, tr("F2  Call it so"), "renameKept", [this] { rename(); });
  button(naming, tr("Del  Drop it"), "dropKept", [this] { drop(); });
  auto* open_it = primary_button(tr("Open"), this);
  open_it->setObjectName("openKept");
  open_it->setAutoDefault(false);
  connect(open_it, &QPushButton::clicked, this, &KeptDialog::open);
  naming->addWidget(open_it);
  column->addLayout(naming);
  column->addSpacing(8);
  column->addWidget(heading_label(tr("Guests: where other testers' packages are looked for"), this));
  guests_ = list("guestList", tr("Guests"));
  column->addWidget(guests_, 1);
  auto* foot = new QHBoxLayout;
  button(foot, tr("Del  Send home"), "sendHome", [this] { send_home(); });
  foot->addStretch();
  auto* close = new QPushButton(tr("Close"), this);
  close->setAutoDefault(false);
  connect(close, &QPushButton::clicked, this, &QDialog::reject);
  foot->addWidget(close);
  column->addLayout(foot);
  fill();
  lineups_->setFocus();
}

void KeptDialog::fill() {
  const int lineup = std::max(0, lineups_->currentRow()), guest = std::max(0, guests_->currentRow());
  kept_ = desk_.book().all<record::SavedLineUp>("WHERE removed = 0 ORDER BY id DESC");
  invited_ = desk_.book().all<record::Guest>();
  lineups_->clear(), guests_->clear();
  for (const record::SavedLineUp& l : kept_)
    lineups_->addItem(l.id == open_now_ ? tr("%1 (open)").arg(kept_line(l, desk_.units()))
                                        : kept_line(l, desk_.units()));
  if (kept_.empty()) {
    lineups_->addItem(tr("None yet: S on the strip keeps the line-up that stands there."));
    lineups_->item(0)->setFlags(Qt::NoItemFlags);
  }
  for (const record::Guest& g : invited_) guests_->addItem(text_of(g.path));
  if (invited_.empty()) {
    guests_->addItem(tr("None yet: G invites packages or folders of them; or drop them on the strip."));
    guests_->item(0)->setFlags(Qt::NoItemFlags);
  }
  lineups_->setCurrentRow(std::min(lineup, lineups_->count() - 1));
  guests_->setCurrentRow(std::min(guest, guests_->count() - 1));
}

void KeptDialog::open() {
  const int row = lineups_->currentRow();
  if (row < 0 || row >= std::ssize(kept_)) return;
  chosen_ = kept_[static_cast<std::size_t>(row)];
  accept();
}

void KeptDialog::rename() {
  const int row = lineups_->currentRow();
  const std::string name = text_of(name_->text().trimmed());
  if (row < 0 || row >= std::ssize(kept_) || name.empty() || desk_.read_only()) return;
  record::SavedLineUp l = kept_[static_cast<std::size_t>(row)];
  l.name = name;
  desk_.edits().make(tr("name of a line-up"), [&](book::Edit& e) { e.save(l); });
  fill();
  lineups_->setFocus();
}

void KeptDialog::drop() {
  const int row = lineups_->currentRow();
  if (row < 0 || row >= std::ssize(kept_) || desk_.read_only()) return;
  record::SavedLineUp l = kept_[static_cast<std::size_t>(row)];
  l.removed = true;
  desk_.edits().make(tr("drop a line-up"), [&](book::Edit& e) { e.save(l); });
  fill();
}

void KeptDialog::send_home() {
  const int row = guests_->currentRow();
  if (row < 0 || row >= std::ssize(invited_) || desk_.read_only()) return;
  const record::Id id = invited_[static_cast<std::size_t>(row)].id;
  guests_changed_ |= desk_.edits().make(tr("send guests home"), [&](book::Edit& e) { e.erase<record::Guest>(id); });
  fill();
}

bool KeptDialog::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() != QEvent::KeyPress) return QDialog::eventFilter(watched, event);
  const int key = static_cast<QKeyEvent*>(event)->key();
  if (key == Qt::Key_Delete) {
    watched == lineups_ ? drop() : send_home();
    return true;
  }
  if (key == Qt::Key_F2 && watched == lineups_) {
    name_->setFocus();
    name_->selectAll();
    return true;
  }
  return QDialog::eventFilter(watched, event);
}

}  // namespace sunbreak::desktop
