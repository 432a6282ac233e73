#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <cmath>
#include <cstdlib>
#include <map>
#include <thread>

#include "core/whole_light/between_heights.h"
#include "core/whole_light/elsewhere.h"
#include "whole_light/light_bench.h"

using namespace sunbreak;
using namespace sunbreak::trial;

namespace {

constexpr std::uint64_t study_seed = 20'261'128;
constexpr int modeled = 170, traced = 70;

/// What one bench says, all as shares of the truth.
struct Outcome {
  std::string fixture, beam;
  bool open = false, traced = false, fits = false;
  std::size_t heights = 0;
  double noise = 0, scatter = 0, ppf_error = 0, ppf_expanded = 0, other_error = 0, other_expanded = 0, residual_rms = 0;
  std::vector<double> utilization_errors, utilization_expanded;
  std::vector<LeftOutHeight> left_out;
  BetweenWay way = BetweenWay::Model;
  std::string reason;
};

Outcome try_bench(std::uint64_t seed, int number, bool with_tracer) {
  const LightBench b = light_bench(seed, number, with_tracer);
  Outcome o;
  o.fixture = b.fixture, o.beam = b.beam, o.open = b.open, o.traced = with_tracer, o.heights = b.heights_m.size();
  o.noise = b.noise, o.scatter = b.reading_scatter;
  const WholeLight w = whole_light(b.question);
  o.fits = w.fits, o.reason = w.reason, o.residual_rms = w.residual_rms;
  if (!w.fits) return o;
  o.ppf_error = w.ppf_umol_s.value / b.lamp.ppf_umol_s - 1;
  o.ppf_expanded = w.ppf_umol_s.expanded / b.lamp.ppf_umol_s;
  for (std::size_t h = 0; h < b.utilization.size(); ++h) {
    o.utilization_errors.push_back(w.utilization[h].share.value / b.utilization[h] - 1);
    o.utilization_expanded.push_back(w.utilization[h].share.expanded / b.utilization[h]);
  }
  const Layout floor =
      lay_out({b.other_room.width_m, b.other_room.depth_m}, Grid{GridKind::Cells, 16, 16, 0, 0, {}}).value();
  const Restated r = Elsewhere(w, b.other_room, floor).at({}, b.other_height_m);
  o.other_error = r.mean_ppfd.value / b.other_mean - 1;
  o.other_expanded = r.mean_ppfd.expanded / b.other_mean;
  o.left_out = left_out_heights(b.question, w);
  o.way = BetweenHeights(b.question, w, o.left_out).way();
  return o;
}

double quantile(std::vector<double> values, double share) {
  if (values.empty()) return 0;
  std::sort(values.begin(), values.end());
  return values[std::min(values.size() - 1, static_cast<std::size_t>(share * static_cast<double>(values.size())))];
}

struct Held {
  int in = 0, all = 0;
  void add(double error, double expanded) { in += std::abs(error) <= expanded, ++all; }
  double pct() const { return all > 0 ? 100.0 * in / all : 0; }
};

/// Sums of one line of the table.
struct Line {
  int benches = 0, fit = 0;
  Held ppf, utilization, other;
  std::vector<double> ppf_errors, other_errors;
  void add(const Outcome& o) {
    ++benches;
    if (!o.fits) return;
    ++fit;
    ppf.add(o.ppf_error, o.ppf_expanded);
    other.add(o.other_error, o.other_expanded);
    for (std::size_t h = 0; h < o.utilization_errors.size(); ++h)
      utilization.add(o.utilization_errors[h], o.utilization_expanded[h]);
    ppf_errors.push_back(std::abs(o.ppf_error));
    other_errors.push_back(std::abs(o.other_error));
  }
  void print(const std::string& name) const {
    fmt::print("{:24} {:4} {:4}   {:5.1f} {:5.1f} {:5.1f}   {:5.2f} {:5.2f} {:5.2f}   {:5.2f} {:5.2f}\n", name, benches,
               fit, ppf.pct(), utilization.pct(), other.pct(), 100 * quantile(ppf_errors, 0.5),
               100 * quantile(ppf_errors, 0.9), 100 * quantile(ppf_errors, 1), 100 * quantile(other_errors, 0.5),
               100 * quantile(other_errors, 0.9));
  }
};

int missed = 0;

void demand(bool holds, const std::string& what) {
  fmt::print("{} {}\n", holds ? "held  " : "MISSED", what);
  missed += !holds;
}

double rms_over(const std::vector<LeftOutHeight>& all, double LeftOutHeight::*part, double LeftOutHeight::*both) {
  double squares = 0, count = 0;
  for (const LeftOutHeight& left : all)
    if (!std::isnan(left.*part) && !std::isnan(left.*both)) squares += left.*part * (left.*part), count += 1;
  return count > 0 ? std::sqrt(squares / count) : unread;
}

}  // namespace

/// Whole light, utilization, other rooms and left-out heights on benches whose truth is known, the sensor's calibration
/// included. Seed and thresholds are fixed; another seed may be given for a look at other benches.
int main(int argc, char** argv) {
  const std::uint64_t seed = argc > 1 ? std::strtoull(argv[1], nullptr, 10) : study_seed;
  std::vector<Outcome> outcomes(modeled + traced);
  std::atomic<int> next{0};
  const auto work = [&] {
    for (int i = next++; i < modeled + traced; i = next++)
      outcomes[static_cast<std::size_t>(i)] =
          i < traced ? try_bench(seed + 1, i, true) : try_bench(seed, i - traced, false);
  };
  std::thread other(work);
  work();
  other.join();

  fmt::print("whole light, seed {}: {} benches by the room model, {} by following photons\n\n", seed, modeled, traced);
  fmt::print("{:24} {:>4} {:>4}   {:>17}   {:>17}   {:>11}\n", "", "", "", "k = 2 holds, %", "whole PPF off, %",
             "elsewhere, %");
  fmt::print("{:24} {:>4} {:>4}   {:>5} {:>5} {:>5}   {:>5} {:>5} {:>5}   {:>5} {:>5}\n", "benches", "all", "fit",
             "PPF", "util.", "other", "50 %", "90 %", "most", "50 %", "90 %");
  std::map<std::string, Line> by_fixture, by_beam, by_heights, by_source, by_room;
  Line all, several;
  std::map<std::string, int> reasons;
  for (const Outcome& o : outcomes) {
    by_fixture[o.fixture].add(o);
    by_beam[o.beam].add(o);
    by_heights[fmt::format("{} height{}", o.heights, o.heights == 1 ? "" : "s")].add(o);
    by_source[o.traced ? "photons followed" : "room model"].add(o);
    by_room[o.open ? "open floor" : "tent"].add(o);
    all.add(o);
    if (o.heights > 1) several.add(o);
    if (!o.fits) ++reasons[o.reason.substr(0, 40)];
  }
  for (const auto* group : {&by_fixture, &by_beam, &by_room, &by_heights, &by_source}) {
    for (const auto& [name, line] : *group) line.print(name);
    fmt::print("\n");
  }
  all.print("all");
  several.print("two heights or more");
  for (const auto& [reason, count] : reasons) fmt::print("refused {}: {} …\n", count, reason);

  // A prediction reaches a quarter of the measured range beyond it: a height that lies farther from all others is none
  // that is ever given.
  int reached_in = 0, reached_all = 0, left_in = 0, left_by_noise = 0, truth_by_noise = 0, left_all = 0, worse = 0,
      compared = 0;
  for (const Outcome& o : outcomes) {
    if (!o.fits || o.left_out.empty()) continue;
    const auto part = o.way == BetweenWay::Model ? &LeftOutHeight::rms : &LeftOutHeight::cubic_rms;
    if (std::isnan(rms_over(o.left_out, part, part))) continue;
    ++left_all;
    left_in += rms_over(o.left_out, part, part) <= 1.5 * o.scatter + 0.005;
    left_by_noise += rms_over(o.left_out, part, part) <= 1.5 * o.noise + 0.005;
    truth_by_noise += o.scatter <= 1.5 * o.noise + 0.005;
    std::vector<LeftOutHeight> reached;
    for (const LeftOutHeight& left : o.left_out) {
      double lowest = INFINITY, highest = -INFINITY;
      for (const LeftOutHeight& other : o.left_out)
        if (other.height_m != left.height_m)
          lowest = std::min(lowest, other.height_m), highest = std::max(highest, other.height_m);
      constexpr double beyond = 0.25;
      const double reach = beyond * (highest - lowest);
      if (left.height_m >= lowest - reach && left.height_m <= highest + reach) reached.push_back(left);
    }
    if (const double rms = rms_over(reached, part, part); !std::isnan(rms))
      ++reached_all, reached_in += rms <= 1.5 * o.scatter + 0.005;
    const double cubic = rms_over(o.left_out, &LeftOutHeight::cubic_rms, &LeftOutHeight::rms);
    if (std::isnan(cubic)) continue;
    ++compared;
    worse += rms_over(o.left_out, part, &LeftOutHeight::cubic_rms) > 1.1 * cubic;
  }
  fmt::print("\n");
  const auto within = [](double pct) { return pct >= 93 && pct <= 98; };
  demand(within(all.ppf.pct()), fmt::format("k = 2 of whole PPF holds in 93 … 98 %: {:.1f} %", all.ppf.pct()));
  demand(within(all.utilization.pct()),
         fmt::format("k = 2 of utilization holds in 93 … 98 %: {:.1f} %", all.utilization.pct()));
  demand(within(all.other.pct()),
         fmt::format("k = 2 of the restated mean holds in 93 … 98 %: {:.1f} %", all.other.pct()));
  demand(quantile(several.ppf_errors, 0.5) <= 0.015, "whole PPF within 1.5 % in the median, two heights or more");
  demand(quantile(several.ppf_errors, 0.9) <= 0.03, "and within 3 % in 90 %");
  demand(quantile(several.other_errors, 0.9) <= 0.03, "the restated mean within 3 % in 90 %");
  demand(quantile(all.ppf_errors, 1) <= 0.08, "no fit given with an error over 8 %");
  demand(
      reached_in >= 0.9 * reached_all,
      fmt::format("left-out heights that predictions reach, within 1.5 times the readings' scatter + 0.5 % in 90 % of "
                  "the benches: {} of {}",
                  reached_in, reached_all));
  fmt::print(
      "       (scatter: noise with the places and heights that readings are labeled with)\n"
      "       (every left-out height, however far from the others: {} of {}; beside noise alone {}, and the truth "
      "itself, where readings are labeled, {})\n",
      left_in, left_all, left_by_noise, truth_by_noise);
  demand(worse == 0, fmt::format("never worse than the monotone cubic by over 10 %: {} of {} are", worse, compared));
  return missed > 0;
}
