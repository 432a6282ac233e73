#include "exchange/spectra/light_unit.h"

#include <algorithm>
#include <array>
#include <string>
#include <vector>

#include "core/quantity/lower_case.h"

namespace sunbreak::exchange {
namespace {

void replace_all(std::string& text, std::string_view from, std::string_view to) {
  for (std::size_t at = text.find(from); at != std::string::npos; at = text.find(from, at + to.size()))
    text.replace(at, from.size(), to);
}

/// Lower-case words; "µ" and "μ" are u, powers are digits, so that "W·m⁻²·nm⁻¹", "W/m^2/nm" and "w m-2 nm-1" are alike.
std::vector<std::string> unit_words(std::string_view text) {
  std::string plain(text);
  for (const auto& [from, to] : {std::pair{"µ", "u"},
                                 {"μ", "u"},
                                 {"²", "2"},
                                 {"⁻", "-"},
                                 {"¹", "1"},
                                 {"·", " "},
                                 {"⋅", " "},
                                 {"^", ""},
                                 {"**", ""},
                                 {"-2", "2"},
                                 {"-1", "1"}})
    replace_all(plain, from, to);
  plain = lower_case(plain);
  std::vector<std::string> words;
  std::string word;
  for (const char c : plain + " ") {
    if ((c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || static_cast<unsigned char>(c) >= 0x80)
      word += c;
    else if (!word.empty())
      words.push_back(std::exchange(word, {}));
  }
  return words;
}

bool any_of(const std::vector<std::string>& words, std::initializer_list<std::string_view> wanted) {
  return std::any_of(words.begin(), words.end(), [&](const std::string& word) {
    return std::find(wanted.begin(), wanted.end(), word) != wanted.end();
  });
}

bool any_starts(const std::vector<std::string>& words, std::initializer_list<std::string_view> wanted) {
  return std::any_of(words.begin(), words.end(), [&](const std::string& word) {
    return std::any_of(wanted.begin(), wanted.end(), [&](std::string_view w) { return word.starts_with(w); });
  });
}

}  // namespace

std::optional<LightUnit> light_unit_in(std::string_view text) {
  const std::vector<std::string> words = unit_words(text);
  const bool photons = any_of(words, {"umol", "micromol", "mmol", "nmol", "mol", "ppfd", "pfd", "ppf", "spfd"}) ||
                       any_starts(words, {"photon", "quant", "micromole"});
  const bool watts = any_of(words, {"w", "mw", "uw", "kw"});
  const bool power =
      watts || any_of(words, {"power", "spd"}) ||
      any_starts(words, {"watt", "irradian", "radian", "radiometric", "energ", "milliwatt", "microwatt"});
  if (photons == power) return std::nullopt;
  LightUnit unit{photons ? SpectralScale::Photons : SpectralScale::Power, {}};
  if (!any_of(words, {"nm", "nm1"})) return unit;
  const bool by_m2 = any_of(words, {"m2"}), by_cm2 = any_of(words, {"cm2"});
  if (by_m2 == by_cm2) return unit;
  const double area = by_m2 ? 1 : 1e4;
  if (!photons && watts)
    unit.to_absolute = area * (any_of(words, {"kw"})   ? 1e3
                               : any_of(words, {"w"})  ? 1
                               : any_of(words, {"mw"}) ? 1e-3
                                                       : 1e-6);
  else if (photons && any_of(words, {"s", "s1", "sec", "sec1"}))
    unit.to_absolute = any_of(words, {"umol", "micromol"}) ? std::optional(area)
                       : any_of(words, {"mmol"})           ? std::optional(area * 1e3)
                       : any_of(words, {"nmol"})           ? std::optional(area * 1e-3)
                       : any_of(words, {"mol"})            ? std::optional(area * 1e6)
                                                           : std::nullopt;
  return unit;
}

std::string no_light_in(std::string_view text) {
  const std::vector<std::string> words = unit_words(text);
  if (any_of(words, {"lux", "lx", "lm"})) return "illuminance, not light per wavelength";
  if (any_starts(words, {"reflect", "transmit", "transmis", "absorb", "absorp"})) return "a share of light, not light";
  if (any_of(words, {"dark", "background", "baseline"})) return "the dark, not light";
  return {};
}

}  // namespace sunbreak::exchange
