#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/figures/area_light.h"
#include "core/result.h"

namespace sunbreak {

/// When a way of running a fixture meets a target.
struct ServingRule {
  enum class Kind {
    Edge,     ///< the mean along the edge is at least the band's low end, and no station is over its high end
    Every,    ///< every station of the area is in band
    Share,    ///< a share of the area is in band
    Mean,     ///< the mean is in band
    Corners,  ///< the mean of the corners is at least a PPFD
    Center    ///< the center reads a PPFD, within 5 %
  };
  Kind kind = Kind::Edge;
  double share = 0.9;  ///< Share
  double ppfd = 0;     ///< Corners and Center
  bool operator==(const ServingRule&) const = default;
};

inline constexpr double center_within = 0.05;

/// From "edge", "every", "share:90", "mean", "corners:600", "center:800".
Result<ServingRule> parse_serving_rule(std::string_view text);
/// The same text.
std::string serving_rule_id(const ServingRule& rule);
/// In words, as it is printed with every answer.
std::string serving_rule_words(const ServingRule& rule, const Band& band);
/// The same for many bands, none named.
std::string serving_rule_words(const ServingRule& rule);

/// How far figures are from where a rule is no longer met, in its own unit: under 0 there is too little light for it,
/// or too much.
struct ServingMargins {
  double to_too_dim = 0, to_too_bright = 0;
};
ServingMargins margins(const ServingRule& rule, const Band& band, const AreaLight& figures);

/// What a rule says of figures: too little light for it, too much, both where the light is too uneven, or neither. What
/// was not read may be any of them: nothing is met that is not known.
struct ServingVerdict {
  bool too_dim = false, too_bright = false, unknown = false;
  bool met() const { return !too_dim && !too_bright && !unknown; }
  bool operator==(const ServingVerdict&) const = default;
};
ServingVerdict judged(const ServingRule& rule, const Band& band, const AreaLight& figures);

/// What is missing where a rule is not met, in words that can stand after a height and a setting: "the edge is 40
/// µmol/m²/s short, the brightest station 25 over". Empty where it is met.
std::string lacking_words(const ServingRule& rule, const Band& band, const AreaLight& figures);

}  // namespace sunbreak
