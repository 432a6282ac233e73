#include "evaluation/light_words.h"

#include <fmt/format.h>

#include <cmath>

#include "core/quantity/normal_quantile.h"
#include "core/quantity/uncertain_text.h"

namespace sunbreak::evaluation {
namespace {

FoundValue scaled(const FoundValue& v, double by) { return {v.value * by, v.expanded * by}; }

/// Whether a value is surely not 0.
bool stands_out(const FoundValue& v) { return std::abs(v.value) > v.expanded; }

std::string unit_name(int unit, int units) {
  if (units == 1) return "the fixture";
  if (units == 2) return unit == 0 ? "the left unit" : "the right unit";
  return fmt::format("unit {} from the left", unit + 1);
}

FoundValue shown_length(const FoundValue& v, UnitSystem units) {
  return scaled(v, 1 / meters_per(surface_unit(units)));
}

std::string offset_sentence(const WholeLight& w, UnitSystem units) {
  const std::string unit(symbol(surface_unit(units)));
  std::string words;
  const auto add = [&](const FoundValue& v, const char* up, const char* down) {
    if (!stands_out(v)) return;
    const FoundValue size{std::abs(v.value), v.expanded};
    words += (words.empty() ? "" : " and ") + found_text(shown_length(size, units), 1, unit) + " " +
             (v.value > 0 ? up : down);
  };
  add(w.offset_x_m, "to the right", "to the left");
  add(w.offset_y_m, "away from the door", "toward the door");
  if (words.empty()) return "It hangs over the middle, as far as the readings tell.";
  return "It hangs " + words + " of the middle: move it back by that.";
}

/// From here on a lean that is not sure is worth a look.
constexpr double worth_a_look_deg = 0.5;

std::string lean_sentence(const WholeLight& w) {
  std::string words;
  const int units = static_cast<int>(w.roll_deg.size());
  double least = 0, likeliest = 0;
  std::string perhaps;
  // Sure for all leans together: of six that are none, one would pass its own ± in a quarter of all tests.
  const double all_together = std::max(1.0, normal_quantile(1 - 0.025 / (2.0 * units)) / 2);
  for (int unit = 0; unit < units; ++unit) {
    const auto u = static_cast<std::size_t>(unit);
    const auto add = [&](const FoundValue& v, const char* low, const char* other) {
      least = std::max(least, v.expanded);
      const std::string how = fmt::format("{}, its {} side lower", found_text({std::abs(v.value), v.expanded}, 1, "°"),
                                          v.value > 0 ? low : other);
      if (std::abs(v.value) > all_together * v.expanded)
        words += fmt::format("{}{} leans by {}: raise that side.", words.empty() ? "" : " Also ",
                             unit_name(unit, units), how);
      else if (const double sigmas = 2 * std::abs(v.value) / v.expanded;
               sigmas > std::max(likeliest, 1.0) && std::abs(v.value) >= worth_a_look_deg)
        likeliest = sigmas,
        perhaps = fmt::format("Perhaps {} leans, by {}: hold a level to it.", unit_name(unit, units), how);
    };
    add(w.roll_deg[u], "right", "left");
    add(w.pitch_deg[u], "far", "near");
  }
  if (words.empty())
    return perhaps.empty() ? fmt::format("It is level to ± {}°.", told(least, least, 1).expanded) : perhaps;
  words[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(words[0])));
  return words;
}

std::string room_sentence(const WholeLight& w, UnitSystem units) {
  std::string words;
  if (!std::isnan(w.wall_reflectance.value))
    words = "The walls send back " + found_text(scaled(w.wall_reflectance, 100), 0, "%") + " of what they get; ";
  else
    words = "Nothing around sends light back; ";
  const Utilization &low = w.utilization.front(), &high = w.utilization.back();
  words += fmt::format("{:.0f} % of the whole light lands on the footprint at {}", 100 * low.share.value,
                       length_text(low.height_m, units));
  if (w.utilization.size() > 1)
    words += fmt::format(", {:.0f} % at {}", 100 * high.share.value, length_text(high.height_m, units));
  return words + ".";
}

}  // namespace

std::string plain_number(double value, int decimals) { return told(value, unread, decimals).value; }

std::string found_text(const FoundValue& v, int decimals, const std::string& unit) {
  return std::isnan(v.value) ? "not known" : uncertain_text(v.value, v.expanded, decimals, unit);
}

std::vector<std::string> light_sentences(const TestLight& light, UnitSystem units) {
  const WholeLight& w = light.found();
  if (!w.fits) {
    std::string reason = w.reason, advice = w.advice;
    reason[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(reason[0])));
    advice[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(advice[0])));
    return {"No figure of the whole light.", reason + ".", advice + "."};
  }
  std::string gives = "The fixture gives " + found_text(light.ppf_umol_s(), 0, "µmol/s") +
                      fmt::format(" in all at {} %", short_number(light.question().settings.front().percent, 1));
  if (!std::isnan(light.efficacy_umol_j().value))
    gives += ", " + found_text(light.efficacy_umol_j(), 2, "µmol per joule at the wall");
  return {gives + ".", offset_sentence(w, units) + " " + lean_sentence(w), room_sentence(w, units)};
}

std::vector<LightEstimate> light_estimates(const TestLight& light, UnitSystem units) {
  const WholeLight& w = light.found();
  std::vector<LightEstimate> all;
  if (!w.fits) return all;
  const std::string length(symbol(surface_unit(units)));
  all.push_back({"Whole PPF", light.ppf_umol_s(), 0, "µmol/s"});
  all.push_back({"Whole efficacy", light.efficacy_umol_j(), 2, "µmol/J"});
  for (const Utilization& u : w.utilization)
    all.push_back({"On the footprint, " + length_text(u.height_m, units), scaled(u.share, 100), 1, "%"});
  all.push_back({"Half angle of the beam", w.half_angle_deg, 0, "°"});
  if (!std::isnan(w.wall_reflectance.value))
    all.push_back({"Reflectance of the walls", scaled(w.wall_reflectance, 100), 0, "%"});
  all.push_back({"Off to the right", shown_length(w.offset_x_m, units), 1, length});
  all.push_back({"Off to the back", shown_length(w.offset_y_m, units), 1, length});
  const int count = static_cast<int>(w.roll_deg.size());
  for (int unit = 0; unit < count; ++unit) {
    const auto u = static_cast<std::size_t>(unit);
    const std::string whose = count == 1   ? "Lean"
                              : count == 2 ? (unit == 0 ? "Left" : "Right")
                                           : fmt::format("Unit {}", unit + 1);
    all.push_back({whose + ", right side low", w.roll_deg[u], 1, "°"});
    all.push_back({whose + ", far side low", w.pitch_deg[u], 1, "°"});
    if (count > 1) all.push_back({whose + ", part of light", scaled(w.unit_share[u], 100), 1, "%"});
  }
  all.push_back({"Heights off, all alike", shown_length(w.height_offset_m, units), 1, length});
  return all;
}

}  // namespace sunbreak::evaluation
