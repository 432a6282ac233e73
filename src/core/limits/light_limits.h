#pragma once

namespace sunbreak {

/// Light that noise and a dark offset can make of none [µmol m⁻² s⁻¹], and the most there is under any lamp: what a
/// reading may be once it is corrected, whatever door it comes in by.
inline constexpr double least_ppfd = -5, most_ppfd = 20'000;

/// What a meter may show before that is done: its dark offset is still in it.
inline constexpr double least_raw = -1000;

/// The darkest that a working sensor shows of itself, its dark offset with it.
inline constexpr double least_live = -50;

/// The most that one wall plug gives [W], and what a wall meter may show of nothing.
inline constexpr double most_power_w = 100'000, least_power_w = -5;

}  // namespace sunbreak
