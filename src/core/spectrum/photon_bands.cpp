#include "core/spectrum/photon_bands.h"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

#include "core/quantity/number.h"

namespace sunbreak {
namespace {

constexpr double not_known = std::numeric_limits<double>::quiet_NaN();
constexpr double enough_of_band = 0.8;
constexpr double least_ratio_below = 1e-4;

double ratio_of(const SpectralCurve& curve, WavelengthRange upper, WavelengthRange lower) {
  const double above = curve.photon_integral(upper), below = curve.photon_integral(lower);
  return below > 0 && below > least_ratio_below * above ? above / below : not_known;
}

}  // namespace

BandShare band_share(const SpectralCurve& curve, WavelengthRange band) {
  BandShare told{not_known, {}, curve.covers(band)};
  const WavelengthRange all = curve.range();
  if (curve.measured_nm(band) <= 0) return told;
  told.measured = {std::max(band.from_nm, all.from_nm), std::min(band.to_nm, all.to_nm)};
  const double whole = curve.photon_integral(all);
  if (whole > 0) told.share = curve.photon_integral(band) / whole;
  return told;
}

double photon_ratio(const SpectralCurve& curve, WavelengthRange upper, WavelengthRange lower) {
  for (const WavelengthRange range : {upper, lower})
    if (curve.measured_nm(range) < enough_of_band * range.width_nm()) return not_known;
  return ratio_of(curve, upper, lower);
}

double whole_photon_ratio(const SpectralCurve& curve, WavelengthRange upper, WavelengthRange lower) {
  return curve.covers(upper) && curve.covers(lower) ? ratio_of(curve, upper, lower) : not_known;
}

Result<WavelengthRange> own_band(std::string_view text) {
  std::string plain(trimmed(text));
  if (plain.ends_with("nm")) plain.resize(plain.size() - 2);
  for (const std::string_view between : {"–", "−", "-", " to ", "…"})
    if (const auto at = plain.find(between); at != std::string::npos && at > 0) {
      const auto from = parse_number(trimmed(std::string_view(plain).substr(0, at)));
      const auto to = parse_number(trimmed(std::string_view(plain).substr(at + between.size())));
      if (from && to && *from >= shortest_nm && *to <= longest_nm && *from < *to) return WavelengthRange{*from, *to};
    }
  return Problem{fmt::format("'{}' is no band of wavelengths", text.substr(0, 40)), "its photons cannot be told",
                 "give two wavelengths in nm, such as 640-680"};
}

}  // namespace sunbreak
