#pragma once

#include <cstdint>

namespace sunbreak::pictures {

/// What became of damaged pictures.
struct DamageTally {
  int refused = 0;                   ///< by their structure
  int drawn = 0;                     ///< wholly or in part
  int undrawn = 0;                   ///< cleaned, but no decoder makes a picture of them
  int told = 0;                      ///< cleaned, and still told what a camera had said: must not be
  int changed_when_clean_again = 0;  ///< must not be either
};

/// Damages pictures of both kinds at random (bits, stretches, ends, lengths, splices), cleans and draws them. Each must
/// end by itself; that none crashes is for who runs it under the sanitizers.
DamageTally try_damaged_pictures(std::uint64_t seed, int cases);

}  // namespace sunbreak::pictures
