#include "core/visible.h"

#include <gtest/gtest.h>

using sunbreak::visible;

TEST(Visible, ControlCharactersAreShownAndTurnsDropped) {
  EXPECT_EQ(visible(std::string("a\0b", 3)), "a\u2400b");
  EXPECT_EQ(visible("bell\a escape\x1b delete\x7f"), "bell\u2407 escape\u241B delete\u2421");
  EXPECT_EQ(visible("safe\u202Egpj.exe\u202C\u2066\u200F!"), "safegpj.exe!");
  EXPECT_EQ(visible("µmol/m²/s \u2212 漢字\t\r\n"), "µmol/m²/s \u2212 漢字\t\r\n");
}
