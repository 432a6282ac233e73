#pragma once

#include <optional>

#include "core/checks/finding.h"
#include "core/spectrum/spectral_response.h"
#include "record/test_record.h"

namespace sunbreak::evaluation {

/// By what readings of the test's sensor have to be multiplied under its light: by the sensor's response, the spectrum
/// of the test nearest to full, and the light of its calibration. Nothing where the response is not on record; a
/// Problem where one of the two lights is not, or they do not reach.
std::optional<Result<SpectralCorrection>> spectral_correction_here(const record::TestRecord& record);

/// Where the sensor is over 2 % off under this light and a sweep is not corrected for it.
std::optional<Finding> spectral_check(const record::TestRecord& record);

}  // namespace sunbreak::evaluation
