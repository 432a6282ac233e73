#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

struct Claim {
  Id id = 0, fixture_id = 0;
  std::string kind;  ///< power_w, ppf_umol_s, efficacy_umol_j, coverage, height_m, dimming_range, equivalent
  std::optional<double> value;
  std::string words;
  bool operator==(const Claim&) const = default;
};

template <>
struct Described<Claim> {
  static constexpr Facts facts{.name = "claim"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("fixture_id", &Claim::fixture_id, "the fixture it is made for").belongs_to("fixture");
    columns
        .add("kind", &Claim::kind,
             "power_w, ppf_umol_s, efficacy_umol_j, coverage, height_m, dimming_range or equivalent")
        .one_of({"power_w", "ppf_umol_s", "efficacy_umol_j", "coverage", "height_m", "dimming_range", "equivalent"});
    columns.add("value", &Claim::value, "the figure claimed, in the unit its kind names").between(0, 1e6);
    columns.add("words", &Claim::words, "the claim in words");
  }
};

}  // namespace sunbreak::record
