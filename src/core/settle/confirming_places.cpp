#include "core/settle/confirming_places.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {

std::vector<Spot> confirming_places(const Layout& stations, std::span<const double> predicted_ppfd) {
  std::vector<Spot> spots;
  if (!stations.is_lattice()) return spots;
  constexpr std::size_t most = 9;
  std::vector<int> taken;
  const auto add = [&](const char* name, int station) {
    if (spots.size() >= most || std::find(taken.begin(), taken.end(), station) != taken.end()) return;
    taken.push_back(station);
    const Station& s = stations.stations[static_cast<std::size_t>(station)];
    spots.push_back({name, s.x_m, s.y_m});
  };
  const int right = stations.columns - 1, back = stations.rows - 1, middle = stations.columns / 2,
            half = stations.rows / 2;
  const auto at = [&](int column, int row) { return stations.index(column, row); };
  add("center", at(middle, half));
  add("front left", at(0, 0));
  add("front right", at(right, 0));
  add("far left", at(0, back));
  add("far right", at(right, back));
  const auto lowest = std::min_element(predicted_ppfd.begin(), predicted_ppfd.end()) - predicted_ppfd.begin(),
             highest = std::max_element(predicted_ppfd.begin(), predicted_ppfd.end()) - predicted_ppfd.begin();
  add("lowest", static_cast<int>(lowest));
  add("highest", static_cast<int>(highest));
  add("front", at(middle, 0));
  add("far", at(middle, back));
  add("left", at(0, half));
  add("right", at(right, half));
  return spots;
}

}  // namespace sunbreak
