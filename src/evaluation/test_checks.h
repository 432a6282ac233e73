#pragma once

#include <map>
#include <optional>
#include <vector>

#include "core/checks/check.h"
#include "core/checks/longer_look.h"
#include "core/checks/walk_checks.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::evaluation {

/// A check about one sweep of a test, or about the test as a whole (sweep_id 0).
struct TestCheck {
  Id sweep_id = 0;
  Check check;
  std::optional<Dismissal> set_aside;
  bool operator==(const TestCheck&) const = default;
};

/// The stations of a sweep in the order its test walks them.
std::vector<int> walk_of(const Test& test, const Layout& layout);

/// Everything the walking family of checks says of one sweep.
std::vector<Check> checks_of(const TestRecord& bundle, const Sweep& sweep, const SweepView& view,
                             const HangResponse& hang);

/// Whether a value just taken at a station, not kept yet, wants more averaged into it; `correction` as the sweep's.
std::optional<LongerLook> longer_look(const SweepView& view, const Correction& correction, int station,
                                      const StationState& taken);

/// What the finished sweeps of a test say of each other, and what each height and the door say by themselves. `views`
/// by sweep id.
std::vector<TestCheck> checks_between(const TestRecord& bundle, const SweepViews& views);

/// The dismissal that still holds for a check: same rule, same sweep, same stations, and none of these stations read
/// again since.
std::optional<Dismissal> dismissal_of(const TestRecord& bundle, Id sweep_id, const Check& check, const SweepView* view);

/// How a dismissal writes the stations of a check.
std::string stations_text(const Check& check);

}  // namespace sunbreak::evaluation
