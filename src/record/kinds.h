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

/// Where a kind stands in kinds().
template <typename Record>
constexpr std::size_t kind_index() {
  std::size_t at = 0, found = 0;
  AllKinds::each([&]<typename Other>(std::type_identity<Other>) {
    if constexpr (std::is_same_v<Record, Other>) found = at;
    ++at;
  });
  return found;
}

template <typename Record>
const Kind& kind_of() {
  return kinds()[kind_index<Record>()];
}

}  // namespace sunbreak::record
