#include "record/claim_splitting.h"

#include <algorithm>
#include <array>

#include "core/quantity/length.h"
#include "core/quantity/lower_case.h"
#include "core/text/pattern.h"
#include "record/claim_kinds.h"

namespace sunbreak::record {
namespace {

constexpr std::size_t longest_part = 400;
const std::string number_pattern = R"((\d+(?:[.,]\d+)?))",
                  length_pattern = R"((cm|mm|m|inch(?:es)?|in|ft|feet|foot|"|')?)";

/// "2,7" is a decimal comma; "50,000" sets thousands apart.
double number_of(std::string digits) {
  static const Pattern thousands(R"(\d{1,3}(?:,\d{3})+)");
  if (thousands.fits(digits)) std::erase(digits, ',');
  std::replace(digits.begin(), digits.end(), ',', '.');
  return std::stod(digits);
}

/// The symbol that lengths of a unit are kept by; empty for none.
std::string length_symbol(std::string unit) {
  if (unit == "\"") unit = "in";
  if (unit == "'") unit = "ft";
  const auto known = parse_length_unit(unit);
  return known ? std::string(symbol(known.value())) : std::string();
}

double meters_of(double value, const std::string& unit_symbol) {
  return to_m(value, parse_length_unit(unit_symbol).value());
}

bool has_word(const std::string& text, std::initializer_list<const char*> words) {
  return std::ranges::any_of(words, [&](const char* w) { return text.find(w) != std::string::npos; });
}

std::string lowered(std::string_view text) {
  std::string low = lower_case(text);
  for (const std::string_view cross : {"×", " by "})
    for (auto at = low.find(cross); at != std::string::npos; at = low.find(cross)) low.replace(at, cross.size(), " x ");
  for (const std::string_view micro : {"µ", "μ"})
    for (auto at = low.find(micro); at != std::string::npos; at = low.find(micro)) low.replace(at, micro.size(), "u");
  for (const std::string_view dash : {"–", "—"})
    for (auto at = low.find(dash); at != std::string::npos; at = low.find(dash)) low.replace(at, dash.size(), "-");
  return low;
}

std::string bare(std::string_view text) {
  const auto from = text.find_first_not_of(" \t,.;"), to = text.find_last_not_of(" \t,.;");
  return from == std::string_view::npos ? std::string() : std::string(text.substr(from, to - from + 1));
}

/// One part of a sentence while it is read: what is understood is taken out of it.
class SentenceReader {
 public:
  SentenceReader(std::string_view part, std::string kind)
      : words_(bare(part)), text_(lowered(words_)), kind_(std::move(kind)) {}

  std::vector<Claim> read() {
    const bool map = has_word(text_, {"map", "footprint chart"});
    area(map);
    dimmer();
    lamp();
    light();
    height();
    sheet();
    power();
    return std::move(claims_);
  }

 private:
  /// The first place that a pattern fits; it is taken out of the text.
  std::optional<PatternMatch> take(const std::string& pattern) {
    auto found = Pattern(pattern).find(text_);
    if (found) text_.replace(found->position, found->length, " ");
    return found;
  }

  Claim& add(const char* kind) {
    Claim claim;
    claim.kind = kind, claim.words = words_;
    claims_.push_back(claim);
    return claims_.back();
  }

  void area(bool map) {
    const auto found = take(number_pattern + R"(\s*)" + length_pattern + R"(\s*x\s*)" + number_pattern + R"(\s*)" +
                            R"((cm|mm|m|inch(?:es)?|in|ft|feet|foot|"|')(?![a-z]))");
    if (!found) return;
    const std::string last = length_symbol(found->text(4)),
                      first = found->has(2) ? length_symbol(found->text(2)) : last;
    if (last.empty() || first.empty()) return;
    const double width = meters_of(number_of(found->text(1)), first),
                 depth = meters_of(number_of(found->text(3)), last);
    const std::string stage = stage_in_words(text_);
    // What is stated with an area: "at 45 cm", "at 80 %".
    std::optional<double> height_m, percent;
    if (const auto at =
            take(R"((?:at|from)\s+)" + number_pattern + R"(\s*(cm|mm|m|inch(?:es)?|in|ft|feet|foot|"|')(?![a-z]))"))
      height_m = meters_of(number_of(at->text(1)), length_symbol(at->text(2)));
    if (const auto at = take(R"(at\s+)" + number_pattern + R"(\s*%)")) percent = number_of(at->text(1));
    Claim& claim = add(map ? "map" : "coverage");
    claim.width_m = width, claim.depth_m = depth, claim.height_m = height_m, claim.percent = percent;
    if (!map) claim.stage = stage;
  }

  void dimmer() {
    if (const auto boost = take(R"(boosts?(?:ed)?\s*(?:up\s*)?(?:to)?\s*)" + number_pattern + R"(\s*%)"))
      add("boost_pct").value = number_of(boost->text(1));
    if (const auto steps = take(R"((\d+)\s*(?:dimming\s*)?steps)"))
      add("dimming_steps").value = number_of(steps->text(1));
    if (!has_word(text_, {"dim"}) && kind_ != "dimming_range") return;
    if (const auto range = take(number_pattern + R"(\s*%?\s*(?:-|to|and)\s*)" + number_pattern + R"(\s*%)")) {
      const double a = number_of(range->text(1)), b = number_of(range->text(2));
      Claim& claim = add("dimming_range");
      claim.value = std::min(a, b), claim.value_to = std::max(a, b);
    } else if (const auto low = take(R"(to\s*)" + number_pattern + R"(\s*%)")) {
      add("dimming_range").value = number_of(low->text(1));
    }
  }

  void lamp() {
    if (kind_ != "equivalent" && !has_word(text_, {"replaces", "equivalent", "stands in for", "instead of"})) return;
    const auto found =
        take(number_pattern + R"(\s*(kw|w)(?:atts?)?(?![a-z])\s*((?:[a-z-]+\s+)*?)(?:lamp|fixture|light|$))");
    if (!found) return;
    const double watts = number_of(found->text(1)) * (found->text(2) == "kw" ? 1000 : 1);
    Claim& claim = add("equivalent");
    claim.value = watts;
    claim.says = bare(found->text(3));
  }

  void light() {
    if (const auto found = take(number_pattern + R"(\s*umol\s*(?:/|per\s*)j(?:oule)?)")) {
      const double value = number_of(found->text(1));
      Claim& claim = add("efficacy_umol_j");
      claim.value = value;
      if (take(
              R"(,?\s*(?:the\s*)?(?:driver(?:\s*losses)?\s*(?:is\s*|are\s*)?(?:not counted|excluded|left out)|(?:without|excluding|less)\s*(?:the\s*)?driver(?:\s*losses)?))"))
        claim.says = "without driver";
      else if (take(R"(,?\s*(?:at the wall|(?:with|including)\s*(?:the\s*)?driver(?:\s*losses)?))"))
        claim.says = "with driver";
    }
    if (const auto found = take(number_pattern + R"(\s*umol\s*(?:/|per\s*)s(?:econd)?)"))
      add("ppf_umol_s").value = number_of(found->text(1));
    if (const auto found = take(number_pattern + R"(\s*k(?:elvin)?(?![a-z]))"); found && kind_ != "equivalent")
      add("color_temperature_k").value = number_of(found->text(1));
    if (const auto found = take(R"((?:ra|cri)\s*[:=>]?\s*)" + number_pattern))
      add("rendering_ra").value = number_of(found->text(1));
    if (const auto found = take(number_pattern + R"(\s*(?:°|degrees?)(?!\s*[cf]))"))
      add("beam_angle_deg").value = number_of(found->text(1));
  }

  void height() {
    if (kind_ != "height_m" && !has_word(text_, {"hang", "above", "over the canopy", "height"})) return;
    const auto found = take(number_pattern + R"(\s*)" + length_pattern + R"(\s*(?:(?:-|to|and)\s*)" + number_pattern +
                            R"(\s*)?(cm|mm|m|inch(?:es)?|in|ft|feet|foot|"|')(?![a-z]))");
    if (!found) return;
    const std::string unit = length_symbol(found->text(4)),
                      first = found->has(2) ? length_symbol(found->text(2)) : unit;
    if (unit.empty() || first.empty()) return;
    const double low = meters_of(number_of(found->text(1)), found->has(3) ? first : unit),
                 high = found->has(3) ? meters_of(number_of(found->text(3)), unit) : low;
    const std::string stage = stage_in_words(text_);
    Claim& claim = add("height_m");
    claim.value = std::min(low, high), claim.unit = unit, claim.stage = stage;
    if (high != low) claim.value_to = std::max(low, high);
  }

  /// What is neither light nor hanging.
  void sheet() {
    if (const auto found = take(number_pattern + R"(\s*db(?:\s*\(?a\)?)?(?![a-z]))"))
      add("noise_db").value = number_of(found->text(1));
    if (const auto found = take(number_pattern + R"(\s*(kg|lbs?|pounds?)(?![a-z]))")) {
      Claim& claim = add("weight_kg");
      claim.unit = found->text(2) == "kg" ? "" : "lb";
      claim.value = unit_of(claim).kept(number_of(found->text(1)));
    }
    if (const auto found = take(number_pattern + R"(\s*(?:h|hours?)(?![a-z]))"); found && kind_ != "coverage")
      add("lifetime_h").value = number_of(found->text(1));
    if (const auto found = take(number_pattern + R"(\s*°\s*([cf])(?![a-z]))")) {
      Claim& claim = add("surface_temperature_c");
      claim.unit = found->text(2) == "f" ? "°F" : "";
      claim.value = unit_of(claim).kept(number_of(found->text(1)));
    }
    if (const auto found = take(R"((?:power factor|pf)\s*(?:of|[:=>≥])?\s*)" + number_pattern))
      add("power_factor").value = number_of(found->text(1));
    if (const auto found = take(number_pattern + R"(\s*a(?:mps?|mperes?)?(?![a-z]))"); found && kind_ != "equivalent")
      add("current_a").value = number_of(found->text(1));
  }

  void power() {
    if (!kind_.empty() && kind_ != "power_w") return;
    const auto found = take(R"((?:(\d+)\s*x\s*)?)" + number_pattern + R"(\s*(kw|w)(?:atts?)?(?![a-z/]))");
    if (!found) return;
    const double value = number_of(found->text(2)) * (found->text(3) == "kw" ? 1000 : 1) *
                         (found->has(1) ? number_of(found->text(1)) : 1);
    add("power_w").value = value;
  }

  std::string words_, text_;
  std::string kind_;
  std::vector<Claim> claims_;
};

}  // namespace

std::string stage_in_words(std::string_view text) {
  const std::string low = lowered(text);
  struct Named {
    const char* stage;
    std::initializer_list<const char*> words;
  };
  static const std::array<Named, 5> stages{{{"flowering & fruiting", {"flower", "fruit", "bloom"}},
                                            {"propagation", {"propagat", "seedling", "cutting", "germinat"}},
                                            {"leafy & herbs", {"leafy", "herb", "microgreen", "salad", "lettuce"}},
                                            {"high light", {"high light"}},
                                            {"young plants", {"young", "vegetative", "veg"}}}};
  for (const Named& named : stages)
    if (has_word(low, named.words)) return named.stage;
  return {};
}

SplitClaim split_claim(const std::string& sentence, const std::string& kind) {
  SplitClaim split;
  std::size_t from = 0;
  while (from <= sentence.size()) {
    const auto to = std::min(sentence.find(';', from), sentence.size());
    const std::string part = bare(std::string_view(sentence).substr(from, to - from));
    from = to + 1;
    if (part.empty()) continue;
    // No one writes a claim longer than this, and the patterns would go deep into it.
    auto claims = part.size() > longest_part ? std::vector<Claim>{} : SentenceReader(part, kind).read();
    std::erase_if(claims, [](const Claim& c) { return claim_fault(c) || !is_stated(c); });
    if (claims.empty()) split.rest += (split.rest.empty() ? "" : "; ") + part;
    for (Claim& claim : claims) split.claims.push_back(std::move(claim));
  }
  return split;
}

SplitClaim split_claim(const Claim& claim) {
  SplitClaim split = split_claim(claim.words, claim.kind);
  for (Claim& part : split.claims)
    part.fixture_id = claim.fixture_id, part.source = claim.source, part.stated_on = claim.stated_on;
  return split;
}

}  // namespace sunbreak::record
