#include "core/text/natural_order.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <string>
#include <vector>

namespace sunbreak {

TEST(NaturalOrder, NumbersStandByTheirValueAndLettersOfEitherCaseTogether) {
  const std::vector<std::string> ordered{"",       "9 spots", "bar",  "Bar 1",       "bar 2",  "Bar 9b",
                                         "Bar 10", "bar 10a", "Bars", "board 1.5 m", "Zähler", "Ähre"};
  for (std::size_t i = 0; i < ordered.size(); ++i)
    for (std::size_t j = 0; j < ordered.size(); ++j)
      EXPECT_EQ(natural_before(ordered[i], ordered[j]), i < j) << ordered[i] << " | " << ordered[j];
}

TEST(NaturalOrder, LeadingZerosAndCaseMakeNoDifference) {
  for (const auto& [a, b] : {std::pair{"QS-007", "qs-7"}, std::pair{"LAMP 0", "lamp 00"}}) {
    EXPECT_FALSE(natural_before(a, b));
    EXPECT_FALSE(natural_before(b, a));
  }
  EXPECT_TRUE(natural_before("7", "123456789012345678901234567890")) << "longer than any machine number";
}

}  // namespace sunbreak
