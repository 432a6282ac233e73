#include "desktop/lineup/member_detail.h"

#include <QLabel>
#include <QVBoxLayout>
#include <ranges>

#include "core/visible.h"
#include "desktop/lineup/lineup_scene.h"
#include "desktop/lineup/lineup_strip.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"
#include "evaluation/provenance.h"

namespace sunbreak::desktop {

using evaluation::LineUp;
using evaluation::LineUpFigure;
using evaluation::LineUpMember;

namespace {

constexpr int most_names = 8;

}  // namespace

MemberDetail::MemberDetail(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  setObjectName("ground");
  QVBoxLayout* side = scrolled_column(this);
  head_ = heading_label({}, this);
  head_->setWordWrap(true);
  side->addWidget(head_);
  words_ = wrapped_label({}, this);
  words_->setObjectName("lineupWords");
  words_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  side->addWidget(words_);
  figures_ = new FiguresTable({tr("Figure"), tr("Value")}, tr("Figures"), this);
  figures_->setObjectName("lineupFigures");
  side->addWidget(figures_);
  side->addStretch();
}

void MemberDetail::show_scene(const LineUpScene& scene) {
  const int m = scene.chosen.first;
  if (!scene.shown || !scene.shown->lineup || m < 0) {
    head_->setText({});
    words_->setText(scene.shown && scene.shown->all > 0
                        ? QString()
                        : tr("Tests of this lab book, and other testers' packages, stand here side by side."));
    figures_->show_rows({});
    return;
  }
  const LineUp& lineup = *scene.shown->lineup;
  const LineUpMember& here = member(scene, m);
  head_->setText(member_name(here.entrant));
  QStringList lines;
  if (const std::string why = lineup.why_none(m); !why.empty()) {
    lines << tr("No value in this way: %1.").arg(text_of(why));
    if (here.entry->none && !here.entry->none->remedy.empty())
      lines << tr("What would help: %1.").arg(text_of(here.entry->none->remedy));
  } else {
    lines << tr("Rank %1%2.")
                 .arg(text_of(LineUp::rank_words(lineup.ranking().rank(m))),
                      lineup.terms().sure == Sure::AllPairs ? tr(", sure for all pairs together") : QString());
  }
  QStringList ties;
  const std::vector<int> tied = lineup.ranking().ties(m);
  for (const int t : tied) {
    if (ties.size() == most_names) {
      ties << tr("%1 more").arg(std::ssize(tied) - most_names);
      break;
    }
    ties << text_of(short_name(scene, t));
  }
  if (!ties.isEmpty()) lines << tr("Not told apart from: %1.").arg(ties.join(", "));
  QStringList dominated;
  const std::vector<int>& by = lineup.dominated()[static_cast<std::size_t>(m)];
  for (const int d : by | std::views::take(most_names)) dominated << member_name(member(scene, d).entrant);
  if (std::ssize(by) > most_names) dominated << tr("%1 more").arg(std::ssize(by) - most_names);
  if (!dominated.isEmpty())
    lines << tr("Dominated by %1: nowhere worse in light, evenness%2, better in one beyond uncertainty.")
                 .arg(dominated.join(", "), lineup.terms().price_counts ? tr(", watts and price") : tr(" and watts"));
  for (const std::string& change : here.entry->changes) lines << text_of(change);
  if (!here.entry->spectrum.empty()) lines << tr("Its light: %1.").arg(text_of(here.entry->spectrum));
  if (scene.chosen.second >= 0 && scene.chosen.second != m) {
    const auto why = lineup.why_not(m, scene.chosen.second);
    const QString other = member_name(member(scene, scene.chosen.second).entrant);
    if (!why.empty()) {
      lines << tr("May not be held against %1: %2.").arg(other, text_of(why_not_words(why)));
      lines << what_makes_alike(why, desk_.units());
    } else if (const std::string beside = beside_words(lineup, m, scene.chosen.second, desk_.units());
               !beside.empty()) {
      lines << tr("%1 Enter shows both.").arg(text_of(beside));
    }
  } else {
    // Those next to it: whether bars that overlap are told apart is not to be seen.
    for (const auto& group : lineup.groups()) {
      const auto here_at = std::ranges::find(group, m);
      if (here_at == group.end()) continue;
      if (here_at != group.begin()) lines << text_of(beside_words(lineup, m, *(here_at - 1), desk_.units()));
      if (here_at + 1 != group.end()) lines << text_of(beside_words(lineup, m, *(here_at + 1), desk_.units()));
    }
    lines.removeAll(QString());
  }
  if (!here.entrant.altered.empty())
    lines
        << tr("Its package was %1: %2").arg(tr(evaluation::altered_on_its_way), text_of(visible(here.entrant.altered)));
  words_->setText(lines.join("\n"));
  std::vector<std::vector<FigureCell>> rows;
  for (const LineUpFigure& f : evaluation::lineup_figures()) {
    const Standing s = lineup.standing(f.id, m);
    if (std::isnan(s.value)) continue;
    rows.push_back(
        {{text_of(f.label), text_of(f.meaning)},
         {text_of(evaluation::shown_with_uncertainty(f, s.value, s.expanded(), desk_.units(), lineup.terms().currency)),
          {}}});
  }
  figures_->show_rows(rows);
}

}  // namespace sunbreak::desktop
