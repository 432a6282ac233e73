#include <fmt/format.h>

#include <cstdlib>

#include "meters/meter_trial.h"

using namespace sunbreak::test;

/// 300 lux fits, 300 pairs of sensors, 200 histories of a check lamp, from seeds that were fixed before; then ten times
/// as many of other seeds, for what chance alone makes of the first.
int main() {
  bool all_held = true;
  const auto line = [&](const char* what, const Share& share, double low, double high) {
    const bool held = share.value() >= low && share.value() <= high;
    all_held = all_held && held;
    fmt::print("  {:<58} {:5.1f} % of {:>5}   {:.0f} to {:.0f} %{}\n", what, 100 * share.value(), share.of, 100 * low,
               100 * high, held ? "" : "   FALLS SHORT");
  };
  for (const int times : {1, 10}) {
    const std::uint64_t seed = times == 1 ? 20261130 : 5550123;
    const LuxTrial lux = lux_trial(300 * times, seed);
    fmt::print("Lux fits: {}\n", 300 * times);
    line("k through the origin held", lux.k, 0.93, 0.98);
    line("... where scatter is a share of the light", lux.k_of_scatter[0], 0.92, 0.98);
    line("... where it is even at all levels", lux.k_of_scatter[1], 0.92, 0.98);
    line("... where it is both", lux.k_of_scatter[2], 0.92, 0.98);
    line("intercept held", lux.intercept, 0.93, 0.98);
    line("slope beside an intercept held", lux.slope, 0.93, 0.98);
    line("bend held", lux.bend, 0.93, 0.98);
    line("plain fits that are said to hold", lux.plain_holds, 0.95, 1);
    line("planted intercepts found", lux.intercept_found, 0.95, 1);
    line("planted curves found", lux.curve_found, 0.95, 1);
    line("wrong spectrum refused", lux.wrong_spectrum_refused, 1, 1);
    line("the same spectrum, sampled otherwise, taken", lux.same_spectrum_taken, 0.95, 1);
    const AgreementTrial pairs = agreement_trial(300 * times, seed);
    fmt::print("Pairs of sensors: {}\n", 300 * times);
    line("mean difference held", pairs.mean, 0.93, 0.98);
    line("ratio held", pairs.ratio, 0.93, 0.98);
    line("lower limit of agreement held", pairs.low_limit, 0.93, 0.98);
    line("upper limit of agreement held", pairs.high_limit, 0.93, 0.98);
    line("proportion held (Deming)", pairs.proportion, 0.93, 0.98);
    line("constant held (Deming)", pairs.constant, 0.93, 0.98);
    line("edge over middle held", pairs.edge, 0.93, 0.98);
    line("angle errors over 3 % named", pairs.angle_named, 0.90, 1);
    line("nothing named where none is", pairs.angle_silent, 0.97, 1);
    const ChartTrial charts = chart_trial(200 * times, seed);
    fmt::print("Histories of a check lamp: {}\n", 200 * times);
    const double days = charts.false_alarms > 0 ? static_cast<double>(charts.quiet_days) / charts.false_alarms : 1e9;
    const bool rare = days >= 200;
    all_held = all_held && rare;
    fmt::print("  one false alarm in {:.0f} days ({} in {})   200 at least{}\n", days, charts.false_alarms,
               charts.quiet_days, rare ? "" : "   FALLS SHORT");
    line("a step of 2 % found within 10 days", charts.step_found, 0.90, 1);
    line("2 % over five days found within 10 days", charts.ramp_found, 0.90, 1);
    line("size of the step held", charts.step_size, 0.90, 0.99);
    line("sensor told from lamp by a second lamp", charts.told_apart, 0.90, 1);
  }
  return all_held ? EXIT_SUCCESS : EXIT_FAILURE;
}
