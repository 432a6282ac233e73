#include "record/spectrum_samples.h"

#include <fmt/format.h>

#include <string_view>
#include <vector>

#include "core/quantity/number.h"

namespace sunbreak::record {
namespace {

/// Nothing where a word is no number, or there are more than a spectrum may have.
std::optional<std::vector<double>> numbers_of(std::string_view text) {
  std::vector<double> numbers;
  while (!(text = trimmed(text)).empty()) {
    const std::size_t end = std::min(text.find(' '), text.size());
    const auto number = parse_number(text.substr(0, end));
    if (!number || numbers.size() == most_samples) return std::nullopt;
    numbers.push_back(*number);
    text.remove_prefix(end);
  }
  return numbers;
}

std::string text_of_numbers(const std::vector<double>& numbers) {
  std::string text;
  for (const double number : numbers) text += fmt::format("{}{}", text.empty() ? "" : " ", number);
  return text;
}

}  // namespace

Result<Spectrum> spectrum_of(const MeasuredSpectrum& record) {
  const auto wavelengths = numbers_of(record.wavelengths_nm), light = numbers_of(record.light);
  if (!wavelengths || !light)
    return Problem{"The spectrum holds a word that is no number", "its light cannot be told", "bring it in again"};
  Spectrum spectrum{*wavelengths, *light, record.scale == "photons" ? SpectralScale::Photons : SpectralScale::Power,
                    record.absolute};
  if (const auto problem = spectrum_problem(spectrum)) return *problem;
  return spectrum;
}

void put_spectrum(MeasuredSpectrum& record, const Spectrum& spectrum) {
  record.wavelengths_nm = text_of_numbers(spectrum.wavelengths_nm);
  record.light = text_of_numbers(spectrum.values);
  record.scale = spectrum.scale == SpectralScale::Photons ? "photons" : "power";
  record.absolute = spectrum.absolute;
}

}  // namespace sunbreak::record
