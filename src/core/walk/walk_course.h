#pragma once

#include <limits>
#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// One station of a sweep, as the walk sees it.
struct StationOnWalk {
  enum Kind { Untouched, Read, Missing } kind = Untouched;
  bool in_its_turn = true;  ///< read at the bench; not pasted or from a file, where the time is the table's
  double taken_s = std::numeric_limits<double>::quiet_NaN();  ///< since 1970, UTC

  bool done() const { return kind != Untouched; }
};

/// The sweep that is walked, as it stands. Refers to what the caller holds.
struct SweepOnWalk {
  const Layout& layout;
  std::span<const int> order;               ///< stations in the order they are walked, the opening probe first
  std::span<const StationOnWalk> stations;  ///< by station
  int reference_every = 0;                  ///< readings between two of the reference; 0: it is not read again
  double reference_taken_s = -std::numeric_limits<double>::infinity();  ///< its last reading beside the sweep
};

/// True where as many stations were read since the reference as its plan allows. Never on loose spots.
bool reference_due(const SweepOnWalk& sweep);

/// What the next value is of: the station, the reference once more, or the station once more.
enum class Turn { Station, Reference, Repeat };

/// The course of a walk through one sweep: which station is at hand, what the next value is of, and what comes then.
/// Knows neither values nor windows; whoever reads the values tells it when one was kept.
///
///   WalkCourse course;
///   course.begin(sweep);                        // resumes where the sweep was left
///   keep(course.station(), course.turn(), value);
///   course.advance(sweep_with_that_value);      // the next station, the due reference, or Complete
class WalkCourse {
 public:
  enum class Step {
    Moved,       ///< another station is at hand, or another turn
    Complete,    ///< every station is read or declared missing; the one at hand stays
    NothingLeft  ///< a skip found no other station to read; the one at hand stays
  };

  /// Begins or resumes: at the first station of the order that is not done, or at the first where all are.
  void begin(const SweepOnWalk& sweep);

  int station() const { return station_; }  ///< −1 where there is none
  Turn turn() const { return turn_; }

  void go_to(int station, Turn turn = Turn::Station);
  /// To a neighbor on the lattice, stopping at its edge; along the list on spots.
  void go_by(const Layout& layout, int columns, int rows);
  /// To the station before in the order; stays at its first.
  void go_back(const SweepOnWalk& sweep);
  /// To the reference, to come back afterwards. False on spots, which have none.
  bool go_to_reference(const SweepOnWalk& sweep);
  /// Reads the station at hand once more, or no longer. False where it has no reading yet.
  bool toggle_repeat(const SweepOnWalk& sweep);

  /// A value was kept, or a station declared missing: on to what comes next.
  Step advance(const SweepOnWalk& sweep);
  /// Passes over what is at hand. A skipped reference is due again after a quarter of its interval.
  Step skip(const SweepOnWalk& sweep);

  /// Whether a value just kept that looks wrong is to be read again before the sensor leaves: once a station.
  bool look_again();
  /// Whether the station was read again for that.
  bool looked_again_at(int station) const { return second_look_ == station; }

 private:
  Step go_to_next(const SweepOnWalk& sweep, int after, bool after_it);

  int station_ = -1;
  int left_off_ = -1;      ///< where the walk was left for the reference
  int put_off_until_ = 0;  ///< readings before a skipped reference is due again
  int second_look_ = -1;
  Turn turn_ = Turn::Station;
};

/// What is read at a step of a walk: a station, or the reference once more.
struct WalkStep {
  int station = 0;
  Turn turn = Turn::Station;
  bool operator==(const WalkStep&) const = default;
};

/// A whole walk as it is asked for where nothing is skipped, missing or read again.
std::vector<WalkStep> undisturbed_walk(const Layout& layout, std::span<const int> order, int reference_every);

}  // namespace sunbreak
