#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <algorithm>

#include "core/bench/walk_order.h"
#include "core/checks/probe_verdict.h"
#include "desktop/walk/checks_page.h"
#include "desktop/walk/walk_side.h"
#include "desktop/walk/walk_view.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"

/// What Walk says of things that look wrong, and the ways to them.
namespace sunbreak::desktop {
namespace {
constexpr int verdict_shown_for = 12;  ///< stations after the opening probe
constexpr std::size_t checks_shown = 2;
}  // namespace

void WalkView::refresh_checks() {
  const auto probe = opening_probe(desk_.view()->layout);
  std::optional<ProbeVerdict> verdict;
  if (desk_.test()->test.opening_probe && !probe.empty())
    verdict = probe_verdict(desk_.view()->layout, desk_.view()->ppfd, desk_.worked_out().hang(), desk_.units());
  const int read = desk_.view()->read();
  const bool early = read <= static_cast<int>(probe.size()) + verdict_shown_for;
  side_->verdict->setVisible(verdict && (early || verdict->check) && !desk_.view()->complete());
  if (verdict) {
    side_->verdict->setText(verdict->check ? marked_attention(text_of(verdict->words))
                                           : QStringLiteral("✓ ") + text_of(verdict->words));
    set_tone(side_->verdict, verdict->check ? "attention" : "good");
  }
  QStringList open;
  for (const Finding& finding : desk_.worked_out().findings())
    if ((!verdict || !verdict->check || finding.id != verdict->check->id) && finding.saw != told_)
      open << marked_attention(text_of(finding.saw));
  if (static_cast<std::size_t>(open.size()) > checks_shown)
    open = open.mid(0, checks_shown) << tr("and %1 more").arg(open.size() - static_cast<int>(checks_shown));
  side_->checks->setText(open.join('\n'));
  side_->checks->setVisible(!open.isEmpty());
  const auto all_open =
      std::count_if(desk_.worked_out().all_findings().begin(), desk_.worked_out().all_findings().end(),
                    [](const evaluation::TestFinding& c) { return !c.set_aside; });
  side_->list_checks->setText(tr("All checks: %1 open").arg(all_open));
  side_->list_checks->setVisible(!desk_.worked_out().all_findings().empty());
}

bool WalkView::flagged(int station) const {
  for (const Finding& finding : desk_.worked_out().findings())
    if (finding.stations.size() < 3 &&
        std::find(finding.stations.begin(), finding.stations.end(), station) != finding.stations.end())
      return true;
  return false;
}

/// Whether a station alone looks as a slipped digit makes it.
bool WalkView::slipped(int station) const {
  for (const Finding& finding : desk_.worked_out().findings())
    if (finding.severity != Severity::Look && finding.stations == std::vector{station}) return true;
  return false;
}

/// A value as it was read and, where the sensor's correction makes it another, as the map shows it.
QString WalkView::kept_words(const QString& read, int station) const {
  const double raw = desk_.view()->states[station].raw, corrected = desk_.view()->ppfd[station];
  if (ppfd_text(raw) == ppfd_text(corrected)) return tr("%1 kept.").arg(read);
  return tr("%1 kept as read; corrected it is %2 µmol/m²/s.").arg(read, text_of(ppfd_text(corrected)));
}

/// Says at once what looks wrong with a reading just taken, and how to go on.
bool WalkView::warn_of(int station, const QString& way_on) {
  for (const Finding& finding : desk_.worked_out().findings())
    if (std::find(finding.stations.begin(), finding.stations.end(), station) != finding.stations.end()) {
      QString way = station == current() ? tr("It is at hand now.") : tr("C goes there.");
      if (!way_on.isEmpty()) way += ' ' + way_on;
      say(marked_attention(tr("%1: %2. %3").arg(text_of(finding.saw), text_of(finding.remedy), way)), "attention");
      told_ = finding.saw;
      refresh_checks();
      return true;
    }
  return false;
}

void WalkView::go_to_next_check() {
  const auto& walk = desk_.walk();
  const auto checks = desk_.worked_out().findings();
  const auto named = [&](int station) {
    return std::any_of(checks.begin(), checks.end(), [&](const Finding& c) {
      return std::find(c.stations.begin(), c.stations.end(), station) != c.stations.end();
    });
  };
  const auto here = std::find(walk.begin(), walk.end(), current());
  auto next = here == walk.end() ? walk.end() : std::find_if(here + 1, walk.end(), named);
  if (next == walk.end()) next = std::find_if(walk.begin(), walk.end(), named);
  if (next == walk.end()) {
    if (!checks.empty()) return list_checks();
    return say(tr("No station of this sweep looks wrong."), "good");
  }
  taker_.set_hands_free(false);
  move_to(*next);
  warn_of(*next);
  side_->show_mode(false, tones_.silenced(), desk_.test()->test.samples_a_reading);
}

void WalkView::list_checks() {
  taker_.set_hands_free(false);
  ChecksPage page(desk_, window());
  connect(&page, &ChecksPage::go, this, &WalkView::go_to);
  page.exec();
  refresh();
  side_->value->setFocus();
}

void WalkView::go_to(record::Id sweep_id, int station) {
  for (const record::Sweep& sweep : desk_.test()->sweeps)
    if (sweep.id == sweep_id) {
      desk_.choose(sweep.rung_id, sweep.stop_id);
      break;
    }
  if (station >= 0 && desk_.view() && station < static_cast<int>(desk_.view()->states.size())) {
    move_to(station);
    warn_of(station);
  }
}

}  // namespace sunbreak::desktop
