#include "core/bench/tape.h"

namespace sunbreak {
namespace {

double added(const TapeRule& rule) {
  switch (rule.end) {
    case TapeEnd::Sensor:
      return 0;
    case TapeEnd::Floor:
      return -rule.receiving_height_m;
    case TapeEnd::Canopy:
      return rule.canopy_height_m - rule.receiving_height_m;
  }
  return 0;
}

}  // namespace

std::optional<TapeEnd> parse_tape_end(std::string_view text) {
  if (text == "sensor") return TapeEnd::Sensor;
  if (text == "floor") return TapeEnd::Floor;
  if (text == "canopy") return TapeEnd::Canopy;
  return {};
}

double TapeRule::height_m(double tape_m) const { return tape_m + added(*this); }
double TapeRule::tape_m(double height_m) const { return height_m - added(*this); }

}  // namespace sunbreak
