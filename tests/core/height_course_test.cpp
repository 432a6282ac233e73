#include "core/walk/height_course.h"

#include <gtest/gtest.h>

#include <string>
#include <vector>

using namespace sunbreak;

namespace {

/// One letter a height, highest first: o open, b begun, d done.
std::optional<std::size_t> next(const std::string& letters, std::size_t here) {
  std::vector<HeightState> heights;
  for (const char letter : letters)
    heights.push_back(letter == 'o' ? HeightState::Open : letter == 'b' ? HeightState::Begun : HeightState::Done);
  return next_height(heights, here);
}

/// The heights in the order they are walked from one of them on.
std::vector<std::size_t> walked_from(std::size_t first, std::size_t count) {
  std::string letters(count, 'o');
  std::vector<std::size_t> order{first};
  letters[first] = 'd';
  while (const auto here = next(letters, order.back())) order.push_back(*here), letters[*here] = 'd';
  return order;
}

}  // namespace

TEST(HeightCourse, GoesOneWayFromEitherEnd) {
  EXPECT_EQ(walked_from(0, 4), (std::vector<std::size_t>{0, 1, 2, 3}));
  EXPECT_EQ(walked_from(3, 4), (std::vector<std::size_t>{3, 2, 1, 0})) << "from the lowest up, never to the top first";
}

TEST(HeightCourse, FromTheMiddleItTurnsRoundOnceAndPassesNoOpenHeight) {
  EXPECT_EQ(walked_from(1, 4), (std::vector<std::size_t>{1, 2, 3, 0}));
  EXPECT_EQ(next("oodd", 2), 1u) << "it came from the lowest: on upward";
  EXPECT_EQ(next("ddoo", 1), 2u);
  EXPECT_EQ(next("odob", 1), 0u) << "the lowest was begun first";
}

TEST(HeightCourse, StaysWhereSomethingIsLeftAndEndsWhereNothingIs) {
  EXPECT_EQ(next("dbo", 1), 1u);
  EXPECT_EQ(next("ddd", 1), std::nullopt);
  EXPECT_EQ(next("d", 0), std::nullopt);
}
