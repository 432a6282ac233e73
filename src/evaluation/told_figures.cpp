#include "evaluation/told_figures.h"

#include <cmath>

#include "core/figures/figure_table.h"
#include "evaluation/part_read.h"

namespace sunbreak::evaluation {

std::vector<ToldFigure> told_figures(const Evaluation& evaluation, Id sweep_id, std::span<const std::string_view> ids,
                                     UnitSystem units) {
  std::vector<ToldFigure> told;
  const SweepView* view = evaluation.view(sweep_id);
  const SweepFigures* of = evaluation.figures(sweep_id);
  const Budget* budget = evaluation.budget(sweep_id);
  if (!view || !of || !budget) return told;
  const bool part = is_read_in_part(evaluation, sweep_id);
  const FigureSource source(view->layout, view->ppfd, *of);
  for (const std::string_view id : ids) {
    const Figure& f = figure(id);
    double value = f.value ? f.value(source) : unread, expanded = budget->expanded(f.id);
    if (!std::isfinite(value)) continue;
    std::string label(f.label);
    if (part && !f.of_watts_alone) {
      const auto whole = budget->whole(f.id);
      if (!whole) continue;
      value = whole->value, expanded = whole->expanded, label += ", estimated";
    }
    Told shown = shown_told(f, value, expanded, units);
    told.push_back({f.id, std::move(label), shown_unit(f, units), shown.value, shown.sure()});
  }
  return told;
}

}  // namespace sunbreak::evaluation
