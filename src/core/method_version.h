#pragma once

namespace sunbreak {

/// Counts up with each change of how a figure or its uncertainty is worked out: what was kept of the method before is
/// worked out anew, and a package of an earlier one is held to what has not changed since.
inline constexpr int method_version = 4;

}  // namespace sunbreak
