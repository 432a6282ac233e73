#include "record/fact_sheet.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "record/faults.h"
#include "record/kinds.h"

namespace sunbreak::record {
namespace {

using enum FactKind::Holds;

constexpr std::string_view body = "Size and weight", came = "How it came", driver = "Driver", emitters = "Emitters",
                           safety = "Protection and listing", warranty = "Warranty", cooling = "Cooling and noise",
                           cord = "Cord", dimming = "Dimming", color = "Color, as a spectrometer shows it",
                           chaining = "Chaining", age = "Age";

const std::vector<FactKind>& all_kinds() {
  static const std::vector<FactKind> kinds{
      {"weight", body, "Weight", Number, "kg", 0.01, 500},
      {"outer_length_m", body, "Outer length", Length, "m", 0.01, 20},
      {"outer_width_m", body, "Outer width", Length, "m", 0.01, 20},
      {"outer_height_m", body, "Outer height", Length, "m", 0.005, 5},
      {"condition", came, "Condition", Choice, "", 0, 0, {"new", "opened before", "used", "damaged"}},
      {"contents", came, "In the box", Words, "", 0, 0, {}, "such as: lamp, 2 hangers, cord, no manual"},
      {"assembly", came, "Assembly", Words, "", 0, 0, {}, "such as: bars clip in, one screw each"},
      {"assembly_min", came, "Assembly took", Number, "min", 0, 10000},
      {"driver_kind",
       driver,
       "Driver",
       Choice,
       "",
       0,
       0,
       {"built in", "apart, on a cord", "electronic ballast", "magnetic ballast", "none"}},
      {"driver_place", driver, "Its place", Words, "", 0, 0, {}, "such as: on top, over the middle"},
      {"driver_removable", driver, "Comes off", Choice, "", 0, 0, {"yes", "no"}},
      {"emitter_count", emitters, "Emitters", Count, "", 1, 1e6},
      {"emitter_mix", emitters, "Mix", Words, "", 0, 0, {}, "such as: 288 white, 48 red at 660 nm"},
      {"lenses", emitters, "Lenses", Choice, "", 0, 0, {"none", "lenses", "reflectors", "diffuser", "clear cover"}},
      {"ip_code", safety, "Dust and water", ProtectionCode, "", 0, 0, {}, "such as: IP65"},
      {"listing_body", safety, "Listed by", Words, "", 0, 0, {}, "the body, as printed"},
      {"listing_number", safety, "Number", Words, "", 0, 0, {}, "as printed"},
      {"warranty_years", warranty, "Warranty", Number, "years", 0, 50},
      {"warranty_return", warranty, "Return paid by", Choice, "", 0, 0, {"maker", "seller", "buyer"}},
      {"cooling", cooling, "Cooling", Choice, "", 0, 0, {"passive", "fan", "liquid"}},
      {"noise_db", cooling, "Noise", Number, "dB(A)", 0, 130},
      {"noise_distance_m", cooling, "at a distance of", Length, "m", 0.01, 20},
      {"noise_words", cooling, "Noise in words", Words, "", 0, 0, {}, "such as: none; a hum at half"},
      {"cord_length_m", cord, "Length", Length, "m", 0.05, 100},
      {"plug", cord, "Plug", Words, "", 0, 0, {}, "as printed on it"},
      {"voltages", cord, "Voltages", Words, "", 0, 0, {}, "such as: 100–277 V"},
      {"dimming", dimming, "Dimmer", Choice, "", 0, 0, {"none", "knob", "tool", "steps", "controller"}},
      {"dimming_low_pct", dimming, "Range, lowest", Number, "%", 0, 200},
      {"dimming_high_pct", dimming, "Range, highest", Number, "%", 0, 200},
      {"dimming_steps", dimming, "Steps", Count, "", 1, 1000},
      {"color_temperature_k", color, "Color temperature", Number, "K", 500, 50000},
      {"rendering_ra", color, "Color rendering", Number, "Ra", 0, 100},
      {"uv_present", color, "UV", Choice, "", 0, 0, {"present", "none"}},
      {"far_red_present", color, "Far red", Choice, "", 0, 0, {"present", "none"}},
      {"chain_light", chaining, "Units on one controller", Count, "", 0, 10000},
      {"chain_power", chaining, "Units on one cord", Count, "", 0, 1000},
      {"chain_limit", chaining, "Limits", Words, "", 0, 0, {}, "such as: 1,600 W in all"},
      {"hours_run", age, "Hours already run", Number, "h", 0, 1e6},
      {"made_on", age, "Made", Day, "", 0, 0, {}, "year-month-day"},
      {"bought_on", age, "Bought", Day, "", 0, 0, {}, "year-month-day"}};
  return kinds;
}

}  // namespace

std::span<const FactKind> fact_kinds() { return all_kinds(); }

const FactKind* fact_kind(std::string_view name) {
  const auto& kinds = all_kinds();
  const auto found = std::ranges::find(kinds, name, &FactKind::name);
  return found == kinds.end() ? nullptr : &*found;
}

const BoxFact* box_fact(const TestRecord& record, std::string_view name, std::string_view source) {
  const auto found =
      std::ranges::find_if(record.box_facts, [&](const BoxFact& f) { return f.name == name && f.source == source; });
  return found == record.box_facts.end() ? nullptr : &*found;
}

std::optional<std::string> fact_fault(const BoxFact& fact) {
  const FactKind* kind = fact_kind(fact.name);
  if (!kind) return "the name of a fact that there is";
  const bool number = kind->holds == Number || kind->holds == Length || kind->holds == Count;
  if (number != fact.value.has_value() || number != fact.words.empty()) return number ? "a number" : "words";
  switch (kind->holds) {
    case Number:
    case Length:
    case Count:
      if (!(*fact.value >= kind->least && *fact.value <= kind->most) ||
          (kind->holds == Count && *fact.value != std::floor(*fact.value)))
        return fmt::format("{}{:g} to {:g}{}{}", kind->holds == Count ? "a whole number, " : "", kind->least,
                           kind->most, kind->unit.empty() ? "" : " ", kind->unit);
      return {};
    case Choice:
      if (std::ranges::find(kind->choices, fact.words) == kind->choices.end())
        return fmt::format("{}", fmt::join(kind->choices, ", "));
      return {};
    case Day:
      return value_fault(*kind_of<Test>().column("tested_on"), std::string_view(fact.words));
    case ProtectionCode:
      return is_protection_code(fact.words) ? std::nullopt : std::optional<std::string>("a code such as IP65");
    case Words:
      return {};
  }
  return {};
}

bool is_protection_code(std::string_view text) {
  if (!text.starts_with("IP") || text.size() < 4) return false;
  const auto within = [](char c, char most) { return c == 'X' || (c >= '0' && c <= most); };
  if (!within(text[2], '6') || !within(text[3], '9')) return false;
  std::string_view rest = text.substr(4);
  if (text[3] == '9' && rest.starts_with("K")) rest.remove_prefix(1);
  for (const std::string_view letters : {"ABCD", "HMSW"})
    if (!rest.empty() && letters.find(rest.front()) != std::string_view::npos) rest.remove_prefix(1);
  return rest.empty();
}

std::string protection_words(std::string_view code) {
  if (!is_protection_code(code)) return {};
  constexpr std::string_view solids[] = {"no protection from touch or dust",
                                         "nothing over 50 mm gets in",
                                         "nothing over 12.5 mm gets in",
                                         "nothing over 2.5 mm gets in",
                                         "nothing over 1 mm gets in",
                                         "protected from dust",
                                         "dust tight"};
  constexpr std::string_view water[] = {"no protection from water", "drops from above",         "drops when tilted",
                                        "spray from above",         "splashes from all sides",  "jets of water",
                                        "strong jets of water",     "a short time under water", "lasting under water",
                                        "hot jets from close by"};
  const auto said = [](char c, std::span<const std::string_view> words) {
    return c == 'X' ? std::string_view("not tested") : words[static_cast<std::size_t>(c - '0')];
  };
  return fmt::format("dust: {}; water: {}", said(code[2], solids), said(code[3], water));
}

std::string_view listing_caution() {
  return "A listing says that a sample met a safety standard for shock and fire; it says nothing of light, and local "
         "codes and a licensed electrician decide what may be installed where.";
}

std::optional<double> cost_of(const Fixture& f) {
  if (!f.price) return {};
  return *f.price * (1 - f.discount_pct.value_or(0) / 100) + f.shipping.value_or(0);
}

}  // namespace sunbreak::record
