#pragma once

namespace sunbreak {

/// Light that noise and a dark offset can make of none [µmol m⁻² s⁻¹], and the most there is under any lamp: what a
/// reading may be once it is corrected, whatever door it comes in by.
inline constexpr double least_ppfd = -5, most_ppfd = 20'000;

/// What a meter may show before that is done: its dark offset is still in it.
inline constexpr double least_raw = -1000;

}  // namespace sunbreak
