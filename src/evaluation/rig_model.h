#pragma once

#include "core/bench/tape.h"
#include "core/optics/nominal_fixture.h"
#include "core/optics/room.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::evaluation {

/// The bench as the optical model sees it: usual reflectances for the walls as described, a light ceiling and a dark
/// floor where they are not stated; an open one has nothing around it. 2 m high where no height is stated.
Room room_of(const Bench& bench);

/// The fixture as its record describes it and as the test has it hang; where sizes are not stated, six tenths of the
/// bench.
FixtureOutline outline_of(const TestRecord& test);

/// How a height typed from the tape becomes one to the sensor's receiving surface; a sensor height that is not on
/// record counts as 0.
TapeRule tape_rule(const TestRecord& test);

}  // namespace sunbreak::evaluation
