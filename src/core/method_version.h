#pragma once

namespace sunbreak {

/// Counts up with each change of how a figure or its uncertainty is worked out: what was kept of the method before is
/// worked out anew.
inline constexpr int method_version = 3;

}  // namespace sunbreak
