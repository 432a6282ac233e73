#include "core/bench/footprint.h"

#include <string>

#include "core/quantity/length.h"
#include "core/quantity/number.h"

namespace sunbreak {

Result<Footprint> parse_footprint(std::string_view text) {
  const Problem refused{"'" + std::string(text) + "' is not a footprint", "",
                        "write it like 120x120cm, 2x4ft or 0.6x1.2m"};
  std::string_view rest = trimmed(text);
  std::size_t cross = rest.find_first_of("xX");
  std::size_t cross_length = 1;
  if (const auto sign = rest.find("×"); sign != std::string_view::npos) {
    cross = sign;
    cross_length = std::string_view("×").size();
  }
  if (cross == std::string_view::npos) return refused;
  const std::string_view first = trimmed(rest.substr(0, cross));
  const std::string_view second = trimmed(rest.substr(cross + cross_length));
  const auto depth = parse_length_m(second);
  if (!depth) return refused;
  auto width = parse_length_m(first);
  if (!width) {
    const std::string unit(second.substr(second.find_first_not_of("0123456789.+-eE ")));
    width = parse_length_m(std::string(first) + unit);
  }
  if (!width) return refused;
  if (width.value() <= 0 || depth.value() <= 0 || width.value() > 100 || depth.value() > 100)
    return Problem{"the footprint '" + std::string(text) + "' is not between 0 and 100 m a side", "", "check the unit"};
  return Footprint{width.value(), depth.value()};
}

}  // namespace sunbreak
