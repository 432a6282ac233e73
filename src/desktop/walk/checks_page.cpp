#include "desktop/walk/checks_page.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "desktop/paint/station_words.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

ChecksPage::ChecksPage(Desk& desk, QWidget* parent) : QDialog(parent), desk_(desk) {
  setObjectName("checksPage");
  setWindowTitle(tr("Checks"));
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(24, 16, 24, 16);
  layout->setSpacing(8);
  list_ = new QListWidget(this);
  list_->setObjectName("checksList");
  list_->setAccessibleName(tr("Checks of this test"));
  list_->setWordWrap(true);
  layout->addWidget(list_, 1);
  details_ = wrapped_label({}, this);
  details_->setObjectName("checkDetails");
  details_->setMinimumHeight(76);
  details_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  layout->addWidget(details_);
  layout->addWidget(thin_rule(this));
  auto* row = new QHBoxLayout;
  row->setSpacing(8);
  reason_ = new QLineEdit(this);
  reason_->setObjectName("checkReason");
  reason_->setAccessibleName(tr("Reason for setting the check aside"));
  reason_->setPlaceholderText(tr("why it may stay as it is; printed in the report"));
  row->addWidget(reason_, 1);
  aside_ = new QPushButton(tr("Set aside"), this);
  aside_->setObjectName("checkAside");
  aside_->setAutoDefault(false);
  row->addWidget(aside_);
  layout->addLayout(row);
  problem_ = wrapped_label({}, this);
  set_tone(problem_, "bad");
  problem_->hide();
  layout->addWidget(problem_);
  auto* buttons = new QHBoxLayout;
  buttons->addStretch();
  auto* done = new QPushButton(tr("Done"), this);
  done->setAutoDefault(false);
  buttons->addWidget(done);
  go_ = primary_button(tr("Go there"), this);
  go_->setObjectName("checkGo");
  go_->setAutoDefault(false);
  buttons->addWidget(go_);
  layout->addLayout(buttons);
  connect(done, &QPushButton::clicked, this, &QDialog::reject);
  connect(go_, &QPushButton::clicked, this, &ChecksPage::go_there);
  connect(list_, &QListWidget::itemActivated, this, &ChecksPage::go_there);
  connect(aside_, &QPushButton::clicked, this, &ChecksPage::set_aside_or_take_up);
  connect(reason_, &QLineEdit::returnPressed, this, &ChecksPage::set_aside_or_take_up);
  connect(list_, &QListWidget::currentRowChanged, this, [this] {
    const evaluation::TestFinding* c = chosen();
    problem_->hide();
    go_->setEnabled(c && c->sweep_id);
    const bool impossible = c && c->check.severity == Severity::Impossible;
    aside_->setEnabled(c && !impossible && !desk_.read_only());
    reason_->setEnabled(c && !impossible && !c->set_aside && !desk_.read_only());
    aside_->setText(c && c->set_aside ? tr("Take up again") : tr("Set aside"));
    reason_->setText(c && c->set_aside ? text_of(c->set_aside->reason) : QString());
    details_->setText(c ? tr("It saw: %1.\nWhat that does: %2.\nWhat to do: %3.%4")
                              .arg(text_of(c->check.saw), text_of(c->check.effect), text_of(c->check.remedy),
                                   impossible ? tr("\nIt cannot be, so that no reason sets it aside.") : QString())
                        : QString());
  });
  connect(&desk_, &Desk::changed, this, &ChecksPage::refresh);
  connect(&desk_.worked_out(), &WorkedOut::progressed, this, &ChecksPage::refresh);
  resize(720, 520);
  refresh();
}

const evaluation::TestFinding* ChecksPage::chosen() const {
  const int row = list_->currentRow();
  return row >= 0 && row < static_cast<int>(shown_.size()) ? &shown_[row] : nullptr;
}

QString ChecksPage::place_of(const evaluation::TestFinding& c) const {
  const record::TestRecord& test = *desk_.test();
  const auto sweep = std::find_if(test.sweeps.begin(), test.sweeps.end(), [&](auto& s) { return s.id == c.sweep_id; });
  if (sweep == test.sweeps.end()) return tr("The test");
  QString words = tr("%1 · %2 %")
                      .arg(text_of(length_text(test.rung(sweep->rung_id)->height_m, desk_.units())),
                           show_number(test.stop(sweep->stop_id)->percent));
  if (c.check.stations.size() == 1 && desk_.view_of(sweep->id))
    words += " · " + station_words(desk_.view_of(sweep->id)->layout, c.check.stations.front());
  return words;
}

void ChecksPage::refresh() {
  const int row = std::max(list_->currentRow(), 0);
  shown_ = desk_.worked_out().all_findings();
  std::stable_sort(shown_.begin(), shown_.end(),
                   [](const evaluation::TestFinding& a, const evaluation::TestFinding& b) {
                     return std::pair(a.set_aside.has_value(), a.check.severity == Severity::Look) <
                            std::pair(b.set_aside.has_value(), b.check.severity == Severity::Look);
                   });
  list_->clear();
  for (const evaluation::TestFinding& c : shown_) {
    const QString mark = c.set_aside                          ? QStringLiteral("✓ ")
                         : c.check.severity == Severity::Look ? QStringLiteral("◣ ")
                                                              : QStringLiteral("■ ");
    QString words = mark + place_of(c) + "\n" + text_of(c.check.saw);
    if (c.set_aside) words += tr(" (set aside: %1)").arg(text_of(c.set_aside->reason));
    list_->addItem(words);
  }
  list_->setVisible(!shown_.empty());
  if (shown_.empty())
    details_->setText(still_looking() ? tr("The sweeps of this test are still being looked at…")
                                      : tr("Nothing in this test looks wrong. What does will be listed here."));
  list_->setCurrentRow(std::min<int>(row, static_cast<int>(shown_.size()) - 1));
}

/// Whether sweeps with readings are left that no check has looked at yet.
bool ChecksPage::still_looking() const {
  const auto& evaluation = desk_.worked_out().evaluation();
  return evaluation && std::any_of(evaluation->views().begin(), evaluation->views().end(), [&](const auto& view) {
           return view.second->read() > 0 && !evaluation->findings_so_far(view.first);
         });
}

void ChecksPage::go_there() {
  const evaluation::TestFinding* c = chosen();
  if (!c || !c->sweep_id) return;
  const record::Id sweep_id = c->sweep_id;
  const int station = c->check.stations.empty() ? -1 : c->check.stations.front();
  accept();
  emit go(sweep_id, station);
}

void ChecksPage::set_aside_or_take_up() {
  const evaluation::TestFinding* c = chosen();
  if (!c) return;
  if (c->set_aside) {
    desk_.edits().take_up_again(c->set_aside->id);
    return;
  }
  const QString reason = reason_->text().trimmed();
  problem_->setText(tr("A reason is needed: the report prints it beside the check."));
  problem_->setVisible(reason.isEmpty());
  if (reason.isEmpty()) return reason_->setFocus();
  desk_.edits().set_aside(*c, text_of(reason));
  list_->setFocus();
}

}  // namespace sunbreak::desktop
