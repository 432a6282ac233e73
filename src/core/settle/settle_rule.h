#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/result.h"
#include "core/settle/settle_maps.h"

namespace sunbreak {

/// When a way of running a fixture meets a target.
struct SettleRule {
  enum class Kind {
    Edge,     ///< the mean along the edge is at least the band's low end, and no place is over its high end
    Every,    ///< every place of the area is in band
    Share,    ///< a share of the area is in band
    Mean,     ///< the mean is in band
    Corners,  ///< the mean of the corners is at least a PPFD
    Center    ///< the center reads a PPFD, within 5 %
  };
  Kind kind = Kind::Edge;
  double share = 0.9;  ///< Share
  double ppfd = 0;     ///< Corners and Center
  bool operator==(const SettleRule&) const = default;
};

inline constexpr double center_within = 0.05;

/// From "edge", "every", "share:90", "mean", "corners:600", "center:800".
Result<SettleRule> parse_settle_rule(std::string_view text);
/// The same text.
std::string settle_rule_id(const SettleRule& rule);
/// In words, as it is printed with every answer.
std::string settle_rule_words(const SettleRule& rule, const Band& band);
/// The same for many bands, none named.
std::string settle_rule_words(const SettleRule& rule);

/// How far figures are from where a rule is no longer met, in its own unit: under 0 there is too little light for it,
/// or too much.
struct SettleMargins {
  double to_too_dim = 0, to_too_bright = 0;
};
SettleMargins margins(const SettleRule& rule, const Band& band, const SettleFigures& figures);

/// What a rule says of figures: too little light for it, too much, both where the light is too uneven, or neither.
struct SettleVerdict {
  bool too_dim = false, too_bright = false;
  bool met() const { return !too_dim && !too_bright; }
  bool operator==(const SettleVerdict&) const = default;
};
SettleVerdict judged(const SettleRule& rule, const Band& band, const SettleFigures& figures);

/// What an answer may not leave. Nothing: no limit.
struct SettleLimits {
  std::optional<double> min_height_m, max_height_m, max_power_w, max_ppfd;
  bool operator==(const SettleLimits&) const = default;

  bool allows_height(double height_m) const;
  bool allows(const SettleSetting& setting, const SettleFigures& figures) const;
};

}  // namespace sunbreak
