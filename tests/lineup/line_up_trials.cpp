#include "lineup/line_up_trials.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <mutex>
#include <thread>

#include "core/whole_light/reference_rooms.h"
#include "evaluation/lineup/lineup.h"
#include "evaluation/test_light.h"
#include "lineup/simulated_line_up.h"

namespace sunbreak::trial {
namespace {

using evaluation::EntryQuestion;
using evaluation::LineUp;
using evaluation::LineUpMember;
using evaluation::LineUpTerms;

constexpr std::array planted_pct{0.0, 1.0, 2.0, 4.0, 8.0};
constexpr double far_off = 2;

LineUpMember member_of(const TrialFixture& f, const EntryQuestion& question) {
  const auto evaluation = evaluation::evaluate(f.record);
  auto entry = std::make_shared<evaluation::LineUpEntry>(evaluation::entry_of(*evaluation, question, ""));
  entry->facts.grade = Grade::Working;  // what was recorded of the walk is not tried here
  return {evaluation::entrant_of(f.record), entry};
}

/// Runs `work` of each number on both cores.
template <typename Work>
void each(int count, Work work) {
  std::thread other([&] {
    for (int n = 1; n < count; n += 2) work(n);
  });
  for (int n = 0; n < count; n += 2) work(n);
  other.join();
}

NormalDeviates deviates(std::uint64_t seed, int kind, int number) {
  return NormalDeviates(seed * 1'000'003 + static_cast<std::uint64_t>(kind) * 10'007 +
                        static_cast<std::uint64_t>(number));
}

struct Compared {
  Standing a, b;
  double true_a = 0, true_b = 0;
};

void add(PairTally& t, const Compared& c, bool apart) {
  const StandingDifference d = difference(c.a, c.b);
  const double truth = c.true_a - c.true_b;
  ++t.pairs;
  t.apart += apart;
  t.wrong_way += apart && truth != 0 && (d.value > 0) != (truth > 0);
  t.known += std::abs(d.value - truth) <= d.expanded;
  if (std::abs(truth) >= far_off * d.expanded) {
    ++t.far;
    t.far_found += apart && (d.value > 0) == (truth > 0);
  }
  t.own_over_separate = std::max(t.own_over_separate, d.expanded / std::hypot(c.a.expanded(), c.b.expanded()));
}

}  // namespace

PairTallies try_pairs(std::uint64_t seed, int pairs) {
  PairTallies tallies;
  std::mutex adding;
  each(pairs, [&](int n) {
    NormalDeviates draw = deviates(seed, 1, n);
    const LineUpBench bench = line_up_bench(draw);
    const TrialFixture first = trial_fixture(bench, {}, 1, draw);
    // Each figure is planted apart for itself.
    const auto planted = [&] { return planted_pct[static_cast<std::size_t>(5 * draw.uniform())]; };
    const double sign = draw.uniform() < 0.5 ? 1 : -1, mean = planted(), even = planted(), efficacy = planted();
    WantedFixture wanted;
    wanted.mean_ppfd = first.truth.mean_ppfd * (1 + sign * mean / 100);
    wanted.lowest_over_mean = first.truth.lowest_over_mean * (1 - even / 100);
    wanted.canopy_efficacy = first.truth.canopy_efficacy * (1 + sign * efficacy / 100);
    const TrialFixture second = trial_fixture(bench, wanted, 2, draw);
    EntryQuestion question;
    question.usual_height_m = bench.height_m;
    const std::vector members{member_of(first, question), member_of(second, question)};
    for (const auto& [figure, apart_pct, truth] :
         {std::tuple{"mean_ppfd", mean, &LineUpTruth::mean_ppfd},
          std::tuple{"lowest_over_mean", even, &LineUpTruth::lowest_over_mean},
          std::tuple{"canopy_efficacy_umol_j", efficacy, &LineUpTruth::canopy_efficacy}}) {
      LineUpTerms terms;
      terms.figure = figure;
      const LineUp lineup(members, terms);
      const auto& s = lineup.ranking().standings();
      const std::lock_guard hold(adding);
      // Equal in mean is equal to the last digit only by the planted truth.
      add(tallies[{figure, apart_pct}], {s[0], s[1], first.truth.*truth, second.truth.*truth},
          lineup.ranking().rank(0).low != lineup.ranking().rank(1).low);
    }
  });
  return tallies;
}

RankTally try_ranks(std::uint64_t seed, int line_ups, bool all_pairs) {
  RankTally tally;
  std::mutex adding;
  constexpr int fixtures = 8;
  each(line_ups, [&](int n) {
    NormalDeviates draw = deviates(seed, 2, n);
    const LineUpBench bench = line_up_bench(draw);
    // From nearly alike to far apart.
    const double middle = 300 + 400 * draw.uniform(), spread = 0.002 * std::pow(50, draw.uniform());
    EntryQuestion question;
    question.usual_height_m = bench.height_m;
    std::vector<LineUpMember> members;
    std::vector<double> truth;
    for (int k = 0; k < fixtures; ++k) {
      WantedFixture wanted;
      wanted.mean_ppfd = middle * (1 + spread * draw());
      const TrialFixture f = trial_fixture(bench, wanted, k + 1, draw);
      truth.push_back(f.truth.mean_ppfd);
      members.push_back(member_of(f, question));
    }
    LineUpTerms terms;
    terms.figure = "mean_ppfd";
    terms.sure = all_pairs ? Sure::AllPairs : Sure::EachPair;
    const LineUp lineup(members, terms);
    int held = 0;
    double width = 0;
    for (int k = 0; k < fixtures; ++k) {
      const auto better = [&](double other) { return other > truth[static_cast<std::size_t>(k)]; };
      const int rank = 1 + static_cast<int>(std::ranges::count_if(truth, better));
      const RankInterval r = lineup.ranking().rank(k);
      held += r.low <= rank && rank <= r.high;
      width += r.high - r.low + 1;
    }
    const std::lock_guard hold(adding);
    tally.ranks += fixtures, tally.held += held, tally.whole += held == fixtures, ++tally.line_ups;
    tally.mean_width += width / fixtures / line_ups;
  });
  return tally;
}

namespace {

/// Adds two values of a way with their truths.
void add(WayTally& t, const LineUp& lineup, const std::array<double, 2>& truth, bool equal) {
  const auto& s = lineup.ranking().standings();
  if (std::isnan(s[0].value) || std::isnan(s[1].value)) {
    ++t.refused;
    return;
  }
  for (std::size_t k = 0; k < 2; ++k) ++t.values, t.held += std::abs(s[k].value - truth[k]) <= s[k].expanded();
  const StandingDifference d = difference(s[0], s[1]);
  const double true_difference = truth[0] - truth[1];
  const bool apart = lineup.ranking().rank(0).low != lineup.ranking().rank(1).low;
  ++t.pairs;
  t.pairs_held += std::abs(d.value - true_difference) <= d.expanded;
  t.equal += equal;
  t.equal_apart += equal && apart;
  if (std::abs(true_difference) >= far_off * d.expanded) {
    ++t.far;
    t.far_found += apart && (d.value > 0) == (true_difference > 0);
  }
}

}  // namespace

WayTally try_equal_watts(std::uint64_t seed, int pairs) {
  WayTally tally;
  std::mutex adding;
  each(pairs, [&](int n) {
    NormalDeviates draw = deviates(seed, 3, n);
    const LineUpBench bench = line_up_bench(draw);
    const TrialFixture first = trial_fixture(bench, {}, 1, draw, Walks::OneHeight, true);
    const double watts = first.truth.watts * (0.4 + 0.5 * draw.uniform());
    const auto at_watts = [&](const TrialFixture& f) {
      return f.truth.mean_ppfd * f.light_factor(100 * (watts / f.truth.watts - 0.03) / 0.97);
    };
    // Half of the pairs are equal at those watts; the others lie up to a tenth apart.
    const bool equal = draw.uniform() < 0.5;
    WantedFixture wanted;
    wanted.canopy_efficacy = first.truth.canopy_efficacy;
    TrialFixture second = trial_fixture(bench, wanted, 2, draw, Walks::OneHeight, true);
    const double scale = at_watts(first) / at_watts(second) * (equal ? 1 : 1 + 0.2 * (draw.uniform() - 0.5));
    for (record::Reading& r : second.record.readings) r.raw *= scale;
    second.truth.mean_ppfd *= scale;
    EntryQuestion question;
    question.usual_height_m = bench.height_m;
    question.way.power_w = watts;
    LineUpTerms terms;
    terms.figure = "mean_ppfd";
    const LineUp lineup({member_of(first, question), member_of(second, question)}, terms);
    const std::lock_guard hold(adding);
    add(tally, lineup, {at_watts(first), at_watts(second)}, equal);
  });
  return tally;
}

WayTally try_restated(std::uint64_t seed, int pairs) {
  WayTally tally;
  std::mutex adding;
  each(pairs, [&](int n) {
    NormalDeviates draw = deviates(seed, 4, n);
    const LineUpBench bench = line_up_bench(draw, draw.uniform() < 0.6);
    const bool equal = draw.uniform() < 0.5, tent = draw.uniform() < 0.5;
    TrialFixture first = trial_fixture(bench, {}, 1, draw, Walks::ThreeHeights),
                 second = trial_fixture(bench, {}, 2, draw, Walks::ThreeHeights);
    const Footprint footprint{bench.bench.width_m, bench.bench.depth_m};
    const Room room = tent ? white_tent(footprint) : open_floor(footprint);
    const Layout layout = evaluation::room_layout(room);
    const auto mean_there = [&](const TrialFixture& f) {
      return area_mean(layout, true_light(f, room, bench.height_m, layout));
    };
    const double scale = mean_there(first) / mean_there(second) * (equal ? 1 : 1 + 0.3 * (draw.uniform() - 0.5));
    for (record::Reading& r : second.record.readings) r.raw *= scale;
    second.ppf_umol_s *= scale;
    EntryQuestion question;
    question.usual_height_m = bench.height_m;
    question.way.room = tent ? LineUpWay::Room::WhiteTent : LineUpWay::Room::OpenFloor;
    LineUpTerms terms;
    terms.figure = "mean_ppfd";
    const LineUp lineup({member_of(first, question), member_of(second, question)}, terms);
    const std::lock_guard hold(adding);
    add(tally, lineup, {mean_there(first), mean_there(second)}, equal);
  });
  return tally;
}

}  // namespace sunbreak::trial
