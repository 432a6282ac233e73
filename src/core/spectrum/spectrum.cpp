#include "core/spectrum/spectrum.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace sunbreak {
namespace {

constexpr double gap_over_nm = 10, gap_over_usual = 4;
constexpr std::size_t gaps_over_samples = 20;  ///< fewer were written by hand
constexpr double hardly_bent = 0.001;          ///< departure of the cubic from the straight line, of the light around
constexpr double bends_alike = 0.75;           ///< neighbors' bends differ by less than this share of the larger
constexpr double bends_hardly = 0.004;         ///< or by less than this share of the light around
constexpr double largest_departure = 0.05;     ///< of the cubic from the straight line, of the light around

double median_step(const std::vector<double>& nm) {
  std::vector<double> steps;
  for (std::size_t i = 1; i < nm.size(); ++i) steps.push_back(nm[i] - nm[i - 1]);
  const auto middle = steps.begin() + static_cast<std::ptrdiff_t>(steps.size() / 2);
  std::nth_element(steps.begin(), middle, steps.end());
  return *middle;
}

}  // namespace

std::optional<Problem> spectrum_problem(const Spectrum& s) {
  const auto& nm = s.wavelengths_nm;
  if (nm.size() != s.values.size())
    return Problem{fmt::format("There are {} wavelengths and {} values", nm.size(), s.values.size()),
                   "which value belongs to which wavelength is not known", "give one value for each wavelength"};
  if (nm.size() < 2)
    return Problem{nm.empty() ? "There is no wavelength with a value" : "There is only one wavelength with a value",
                   "a spectrum is light over a range of wavelengths", "give two columns, wavelength in nm and light"};
  if (nm.size() > most_samples)
    return Problem{fmt::format("There are {} wavelengths", nm.size()),
                   fmt::format("no spectrometer has that many, and at most {} are taken", most_samples),
                   "check that the file is a spectrum"};
  double largest = 0;
  for (std::size_t i = 0; i < nm.size(); ++i) {
    if (!(nm[i] >= shortest_nm && nm[i] <= longest_nm))
      return Problem{fmt::format("A wavelength is {:g} nm", nm[i]),
                     fmt::format("wavelengths of light lie between {:g} and {:g} nm", shortest_nm, longest_nm),
                     "check that the first column holds wavelengths in nm"};
    if (i > 0 && !(nm[i] > nm[i - 1]))
      return Problem{fmt::format("After {:g} nm comes {:g} nm", nm[i - 1], nm[i]), "wavelengths have to rise",
                     "sort the rows, and give each wavelength once"};
    if (!std::isfinite(s.values[i]) || std::fabs(s.values[i]) > 1e12)
      return Problem{fmt::format("The light at {:g} nm is {:g}", nm[i], s.values[i]), "that is no amount of light",
                     "take the row out, or measure again"};
    largest = std::max(largest, s.values[i]);
  }
  if (!(largest > 1e-15))
    return Problem{"No value is above zero", "there is no light in it to be worked with",
                   "check that the right column was taken, and that the dark was not taken off twice"};
  return std::nullopt;
}

SpectralCurve::SpectralCurve(Spectrum spectrum) : spectrum_(std::move(spectrum)) {
  const auto& x = spectrum_.wavelengths_nm;
  const auto& v = spectrum_.values;
  usual_step_nm_ = median_step(x);
  segments_.resize(x.size() - 1);
  for (std::size_t i = 0; i + 1 < x.size(); ++i) {
    const double h = x[i + 1] - x[i];
    segments_[i].slope = (v[i + 1] - v[i]) / h;
    segments_[i].gap = x.size() > gaps_over_samples && h > gap_over_nm && h > gap_over_usual * usual_step_nm_;
    if (segments_[i].gap) gaps_.push_back({x[i], x[i + 1]});
  }
  for (std::size_t i = 1; i + 2 < x.size(); ++i) {
    if (segments_[i - 1].gap || segments_[i].gap || segments_[i + 1].gap) continue;
    const double h = x[i + 1] - x[i];
    const double before = (segments_[i].slope - segments_[i - 1].slope) / (x[i + 1] - x[i - 1]);
    const double after = (segments_[i + 1].slope - segments_[i].slope) / (x[i + 2] - x[i]);
    const double around = std::max({std::fabs(v[i - 1]), std::fabs(v[i]), std::fabs(v[i + 1]), std::fabs(v[i + 2])});
    const double differ = std::fabs(after - before) * h * h;
    const double larger = std::max(std::fabs(after), std::fabs(before)) * h * h;
    if (differ > bends_alike * larger && differ > bends_hardly * around) continue;
    if (larger / 4 > largest_departure * around) continue;
    // The cubic through all four, in Newton's form: divided differences go from `before` at x[i − 1] to `after` at
    // x[i + 2].
    const double twist = (after - before) / (x[i + 2] - x[i - 1]);
    segments_[i].bend = before + twist * (x[i] - x[i - 1]);
    segments_[i].twist = twist;
  }
}

SpectralCurve SpectralCurve::drawn(Spectrum spectrum) {
  SpectralCurve curve(std::move(spectrum));
  for (Segment& segment : curve.segments_) segment.bend = segment.twist = 0, segment.gap = false;
  curve.gaps_.clear();
  return curve;
}

SpectralCurve SpectralCurve::straightened() const {
  SpectralCurve other = *this;
  const auto& x = spectrum_.wavelengths_nm;
  const auto& v = spectrum_.values;
  for (std::size_t i = 0; i < segments_.size(); ++i) {
    const double h = x[i + 1] - x[i];
    const double departure = h * h / 4 * std::fabs(segments_[i].bend + segments_[i].twist * h / 2);
    if (departure > hardly_bent * std::max(std::fabs(v[i]), std::fabs(v[i + 1])))
      other.segments_[i].bend = other.segments_[i].twist = 0;
  }
  return other;
}

WavelengthRange SpectralCurve::range() const {
  return {spectrum_.wavelengths_nm.front(), spectrum_.wavelengths_nm.back()};
}

double SpectralCurve::measured_nm(WavelengthRange range) const {
  const auto overlap = [&](WavelengthRange other) {
    return std::max(0.0, std::min(range.to_nm, other.to_nm) - std::max(range.from_nm, other.from_nm));
  };
  double measured = overlap(this->range());
  for (const WavelengthRange& gap : gaps_) measured -= overlap(gap);
  return measured;
}

bool SpectralCurve::covers(WavelengthRange wanted, double slack_nm) const {
  const WavelengthRange inner{std::max(wanted.from_nm, range().from_nm), std::min(wanted.to_nm, range().to_nm)};
  return inner.from_nm <= wanted.from_nm + slack_nm && inner.to_nm >= wanted.to_nm - slack_nm &&
         measured_nm(inner) >= inner.width_nm() - 1e-9;
}

std::size_t SpectralCurve::segment_of(double nm) const {
  const auto& x = spectrum_.wavelengths_nm;
  const auto after = std::upper_bound(x.begin(), x.end(), nm);
  if (after == x.begin()) return 0;
  return std::min(static_cast<std::size_t>(after - x.begin()) - 1, segments_.size() - 1);
}

double SpectralCurve::value_in(std::size_t i, double nm) const {
  const Segment& segment = segments_[i];
  const double s = nm - spectrum_.wavelengths_nm[i], h = spectrum_.wavelengths_nm[i + 1] - spectrum_.wavelengths_nm[i];
  return spectrum_.values[i] + segment.slope * s + s * (s - h) * (segment.bend + segment.twist * s);
}

double SpectralCurve::value(double nm) const {
  const WavelengthRange all = range();
  const std::size_t i = segment_of(nm);
  if (!(nm >= all.from_nm && nm <= all.to_nm) || segments_[i].gap) return std::numeric_limits<double>::quiet_NaN();
  return value_in(i, nm);
}

double SpectralCurve::photons(double nm) const {
  return spectrum_.scale == SpectralScale::Photons ? value(nm) : value(nm) * nm;
}

double SpectralCurve::power(double nm) const {
  return spectrum_.scale == SpectralScale::Power ? value(nm) : value(nm) / nm;
}

}  // namespace sunbreak
