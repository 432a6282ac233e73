#include "record/json.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <stdexcept>

namespace sunbreak::record {
namespace {

TEST(JsonTest, MembersStandInTheOrderTheyWerePutIn) {
  Json j{{"watts", 100.5}, {"name", "Marrow Row"}, {"rows", Json::array()}, {"note", std::optional<double>()}};
  j["rows"].push_back({{"x_m", 0.05}, {"kept", true}});
  j["rows"].push_back(Json::array({1, 2.5, nullptr}));
  j["count"] = 3;
  EXPECT_EQ(
      json_text(j),
      R"({"watts":100.5,"name":"Marrow Row","rows":[{"x_m":0.05,"kept":true},[1,2.5,null]],"note":null,"count":3})");
  j["watts"] = std::vector<std::string>{"a", "b"};
  EXPECT_TRUE(json_text(j).starts_with(R"({"watts":["a","b"],)")) << "put in its old place";
}

TEST(JsonTest, WithSpacesEachValueHasItsLine) {
  const Json j{{"none", Json::array()}, {"nothing", Json::object()}, {"rows", Json::array({1, {{"a\"b", "\xff"}}})}};
  EXPECT_EQ(json_text(j, 2), R"({
  "none": [],
  "nothing": {},
  "rows": [
    1,
    {
      "a\"b": "�"
    }
  ]
})");
  EXPECT_EQ(json_text(j, 0).substr(0, 12), "{\n\"none\": []");
}

TEST(JsonTest, ACopyStandsAlone) {
  Json first{{"rows", Json::array({1, 2})}};
  Json copy = first;
  copy["rows"].push_back(3);
  EXPECT_EQ(first["rows"].size(), 2);
  first = first["rows"][1];
  EXPECT_EQ(first.whole(), 2) << "a value may take the place of what it stands in";
  first = std::move(copy["rows"]);
  EXPECT_EQ(json_text(first), "[1,2,3]");
}

TEST(JsonTest, WhatIsNoNumberOfJsonIsNull) {
  EXPECT_EQ(json_text(Json::array({NAN, INFINITY, -INFINITY, -0.5, 1e300, 5e-324})),
            "[null,null,null,-0.5,1e+300,5e-324]");
  EXPECT_EQ(json_text(json_of("[18446744073709551615, 9223372036854775807]")),
            "[1.8446744073709552e+19,9223372036854775807]");
}

TEST(JsonTest, TextThatIsNoJsonIsBroken) {
  for (const char* text : {"", "{", "[1,]", "{\"a\":}", "nul", "1 2", "\"\xff\"", "[1e999]", "{'a':1}"})
    EXPECT_TRUE(json_of(text).broken()) << text;
  EXPECT_TRUE(json_of(std::string(100, '[') + std::string(100, ']')).is_array());
  EXPECT_TRUE(json_of(std::string(101, '[') + std::string(101, ']')).broken());
  EXPECT_TRUE(json_of(std::string(1'000'000, '[')).broken());
}

TEST(JsonTest, WhatIsNotThereIsNullAndEmpty) {
  const Json j = json_of(R"({"a": {"b": [1, "two", false]}, "a2": 1.5, "again": 1, "again": 2})");
  EXPECT_EQ(j["a"]["b"][0].whole(), 1);
  EXPECT_EQ(j["a"]["b"][1].text(), "two");
  EXPECT_FALSE(j["a"]["b"][2].truth());
  EXPECT_TRUE(j["a"]["b"][2].is_boolean());
  EXPECT_THROW(static_cast<void>(j["a"]["b"][3]), std::out_of_range);
  EXPECT_EQ(j["again"].whole(), 2) << "the last of the same name counts";
  EXPECT_EQ(j["a2"].number(), 1.5);
  EXPECT_EQ(j["a2"].whole(), 0);
  EXPECT_FALSE(j["a2"].is_whole());
  EXPECT_TRUE(j["c"]["d"]["e"].is_null());
  EXPECT_TRUE(j["a"]["b"]["c"].is_null()) << "a list has no members";
  EXPECT_TRUE(std::isnan(j["a"].number()));
  EXPECT_EQ(j["a"].text(), "");
  EXPECT_FALSE(j.contains("c")) << "to look is not to put in";
  EXPECT_EQ(j.names(), (std::vector<std::string>{"a", "a2", "again"}));
}

TEST(JsonTest, NothingIsPutIntoWhatCannotHoldIt) {
  Json text = "words", list = Json::array();
  EXPECT_THROW(text["a"] = 1, std::logic_error);
  EXPECT_THROW(text.push_back(1), std::logic_error);
  EXPECT_THROW(list["a"] = 1, std::logic_error);
  EXPECT_EQ(json_text(text), "\"words\"");
}

TEST(JsonTest, ManyMembersTakeNoLonger) {
  // Held against each other, these would take minutes.
  Json many = Json::object();
  for (int i = 0; i < 200'000; ++i) many.add("member " + std::to_string(i), i);
  const Json again = json_of(json_text(many));
  EXPECT_EQ(again.size(), many.size());
  EXPECT_EQ(again["member 199999"].whole(), 199'999);
}

TEST(JsonTest, MembersOfAnotherAreTakenOver) {
  Json j{{"a", 1}, {"b", 2}};
  j.update({{"b", "other"}, {"c", 3}});
  EXPECT_EQ(j, (Json{{"a", 1}, {"b", "other"}, {"c", 3}}));
}

TEST(JsonTest, NumbersAreEqualByValue) {
  EXPECT_EQ(Json(300), Json(300.0));
  EXPECT_NE(Json(300), Json(300.5));
  EXPECT_NE(Json(1), Json(true));
  EXPECT_NE(Json(0), Json());
  EXPECT_NE((Json{{"a", 1}, {"b", 2}}), (Json{{"b", 2}, {"a", 1}}));
}

TEST(JsonTest, WhatIsNoUtf8IsMarked) { EXPECT_EQ(json_text(Json("a\xff")), "\"a\xef\xbf\xbd\""); }

/// Something of any kind, of at most so many levels.
Json made_value(int levels) {
  switch (*rc::gen::inRange(0, levels > 0 ? 7 : 5)) {
    case 0:
      return {};
    case 1:
      return *rc::gen::arbitrary<bool>();
    case 2:
      return *rc::gen::arbitrary<std::int64_t>();
    case 3:
      return *rc::gen::arbitrary<double>();
    case 4:
      return *rc::gen::string<std::string>() + "\"\\\n\x01/ü";
    case 5: {
      Json array = Json::array();
      for (int n = *rc::gen::inRange(0, 4); n > 0; --n) array.push_back(made_value(levels - 1));
      return array;
    }
    default: {
      Json object = Json::object();
      for (int n = *rc::gen::inRange(0, 4); n > 0; --n) object["member " + std::to_string(n)] = made_value(levels - 1);
      return object;
    }
  }
}

RC_GTEST_PROP(JsonProperty, IsReadAsItWasWritten, ()) {
  const Json value = made_value(4);
  const std::string text = json_text(value, *rc::gen::inRange(-1, 3));
  // Bytes that are no UTF-8 were marked: what has been read once stays.
  const Json again = json_of(text);
  RC_ASSERT(!again.broken());
  RC_ASSERT(json_of(json_text(again)) == again);
  RC_ASSERT(json_text(again) == json_text(value));
}

}  // namespace
}  // namespace sunbreak::record
