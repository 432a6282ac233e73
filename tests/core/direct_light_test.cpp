#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "core/optics/direct_light.h"

using namespace sunbreak;

TEST(DirectLight, OnTheAxisFallsWithTheSquareOfHeight) {
  const Emitter lamp{0, 0, 0.5, 100, 1, 0};
  const double near = direct_ppfd({&lamp, 1}, 0, 0);
  EXPECT_NEAR(near, 100 / std::numbers::pi / 0.25, 1e-9);
  const Emitter higher{0, 0, 1.0, 100, 1, 0};
  EXPECT_NEAR(direct_ppfd({&higher, 1}, 0, 0), near / 4, 1e-9);
}

TEST(DirectLight, AllOfALambertianEmitterReachesAWideFloor) {
  const Emitter lamp{0, 0, 0.5, 100, 1, 0};
  double flux = 0;
  const double step = 0.02, half = 20;
  for (double x = -half + step / 2; x < half; x += step * (1 + std::abs(x))) {
    const double width = step * (1 + std::abs(x));
    for (double y = -half + step / 2; y < half; y += step * (1 + std::abs(y)))
      flux += direct_ppfd({&lamp, 1}, x, y) * width * step * (1 + std::abs(y));
  }
  EXPECT_NEAR(flux, 100, 2.5);
}

TEST(DirectLight, ATiltMovesTheLight) {
  const Emitter tilted{0, 0, 0.5, 100, 3, std::tan(10 * std::numbers::pi / 180)};
  EXPECT_GT(direct_ppfd({&tilted, 1}, 0.2, 0), direct_ppfd({&tilted, 1}, -0.2, 0));
}
