#include "desktop/desk/progress.h"

#include "desktop/desk/desk.h"

namespace sunbreak::desktop {

SweepProgress sweep_progress(const Desk& desk) {
  const record::TestRecord& test = *desk.test();
  SweepProgress progress{test.planned_sweeps()};
  for (const record::Sweep& sweep : test.sweeps) {
    if (sweep.confirms) continue;
    const evaluation::SweepDigest* digest = desk.digest_of(sweep.id);
    if (!digest) continue;
    progress.begun += digest->read > 0;
    progress.complete += digest->complete;
    progress.with_holes += digest->missing > 0;
  }
  return progress;
}

}  // namespace sunbreak::desktop
