#include "evaluation/read_sweeps.h"

#include "core/quantity/display.h"

namespace sunbreak::evaluation {

ReadSweeps read_sweeps(const Evaluation& evaluation) {
  const TestRecord& record = evaluation.record();
  ReadSweeps read;
  for (const Rung& rung : record.rungs)
    for (const Stop& stop : record.stops) {
      const Sweep* sweep = record.sweep(rung.id, stop.id);
      if (!sweep || sweep->confirms) continue;
      const SweepView* view = evaluation.view(sweep->id);
      if (view && view->read() > 0) read.emplace_back(sweep, view);
    }
  return read;
}

std::string sweep_name(const TestRecord& record, const Sweep& sweep, UnitSystem units) {
  return length_text(record.rung(sweep.rung_id)->height_m, units) + ", " +
         short_number(record.stop(sweep.stop_id)->percent, 1) + " %";
}

}  // namespace sunbreak::evaluation
