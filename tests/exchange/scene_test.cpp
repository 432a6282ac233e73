#include "exchange/scene/scene_file.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

using namespace sunbreak;
using namespace sunbreak::exchange;

namespace {

const std::string good = R"({
  "room": {"width_m": 1.2, "depth_m": 0.9, "height_m": 2,
           "reflectance": {"left": 0.8, "right": 0.7, "front": 0.6, "back": 0.5, "ceiling": 0.4, "floor": 0.3}},
  "emitters": [{"x_m": 0.5, "y_m": 0.4, "z_m": 0.6, "nx": 3, "ny": 0, "nz": -4, "ppf_umol_s": 100, "m": 1.5}],
  "stations": [{"x_m": 0.1, "y_m": 0.2, "z_m": 0}, {"x_m": 1.2, "y_m": 0.9, "z_m": 0}]
})";

std::string with(const std::string& from, const std::string& to) {
  std::string text = good;
  const auto at = text.find(from);
  EXPECT_NE(at, std::string::npos) << from;
  return at == std::string::npos ? text : text.replace(at, from.size(), to);
}

std::string refusal(const std::string& text) {
  const auto scene = read_scene(text);
  return scene ? "" : scene.problem().sentence();
}

}  // namespace

TEST(SceneFile, IsReadWhole) {
  const auto scene = read_scene(good);
  ASSERT_TRUE(scene.ok()) << scene.problem().sentence();
  EXPECT_EQ(scene.value().room.depth_m, 0.9);
  EXPECT_EQ(reflectance_of(scene.value().room, {1, true}), 0.5);
  EXPECT_EQ(reflectance_of(scene.value().room, {2, false}), 0.3);
  ASSERT_EQ(scene.value().emitters.size(), 1u);
  const Emitter& e = scene.value().emitters[0];
  EXPECT_NEAR(e.direction.x, 0.6, 1e-12);
  EXPECT_NEAR(e.direction.z, -0.8, 1e-12);
  EXPECT_EQ(e.exponent, 1.5);
  EXPECT_EQ(scene.value().stations.size(), 2u);
}

TEST(SceneFile, RefusalsNameTheMember) {
  const std::tuple<std::string, std::string, std::string> cases[] = {
      {"\"ceiling\": 0.4", "\"ceiling\": -0.1", "reflectance.ceiling"},
      {"\"floor\": 0.3", "\"ground\": 0.3", "no 'floor'"},
      {"\"height_m\": 2", "\"height_m\": null", "room.height_m"},
      {"\"nx\": 3, \"ny\": 0, \"nz\": -4", "\"nx\": 0, \"ny\": 0, \"nz\": 0", "no direction"},
      {"\"ppf_umol_s\": 100", "\"ppf_umol_s\": -1", "emitters[0].ppf_umol_s"},
      {"\"x_m\": 1.2, \"y_m\": 0.9", "\"x_m\": 1.3, \"y_m\": 0.9", "stations[1].x_m"},
      {"\"stations\": [", "\"remarks\": 1, \"stations\": [", "'remarks' that is not known"},
      {"{\"x_m\": 0.1, \"y_m\": 0.2, \"z_m\": 0}, ", "7, ", "stations[0] is not an object"}};
  for (const auto& [from, to, named] : cases)
    EXPECT_NE(refusal(with(from, to)).find(named), std::string::npos) << refusal(with(from, to));
  EXPECT_NE(refusal("[]").find("not an object"), std::string::npos);
  EXPECT_NE(refusal("").find("not JSON"), std::string::npos);
}

TEST(SceneFile, EmptyListsAreRefused) {
  for (const char* list : {"emitters", "stations"}) {
    std::string text = good;
    const auto from = text.find('[', text.find(list)), to = text.find(']', from);
    EXPECT_FALSE(read_scene(text.replace(from, to - from + 1, "[]")).ok()) << list;
  }
}

TEST(SceneFile, RandomDamageIsRefusedOrReadsASoundScene) {
  std::mt19937_64 random(11);
  int refused = 0;
  for (int i = 0; i < 5000; ++i) {
    std::string text = good;
    for (int k = 0; k < 1 + static_cast<int>(random() % 3); ++k)
      text[random() % text.size()] = static_cast<char>(32 + random() % 95);
    const auto scene = read_scene(text);
    if (!scene) {
      ++refused;
      EXPECT_FALSE(scene.problem().seen.empty());
      continue;
    }
    const Room& room = scene.value().room;
    for (const Emitter& e : scene.value().emitters) {
      EXPECT_NEAR(dot(e.direction, e.direction), 1, 1e-9);
      EXPECT_LE(e.place_m.x, room.width_m);
    }
    for (const Vec3& s : scene.value().stations) EXPECT_TRUE(s.y >= 0 && s.y <= room.depth_m);
  }
  EXPECT_GT(refused, 2000);
}
