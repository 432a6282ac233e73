#include "desktop/read/read_tools.h"

#include <QAction>
#include <QBoxLayout>
#include <QComboBox>
#include <QMenu>
#include <QPushButton>
#include <QSignalBlocker>
#include <QToolButton>
#include <algorithm>
#include <cmath>

#include "desktop/read/outside_sweep.h"
#include "desktop/read/shown_values.h"
#include "desktop/widgets/elided_combo.h"
#include "desktop/widgets/flow_layout.h"
#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {
namespace {

/// What the list of sweeps says beside their ids.
constexpr record::Id another_test = -1, present_outside = -2;

/// The sweep that a difference is first taken from: at the same stop at the nearest other height; without one, the
/// first there is.
record::Id usual_other(const Desk& desk) {
  const auto others = other_sweeps(desk, desk.sweep() ? desk.sweep()->id : 0);
  record::Id best = others.empty() ? 0 : others.front();
  double nearest = INFINITY;
  if (!desk.rung() || !desk.stop()) return best;
  for (const record::Sweep& sweep : desk.test()->sweeps) {
    const record::Rung* rung = desk.test()->rung(sweep.rung_id);
    if (sweep.stop_id != desk.stop()->id || !rung || std::find(others.begin(), others.end(), sweep.id) == others.end())
      continue;
    if (const double away = std::abs(rung->height_m - desk.rung()->height_m); away < nearest)
      nearest = away, best = sweep.id;
  }
  return best;
}

}  // namespace

ReadTools::ReadTools(Desk& desk, MapSettings& settings, QWidget* parent)
    : QWidget(parent), desk_(desk), settings_(settings) {
  setObjectName("readTools");
  auto* row = new FlowLayout(this);
  const std::pair<Quantity, QString> quantities[] = {{Quantity::Ppfd, tr("PPFD")},
                                                     {Quantity::DailyLight, tr("DLI")},
                                                     {Quantity::PercentOfMean, tr("% of mean")},
                                                     {Quantity::Difference, tr("Difference")}};
  for (const auto& [quantity, text] : quantities) {
    auto* b = toggle(text, tr("Q goes from one to the next"), "");
    b->setObjectName("quantity" + QString::number(static_cast<int>(quantity)));
    connect(b, &QPushButton::clicked, this, [this, which = quantity] { choose(which); });
    quantities_[quantity] = b;
  }
  other_ = new ElidedCombo(16, parent);
  other_->setObjectName("otherSweep");
  other_->setAccessibleName(tr("Sweep that the difference is taken from"));
  connect(other_, &QComboBox::activated, this, [this] {
    if (const record::Id id = other_->currentData().toLongLong(); id > 0) {
      settings_.other = id;
      settings_.outside.reset();
    } else if (id == another_test) {
      OutsideSweepDialog dialog(desk_, this);
      if (dialog.exec() == QDialog::Accepted)
        if (auto chosen = dialog.chosen()) settings_.outside = std::move(chosen);
    }
    emit changed();
  });
  numbers_ = toggle(tr("Numbers"), tr("N"), "mapNumbers");
  contours_ = toggle(tr("Contours"), tr("C"), "mapContours");
  cut_ = toggle(tr("Cut"), tr("X; or draw a line with Shift and the mouse"), "mapCut");
  connect(numbers_, &QPushButton::clicked, this, [this] {
    settings_.numbers = !settings_.numbers;
    emit changed();
  });
  connect(contours_, &QPushButton::clicked, this, [this] {
    settings_.contours = !settings_.contours;
    emit changed();
  });
  connect(cut_, &QPushButton::clicked, this, &ReadTools::wants_cut);
  drawn_ = menu_button(tr("Draw ▾"), "mapDrawn");
  row->addWidget(drawn_);
  const std::tuple<QString, bool MapSettings::*> drawn[] = {
      {tr("Fixture\tL"), &MapSettings::fixture},
      {tr("Usual footprints\tF"), &MapSettings::footprints},
      {tr("Rings\tG"), &MapSettings::rings},
      {tr("Rectangles and circle in band\tV"), &MapSettings::coverage},
      {tr("A scale of its own\tS"), &MapSettings::own_scale}};
  for (const auto& [text, member] : drawn) {
    QAction* action = drawn_->menu()->addAction(text);
    action->setCheckable(true);
    drawn_actions_.emplace_back(action, member);
    connect(action, &QAction::triggered, this, [this, which = member](bool on) {
      settings_.*which = on;
      emit changed();
    });
  }
}

QToolButton* ReadTools::menu_button(const QString& text, const char* name) {
  auto* b = new QToolButton(this);
  b->setText(text);
  b->setObjectName(name);
  b->setProperty("plain", true);
  b->setPopupMode(QToolButton::InstantPopup);
  b->setFocusPolicy(Qt::NoFocus);
  b->setMenu(new QMenu(b));
  return b;
}

QWidget* ReadTools::other_choice() const { return other_; }

void ReadTools::add_picture_menu(QBoxLayout& to) {
  auto* picture = menu_button(tr("Picture ▾"), "mapPicture");
  connect(picture->menu()->addAction(tr("Copy the picture\tCtrl+Shift+C")), &QAction::triggered, this,
          &ReadTools::wants_picture_copied);
  connect(picture->menu()->addAction(tr("Save the picture…\tCtrl+E")), &QAction::triggered, this,
          &ReadTools::wants_picture_saved);
  to.addWidget(picture);
}

QPushButton* ReadTools::toggle(const QString& text, const QString& tip, const char* name) {
  auto* b = new QPushButton(text, this);
  b->setCheckable(true);
  b->setProperty("plain", true);
  b->setToolTip(tip);
  b->setFocusPolicy(Qt::NoFocus);
  b->setObjectName(name);
  layout()->addWidget(b);
  return b;
}

void ReadTools::choose(Quantity quantity) {
  settings_.quantity = quantity;
  emit changed();
}

void ReadTools::step_other() {
  const auto others = other_sweeps(desk_, desk_.sweep() ? desk_.sweep()->id : 0);
  const auto found = std::find(others.begin(), others.end(), settings_.other);
  settings_.outside.reset();
  if (others.empty()) return emit changed();
  settings_.other = found == others.end() || found + 1 == others.end() ? others.front() : *(found + 1);
  emit changed();
}

void ReadTools::refresh() {
  for (const auto& [quantity, b] : quantities_) b->setChecked(settings_.quantity == quantity);
  numbers_->setChecked(settings_.numbers);
  contours_->setChecked(settings_.contours);
  contours_->setEnabled(desk_.view() && desk_.view()->layout.is_lattice());
  cut_->setEnabled(contours_->isEnabled());
  cut_->setChecked(settings_.cut.has_value());
  for (const auto& [action, member] : drawn_actions_) action->setChecked(settings_.*member);
  const auto others = other_sweeps(desk_, desk_.sweep() ? desk_.sweep()->id : 0);
  if (settings_.quantity != Quantity::Difference ||
      std::find(others.begin(), others.end(), settings_.other) == others.end())
    settings_.other = usual_other(desk_);
  other_->setVisible(settings_.quantity == Quantity::Difference);
  const QSignalBlocker quiet(other_);
  other_->clear();
  for (const record::Id id : others) other_->addItem(tr("from %1").arg(sweep_words(desk_, id)), qlonglong(id));
  if (settings_.outside) other_->addItem(tr("from %1").arg(settings_.outside->words), qlonglong(present_outside));
  other_->addItem(tr("from another test…"), qlonglong(another_test));
  other_->setCurrentIndex(
      std::max(0, other_->findData(qlonglong(settings_.outside ? present_outside : settings_.other))));
}

}  // namespace sunbreak::desktop
