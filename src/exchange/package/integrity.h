#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "exchange/package/zip_archive.h"
#include "record/test_record.h"

namespace sunbreak::exchange {

/// "sha256:…" in hexadecimal (FIPS 180-4), as a package's descriptor states it of each resource.
std::string sha256_words(std::string_view bytes);

/// What in a package is not as its writer left it, each in one sentence: resources whose size or check sum is another
/// than its descriptor states, and stated values of stations and figures that do not come out of its readings. Empty
/// where all agrees. Packages of older formats state no check sums. Works the test's figures out.
std::vector<std::string> alterations(const Archive& archive, const record::TestRecord& record);

}  // namespace sunbreak::exchange
