#include "core/walk/height_course.h"

#include <algorithm>

namespace sunbreak {

std::optional<std::size_t> next_height(std::span<const HeightState> heights, std::size_t here) {
  const auto open = [](HeightState state) { return state != HeightState::Done; };
  const auto touched = [](HeightState state) { return state != HeightState::Open; };
  if (open(heights[here])) return here;
  const auto before = heights.first(here), after = heights.subspan(here + 1);
  const auto next_after = std::ranges::find_if(after, open);
  const auto next_before = std::ranges::find_if(before.rbegin(), before.rend(), open);
  const bool on = next_after != after.end(), back = next_before != before.rend();
  if (!on && !back) return {};
  // It came from the end where something is walked there and nothing at the beginning.
  const bool came_from_end = std::ranges::any_of(after, touched) && std::ranges::none_of(before, touched);
  if (on && !(back && came_from_end)) return here + 1 + static_cast<std::size_t>(next_after - after.begin());
  return here - 1 - static_cast<std::size_t>(next_before - before.rbegin());
}

}  // namespace sunbreak
