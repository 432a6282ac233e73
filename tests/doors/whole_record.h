#pragma once

#include "record/test_record.h"

namespace sunbreak::doors {

/// A test with rows of every kind that a package has.
record::TestRecord whole_test();

}  // namespace sunbreak::doors
