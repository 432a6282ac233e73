#include "evaluation/provenance.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <vector>

#include "core/quantity/length.h"
#include "core/visible.h"

namespace sunbreak::evaluation {

namespace {

/// Which sweeps were not measured, in a sentence; empty where all were.
std::string simulated_words(const Evaluations& evaluations, UnitSystem units) {
  std::vector<std::string> names;
  std::size_t measured = 0;
  for (const auto& evaluation : evaluations) {
    const TestRecord& b = evaluation->record();
    for (const Sweep& sweep : b.sweeps) {
      const SweepView* view = evaluation->view(sweep.id);
      if (!view || view->read() == 0) continue;
      const Rung* rung = b.rung(sweep.rung_id);
      const Stop* stop = b.stop(sweep.stop_id);
      if (!view->simulated())
        ++measured;
      else if (rung && stop)
        names.push_back(fmt::format("{} at {} %", length_text(rung->height_m, units), short_number(stop->percent, 1)));
    }
  }
  if (names.empty()) return {};
  if (measured == 0) return fmt::format("Sample data: these readings were {}.", not_measured);
  return fmt::format("Of these sweeps the readings were {}: {}. The others were measured.", not_measured,
                     fmt::join(names, ", "));
}

std::string together(const std::string& first, const std::string& second) {
  return first.empty() || second.empty() ? first + second : first + " " + second;
}

}  // namespace

std::string altered_words(const record::Test& test) {
  return test.altered.empty()
             ? std::string()
             : fmt::format("The package that this test came by was {}: {}.", altered_on_its_way, visible(test.altered));
}

std::string provenance_note(const record::Test& test, bool computed) {
  std::vector<std::string> notes;
  if (!test.altered.empty()) notes.push_back(fmt::format("its package was {}", altered_on_its_way));
  if (computed) notes.push_back(not_measured);
  return fmt::format("{}", fmt::join(notes, " · "));
}

std::string provenance_sentence(const record::Test& test) {
  return together(altered_words(test), test.simulated ? fmt::format("Sample data: {}.", not_measured) : "");
}

std::string provenance_words(const Evaluations& evaluations, UnitSystem units) {
  return together(evaluations.empty() ? "" : altered_words(evaluations.front()->record().test),
                  simulated_words(evaluations, units));
}

}  // namespace sunbreak::evaluation
