#include "cli/options.h"

#include <algorithm>
#include <cmath>

#include "core/limits/light_limits.h"
#include "core/quantity/number.h"
#include "record/kinds.h"

namespace sunbreak::cli {
namespace {

/// An option whose text `parse` makes a Result of, put into `into`; CLI11 tells what it refuses as the option's error,
/// and ends with its status.
template <typename Into, typename Parse>
CLI::Option* add_parsed(CLI::App& command, const std::string& name, Into& into, const std::string& help, Parse parse) {
  return command.add_option_function<std::string>(
      name,
      [name, parse, &into](const std::string& text) {
        const auto value = parse(text);
        if (!value) throw CLI::ValidationError(name, value.problem().sentence());
        into = Into(value.value());
      },
      help);
}

Result<Cells> parse_cells(const std::string& text, const QuantityRange& range) {
  if (const auto counts = parse_counts(text, range)) return Cells{counts->first, counts->second};
  return Problem{"'" + text + "' is no number across and deep", "",
                 "write it like 2x3, with " + range.words() + " each way"};
}

Result<Footprint> parse_size(const std::string& text, const QuantityRange& range) {
  auto size = parse_footprint(text);
  if (size)
    for (const double side : {size.value().width_m, size.value().depth_m})
      if (auto problem = range_fault(side, range)) return *problem;
  return size;
}

Result<Footprint> parse_spacing(const std::string& text, const QuantityRange& range) {
  if (text.find_first_of("xX") != std::string::npos) return parse_size(text, range);
  const auto both = parse_length_within(text, range);
  if (!both) return both.problem();
  return Footprint{both.value(), both.value()};
}

Result<Line> parse_line(const std::string& text) {
  const double farthest_cm = 100 * room_side().most;
  const QuantityRange range{"place", "", -farthest_cm, farthest_cm};
  std::vector<double> ends_cm;
  for (std::size_t at = 0; at <= text.size();) {
    const std::size_t comma = std::min(text.find(',', at), text.size());
    if (const auto end = parse_within(std::string_view(text).substr(at, comma - at), range))
      ends_cm.push_back(end.value());
    else
      ends_cm.resize(5);
    at = comma + 1;
  }
  if (ends_cm.size() != 4)
    return Problem{"'" + text + "' does not name two places", "",
                   "give x1,y1,x2,y2 in cm from the front left, such as 0,60,120,60"};
  constexpr double shortest_cm = 0.1;
  if (std::hypot(ends_cm[2] - ends_cm[0], ends_cm[3] - ends_cm[1]) < shortest_cm)
    return Problem{"'" + text + "' begins where it ends", "there is nothing along it", "give two places"};
  return Line{{ends_cm[0] / 100, ends_cm[1] / 100}, {ends_cm[2] / 100, ends_cm[3] / 100}};
}

}  // namespace

QuantityRange recorded(const record::Column& column, std::string what) {
  return {std::move(what), column.unit, column.least, column.most};
}

QuantityRange over_least(QuantityRange range) { return range.over_least = true, range; }

CLI::Option* add_number(CLI::App& command, const std::string& name, std::optional<double>& into, QuantityRange range,
                        const std::string& help) {
  return add_parsed(command, name, into, help, [range](const std::string& text) { return parse_within(text, range); });
}

CLI::Option* add_number(CLI::App& command, const std::string& name, double& into, QuantityRange range,
                        const std::string& help) {
  return add_parsed(command, name, into, help, [range](const std::string& text) { return parse_within(text, range); });
}

CLI::Option* add_count(CLI::App& command, const std::string& name, int& into, QuantityRange range,
                       const std::string& help) {
  range.whole = true;
  return add_parsed(command, name, into, help, [range](const std::string& text) { return parse_within(text, range); });
}

CLI::Option* add_length(CLI::App& command, const std::string& name, std::optional<double>& into_m, QuantityRange range,
                        const std::string& help) {
  return add_parsed(command, name, into_m, help,
                    [range](const std::string& text) { return parse_length_within(text, range); });
}

CLI::Option* add_size(CLI::App& command, const std::string& name, std::optional<Footprint>& into, QuantityRange range,
                      const std::string& help) {
  return add_parsed(command, name, into, help, [range](const std::string& text) { return parse_size(text, range); });
}

CLI::Option* add_spacing(CLI::App& command, const std::string& name, std::optional<Footprint>& into,
                         QuantityRange range, const std::string& help) {
  return add_parsed(command, name, into, help, [range](const std::string& text) { return parse_spacing(text, range); });
}

CLI::Option* add_cells(CLI::App& command, const std::string& name, std::optional<Cells>& into, QuantityRange range,
                       const std::string& help) {
  range.whole = true;
  return add_parsed(command, name, into, help, [range](const std::string& text) { return parse_cells(text, range); });
}

CLI::Option* add_line(CLI::App& command, const std::string& name, std::optional<Line>& into, const std::string& help) {
  return add_parsed(command, name, into, help, parse_line);
}

QuantityRange crop_ppfd(std::string what) { return {std::move(what), "µmol/m²/s", 0, most_ppfd}; }

QuantityRange daily_light() {
  // The most light there is, all day: 20,000 µmol/m²/s over 24 h are 1,728 mol/m²/d.
  return over_least({"daily light", "mol/m²/d", 0, most_ppfd * 86'400 / 1e6});
}

QuantityRange photoperiod() { return over_least(recorded<record::Test>("photoperiod_h", "photoperiod")); }

QuantityRange hanging_height() { return recorded<record::Rung>("height_m", "hanging height"); }

QuantityRange dimmer_setting() {
  QuantityRange range = recorded<record::Stop>("percent", "dimmer setting");
  range.unit = "%";
  return range;
}

QuantityRange wall_watts() { return over_least(recorded<record::Settling>("max_power_w", "power at the wall plug")); }

QuantityRange room_side() { return recorded<record::Bench>("width_m", "side of a room"); }

QuantityRange threads() { return {"number of threads", "", 1, 256}; }

}  // namespace sunbreak::cli
