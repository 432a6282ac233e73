#pragma once

#include <span>

#include "record/kinds/description.h"
#include "record/test_record.h"

namespace sunbreak::record {

/// Every kind of record, those that others refer to first. Made once; may be asked from any thread.
std::span<const Kind> kinds();

/// Null where no kind has that name.
const Kind* kind_named(std::string_view name);

/// The highest schema that any kind or column came with; or any that packages have.
enum class Schemas { All, Published };
int newest_schema(Schemas of = Schemas::All);

template <typename Record>
const Kind& kind_of() {
  return kinds()[AllKinds::index_of<Record>()];
}

}  // namespace sunbreak::record
