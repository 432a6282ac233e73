#pragma once

#include <string>
#include <string_view>

#include "record/test_record.h"

namespace sunbreak::evaluation {

using namespace record;

/// What a contribution to the budget of a sweep comes from, as a text that all have in common whom the same cause makes
/// err alike: a calibration of a sensor, its response to one kind of light ("spectral"), to one lamp of it ("spectrum")
/// and to low angles, a wall meter, the edges of a bench. Empty for what is a sweep's own. `owner` is who the meters
/// and the bench belong to.
std::string shared_source(std::string_view contribution, const TestRecord& record, const Sweep& sweep,
                          const std::string& owner);

/// What such a text is of, for a sentence: "the sensor's calibration".
std::string_view source_words(std::string_view source);

}  // namespace sunbreak::evaluation
