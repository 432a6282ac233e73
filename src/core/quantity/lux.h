#pragma once

namespace sunbreak {

/// The most that a lux meter is taken to read [lx]: half as much again as the sun at noon.
inline constexpr double most_lux = 200'000;

}  // namespace sunbreak
