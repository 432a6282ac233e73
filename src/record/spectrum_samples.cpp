#include "record/spectrum_samples.h"

#include <fmt/format.h>

#include <string_view>
#include <vector>

#include "core/quantity/number.h"

namespace sunbreak::record {
namespace {

/// Photons by wavelength; nothing where either text is empty or they make no spectrum.
std::optional<Spectrum> photons_of(const std::string& wavelengths_nm, const std::string& photons) {
  if (wavelengths_nm.empty()) return std::nullopt;
  auto nm = numbers_of(wavelengths_nm), light = numbers_of(photons);
  if (!nm || !light) return std::nullopt;
  Spectrum spectrum{std::move(*nm), std::move(*light), SpectralScale::Photons, false};
  return spectrum_problem(spectrum) ? std::nullopt : std::optional(std::move(spectrum));
}

void put_photons(std::string& wavelengths_nm, std::string& photons, const Spectrum& light) {
  std::vector<double> values = light.values;
  if (light.scale == SpectralScale::Power)
    for (std::size_t i = 0; i < values.size(); ++i) values[i] *= light.wavelengths_nm[i];
  wavelengths_nm = text_of_numbers(light.wavelengths_nm);
  photons = text_of_numbers(values);
}

}  // namespace

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

std::optional<SpectralResponse> response_of(const Meter& meter) {
  if (meter.response_nm.empty()) return std::nullopt;
  auto nm = numbers_of(meter.response_nm), values = numbers_of(meter.response);
  if (!nm || !values) return std::nullopt;
  SpectralResponse response{std::move(*nm), std::move(*values)};
  return response_problem(response) ? std::nullopt : std::optional(std::move(response));
}

std::optional<Spectrum> reference_light_of(const Meter& meter) {
  return photons_of(meter.reference_light_nm, meter.reference_light);
}

std::optional<Spectrum> light_of(const FittedLuxFactor& factor) {
  return photons_of(factor.wavelengths_nm, factor.photons);
}

void put_response(Meter& meter, const SpectralResponse& response) {
  meter.response_nm = text_of_numbers(response.wavelengths_nm);
  meter.response = text_of_numbers(response.per_photon);
}

void put_reference_light(Meter& meter, const Spectrum& light) {
  put_photons(meter.reference_light_nm, meter.reference_light, light);
}

void put_light(FittedLuxFactor& factor, const Spectrum& light) {
  put_photons(factor.wavelengths_nm, factor.photons, light);
}

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
