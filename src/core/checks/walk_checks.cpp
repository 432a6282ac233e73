#include "core/checks/walk_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/bench/mirror_stations.h"
#include "core/checks/balance_checks.h"
#include "core/checks/drift_checks.h"
#include "core/checks/far_readings.h"
#include "core/checks/noise_shares.h"
#include "core/checks/probe_verdict.h"
#include "core/checks/slipped_readings.h"
#include "core/quantity/display.h"

namespace sunbreak {
namespace {

constexpr std::size_t repeats_noticed = 5;
constexpr int shortest_row = 4;
constexpr double clearly_dark = -5, share_read_for_balance = 0.9;

void append(std::vector<Finding>& all, std::vector<Finding> more) {
  all.insert(all.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
}

/// A reading that is told as far from its neighbors is not told as odd, too.
std::vector<Finding> told_once(std::vector<Finding> far, std::vector<Finding> odd) {
  for (Finding& found : odd) {
    const auto told =
        std::find_if(far.begin(), far.end(), [&](const Finding& f) { return f.stations == found.stations; });
    if (told == far.end())
      far.push_back(std::move(found));
    else
      told->severity = std::max(told->severity, found.severity);
  }
  return far;
}

/// The readings with the suspect ones replaced by the mean of their mirror images, so that one bad reading is not told
/// twice, as itself and as an unbalanced sweep.
std::vector<double> without(const Layout& layout, std::span<const double> ppfd, const std::vector<Finding>& suspect) {
  std::vector<double> mended(ppfd.begin(), ppfd.end());
  if (!layout.is_lattice()) return mended;
  std::vector<char> bad(ppfd.size(), 0);
  for (const Finding& c : suspect)
    for (const int s : c.stations) bad[s] = 1;
  for (std::size_t i = 0; i < mended.size(); ++i) {
    if (!bad[i]) continue;
    double sum = 0;
    int count = 0;
    for (const int image : mirror_stations(layout, layout.stations[i]))
      if (!bad[image] && !std::isnan(ppfd[image])) sum += ppfd[image], ++count;
    mended[i] = count > 0 ? sum / count : std::nan("");
  }
  return mended;
}

}  // namespace

std::vector<Finding> repeat_checks(std::span<const int> walk, std::span<const double> raw) {
  std::vector<Finding> checks;
  std::vector<int> run;
  const auto close = [&] {
    if (run.size() >= repeats_noticed)
      checks.push_back({"the same value again and again", Severity::Look, run,
                        fmt::format("{} stations running read {}", run.size(), short_number(raw[run.front()], 2)),
                        "a stuck sensor or a repeated entry hides the true light there", "read these stations again"});
    run.clear();
  };
  for (const int station : walk) {
    if (std::isnan(raw[station])) {
      close();
      continue;
    }
    if (!run.empty() && raw[run.back()] != raw[station]) close();
    run.push_back(station);
  }
  close();
  return checks;
}

std::vector<Finding> equal_row_checks(const Layout& layout, std::span<const double> raw) {
  std::vector<Finding> checks;
  if (!layout.is_lattice() || layout.columns < shortest_row) return checks;
  for (int row = 1; row < layout.rows; ++row) {
    bool equal = true;
    std::vector<int> stations;
    for (int column = 0; column < layout.columns && equal; ++column) {
      const int here = layout.index(column, row), before = layout.index(column, row - 1);
      equal = !std::isnan(raw[here]) && raw[here] == raw[before];
      stations.push_back(here);
    }
    if (equal)
      checks.push_back(
          {"a row equal to its neighbor", Severity::Bad, stations,
           fmt::format("rows {} and {} from the door hold the same values, station by station", row, row + 1),
           "one of them was probably entered twice, and a row of the true light is missing",
           "compare both with your notes, then read one again"});
  }
  return checks;
}

std::vector<Finding> range_checks(std::span<const double> raw, std::optional<double> range_max) {
  std::vector<Finding> checks;
  for (std::size_t i = 0; i < raw.size(); ++i) {
    if (range_max && raw[i] > *range_max)
      checks.push_back({"out of the sensor's range",
                        Severity::Bad,
                        {static_cast<int>(i)},
                        fmt::format("{} is above the sensor's range of {} µmol/m²/s", short_number(raw[i], 1),
                                    short_number(*range_max, 0)),
                        "beyond its range a sensor no longer reads true",
                        "check the digits; if they are right, measure with another sensor or dim the fixture"});
    if (raw[i] < clearly_dark)
      checks.push_back({"under zero",
                        Severity::Bad,
                        {static_cast<int>(i)},
                        fmt::format("{} is less than no light", short_number(raw[i], 1)),
                        "mean and lowest are pulled down",
                        "check the digits and the sensor's dark offset"});
  }
  return checks;
}

std::vector<double> shares_of(const WalkedSweep& sweep) {
  if (sweep.sampled.empty()) return {};
  return noise_shares(sweep.layout, sweep.raw, sweep.ppfd, sweep.sampled);
}

std::vector<Finding> walk_checks(const WalkedSweep& sweep) {
  std::vector<Finding> checks = range_checks(sweep.raw, sweep.range_max);
  append(checks, repeat_checks(sweep.walk, sweep.raw));
  append(checks, equal_row_checks(sweep.layout, sweep.raw));
  const std::vector<Finding> suspect =
      told_once(far_reading_checks(sweep.layout, sweep.ppfd, shares_of(sweep)),
                slipped_reading_checks(slipped_readings(sweep.layout, sweep.ppfd, sweep.hang.pattern)));
  const std::vector<double> mended = without(sweep.layout, sweep.ppfd, suspect);
  append(checks, suspect);
  double read = 0;
  for (std::size_t i = 0; i < sweep.ppfd.size(); ++i)
    if (!std::isnan(sweep.ppfd[i])) read += sweep.layout.stations[i].weight;
  if (read >= share_read_for_balance)
    append(checks, balance_checks(sweep.layout, mended, sweep.units));
  else if (auto verdict = probe_verdict(sweep.layout, mended, sweep.hang, sweep.units); verdict && verdict->check)
    checks.push_back(std::move(*verdict->check));
  if (sweep.drift)
    if (auto check = drift_check(*sweep.drift)) checks.push_back(std::move(*check));
  return checks;
}

}  // namespace sunbreak
