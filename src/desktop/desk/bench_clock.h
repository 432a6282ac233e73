#pragma once

#include <string>

namespace sunbreak::desktop {

/// The time at the bench: this computer's, or, while a simulated bench runs faster than real time, that bench's own, so
/// that what it shows and when it was read belong together.
class BenchClock {
 public:
  BenchClock();

  /// Seconds since 1970, UTC. Only back_to_now() can take it back.
  double now_s() const;
  std::string utc_text() const;

  /// From now on it runs at so many times real time; 1 goes on at the computer's pace.
  void run_at(double speed);
  double speed() const { return speed_; }
  /// Sets it forward to a moment, where it is behind: what a simulated bench is about to read comes after what it read.
  void not_before(double time_s);
  /// This computer's time again.
  void back_to_now();

 private:
  static double real_s();
  double from_real_s_, from_s_, speed_ = 1;
};

}  // namespace sunbreak::desktop
