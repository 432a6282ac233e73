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

  /// A lamp that it is held to stand in for is read first: its watts are not the fixture's.
  std::vector<Claim> read() {
    lamp();
    areas();
    mean_light();
    dimmer();
    light();
    height();
    sheet();
    power();
    return std::move(claims_);
  }

  /// What nothing was read from and holds a number: it may not get lost.
  std::string left_over() const {
    if (text_.find_first_of("0123456789") == std::string::npos) return {};
    static const Pattern blanks(R"(\s+)");
    std::string left;
    for (const char c : text_)
      if (c != ' ' || (!left.empty() && left.back() != ' ')) left += c;
    return bare(left);
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

  /// Where sizes stand, with what a bare "4x4" is measured in: feet where it is small, centimeters where it is large,
  /// and only where an area is spoken of.
  std::optional<PatternMatch> next_size() const {
    static const Pattern size(R"((?<![\d.,x])(?<!x ))" + number_pattern + R"(\s*)" + length_pattern + R"(\s*x\s*)" +
                              number_pattern + R"((?!\s*x\s*\d)\s*)" +
                              R"((?:(cm|mm|m|inch(?:es)?|in|ft|feet|foot|"|')(?![a-z]))?)");
    return size.find(text_);
  }

  struct Size {
    double width_m, depth_m;
  };
  std::optional<Size> size_of(const PatternMatch& found, bool of_an_area) const {
    const double first = number_of(found.text(1)), second = number_of(found.text(3));
    std::string last = found.has(4) ? length_symbol(found.text(4)) : "";
    if (last.empty() && found.has(2)) last = length_symbol(found.text(2));
    if (last.empty() && of_an_area) {
      constexpr double most_ft = 12, least_cm = 40, most_cm = 400;
      const double low = std::min(first, second), high = std::max(first, second);
      if (low >= 1 && high <= most_ft) last = "ft";
      if (low >= least_cm && high <= most_cm) last = "cm";
    }
    if (last.empty()) return {};
    const std::string unit = found.has(2) ? length_symbol(found.text(2)) : last;
    if (unit.empty()) return {};
    return Size{meters_of(first, unit), meters_of(second, last)};
  }

  /// Each size with the words that belong to it: from the mark before it to the mark after.
  void areas() {
    const bool map = has_word(text_, {"map", "footprint chart"});
    const bool of_an_area =
        kind_ == "coverage" || kind_ == "map" || map || !stages_in_words(text_).empty() ||
        has_word(text_, {"cover", "footprint", "tent", "area", "space", "suits", "fits", "lights"}) ||
        Pattern(R"(^\s*\d+(?:[.,]\d+)?\s*x\s*\d+(?:[.,]\d+)?\s*$)").fits(text_);
    std::string rest = text_, left;
    std::vector<std::string> parts;
    for (;;) {
      text_ = rest;
      const auto found = next_size();
      if (!found) break;
      std::size_t end = found->position + found->length;
      // Up to the mark before the next size, where there is one.
      text_ = rest.substr(end);
      const auto next = next_size();
      std::size_t cut = rest.size();
      if (next) {
        const std::string between = rest.substr(end, next->position);
        const auto mark = between.find_last_of(",/(+&|");
        const auto word = between.rfind(" and ");
        if (mark == std::string::npos && word == std::string::npos) {
          // Whose words stand between two sizes is not told.
          text_ = rest;
          unclear_ = true;
          parts.clear();
          break;
        }
        cut = end + std::max(mark == std::string::npos ? 0 : mark, word == std::string::npos ? 0 : word);
      }
      parts.push_back(rest.substr(0, cut));
      rest = cut < rest.size() ? rest.substr(cut) : std::string();
    }
    if (unclear_) return;
    std::string unread = rest;
    for (std::size_t i = 0; i < parts.size(); ++i) {
      text_ = parts[i];
      area(map, of_an_area);
      left += text_ + " ";
    }
    text_ = left + unread;
  }

  void area(bool map, bool of_an_area) {
    const auto found = next_size();
    const auto size = found ? size_of(*found, of_an_area) : std::nullopt;
    if (!size) return;
    text_.replace(found->position, found->length, " ");
    const std::vector<std::string> stages = stages_in_words(text_);
    // What is stated with an area: "at 45 cm", "at 80 %".
    std::optional<double> height_m, percent;
    if (const auto at =
            take(R"((?:at|from|@)\s*)" + number_pattern + R"(\s*(cm|mm|m|inch(?:es)?|in|ft|feet|foot|"|')(?![a-z]))"))
      height_m = meters_of(number_of(at->text(1)), length_symbol(at->text(2)));
    if (const auto at = take(R"((?:at|@)\s*)" + number_pattern + R"(\s*%)")) percent = number_of(at->text(1));
    // A mean of light that is stated over it.
    if (Pattern(R"(\b(?:average|avg|mean)\b)").find(text_)) {
      over_ = Claim{};
      over_->width_m = size->width_m, over_->depth_m = size->depth_m;
      over_->height_m = height_m, over_->percent = percent;
      if (mean_light()) return;
    }
    for (const std::string& stage : stages.empty() || map ? std::vector<std::string>{""} : stages) {
      Claim& claim = add(map ? "map" : "coverage");
      claim.width_m = size->width_m, claim.depth_m = size->depth_m, claim.height_m = height_m, claim.percent = percent;
      claim.stage = stage;
    }
  }

  /// "average PPFD 850 µmol/m²/s at 45 cm": the commonest of all claims of light.
  bool mean_light() {
    static const std::string unit =
        R"(\s*(?:umols?\s*(?:/\s*\(?\s*m(?:2|²|\^2)\s*(?:/|\*|·|\s)\s*s\)?|m-2\s*s-1|m⁻²\s*s⁻¹))?)";
    auto found = take(R"(\b(?:average|avg|mean)\b\.?\s*(?:ppfd|par|light)?\s*(?:of|is|:|=)?\s*)" + number_pattern +
                      R"((?![\d.,])(?!\s*(?:%|cm|mm|m\b|in|ft|"|'|w\b|umols?/j|umols?/s)))" + unit);
    if (!found)
      found =
          take(number_pattern +
               R"(\s*umols?\s*(?:/\s*m(?:2|²|\^2)\s*/\s*s|m-2\s*s-1)\s*\(?(?:average|avg|mean)\b\.?(?:\s*ppfd)?\)?)");
    if (!found) return false;
    const double value = number_of(found->text(1));
    std::optional<double> height_m = over_ ? over_->height_m : std::nullopt;
    if (!height_m)
      if (const auto at = take(R"((?:at|from|@|hung)\s*(?:a\s*height\s*of\s*)?)" + number_pattern +
                               R"(\s*(cm|mm|m|inch(?:es)?|in|ft|feet|foot|"|')(?![a-z]))"))
        height_m = meters_of(number_of(at->text(1)), length_symbol(at->text(2)));
    Claim& claim = add("mean_ppfd");
    if (over_) claim.width_m = over_->width_m, claim.depth_m = over_->depth_m, claim.percent = over_->percent;
    claim.value = value, claim.height_m = height_m;
    return true;
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
    const bool spoken_of =
        has_word(text_, {"replac", "equivalent", "equiv", "stands in for", "instead of", "equal to a", "comparable to",
                         "same as a", "matches a", "outperforms", "beats a"});
    if (kind_ != "equivalent" && !spoken_of) return;
    const std::string watts = number_pattern + R"(\s*-?(kw|w)(?:atts?)?(?![a-z/]))";
    // The lamp behind its watts, or before the word: "1000 W HPS", "1000 W equivalent".
    auto found = take(
        R"((?:replac(?:es?|ing)|equivalent to|equal to|comparable to|stands in for|instead of|same as|matches|equivalent:?)\s*(?:an?\s+|one\s+)?)" +
        watts + R"(\s*((?:[a-z-]+\s*){0,4}))");
    if (!found) found = take(watts + R"([\s-]*((?:[a-z-]+[\s-]+){0,3}?)(?:equivalent|equiv\b\.?|replacement))");
    if (!found && kind_ == "equivalent") found = take(watts + R"(\s*((?:[a-z-]+\s*){0,4}))");
    // Watts beside such words that were not read as the lamp's are not the fixture's either, as far as one can tell.
    names_other_lamp_ = spoken_of;
    if (!found) return;
    Claim& claim = add("equivalent");
    claim.value = number_of(found->text(1)) * (found->text(2) == "kw" ? 1000 : 1);
    std::string says = bare(found->text(3));
    for (const char* word : {" lamp", " light", " fixture", " bulb"})
      if (const auto at = says.rfind(word);
          at != std::string::npos && at + std::string_view(word).size() == says.size())
        says.resize(at);
    if (says == "lamp" || says == "light" || says == "fixture" || says == "bulb") says.clear();
    claim.says = says;
    // Others beside it would be lamps that are counted: "two 60 W bulbs".
    names_other_lamp_ =
        names_other_lamp_ && Pattern(watts).find(text_).has_value() && text_.find(',') == std::string::npos;
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
    static const std::string unit_pattern = R"((cm|mm|m|inch(?:es)?|in|ft|feet|foot|"|')(?![a-z]))";
    auto found = take(number_pattern + R"(\s*)" + length_pattern + R"(\s*(?:-|to|and)\s*)" + number_pattern + R"(\s*)" +
                      unit_pattern);
    if (!found) found = take(number_pattern + R"(\s*()())" + unit_pattern);
    if (!found) return;
    const std::string unit = length_symbol(found->text(4)),
                      first = found->text(2).empty() ? unit : length_symbol(found->text(2));
    if (unit.empty() || first.empty()) return;
    const double low = meters_of(number_of(found->text(1)), first),
                 high = found->text(3).empty() ? low : meters_of(number_of(found->text(3)), unit);
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
    if ((!kind_.empty() && kind_ != "power_w") || names_other_lamp_) return;
    const auto found = take(R"((?:(\d+)\s*x\s*)?)" + number_pattern + R"(\s*(kw|w)(?:atts?)?(?![a-z/]))");
    if (!found) return;
    const double value = number_of(found->text(2)) * (found->text(3) == "kw" ? 1000 : 1) *
                         (found->has(1) ? number_of(found->text(1)) : 1);
    add("power_w").value = value;
  }

  std::string words_, text_;
  std::string kind_;
  std::optional<Claim> over_;  ///< an area that a mean of light is stated over
  bool unclear_ = false, names_other_lamp_ = false;
  std::vector<Claim> claims_;
};

}  // namespace

std::vector<std::string> stages_in_words(std::string_view text) {
  const std::string low = lowered(text);
  struct Named {
    const char* stage;
    std::initializer_list<const char*> words;
  };
  static const std::array<Named, 5> stages{{{"flowering & fruiting", {"flower", "fruit", "bloom"}},
                                            {"propagation", {"propagat", "seedling", "cutting", "germinat", "clone"}},
                                            {"leafy & herbs", {"leafy", "herb", "microgreen", "salad", "lettuce"}},
                                            {"high light", {"high light"}},
                                            {"young plants", {"young", "veg"}}}};
  std::vector<std::string> found;
  for (const Named& named : stages)
    if (has_word(low, named.words)) found.emplace_back(named.stage);
  return found;
}

std::string stage_in_words(std::string_view text) {
  const auto stages = stages_in_words(text);
  return stages.empty() ? std::string() : stages.front();
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
    std::string left;
    std::vector<Claim> claims;
    if (part.size() <= longest_part) {
      SentenceReader reader(part, kind);
      claims = reader.read();
      left = reader.left_over();
    }
    const auto unread = std::erase_if(claims, [](const Claim& c) { return claim_fault(c) || !is_stated(c); });
    // Half of what makes no sense is not taken for the whole.
    if (unread > 0) claims.clear();
    if (claims.empty()) left = part;
    if (!left.empty()) split.rest += (split.rest.empty() ? "" : "; ") + left;
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
