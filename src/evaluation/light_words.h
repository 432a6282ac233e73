#pragma once

#include <string>
#include <vector>

#include "core/quantity/display.h"
#include "evaluation/test_light.h"

namespace sunbreak::evaluation {

/// A number with a true minus sign, and none where it rounds to 0.
std::string plain_number(double value, int decimals);

/// A found value with its ± as people read it: "893 ± 57 µmol/s"; "not known" where it is not.
std::string found_text(const FoundValue& value, int decimals, const std::string& unit);

/// What was found of a test's whole light, in sentences: what the fixture gives, how it hangs and what to do about it,
/// what the room does. Where it does not fit: what does not, and what would help.
std::vector<std::string> light_sentences(const TestLight& light, UnitSystem units);

/// One line of the list of estimates.
struct LightEstimate {
  std::string name;
  FoundValue value;  ///< as shown
  int decimals = 0;
  std::string unit;
};

/// All estimates, in the order they are shown in.
std::vector<LightEstimate> light_estimates(const TestLight& light, UnitSystem units);

}  // namespace sunbreak::evaluation
