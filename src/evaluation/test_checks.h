#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/checks/finding.h"
#include "core/checks/longer_look.h"
#include "core/checks/plausibility.h"
#include "core/checks/walk_checks.h"
#include "core/sweep/field.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::evaluation {

/// A check about one sweep of a test, or about the test as a whole (sweep_id 0).
struct TestFinding {
  Id sweep_id = 0;
  Finding check;
  std::optional<Dismissal> set_aside;
  bool operator==(const TestFinding&) const = default;
};

/// What a test's record states of one of its sweeps. `photons_per_joule`: of its light's own spectrum, which is the
/// same for all of them; see photons_per_joule_of().
SweepStatement statement_of(const TestRecord& test_record, const Sweep& sweep, UnitSystem units,
                            std::optional<double> photons_per_joule);

/// Photons of 400 to 700 nm in a joule of the light at full, by its measured spectrum; nothing where there is none.
std::optional<double> photons_per_joule_of(const TestRecord& test_record);

/// The stations of a sweep in the order its test walks them.
std::vector<int> walk_of(const Test& test, const Layout& layout);

/// Everything the walking family of checks says of one sweep; `stated` as by statement_of().
std::vector<Finding> checks_of(const TestRecord& test_record, const Sweep& sweep, const SweepView& view,
                               const HangResponse& hang, const SweepStatement& stated);

/// Whether a value just taken at a station, not kept yet, wants more averaged into it; `correction` as the sweep's.
std::optional<LongerLook> longer_look(const SweepView& view, const Correction& correction, int station,
                                      const StationState& taken);

/// What others have to know of a sweep.
struct SweepDigest {
  Id sweep_id = 0;
  int stations = 0, read = 0, missing = 0;
  bool complete = false;                               ///< every station is read or declared missing
  double lowest_ppfd = unread, highest_ppfd = unread;  ///< NaN where nothing is read
  /// The same without stations unlike all around them: a slipped digit does not flatten the colors of a map.
  double scale_low_ppfd = unread, scale_high_ppfd = unread;
  double mean_ppfd = unread;    ///< area-weighted, of the stations read
  double center_ppfd = unread;  ///< of a sweep that is read at every station
};
SweepDigest digest_of(Id sweep_id, const SweepView& view);

/// What the finished sweeps of a test say of each other, and what the door says by itself.
std::vector<TestFinding> checks_between(const TestRecord& test_record, std::span<const SweepDigest> sweeps,
                                        UnitSystem units = UnitSystem::Metric);

/// What the spectrum and the check lamps say of the test's sensor.
std::vector<TestFinding> checks_of_meters(const TestRecord& test_record);

/// The dismissal that still holds for a check: same rule, same sweep, same stations, and none of these stations read
/// again since. None holds for what is impossible.
std::optional<Dismissal> dismissal_of(const TestRecord& test_record, Id sweep_id, const Finding& check,
                                      const SweepView* view);

/// How a dismissal writes the stations of a check.
std::string stations_text(const Finding& check);

}  // namespace sunbreak::evaluation
