#pragma once

#include <memory>

#include "core/optics/room_light.h"

namespace sunbreak::desktop {

/// The model of a room, kept for the next who asks for the same: making one takes most of a second. May be called from
/// any thread; who asks while it is being made waits.
std::shared_ptr<const RoomLight> light_of(const Room& room);

}  // namespace sunbreak::desktop
