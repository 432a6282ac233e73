#pragma once

#include <string>
#include <vector>

#include "exchange/package/zip_archive.h"
#include "record/test_record.h"

namespace sunbreak::exchange {

using namespace record;

/// The samples of all parts of a log as one table, a row a moment.
std::string log_samples_csv(const std::vector<LogPart>& parts);

/// Packs a package's samples into the parts they belong to. Packages before format 3 need have none. Throws
/// std::runtime_error naming what is not as it should be.
void take_log_samples(const Archive& archive, int format, std::vector<LogPart>& parts);

}  // namespace sunbreak::exchange
