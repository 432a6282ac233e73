#pragma once

#include <string>

#include "damage.h"

/// Spectra and tables of pairs in the forms that the importers know, and the judgement whether what was taken from a
/// damaged one could mislead.
namespace sunbreak::damage {

/// A file of one kind, whole, with what it holds: rows of two numbers.
struct ValidMeterFile {
  enum Kind { Spectrum, Cgats, Tm27, LuxPairs, SensorPairs } kind = Spectrum;
  std::string bytes;
  std::vector<std::pair<double, double>> truth;
};

ValidMeterFile make_valid_meter_file(Random& random);

/// Misleading is: a pair of numbers taken that stands in no line of the damaged file; or, of a spectrum with nothing
/// said, a wavelength that the whole file does not have, or one missing between others that were taken.
Judgement judge(const ValidMeterFile& valid, const std::string& damaged);

}  // namespace sunbreak::damage
