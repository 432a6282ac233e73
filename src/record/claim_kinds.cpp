#include "record/claim_kinds.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>

#include "record/fact_sheet.h"

namespace sunbreak::record {
namespace {

const std::vector<ClaimUnit> watt_units{{"W"}, {"kW", 1000}}, percent_units{{"%"}},
    length_units{{"m"}, {"cm", 0.01}, {"mm", 0.001}, {"in", 0.0254}, {"ft", 0.3048}};

const std::vector<ClaimKind>& all_claim_kinds() {
  static const std::vector<ClaimKind> kinds{
      {.name = "power_w", .label = "Power", .units = watt_units},
      {.name = "current_a", .label = "Mains current", .units = {{"A"}, {"mA", 0.001}}, .most = 1000},
      {.name = "ppf_umol_s", .label = "PPF", .units = {{"µmol/s"}}},
      {.name = "efficacy_umol_j",
       .label = "Efficacy",
       .units = {{"µmol/J"}},
       .sayings = {{"", "not said whether the driver counts"},
                   {"with driver", "with driver losses"},
                   {"without driver", "without driver losses"}}},
      {.name = "coverage", .label = "Coverage", .holds = ClaimKind::Size, .hint = "such as: flowers 90 × 90 cm"},
      {.name = "mean_ppfd", .label = "Mean PPFD", .units = {{"µmol/m²/s"}}, .most = 20000},
      {.name = "height_m",
       .label = "Hanging height",
       .holds = ClaimKind::Range,
       .units = length_units,
       .least = 0.01,
       .most = 10,
       .hint = "such as: 30 to 45 cm"},
      {.name = "dimming_range",
       .label = "Dimming range",
       .holds = ClaimKind::Range,
       .units = percent_units,
       .most = 200,
       .hint = "such as: 20 to 100 %"},
      {.name = "dimming_steps", .label = "Dimming steps", .least = 1, .most = 1000, .whole = true},
      {.name = "boost_pct", .label = "Boost", .units = percent_units, .least = 100, .most = 200},
      {.name = "beam_angle_deg", .label = "Beam angle", .units = {{"°"}}, .least = 1, .most = 180},
      {.name = "equivalent",
       .label = "Stands in for",
       .holds = ClaimKind::Lamp,
       .units = watt_units,
       .hint = "such as: replaces a 600 W sodium lamp"},
      {.name = "evenness",
       .label = "Even light",
       .units = {{""}, {"%", 0.01}},
       .most = 1000,
       .sayings = {{"lowest_over_mean", "lowest ÷ mean"},
                   {"lowest_over_highest", "lowest ÷ highest"},
                   {"highest_over_lowest", "highest ÷ lowest"},
                   {"", "not said which ratio"}}},
      {.name = "color_temperature_k", .label = "Color temperature", .units = {{"K"}}, .least = 500, .most = 50000},
      {.name = "rendering_ra", .label = "Color rendering", .units = {{"Ra"}}, .most = 100},
      {.name = "uv_present", .label = "UV", .holds = ClaimKind::Presence, .most = 1},
      {.name = "far_red_present", .label = "Far red", .holds = ClaimKind::Presence, .most = 1},
      {.name = "surface_temperature_c",
       .label = "Surface temperature",
       .units = {{"°C"}, {"°F", 5.0 / 9, -160.0 / 9}},
       .most = 500},
      {.name = "noise_db", .label = "Noise", .units = {{"dB(A)"}}, .most = 130},
      {.name = "power_factor", .label = "Power factor", .most = 1},
      {.name = "weight_kg",
       .label = "Weight",
       .units = {{"kg"}, {"g", 0.001}, {"lb", 0.45359237}},
       .least = 0.01,
       .most = 500},
      {.name = "lifetime_h", .label = "Lifetime", .units = {{"h"}, {"years of 12 h a day", 4383}}},
      {.name = "map", .label = "Map", .holds = ClaimKind::Map}};
  return kinds;
}

std::string number_words(const Claim& claim, double kept, UnitSystem units) {
  const ClaimUnit& unit = unit_of(claim);
  if (claim.kind == "height_m" && claim.unit.empty()) return length_text(kept, units);
  const std::string number = short_number(unit.stated(kept), 3);
  return unit.symbol.empty() ? number : unit.symbol == "°" ? number + "°" : fmt::format("{} {}", number, unit.symbol);
}

std::string range_words(const Claim& claim, UnitSystem units) {
  if (!claim.value_to) return number_words(claim, *claim.value, units);
  const std::string low = number_words(claim, *claim.value, units), high = number_words(claim, *claim.value_to, units);
  const auto blank = low.rfind(' ');
  return (blank == std::string::npos ? low : low.substr(0, blank)) + " to " + high;
}

std::string_view saying_words(const ClaimKind& kind, const std::string& says) {
  const auto found = std::ranges::find(kind.sayings, says, &ClaimSaying::id);
  return found == kind.sayings.end() ? std::string_view() : found->words;
}

/// What the facts of the box state, as claims of their own.
void add_stated_facts(std::vector<Claim>& claims, const TestRecord& record) {
  const auto claimed = [&](std::string_view kind) {
    return std::ranges::any_of(claims, [&](const Claim& c) { return c.kind == kind; });
  };
  const auto stated = [&](std::string_view name) -> std::optional<double> {
    const BoxFact* fact = box_fact(record, name, "stated");
    return fact ? fact->value : std::nullopt;
  };
  const auto add = [&](const char* kind, std::optional<double> value, std::optional<double> to = {}) {
    if (!value || claimed(kind)) return;
    Claim claim;
    claim.fixture_id = record.fixture.id, claim.kind = kind, claim.value = value, claim.value_to = to;
    claim.source = "the box's sheet";
    if (!claim_fault(claim)) claims.push_back(claim);
  };
  const auto low = stated("dimming_low_pct"), high = stated("dimming_high_pct");
  if (low && high && *low <= *high) add("dimming_range", low, high);
  add("weight_kg", stated("weight"));
  add("noise_db", stated("noise_db"));
}

}  // namespace

bool ClaimKind::may_name_state() const {
  return name == "power_w" || name == "current_a" || name == "ppf_umol_s" || name == "efficacy_umol_j" ||
         name == "coverage" || name == "evenness" || name == "surface_temperature_c" || name == "noise_db" ||
         name == "power_factor" || holds == ClaimKind::Map;
}

std::span<const ClaimKind> claim_kinds() { return all_claim_kinds(); }

const ClaimKind* claim_kind(std::string_view name) {
  const auto& kinds = all_claim_kinds();
  const auto found = std::ranges::find(kinds, name, &ClaimKind::name);
  return found == kinds.end() ? nullptr : &*found;
}

const ClaimUnit& unit_of(const Claim& claim) {
  static const ClaimUnit none{""};
  const ClaimKind* kind = claim_kind(claim.kind);
  if (!kind) return none;
  const auto found = std::ranges::find(kind->units, claim.unit, &ClaimUnit::symbol);
  return found == kind->units.end() ? kind->units.front() : *found;
}

std::optional<std::string> claim_fault(const Claim& claim) {
  const ClaimKind* kind = claim_kind(claim.kind);
  if (!kind) return "the name of a claim that there is";
  const auto within = [&](const std::optional<double>& v) { return !v || (*v >= kind->least && *v <= kind->most); };
  if (!within(claim.value) || !within(claim.value_to))
    return fmt::format("{:g} to {:g} {}", kind->least, kind->most, kind->units.front().symbol);
  if (claim.value && kind->whole && *claim.value != std::floor(*claim.value)) return "a whole number";
  if (claim.value && kind->holds == ClaimKind::Presence && *claim.value != 0 && *claim.value != 1) return "0 or 1";
  if (claim.value_to && (kind->holds != ClaimKind::Range || !claim.value || *claim.value_to < *claim.value))
    return "a range's upper end, at least its lower one";
  if (!claim.unit.empty() && std::ranges::find(kind->units, claim.unit, &ClaimUnit::symbol) == kind->units.end())
    return "a unit of its kind";
  if (!claim.says.empty() && !kind->sayings.empty() && saying_words(*kind, claim.says).empty())
    return "one of the words of its kind";
  if (!claim.map_ppfd.empty() && map_values(claim).empty())
    return fmt::format("{} PPFD of −5 to 20000 umol/m2/s, as many as columns times rows",
                       claim.map_columns.value_or(0) * claim.map_rows.value_or(0));
  return {};
}

bool is_stated(const Claim& claim) {
  const ClaimKind* kind = claim_kind(claim.kind);
  if (!kind) return false;
  switch (kind->holds) {
    case ClaimKind::Size:
      return claim.width_m && claim.depth_m;
    case ClaimKind::Map:
      return claim.width_m && claim.depth_m && (claim.height_m || !map_values(claim).empty());
    default:
      return claim.value.has_value();
  }
}

std::vector<Claim> claims_of(const TestRecord& record) {
  std::vector<Claim> claims = record.claims;
  add_stated_facts(claims, record);
  return claims;
}

std::string claimed_value_words(const Claim& claim, UnitSystem units) {
  const ClaimKind* kind = claim_kind(claim.kind);
  if (!kind || !is_stated(claim)) return claim.words;
  const std::string says(saying_words(*kind, claim.says));
  switch (kind->holds) {
    case ClaimKind::Size:
    case ClaimKind::Map:
      return (kind->holds == ClaimKind::Map ? "a map of " : "") + size_text(*claim.width_m, *claim.depth_m, units) +
             (claim.stage.empty() ? "" : ", " + claim.stage);
    case ClaimKind::Presence:
      return *claim.value != 0 ? "present" : "none";
    case ClaimKind::Lamp:
      return fmt::format("a {}{} of {}", claim.says,
                         claim.says.find("lamp") == std::string::npos ? (claim.says.empty() ? "lamp" : " lamp") : "",
                         number_words(claim, *claim.value, units));
    case ClaimKind::Range:
      if (claim.kind == "dimming_range" && !claim.value_to)
        return (*claim.value < 100 ? "down to " : "up to ") + number_words(claim, *claim.value, units);
      return range_words(claim, units) + (claim.stage.empty() ? "" : ", " + claim.stage);
    case ClaimKind::Number:
      return number_words(claim, *claim.value, units) + (says.empty() ? "" : ", " + says);
  }
  return claim.words;
}

std::string claim_words(const Claim& claim, UnitSystem units) {
  std::string words = claimed_value_words(claim, units);
  if (!is_stated(claim)) return words;
  if (claim.kind == "mean_ppfd" && claim.width_m && claim.depth_m)
    words += " over " + size_text(*claim.width_m, *claim.depth_m, units);
  if (claim.height_m) words += ", at " + length_text(*claim.height_m, units);
  if (claim.percent) words += fmt::format(", at {} %", short_number(*claim.percent, 1));
  if (!claim.walls.empty()) words += claim.walls == "open" ? ", without walls" : fmt::format(", {} walls", claim.walls);
  if (!claim.source.empty()) words += " · " + claim.source;
  if (!claim.stated_on.empty()) words += (claim.source.empty() ? " · " : ", ") + claim.stated_on;
  return words;
}

std::vector<double> map_values(const Claim& claim) {
  if (!claim.map_columns || !claim.map_rows) return {};
  const auto wanted = static_cast<std::size_t>(*claim.map_columns) * static_cast<std::size_t>(*claim.map_rows);
  std::vector<double> values;
  const char *at = claim.map_ppfd.data(), *end = at + claim.map_ppfd.size();
  while (at != end) {
    if (*at == ' ') {
      ++at;
      continue;
    }
    double value = 0;
    const auto [next, error] = std::from_chars(at, end, value);
    if (error != std::errc() || !(value >= least_ppfd && value <= most_ppfd) || (next != end && *next != ' ') ||
        values.size() == wanted)
      return {};
    values.push_back(value);
    at = next;
  }
  return values.size() == wanted ? values : std::vector<double>{};
}

void set_map(Claim& claim, int columns, int rows, std::span<const double> ppfd) {
  claim.map_columns = columns, claim.map_rows = rows;
  claim.map_ppfd.clear();
  for (const double value : ppfd) claim.map_ppfd += fmt::format("{}{}", claim.map_ppfd.empty() ? "" : " ", value);
}

}  // namespace sunbreak::record
