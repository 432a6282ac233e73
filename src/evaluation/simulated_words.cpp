#include "evaluation/simulated_words.h"

#include <fmt/format.h>

#include <vector>

#include "core/quantity/length.h"

namespace sunbreak::evaluation {

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

}  // namespace sunbreak::evaluation
