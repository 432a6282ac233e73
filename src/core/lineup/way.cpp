#include "core/lineup/way.h"

#include <fmt/format.h>

#include "core/quantity/lower_case.h"
#include "core/quantity/number.h"

namespace sunbreak {
namespace {

constexpr double most_watts = 100'000, most_ppfd = 20'000, lowest_asked_m = 0.01, highest_asked_m = 10;
constexpr int most_cells = 100;

constexpr const char* all_ways =
    "as-measured, equal-watts:300, equal-center:800, height:45cm, best:TARGET, footprint:90x90cm, grid:6x6, "
    "open-floor, "
    "white-tent or check-lamp:NAME=400";

std::optional<Problem> take_number(std::optional<double>& into, std::string_view what, std::string_view text,
                                   double most) {
  const auto number = parse_number(text);
  if (!number || *number <= 0 || *number > most)
    return Problem{fmt::format("'{}:{}' has no number above 0 and up to {:.0f}", what, text, most), "",
                   fmt::format("write it like {}:300", what)};
  into = *number;
  return {};
}

std::optional<Problem> take_height(LineUpWay& way, std::string_view text) {
  const auto height = parse_length_m(text);
  if (!height)
    return Problem{fmt::format("'height:{}' is no height with its unit", text), "", "write it like height:45cm"};
  if (height.value() < lowest_asked_m || height.value() > highest_asked_m)
    return Problem{fmt::format("'height:{}' is not between 1 cm and 10 m", text), "", "check the unit"};
  way.height_m = height.value();
  return {};
}

std::optional<Problem> take_footprint(LineUpWay& way, std::string_view text) {
  const auto size = parse_footprint(text);
  if (!size) return size.problem();
  way.footprint = size.value();
  return {};
}

std::optional<Problem> take_cells(LineUpWay& way, std::string_view text) {
  const auto cross = text.find_first_of("xX");
  const auto columns = parse_number(text.substr(0, cross)),
             rows = cross == std::string_view::npos ? columns : parse_number(text.substr(cross + 1));
  const auto whole = [](const std::optional<double>& n) {
    return n && *n >= 2 && *n <= most_cells && *n == static_cast<int>(*n);
  };
  if (!whole(columns) || !whole(rows))
    return Problem{fmt::format("'grid:{}' is not 2 to {} cells each way", text, most_cells), "",
                   "write it like grid:6x6"};
  way.cells = {static_cast<int>(*columns), static_cast<int>(*rows)};
  return {};
}

std::optional<Problem> take_lamp(LineUpWay& way, std::string_view text) {
  const auto equals = text.rfind('=');
  double ppfd = 0;
  if (equals != std::string_view::npos) ppfd = parse_number(trimmed(text.substr(equals + 1))).value_or(0);
  const std::string_view name = trimmed(text.substr(0, equals));
  if (name.empty() || !(ppfd > 0 && ppfd <= most_ppfd))
    return Problem{fmt::format("'check-lamp:{}' does not name a lamp and what it reads", text), "",
                   "write it like check-lamp:lamp A=400, with the PPFD that all are brought to"};
  way.check_lamp = name, way.lamp_ppfd = ppfd;
  return {};
}

std::optional<Problem> take_part(LineUpWay& way, std::string_view part) {
  const auto colon = part.find(':');
  const std::string word = lower_case(trimmed(part.substr(0, colon)));
  const std::string_view rest = colon == std::string_view::npos ? std::string_view() : trimmed(part.substr(colon + 1));
  if (colon == std::string_view::npos) {
    if (word == "as-measured") return {};
    if (word == "open-floor" || word == "white-tent") {
      way.room = word == "open-floor" ? LineUpWay::Room::OpenFloor : LineUpWay::Room::WhiteTent;
      return {};
    }
  } else if (word == "equal-watts") {
    return take_number(way.power_w, word, rest, most_watts);
  } else if (word == "equal-center") {
    return take_number(way.center_ppfd, word, rest, most_ppfd);
  } else if (word == "height") {
    return take_height(way, rest);
  } else if (word == "footprint") {
    return take_footprint(way, rest);
  } else if (word == "grid") {
    return take_cells(way, rest);
  } else if (word == "check-lamp") {
    return take_lamp(way, rest);
  } else if (word == "best" && !rest.empty()) {
    way.target = rest;
    return {};
  }
  return Problem{fmt::format("'{}' is no way of lining fixtures up", part), "", fmt::format("ways are {}", all_ways)};
}

std::optional<Problem> conflict(const LineUpWay& way) {
  if (way.power_w && way.center_ppfd)
    return Problem{"equal watts and an equal center are two settings of the dimmer", "a fixture has one at a time",
                   "choose one of the two"};
  if (!way.target.empty() && (way.power_w || way.center_ppfd || way.height_m || way.cells ||
                              way.room != LineUpWay::Room::Own || !way.check_lamp.empty()))
    return Problem{"each at its best setting leaves height and dimmer to each fixture, on its own bench",
                   "no other height, setting, grid, room or lamp goes with it",
                   "choose best:TARGET, alone or with a footprint"};
  return {};
}

}  // namespace

Result<LineUpWay> parse_way(std::string_view text) {
  LineUpWay way;
  for (std::string_view rest = text;;) {
    const auto plus = rest.find('+');
    if (auto problem = take_part(way, trimmed(rest.substr(0, plus)))) return *problem;
    if (plus == std::string_view::npos) break;
    rest = rest.substr(plus + 1);
  }
  if (auto problem = conflict(way)) return *problem;
  return way;
}

std::string way_id(const LineUpWay& way) {
  std::string id;
  const auto add = [&](const std::string& part) { id += (id.empty() ? "" : "+") + part; };
  const auto centimeters = [](double length_m) { return short_number(100 * length_m, 3); };
  if (!way.target.empty()) add("best:" + way.target);
  if (way.power_w) add(fmt::format("equal-watts:{}", short_number(*way.power_w, 3)));
  if (way.center_ppfd) add(fmt::format("equal-center:{}", short_number(*way.center_ppfd, 3)));
  if (way.height_m) add(fmt::format("height:{}cm", centimeters(*way.height_m)));
  if (way.footprint)
    add(fmt::format("footprint:{}x{}cm", centimeters(way.footprint->width_m), centimeters(way.footprint->depth_m)));
  if (way.cells) add(fmt::format("grid:{}x{}", way.cells->first, way.cells->second));
  if (way.room != LineUpWay::Room::Own) add(way.room == LineUpWay::Room::OpenFloor ? "open-floor" : "white-tent");
  if (!way.check_lamp.empty()) add(fmt::format("check-lamp:{}={}", way.check_lamp, short_number(way.lamp_ppfd, 3)));
  return id.empty() ? "as-measured" : id;
}

std::string way_words(const LineUpWay& way, std::optional<double> usual_height_m, UnitSystem units) {
  std::string words;
  if (!way.target.empty()) {
    words = fmt::format("each at its own best height and setting for {}", way.target);
  } else {
    words = way.height_m ? "each hung at " + length_text(*way.height_m, units)
            : usual_height_m
                ? fmt::format("each at its walked height nearest to {}", length_text(*usual_height_m, units))
                : "each at its one walked height";
    words += way.power_w ? fmt::format(", dimmed to {} W at the wall", short_number(*way.power_w, 1))
             : way.center_ppfd
                 ? fmt::format(", dimmed until the center reads {} µmol/m²/s", short_number(*way.center_ppfd, 1))
                 : ", at full";
  }
  if (way.room != LineUpWay::Room::Own) {
    words += way.room == LineUpWay::Room::OpenFloor ? ", restated on an open floor" : ", restated in a white tent";
    if (way.footprint)
      words += " of " + size_text(way.footprint->width_m, way.footprint->depth_m, units);
    else
      words += " of its own footprint";
  } else if (way.footprint) {
    words += fmt::format(", over the {} about the middle alone",
                         size_text(way.footprint->width_m, way.footprint->depth_m, units));
  }
  if (way.cells) words += fmt::format(", averaged into {} × {} cells", way.cells->first, way.cells->second);
  if (!way.check_lamp.empty())
    words += fmt::format(", each sensor brought to the check lamp '{}' at {} µmol/m²/s", way.check_lamp,
                         short_number(way.lamp_ppfd, 1));
  return words + (way.as_measured() ? ", as measured" : "");
}

}  // namespace sunbreak
