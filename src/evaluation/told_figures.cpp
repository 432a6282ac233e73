#include "evaluation/told_figures.h"

#include <cmath>

#include "core/figures/figure_table.h"

namespace sunbreak::evaluation {

std::vector<ToldFigure> told_figures(const Evaluation& evaluation, Id sweep_id, std::span<const std::string_view> ids,
                                     UnitSystem units) {
  std::vector<ToldFigure> told;
  const SweepView* view = evaluation.view(sweep_id);
  const SweepFigures* of = evaluation.figures(sweep_id);
  const Budget* budget = evaluation.budget(sweep_id);
  if (!view || !of || !budget) return told;
  const FigureSource source(view->layout, view->ppfd, *of);
  for (const std::string_view id : ids) {
    const Figure& f = figure(id);
    const double value = f.value ? f.value(source) : unread;
    if (!std::isfinite(value)) continue;
    Told shown = shown_told(f, value, budget->expanded(f.id), units);
    told.push_back({f.id, f.label, shown_unit(f, units), shown.value, shown.sure()});
  }
  return told;
}

}  // namespace sunbreak::evaluation
