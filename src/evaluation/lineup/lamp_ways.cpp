#include "evaluation/lineup/lamp_ways.h"

#include <cmath>
#include <set>

#include "core/lineup/way.h"

namespace sunbreak::evaluation {

std::vector<std::string> lamp_ways(const LampBoard& board) {
  std::vector<std::string> ways;
  std::set<std::string> known;
  for (const LampChart& chart : board.charts) {
    if (!known.insert(chart.lamp).second) continue;
    LineUpWay way;
    way.check_lamp = chart.lamp;
    double sum = 0;
    std::size_t count = 0;
    for (const std::size_t reading : chart.readings)
      for (const double light : board.readings[reading].light) sum += light, ++count;
    way.lamp_ppfd = std::round(sum / static_cast<double>(count));
    const std::string id = way_id(way);
    if (const auto read = parse_way(id); read && read.value() == way) ways.push_back(id);
  }
  return ways;
}

}  // namespace sunbreak::evaluation
