#include "core/walk/walk_course.h"

#include <algorithm>
#include <utility>

#include "core/bench/walk_order.h"

namespace sunbreak {
namespace {

int read_count(const SweepOnWalk& sweep) {
  return static_cast<int>(std::ranges::count(sweep.stations, StationOnWalk::Read, &StationOnWalk::kind));
}

}  // namespace

bool reference_due(const SweepOnWalk& sweep) {
  if (sweep.reference_every <= 0 || !sweep.layout.is_lattice()) return false;
  const StationOnWalk& own = sweep.stations[reference_station(sweep.layout)];
  double last = sweep.reference_taken_s;
  if (own.kind == StationOnWalk::Read && own.in_its_turn) last = std::max(last, own.taken_s);
  // What was read within the same moment counts by its place in the order.
  const auto own_place = std::ranges::find(sweep.order, reference_station(sweep.layout));
  int since = 0;
  for (auto at = sweep.order.begin(); at != sweep.order.end(); ++at)
    if (const StationOnWalk& s = sweep.stations[*at]; s.kind == StationOnWalk::Read && s.in_its_turn)
      since += s.taken_s > last || (s.taken_s == last && at > own_place);
  return since >= sweep.reference_every;
}

void WalkCourse::begin(const SweepOnWalk& sweep) {
  *this = {};
  if (sweep.order.empty()) return;
  const auto open = std::ranges::find_if(sweep.order, [&](int i) { return !sweep.stations[i].done(); });
  station_ = open == sweep.order.end() ? sweep.order.front() : *open;
}

void WalkCourse::go_to(int station, Turn turn) {
  station_ = station;
  turn_ = turn;
}

void WalkCourse::go_by(const Layout& layout, int columns, int rows) {
  if (station_ < 0) return;
  if (!layout.is_lattice())
    return go_to(std::clamp(station_ + columns - rows, 0, static_cast<int>(layout.stations.size()) - 1));
  const Station& s = layout.stations[station_];
  go_to(layout.index(std::clamp(s.column + columns, 0, layout.columns - 1),
                     std::clamp(s.row + rows, 0, layout.rows - 1)));
}

void WalkCourse::go_back(const SweepOnWalk& sweep) {
  const auto here = std::ranges::find(sweep.order, station_);
  if (here != sweep.order.end() && here != sweep.order.begin()) go_to(*(here - 1));
}

bool WalkCourse::go_to_reference(const SweepOnWalk& sweep) {
  if (!sweep.layout.is_lattice()) return false;
  if (turn_ != Turn::Reference) left_off_ = station_;
  go_to(reference_station(sweep.layout), Turn::Reference);
  return true;
}

bool WalkCourse::toggle_repeat(const SweepOnWalk& sweep) {
  if (station_ < 0 || sweep.stations[station_].kind != StationOnWalk::Read) return false;
  turn_ = turn_ == Turn::Repeat ? Turn::Station : Turn::Repeat;
  return true;
}

WalkCourse::Step WalkCourse::go_to_next(const SweepOnWalk& sweep, int after, bool after_it) {
  const auto open = [&](int i) { return !sweep.stations[i].done() && !(after_it && i == after); };
  auto next = std::find_if(std::ranges::find(sweep.order, after), sweep.order.end(), open);
  if (next == sweep.order.end()) next = std::ranges::find_if(sweep.order, open);
  if (next == sweep.order.end()) return after_it ? Step::NothingLeft : Step::Complete;
  go_to(*next);
  return Step::Moved;
}

WalkCourse::Step WalkCourse::advance(const SweepOnWalk& sweep) {
  if (reference_due(sweep) && read_count(sweep) >= put_off_until_) {
    go_to_reference(sweep);
    return Step::Moved;
  }
  const Step step = go_to_next(sweep, left_off_ >= 0 ? std::exchange(left_off_, -1) : station_, false);
  if (step == Step::Complete) turn_ = Turn::Station;
  return step;
}

WalkCourse::Step WalkCourse::skip(const SweepOnWalk& sweep) {
  if (turn_ == Turn::Reference) put_off_until_ = read_count(sweep) + std::max(sweep.reference_every / 4, 1);
  return turn_ == Turn::Station ? go_to_next(sweep, station_, true) : advance(sweep);
}

bool WalkCourse::look_again() {
  if (second_look_ == station_) return false;
  second_look_ = station_;
  return true;
}

std::vector<WalkStep> undisturbed_walk(const Layout& layout, std::span<const int> order, int reference_every) {
  std::vector<StationOnWalk> stations(layout.stations.size());
  SweepOnWalk sweep{layout, order, stations, reference_every};
  std::vector<WalkStep> steps;
  WalkCourse course;
  course.begin(sweep);
  if (course.station() < 0) return steps;
  for (double now_s = 0;; ++now_s) {
    steps.push_back({course.station(), course.turn()});
    if (course.turn() == Turn::Reference)
      sweep.reference_taken_s = now_s;
    else
      stations[static_cast<std::size_t>(course.station())] = {StationOnWalk::Read, true, now_s};
    if (course.advance(sweep) == WalkCourse::Step::Complete) return steps;
  }
}

}  // namespace sunbreak
