#pragma once

#include <optional>
#include <string>

#include "core/power/stabilization.h"
#include "evaluation/wall_log.h"

namespace sunbreak::evaluation {

/// The events of a test, earliest first.
using LampEvents = std::span<const LampEvent>;

/// What the lamp was told to do, as far as the events tell.
struct LampState {
  std::optional<double> on_since_s;      ///< none: off, or never said
  std::optional<double> waiting_from_s;  ///< the latest of switching on and setting the dimmer
  bool off = false;
  std::optional<double> percent;
};
LampState lamp_at(LampEvents events, double time_s);

/// Whether light and watts had stabilized at a moment, by what was logged from the lamp's last change until then.
struct Stabilization {
  StabilizationState state = StabilizationState::TooShort;
  std::string words;
  StabilizationVerdict light, watts;
  LampState lamp;
  double from_s = 0, until_s = 0;  ///< of the log that was looked at; equal where there is none
};
Stabilization stabilization_at(LampEvents events, const WallLog& log, double time_s);

/// Since when a log that is stabilized at its end has been [s, on the log's clock], to the minute.
double stabilized_since_s(LampEvents events, const WallLog& log, const Stabilization& now);

/// The published fall of light and of watts from switch-on to stabilized, as shares of what stabilized (a rise is below
/// 0): of the longest stretch from a switch-on to the next change. Nothing where no such stretch was logged or it had
/// not stabilized.
struct FallFromSwitchOn {
  std::optional<double> light, watts;
};
FallFromSwitchOn fall_from_switch_on(LampEvents events, const WallLog& log);

/// How a sweep was walked: stabilized or not when its first reading was taken, at its setting of the dimmer [%].
struct WalkedState {
  enum Kind { NotKnown, NotStabilized, Stabilized } kind = NotKnown;
  std::string words;
  double began_s = 0, ended_s = 0;  ///< first and last reading at the bench; 0 where none has a time
};
WalkedState walked_state(LampEvents events, const WallLog& log, const SweepView& view, double dial_pct);

}  // namespace sunbreak::evaluation
