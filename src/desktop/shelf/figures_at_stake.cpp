#include "desktop/shelf/figures_at_stake.h"

#include <QApplication>
#include <QDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <cmath>

#include "core/quantity/display.h"
#include "desktop/desk/desk.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/evaluation.h"

namespace sunbreak::desktop {
namespace {

constexpr double unchanged = 1e-9;
constexpr int stakes_shown = 12;

struct Stake {
  QString sweep;
  double mean_before = 0, mean_after = 0;
  std::optional<double> efficacy_before, efficacy_after;
};

std::optional<double> efficacy_of(const SweepFigures& f) {
  return f.efficacy ? std::optional(f.efficacy->canopy_efficacy_umol_j) : std::nullopt;
}

/// The sweeps whose figures a change would make others.
std::vector<Stake> stakes(const Desk& desk, const record::TestRecord& draft) {
  std::vector<Stake> found;
  const auto after = evaluation::evaluate(draft, std::make_shared<const evaluation::WallLog>(), desk.units());
  const auto& before = desk.worked_out().evaluation();
  if (!before) return found;
  for (const record::Rung& rung : desk.test()->rungs)
    for (const record::Stop& stop : desk.test()->stops) {
      const record::Sweep* sweep = desk.test()->sweep(rung.id, stop.id);
      const SweepFigures* old = sweep ? before->figures(sweep->id) : nullptr;
      const SweepFigures* now = sweep ? after->figures(sweep->id) : nullptr;
      if (!old || !now) continue;
      const auto unlike = [](double a, double b) { return std::abs(a - b) > unchanged * std::abs(a); };
      const auto was = efficacy_of(*old), is = efficacy_of(*now);
      if (!unlike(old->mean_ppfd, now->mean_ppfd) && !(was && is && unlike(*was, *is))) continue;
      found.push_back(
          {QObject::tr("%1 · %2 %")
               .arg(text_of(length_text(rung.height_m, desk.units())), text_of(short_number(stop.percent, 1))),
           old->mean_ppfd, now->mean_ppfd, was, is});
    }
  return found;
}

bool asked(const QString& why, const std::vector<Stake>& at_stake) {
  QDialog dialog(QApplication::activeWindow());
  dialog.setObjectName("figuresAtStake");
  dialog.setWindowTitle(QObject::tr("Figures would change"));
  auto* column = new QVBoxLayout(&dialog);
  column->setContentsMargins(24, 16, 24, 16);
  column->setSpacing(8);
  column->addWidget(wrapped_label(why, &dialog));
  auto* table = new QTableWidget(std::min<int>(stakes_shown, static_cast<int>(at_stake.size())), 3, &dialog);
  table->setHorizontalHeaderLabels(
      {QObject::tr("Sweep"), QObject::tr("Mean PPFD, µmol/m²/s"), QObject::tr("Canopy efficacy, µmol/J")});
  table->verticalHeader()->hide();
  table->setTabKeyNavigation(false);
  table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table->setSelectionMode(QAbstractItemView::NoSelection);
  table->setAccessibleName(QObject::tr("Figures before and after"));
  table->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  const auto efficacy = [](const std::optional<double>& v) {
    return v ? QString::number(*v, 'f', 2) : QStringLiteral("–");
  };
  for (int row = 0; row < table->rowCount(); ++row) {
    const Stake& s = at_stake[static_cast<std::size_t>(row)];
    table->setItem(row, 0, new QTableWidgetItem(s.sweep));
    table->setItem(row, 1,
                   new QTableWidgetItem(QStringLiteral("%1 → %2").arg(text_of(ppfd_text(s.mean_before)),
                                                                      text_of(ppfd_text(s.mean_after)))));
    table->setItem(
        row, 2,
        new QTableWidgetItem(QStringLiteral("%1 → %2").arg(efficacy(s.efficacy_before), efficacy(s.efficacy_after))));
  }
  column->addWidget(table);
  if (const auto more = at_stake.size() - static_cast<std::size_t>(table->rowCount()); more > 0)
    column->addWidget(quiet_label(QObject::tr("and %1 more").arg(more), &dialog));
  column->addWidget(quiet_label(QObject::tr("One step of undo brings them back."), &dialog));
  auto* buttons = new QHBoxLayout;
  buttons->addStretch();
  auto* leave = new QPushButton(QObject::tr("Leave them as they are"), &dialog);
  leave->setObjectName("leaveFigures");
  auto* change = primary_button(QObject::tr("Change them"), &dialog);
  change->setObjectName("changeFigures");
  change->setAutoDefault(false);
  leave->setDefault(true);
  buttons->addWidget(leave);
  buttons->addWidget(change);
  column->addLayout(buttons);
  QObject::connect(leave, &QPushButton::clicked, &dialog, &QDialog::reject);
  QObject::connect(change, &QPushButton::clicked, &dialog, &QDialog::accept);
  dialog.resize(560, 320);
  leave->setFocus();
  return dialog.exec() == QDialog::Accepted;
}

}  // namespace

bool agreed_for_figures(Desk& desk, const QString& why, const std::function<QString()>& change) {
  if (!desk.test() || desk.test()->readings.empty() || desk.edits().rehearsing()) return true;
  const auto draft = desk.edits().rehearse(change);
  if (!draft) return true;  // it will be refused, and say why
  const std::vector<Stake> at_stake = stakes(desk, *draft);
  return at_stake.empty() || asked(why, at_stake);
}

}  // namespace sunbreak::desktop
