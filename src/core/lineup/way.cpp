#include "core/lineup/way.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/limits/light_limits.h"
#include "core/quantity/lower_case.h"
#include "core/quantity/number.h"
#include "core/quantity/quantity_range.h"

namespace sunbreak {
namespace {

constexpr double lowest_asked_m = 0.01, highest_asked_m = 10;
constexpr int most_cells = 100;

QuantityRange watts_range() { return {"power at the wall plug", "W", 0, most_power_w, true}; }
QuantityRange height_range() { return {"hanging height", "m", lowest_asked_m, highest_asked_m}; }
QuantityRange light_range() { return {"PPFD", "µmol/m²/s", 0, most_ppfd, true}; }

constexpr const char* all_ways =
    "as-measured, equal-watts:300, equal-center:800, height:45cm, best:TARGET, footprint:90x90cm, grid:6x6, "
    "open-floor, white-tent or check-lamp:NAME=400";

/// A quantity behind a way's name, such as equal-watts:300.
std::optional<Problem> take(std::optional<double>& into, std::string_view way, std::string_view text,
                            const QuantityRange& range, const Result<double>& value, std::string_view example) {
  if (!value)
    return Problem{fmt::format("'{}:{}' is no {}", way, text, range.what), "",
                   fmt::format("write it like {}:{}, {}", way, example, range.words())};
  into = value.value();
  return {};
}

std::optional<Problem> take_footprint(LineUpWay& way, std::string_view text) {
  const auto size = parse_footprint(text);
  if (!size) return size.problem();
  way.footprint = size.value();
  return {};
}

std::optional<Problem> take_cells(LineUpWay& way, std::string_view text) {
  const QuantityRange range{"number of cells", "", 2, most_cells, false, true};
  const auto both = parse_within(text, range);
  const auto cells = both ? std::optional(std::pair{static_cast<int>(both.value()), static_cast<int>(both.value())})
                          : parse_counts(text, range);
  if (!cells)
    return Problem{fmt::format("'grid:{}' is not 2 to {} cells each way", text, most_cells), "",
                   "write it like grid:6x6"};
  way.cells = *cells;
  return {};
}

std::optional<Problem> take_lamp(LineUpWay& way, std::string_view text) {
  const auto equals = text.rfind('=');
  const auto ppfd = parse_within(equals == std::string_view::npos ? "" : text.substr(equals + 1), light_range());
  const std::string_view name = trimmed(text.substr(0, equals));
  if (name.empty() || !ppfd)
    return Problem{fmt::format("'check-lamp:{}' does not name a lamp and what it reads", text), "",
                   "write it like check-lamp:lamp A=400, with the PPFD that all are brought to"};
  way.check_lamp = name, way.lamp_ppfd = ppfd.value();
  return {};
}

/// What follows a part's name, after a colon or a space; nothing where the part has another name. Hyphens and spaces
/// between the words of a name are the same.
std::optional<std::string_view> after(std::string_view part, std::string_view name) {
  std::string start = lower_case(part.substr(0, name.size()));
  std::ranges::replace(start, '-', ' ');
  if (start != name) return {};
  const std::string_view rest = part.substr(name.size());
  if (rest.empty()) return rest;
  if (rest.front() != ':' && rest.front() != ' ') return {};
  const std::string_view said = trimmed(rest);
  return said.starts_with(':') ? trimmed(said.substr(1)) : said;
}

std::optional<Problem> take_part(LineUpWay& way, std::string_view part) {
  if (const auto rest = after(part, "as measured"); rest && rest->empty()) return {};
  for (const auto& [name, room] :
       {std::pair{"open floor", LineUpWay::Room::OpenFloor}, std::pair{"white tent", LineUpWay::Room::WhiteTent}})
    if (const auto rest = after(part, name); rest && rest->empty()) {
      way.room = room;
      return {};
    }
  if (const auto rest = after(part, "equal watts"))
    return take(way.power_w, "equal-watts", *rest, watts_range(), parse_within(*rest, watts_range()), "300");
  if (const auto rest = after(part, "equal center"))
    return take(way.center_ppfd, "equal-center", *rest, light_range(), parse_within(*rest, light_range()), "800");
  if (const auto rest = after(part, "height"))
    return take(way.height_m, "height", *rest, height_range(), parse_length_within(*rest, height_range()), "45cm");
  if (const auto rest = after(part, "footprint")) return take_footprint(way, *rest);
  if (const auto rest = after(part, "grid")) return take_cells(way, *rest);
  if (const auto rest = after(part, "check lamp")) return take_lamp(way, *rest);
  auto target = after(part, "best for");
  if (!target) target = after(part, "best");
  if (target && !target->empty()) {
    way.target = *target;
    return {};
  }
  return Problem{fmt::format("'{}' is no way of lining fixtures up", part), "", fmt::format("ways are {}", all_ways)};
}

/// The way that `text` begins with. It ends at the first "+", but for a name that holds one itself: a lamp's goes on to
/// what it reads, a target's to the next way.
std::string_view first_part(std::string_view text) {
  auto plus = text.find('+');
  const auto goes_on = [&](std::string_view part) {
    LineUpWay read;
    if (const auto lamp = after(part, "check lamp")) return take_lamp(read, *lamp).has_value();
    const std::string_view next = text.substr(plus + 1);
    return after(part, "best") && take_part(read, trimmed(next.substr(0, next.find('+'))));
  };
  while (plus != std::string_view::npos && goes_on(trimmed(text.substr(0, plus)))) plus = text.find('+', plus + 1);
  return text.substr(0, plus);
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
    const std::string_view part = first_part(rest);
    if (auto problem = take_part(way, trimmed(part))) return *problem;
    if (part.size() == rest.size()) break;
    rest = rest.substr(part.size() + 1);
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

std::string way_text(const LineUpWay& way, UnitSystem units) {
  std::string text;
  const auto add = [&](const std::string& part) { text += (text.empty() ? "" : " + ") + part; };
  if (!way.target.empty()) add("best for " + way.target);
  if (way.power_w) add(fmt::format("equal watts {} {}", short_number(*way.power_w, 3), watts_range().unit));
  if (way.center_ppfd) add(fmt::format("equal center {} {}", short_number(*way.center_ppfd, 3), light_range().unit));
  if (way.height_m) add("height " + length_text(*way.height_m, units));
  if (way.footprint) add("footprint " + size_text(way.footprint->width_m, way.footprint->depth_m, units));
  if (way.cells) add(fmt::format("grid {} × {}", way.cells->first, way.cells->second));
  if (way.room != LineUpWay::Room::Own) add(way.room == LineUpWay::Room::OpenFloor ? "open floor" : "white tent");
  if (!way.check_lamp.empty())
    add(fmt::format("check lamp {} = {} {}", way.check_lamp, short_number(way.lamp_ppfd, 3), light_range().unit));
  return text.empty() ? "as measured" : text;
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
