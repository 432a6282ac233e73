#include "evaluation/part_read.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include "core/figures/figure_table.h"
#include "core/quantity/display.h"
#include "core/quantity/lower_case.h"

namespace sunbreak::evaluation {

bool is_read_in_part(const Evaluation& evaluation, Id sweep_id) {
  const SweepFigures* f = evaluation.figures(sweep_id);
  return f && f->read_share < least_read;
}

std::string part_read_words(const Evaluation& evaluation, Id sweep_id) {
  const SweepFigures* f = evaluation.figures(sweep_id);
  return f && f->missing > 0 ? read_words(f->stations - f->missing, f->stations) : std::string();
}

std::string part_read_notice(const Evaluation& evaluation, Id sweep_id, const Budget* budget, UnitSystem units) {
  const std::string words = part_read_words(evaluation, sweep_id);
  if (words.empty()) return words;
  std::string notice = fmt::format(
      "{}: the figures hold for {} of the measured area, and their ± for what the rest may "
      "add.",
      words, share_text(evaluation.figures(sweep_id)->read_share));
  if (!budget) return notice;
  std::vector<std::string> told;
  for (const char* id : {"mean_ppfd", "lowest_over_mean", "canopy_efficacy_umol_j"})
    if (const auto whole = budget->whole(id)) {
      const Figure& f = figure(id);
      const std::string unit = shown_unit(f, units);
      std::string label(f.label);
      label.replace(0, 1, lower_case(label.substr(0, 1)));
      told.push_back(fmt::format("{} {}{}{}", label, shown_told(f, whole->value, whole->expanded, units).text(),
                                 unit.empty() ? "" : " ", unit));
    }
  if (!told.empty())
    notice += fmt::format(" Over all of it, estimated by what was read: {}.", fmt::join(told, ", "));
  else if (is_read_in_part(evaluation, sweep_id))
    notice += " What all of it would give cannot be told.";
  return notice;
}

}  // namespace sunbreak::evaluation
