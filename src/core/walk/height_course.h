#pragma once

#include <optional>
#include <span>

namespace sunbreak {

/// How far one hanging height of a plan is walked.
enum class HeightState { Open, Begun, Done };

/// The height to hang the fixture at next, as an index into the plan's heights, which run one way; `here` itself where
/// it is not done. The fixture goes on the way it came, as far as anything is open there, and turns round once: it is
/// never sent across heights that are open. From the first height on it goes towards the end of the plan. Nothing where
/// all is done.
std::optional<std::size_t> next_height(std::span<const HeightState> heights, std::size_t here);

}  // namespace sunbreak
