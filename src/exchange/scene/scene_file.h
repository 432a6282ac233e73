#pragma once

#include <string_view>
#include <vector>

#include "core/optics/emitter.h"
#include "core/optics/room.h"
#include "core/result.h"

namespace sunbreak::exchange {

/// A room, its emitters, and the places to work out, facing up.
struct Scene {
  Room room;
  std::vector<Emitter> emitters;
  std::vector<Vec3> stations;
};

/// Reads a scene (JSON; docs/schema/scene.schema.json). Directions are brought to unit length. Refused, with the place
/// of the first thing that is off: missing or foreign members, reflectances outside 0 … 0.98, places outside the room,
/// emitters without a direction, more than 100,000 emitters or stations.
Result<Scene> read_scene(std::string_view json);

/// Reads a room alone (JSON, as the member `room` of a scene). Refused as a scene is.
Result<Room> read_room(std::string_view json);

}  // namespace sunbreak::exchange
