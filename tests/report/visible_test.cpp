#include "core/visible.h"

#include <gtest/gtest.h>

using sunbreak::visible;

TEST(Visible, ControlCharactersAreShownAndTurnsDropped) {
  EXPECT_EQ(visible(std::string("a\0b", 3)), "a\u2400b");
  EXPECT_EQ(visible("bell\a escape\x1b delete\x7f"), "bell\u2407 escape\u241B delete\u2421");
  EXPECT_EQ(visible("safe\u202Egpj.exe\u202C\u2066\u200F!"), "safegpj.exe!");
  EXPECT_EQ(visible("µmol/m²/s \u2212 漢字\t\r\n"), "µmol/m²/s \u2212 漢字\t\r\n");
  EXPECT_EQ(visible("up\u009B31m no\uFFFE\uFFFF"), "up\uFFFD31m no\uFFFD\uFFFD");
  EXPECT_EQ(visible("torn \xE2\x80"), "torn \xE2\x80") << "what is no character is left to whoever reads it";
}

TEST(Visible, OnALineNothingMakesASecondOne) {
  EXPECT_EQ(sunbreak::visible_line("a\nb\rc\td\u2028e"), "a\u240Ab\u240Dc\u2409d\uFFFDe");
}

TEST(Visible, JsonForATerminalIsTheSameJson) {
  EXPECT_EQ(sunbreak::json_for_terminal("{\"a\": \"µ\u009B31m\x7f\u202Egnp\"}"),
            "{\"a\": \"µ\\u009b31m\\u007f\\u202egnp\"}");
}
