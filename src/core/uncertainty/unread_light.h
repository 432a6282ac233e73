#pragma once

#include <memory>
#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// What light the stations that were not read may have, by those that were: ln PPFD as a smooth random field over the
/// footprint, of which the part that is alike to left and right, to front and back is the larger one, since fixtures
/// hang about in the middle. How rough the field is, how strong, and how far it is its own mirror image is not chosen:
/// many ways are weighed by how well each foretells the readings, so that what readings do not tell stays open. It
/// knows nothing of the lamp; where few of one side were read, it says so by its spread. Sources: Rasmussen and
/// Williams, Gaussian Processes for Machine Learning (2006), 5.4; Solin and Särkkä, Stat. Comput. 30 (2020), for the
/// field as a sum of sines.
class UnreadLight {
 public:
  /// `ppfd` one value a station, NaN where unread; `relative_sd` what each reading scatters by.
  UnreadLight(const Layout& layout, std::span<const double> ppfd, std::span<const double> relative_sd);

  /// Some stations are unread, and enough were read to tell of them.
  bool exists() const { return field_ != nullptr; }
  /// The readings, with the middle of what is likely in place of those that are missing.
  std::vector<double> filled() const;
  /// The same with one of the lights that are likely: the n-th of many, the same each time.
  std::vector<double> drawn(int n) const;

 private:
  struct Field;
  std::vector<double> readings_;
  std::shared_ptr<const Field> field_;
};

}  // namespace sunbreak
