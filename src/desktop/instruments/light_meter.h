#pragma once

#include <QString>
#include <optional>

namespace sunbreak::desktop {

class Desk;
class InstrumentHub;

/// What a connected sensor shows that may stand for the light meter of the test on the desk; nothing where it is
/// silent, or where the test is walked by a lux meter: what is connected tells PPFD.
std::optional<double> live_reading(const Desk& desk, const InstrumentHub& hub);

/// What the test's light meter tells, lx or µmol/m²/s.
QString light_unit(const Desk& desk);

/// The most that such a meter shows, in that unit.
double most_light(const Desk& desk);

}  // namespace sunbreak::desktop
