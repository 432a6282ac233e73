#include "desktop/warmup/log_import.h"

#include <QComboBox>
#include <QDateTime>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <cmath>

#include "book/log_edits.h"
#include "desktop/desk/desk.h"
#include "desktop/desk/test_log.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

LogImport::LogImport(Desk& desk, TestLog& log, exchange::LogDraft draft, const QString& origin, QWidget* parent)
    : QDialog(parent), desk_(desk), draft_(std::move(draft)), origin_(origin) {
  setObjectName("logImport");
  setWindowTitle(tr("Bring in a log"));
  resize(720, 480);
  const double length_s = draft_.samples.back().time_s - draft_.samples.front().time_s;
  const evaluation::LampState lamp = log.lamp();
  on_s_ = lamp.on_since_s.value_or(desk_.clock().now_s() - length_s);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(8);
  auto* head = figure_label(20, this);
  head->setText(origin);
  layout->addWidget(head);
  QStringList words;
  for (const std::string& u : draft_.understood) words << text_of(u);
  auto* understood = wrapped_label(words.join(" · "), this);
  understood->setObjectName("logUnderstood");
  layout->addWidget(understood);
  auto* row = new QHBoxLayout;
  if (draft_.dated) {
    row->addWidget(quiet_label(tr("The logger's clock shows"), this));
    zone_ = new QComboBox(this);
    zone_->setObjectName("logZone");
    zone_->addItem(tr("the time of day here"), true);
    zone_->addItem(tr("UTC"), false);
    row->addWidget(zone_);
  } else {
    row->addWidget(quiet_label(
        lamp.on_since_s ? tr("It begins, minutes after switch-on") : tr("It begins, minutes after now less its length"),
        this));
    begins_ = new QLineEdit("0", this);
    begins_->setObjectName("logBegins");
    begins_->setMaximumWidth(80);
    row->addWidget(begins_);
  }
  row->addStretch();
  layout->addLayout(row);
  QStringList findings;
  for (const exchange::Finding& f : draft_.findings) findings << tr("row %1: %2").arg(f.row).arg(text_of(f.words));
  auto* list = wrapped_label(findings.isEmpty() ? tr("Every row was taken.") : findings.join("\n"), this);
  list->setObjectName("logFindings");
  list->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setWidget(list);
  layout->addWidget(scroll, 1);
  problem_ = wrapped_label({}, this);
  set_tone(problem_, "bad");
  layout->addWidget(problem_);
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(quiet_label(tr("Taking it is one step of undo."), this));
  buttons->addStretch();
  auto* leave = new QPushButton(tr("Leave it"), this);
  leave->setAutoDefault(false);
  auto* take = primary_button(tr("Take this log"), this);
  take->setObjectName("takeLog");
  take->setDefault(true);
  buttons->addWidget(leave);
  buttons->addWidget(take);
  layout->addLayout(buttons);
  connect(leave, &QPushButton::clicked, this, &QDialog::reject);
  connect(take, &QPushButton::clicked, this, &LogImport::take);
}

void LogImport::take() {
  std::optional<double> minutes = 0;
  if (begins_) {
    const QString problem = parse_number_field({-100'000, 100'000, false}, [&](std::optional<double> v) {
      minutes = v;
      return QString();
    })(begins_->text().trimmed());
    problem_->setText(problem);
    if (!problem.isEmpty()) return begins_->setFocus();
  }
  exchange::LogDraft taken = draft_;
  if (zone_ && zone_->currentData().toBool()) {
    const auto begins = QDateTime::fromSecsSinceEpoch(std::llround(taken.samples.front().time_s), Qt::UTC);
    const int ahead_s = QDateTime(begins.date(), begins.time()).offsetFromUtc();
    for (record::LogSample& s : taken.samples) s.time_s -= ahead_s;
  }
  const QString problem = desk_.edits().plan([&]() -> std::optional<Problem> {
    book::take_log(desk_.book(), *desk_.test(), taken, text_of(origin_), on_s_ + 60 * *minutes);
    return {};
  });
  if (!problem.isEmpty()) return problem_->setText(problem);
  accept();
}

}  // namespace sunbreak::desktop
