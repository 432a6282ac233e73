#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// Something about a fixture beside its light, as the box or the tester says it. Which there are, and what each may
/// hold, is in record/fact_sheet.
struct BoxFact {
  Id id = 0, fixture_id = 0;
  std::string name;
  std::string source = "stated";  ///< stated (by the maker) or checked (here)
  std::optional<double> value;
  std::string words;
  bool operator==(const BoxFact&) const = default;
};

template <>
struct Described<BoxFact> {
  static constexpr Facts facts{.name = "box_fact", .since = 8};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("fixture_id", &BoxFact::fixture_id, "the fixture").belongs_to("fixture");
    columns.add("name", &BoxFact::name, "which fact, by its name in the list of facts");
    columns.add("source", &BoxFact::source, "stated by the maker, or checked by the tester")
        .one_of({"stated", "checked"});
    columns.add("value", &BoxFact::value, "where it is a number, in the unit of its name").between(-1e6, 1e6);
    columns.add("words", &BoxFact::words, "where it is words");
  }
};

}  // namespace sunbreak::record
