#include "book/demo/demo_spectra.h"

#include <cmath>

#include "record/spectrum_samples.h"

namespace sunbreak::book {
namespace {

struct Hump {
  double height, center_nm, left_nm, right_nm;
};

record::MeasuredSpectrum made_of(const char* name, double percent, std::initializer_list<Hump> humps) {
  Spectrum spectrum;
  spectrum.absolute = true;
  for (int nm = 350; nm <= 800; nm += 2) {
    double power = 0;
    for (const Hump& hump : humps) {
      const double z = (nm - hump.center_nm) / (nm < hump.center_nm ? hump.left_nm : hump.right_nm);
      power += hump.height * std::exp(-z * z / 2);
    }
    spectrum.wavelengths_nm.push_back(nm);
    spectrum.values.push_back(std::round(power * 1e5) / 1e5);
  }
  record::MeasuredSpectrum row;
  row.name = name;
  record::put_spectrum(row, spectrum);
  row.origin = "ostler-center.csv";
  row.taken_at = "2026-04-18T15:20:00Z";
  row.percent = percent;
  row.height_m = 0.45;
  return row;
}

}  // namespace

std::vector<record::MeasuredSpectrum> sample_spectra() {
  return {made_of("center", 100, {{0.62, 451, 8, 10}, {0.83, 572, 46, 62}, {2.1, 659, 9, 8}, {0.21, 731, 12, 13}}),
          made_of("center, whites alone", 100, {{0.62, 451, 8, 10}, {0.83, 572, 46, 62}})};
}

}  // namespace sunbreak::book
