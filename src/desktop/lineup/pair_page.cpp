#include "desktop/lineup/pair_page.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "core/quantity/uncertain_text.h"
#include "core/sweep/difference.h"
#include "desktop/lineup/lineup_scene.h"
#include "desktop/lineup/lineup_strip.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/scrolled.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

using evaluation::LineUp;
using evaluation::LineUpFigure;
using evaluation::LineUpMember;

PairPage::PairPage(Desk& desk, QWidget* parent) : LineUpPage(desk, parent) {
  setObjectName("ground");
  QVBoxLayout* column = scrolled_column(this);
  head_ = heading_label({}, this);
  head_->setWordWrap(true);
  column->addWidget(head_);
  why_not_ = wrapped_label({}, this);
  why_not_->setObjectName("pairWhyNot");
  column->addWidget(why_not_);
  maps_ = new LightMaps(desk_, this);
  maps_->setMinimumHeight(230);
  column->addWidget(maps_);
  table_ = new FiguresTable({tr("Figure"), tr("First"), tr("Second"), tr("Difference"), tr("In words")},
                            tr("Figure by figure"), this);
  table_->setObjectName("pairTable");
  table_->set_spare_columns({4});
  column->addWidget(table_);
  column->addStretch();
}

void PairPage::show_scene(const LineUpScene& scene) {
  const auto [a, b] = scene.chosen;
  if (!scene.shown || !scene.shown->lineup || a < 0 || b < 0 || a == b) {
    head_->setText(tr("Choose a second one with the space bar on the strip."));
    why_not_->clear();
    maps_->show_maps({});
    table_->show_rows({});
    return;
  }
  const LineUp& lineup = *scene.shown->lineup;
  const LineUpMember &first = member(scene, a), &second = member(scene, b);
  head_->setText(tr("%1 beside %2").arg(member_name(first.entrant), member_name(second.entrant)));
  const auto why = lineup.why_not(a, b);
  why_not_->setText(
      why.empty() ? QString()
                  : marked_attention(tr("May not be held against each other: %1. %2")
                                         .arg(text_of(why_not_words(why)), what_makes_alike(why, desk_.units()))));
  set_tone(why_not_, why.empty() ? "" : "attention");
  std::vector<RowMap> maps;
  if (first.entry->has_light() && second.entry->has_light()) {
    LineUpScene two = scene;
    two.order = {a, b};
    const drawing::ScaleRange range = scale_over(two);
    maps.push_back(map_of(scene, a, range, desk_.units()));
    maps.push_back(map_of(scene, b, range, desk_.units()));
    const Layout layout = layout_of(*first.entry);
    const auto off = difference(layout, first.entry->ppfd, layout_of(*second.entry), second.entry->ppfd);
    double most = 1;
    for (const double d : off)
      if (std::isfinite(d)) most = std::max(most, std::abs(d));
    if (why.empty())
      maps.push_back({tr("First less second"),
                      tr("µmol/m²/s"),
                      layout,
                      off,
                      {{-most, most}, true},
                      {0, true, "µmol/m²/s"},
                      {},
                      true});
  }
  maps_->show_maps(std::move(maps));
  std::vector<std::vector<FigureCell>> rows;
  if (why.empty())
    for (const evaluation::PairSentence& s : pair_sentences(lineup, a, b, desk_.units())) {
      const LineUpFigure& f =
          evaluation::lineup_figures()[static_cast<std::size_t>(evaluation::lineup_figure_index(s.figure_id))];
      const QString off = text_of(evaluation::told_difference(f, s.difference, desk_.units()).text());
      rows.push_back({{text_of(f.label), text_of(f.meaning)},
                      {value_text(scene, f, a, desk_.units()), {}},
                      {value_text(scene, f, b, desk_.units()), {}},
                      {off, {}},
                      {text_of(s.words), {}}});
    }
  table_->show_rows(rows);
}

}  // namespace sunbreak::desktop
