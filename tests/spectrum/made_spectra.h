#pragma once

#include <functional>
#include <random>
#include <vector>

#include "core/spectrum/spectrum.h"

namespace sunbreak::test {

using Light = std::function<double(double nm)>;

/// A light sampled at these wavelengths.
Spectrum sampled(const Light& light, const std::vector<double>& wavelengths_nm,
                 SpectralScale scale = SpectralScale::Power);

std::vector<double> every(double step_nm, double from_nm = 380, double to_nm = 780);

/// Wavelengths with steps of `least_nm` to `most_nm` by chance, from end to end.
std::vector<double> irregular(std::mt19937_64& chance, double least_nm, double most_nm, double from_nm = 380,
                              double to_nm = 780);

/// Lights as lamps give them, with chance in all of their parts; power per nm.
Light white_led(std::mt19937_64& chance);
Light grow_led(std::mt19937_64& chance);  ///< white with red and far red: its color may lie far from the locus
Light fluorescent(std::mt19937_64& chance);
Light sodium(std::mt19937_64& chance);
Light planckian(double temperature_k);

double gauss(double nm, double center_nm, double sigma_nm);

}  // namespace sunbreak::test
