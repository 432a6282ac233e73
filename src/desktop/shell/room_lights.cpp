#include "desktop/shell/room_lights.h"

#include <mutex>
#include <vector>

namespace sunbreak::desktop {

std::shared_ptr<const RoomLight> light_of(const Room& room) {
  constexpr std::size_t kept = 3;
  static std::mutex one_at_a_time;
  static std::vector<std::shared_ptr<const RoomLight>> lights;
  const std::lock_guard hold(one_at_a_time);
  for (const auto& light : lights)
    if (light->room() == room) return light;
  if (lights.size() == kept) lights.erase(lights.begin());
  lights.push_back(std::make_shared<const RoomLight>(room));
  return lights.back();
}

}  // namespace sunbreak::desktop
