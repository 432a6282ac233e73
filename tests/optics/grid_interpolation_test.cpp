#include "core/optics/grid_interpolation.h"

#include <gtest/gtest.h>

#include <random>

#include "core/optics/room_patches.h"

namespace sunbreak {
namespace {

/// Two by one patches, 1 m wide and 1 m high, each cut in two by two.
PatchGrid two_by_one(int cut) {
  PatchGrid grid{{0, false}, 0, {}, {}};
  for (int i = 0; i <= 2 * cut; ++i) grid.u_edges_m.push_back(static_cast<double>(i) / cut);
  for (int i = 0; i <= cut; ++i) grid.v_edges_m.push_back(static_cast<double>(i) / cut);
  return grid;
}

TEST(GridInterpolation, BetweenTwoMiddlesByHand) {
  // Fine middles at 0.25, 0.75, 1.25 and 1.75 m between coarse ones at 0.5 and 1.5 m.
  const GridInterpolation between(two_by_one(1), two_by_one(2));
  const double of_second[] = {0, 0.25, 0.75, 1};
  for (std::size_t p = 0; p < 8; ++p) {
    const Interpolation around = between.at(p);
    double second = 0, all = 0;
    for (int k = 0; k < 4; ++k) {
      all += around.weight[k];
      if (around.patch[k] == 1) second += around.weight[k];
    }
    EXPECT_DOUBLE_EQ(all, 1);
    EXPECT_DOUBLE_EQ(second, of_second[p % 4]) << p;
  }
  const std::vector<double> fine{1, 2, 4, 8, 0, 0, 0, 16};
  std::vector<double> coarse{100, 200};
  between.add_to_coarse(fine, coarse);
  EXPECT_DOUBLE_EQ(coarse[0], 100 + 1 + 0.75 * 2 + 0.25 * 4);
  EXPECT_DOUBLE_EQ(coarse[1], 200 + 0.25 * 2 + 0.75 * 4 + 8 + 16);
}

/// Sent to the coarse patches is what the fine ones take of them, on every side of a room.
TEST(GridInterpolation, GivesByTheWeightsThatItTakes) {
  const Room room{1.2, 2.3, 2.1, {0.8, 0.7, 0.6, 0.5, 0.4, 0.3}};
  std::mt19937 generator(5);
  std::uniform_real_distribution<> drawn(-1, 1);
  for (const Face& face : faces) {
    const PatchGrid coarse = patch_grid(room, face, {5, 7}), fine = patch_grid(room, face, {5, 7}, 3);
    const GridInterpolation between(coarse, fine);
    std::vector<double> values(fine.size()), sent(coarse.size(), 0), taken(coarse.size(), 0);
    for (double& v : values) v = drawn(generator);
    between.add_to_coarse(values, sent);
    for (std::size_t p = 0; p < fine.size(); ++p) {
      const Interpolation around = between.at(p);
      for (int k = 0; k < 4; ++k) taken[around.patch[k]] += around.weight[k] * values[p];
    }
    for (std::size_t c = 0; c < coarse.size(); ++c) EXPECT_NEAR(sent[c], taken[c], 1e-12);
  }
}

}  // namespace
}  // namespace sunbreak
