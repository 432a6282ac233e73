#pragma once

#include <array>
#include <string>

#include "core/whole_light/whole_light.h"

namespace sunbreak {

/// What is believed of a wall by how it is described: the usual reflectance and how far walls so called are from it.
/// One with nothing stated may be nearly anything.
BelievedReflectance believed_wall(const std::string& described);

/// A bench's six sides in the order of `faces`, by its four walls (left, right, front, back): where all of them are
/// open so are ceiling and floor, else the ceiling is light and the floor dark.
std::array<BelievedReflectance, 6> believed_sides(const std::array<std::string, 4>& walls,
                                                  const std::string& floor = {}, const std::string& ceiling = {});

}  // namespace sunbreak
