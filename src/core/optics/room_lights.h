#pragma once

#include <memory>

#include "core/optics/room_light.h"

namespace sunbreak {

/// The model of a room, kept for the next who asks for the same: making one takes most of a second. The last three
/// rooms are kept. May be called from any thread: who asks for a room that is being made waits for it, who asks for
/// another does not. What is given is shared and never changes.
std::shared_ptr<const RoomLight> light_of(const Room& room);

}  // namespace sunbreak
