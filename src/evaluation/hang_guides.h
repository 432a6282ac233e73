#pragma once

#include "core/settle/hang_guide.h"
#include "evaluation/test_light.h"

namespace sunbreak::evaluation {

/// The center's light by height as the fixture is described, for 1 µmol/s: wants to be told once at which height it
/// reads what. Takes up to a second for a room that no one asked about before.
HangGuide described_guide(const Room& room, const FixtureOutline& fixture);

/// The same as fitted to the test's readings, at a setting; nothing is known where that or a second height is not.
HangGuide fitted_guide(const TestLight& light, double percent);

}  // namespace sunbreak::evaluation
