#include "exchange/scene/scene_file.h"

#include <fmt/format.h>

#include <cmath>
#include <set>
#include <stdexcept>

#include "record/json.h"

namespace sunbreak::exchange {
namespace {

using record::Json;

constexpr std::size_t most_entries = 100'000;
constexpr double brightest_wall = 0.98;

[[noreturn]] void refuse(const std::string& words) { throw std::runtime_error(words); }

/// An object whose members are read one by one; what is left over is foreign.
class Members {
 public:
  Members(const Json& object, std::string place) : object_(object), place_(std::move(place)) {
    if (!object.is_object()) refuse(fmt::format("{} is not an object", place_));
  }
  const Json& at(const char* name) {
    known_.insert(name);
    const Json* found = object_.find(name);
    if (!found) refuse(fmt::format("{} has no '{}'", place_, name));
    return *found;
  }
  double number(const char* name, double low, double high) {
    const Json& value = at(name);
    if (!value.is_number()) refuse(fmt::format("{}.{} is not a number", place_, name));
    const double number = value.number();
    if (!(number >= low && number <= high))
      refuse(fmt::format("{}.{} is {}, outside {} to {}", place_, name, number, low, high));
    return number;
  }
  void finish() const {
    for (const std::string& name : object_.names())
      if (!known_.contains(name)) refuse(fmt::format("{} has a member '{}' that is not known", place_, name));
  }

 private:
  const Json& object_;
  std::string place_;
  std::set<std::string> known_;
};

Room room_in(const Json& value) {
  Members m(value, "room");
  Room room{m.number("width_m", 0.05, 20), m.number("depth_m", 0.05, 20), m.number("height_m", 0.05, 20), {}};
  Members r(m.at("reflectance"), "room.reflectance");
  const auto share = [&](const char* name) { return r.number(name, 0, brightest_wall); };
  room.reflectance = {share("left"), share("right"), share("front"), share("back"), share("ceiling"), share("floor")};
  r.finish();
  m.finish();
  return room;
}

Vec3 place_in(Members& m, const Room& room) {
  return {m.number("x_m", 0, room.width_m), m.number("y_m", 0, room.depth_m), m.number("z_m", 0, room.height_m)};
}

Emitter read_emitter(const Json& value, const Room& room, std::size_t index) {
  const std::string place = fmt::format("emitters[{}]", index);
  Members m(value, place);
  Emitter e{place_in(m, room),
            {m.number("nx", -1e6, 1e6), m.number("ny", -1e6, 1e6), m.number("nz", -1e6, 1e6)},
            m.number("ppf_umol_s", 0, 1e7),
            m.number("m", 0, 500)};
  const double length = std::sqrt(dot(e.direction, e.direction));
  if (!(length > 1e-9)) refuse(place + " has no direction: nx, ny and nz are all 0");
  e.direction = {e.direction.x / length, e.direction.y / length, e.direction.z / length};
  m.finish();
  return e;
}

const Json& list(const Json& value, const char* name) {
  if (!value.is_array() || value.empty()) refuse(fmt::format("'{}' is not a list with something in it", name));
  if (value.size() > most_entries)
    refuse(fmt::format("'{}' has {} entries, more than {}", name, value.size(), most_entries));
  return value;
}

}  // namespace

Result<Scene> read_scene(std::string_view text) {
  const Problem unreadable{"the scene is not JSON", "nothing was worked out", "see docs/formats.md for its members"};
  const Json value = record::json_of(text);
  if (value.broken()) return unreadable;
  try {
    Members m(value, "the scene");
    Scene scene{room_in(m.at("room")), {}, {}};
    for (const Json& e : list(m.at("emitters"), "emitters"))
      scene.emitters.push_back(read_emitter(e, scene.room, scene.emitters.size()));
    for (const Json& s : list(m.at("stations"), "stations")) {
      Members station(s, fmt::format("stations[{}]", scene.stations.size()));
      scene.stations.push_back(place_in(station, scene.room));
      station.finish();
    }
    m.finish();
    return scene;
  } catch (const std::exception& e) {
    return Problem{e.what(), "nothing was worked out", "correct that member; docs/formats.md lists them"};
  }
}

Result<Room> read_room(std::string_view text) {
  const Json value = record::json_of(text);
  if (value.broken())
    return Problem{"the room is not JSON", "nothing was worked out", "see docs/formats.md for its members"};
  try {
    return room_in(value);
  } catch (const std::exception& e) {
    return Problem{e.what(), "nothing was worked out", "correct that member; docs/formats.md lists them"};
  }
}

}  // namespace sunbreak::exchange
