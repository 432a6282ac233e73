#include "core/whole_light/believed_room.h"

#include <algorithm>

#include "core/optics/nominal_fixture.h"

namespace sunbreak {

BelievedReflectance believed_wall(const std::string& described) {
  const double usual = usual_reflectance(described);
  if (described == "open") return {0, 0};
  if (described == "dark") return {usual, 0.05};
  return {usual, described.empty() ? 0.25 : 0.12};
}

std::array<BelievedReflectance, 6> believed_sides(const std::array<std::string, 4>& walls, const std::string& floor,
                                                  const std::string& ceiling) {
  std::array<BelievedReflectance, 6> sides;
  for (std::size_t wall = 0; wall < walls.size(); ++wall) sides[wall] = believed_wall(walls[wall]);
  if (std::any_of(walls.begin(), walls.end(), [](const std::string& wall) { return wall != "open"; })) {
    sides[4] = {0.25, 0.15};
    sides[5] = {0.7, 0.15};
  }
  if (!floor.empty()) sides[4] = believed_wall(floor);
  if (!ceiling.empty()) sides[5] = believed_wall(ceiling);
  return sides;
}

}  // namespace sunbreak
