#include "spectrum/made_spectra.h"

#include <cmath>

#include "core/spectrum/color.h"

namespace sunbreak::test {
namespace {

double between(std::mt19937_64& chance, double low, double high) {
  return low + (high - low) * static_cast<double>(chance() >> 11) * 0x1p-53;
}

struct Hump {
  double height, center_nm, left_nm, right_nm;
};

Light sum_of(std::vector<Hump> humps) {
  return [humps = std::move(humps)](double nm) {
    double sum = 0;
    for (const Hump& hump : humps)
      sum += hump.height * gauss(nm, hump.center_nm, nm < hump.center_nm ? hump.left_nm : hump.right_nm);
    return sum;
  };
}

}  // namespace

double gauss(double nm, double center_nm, double sigma_nm) {
  const double z = (nm - center_nm) / sigma_nm;
  return std::exp(-z * z / 2);
}

Spectrum sampled(const Light& light, const std::vector<double>& wavelengths_nm, SpectralScale scale) {
  Spectrum s;
  s.scale = scale;
  s.wavelengths_nm = wavelengths_nm;
  for (const double nm : wavelengths_nm) s.values.push_back(light(nm));
  return s;
}

std::vector<double> every(double step_nm, double from_nm, double to_nm) {
  std::vector<double> places;
  for (int i = 0; from_nm + i * step_nm <= to_nm + 1e-9; ++i) places.push_back(from_nm + i * step_nm);
  return places;
}

std::vector<double> irregular(std::mt19937_64& chance, double least_nm, double most_nm, double from_nm, double to_nm) {
  std::vector<double> places{from_nm};
  while (places.back() + most_nm < to_nm) places.push_back(places.back() + between(chance, least_nm, most_nm));
  places.push_back(to_nm);
  return places;
}

Light white_led(std::mt19937_64& chance) {
  const double sigma = between(chance, 7, 13), yellow = between(chance, 535, 600);
  return sum_of({{between(chance, 0.3, 1.6), between(chance, 440, 465), sigma, sigma * between(chance, 1, 1.5)},
                 {1, yellow, between(chance, 35, 50), between(chance, 50, 75)},
                 {between(chance, 0, 0.8), between(chance, 620, 660), 25, 35}});
}

Light grow_led(std::mt19937_64& chance) {
  const Light white = white_led(chance);
  const Light red = sum_of({{between(chance, 0.5, 4), between(chance, 655, 668), 8, 9},
                            {between(chance, 0, 1), between(chance, 725, 740), 12, 13}});
  return [=](double nm) { return white(nm) + red(nm); };
}

Light fluorescent(std::mt19937_64& chance) {
  std::vector<Hump> humps{{between(chance, 0.1, 0.4), between(chance, 470, 500), 40, 45},
                          {between(chance, 0.2, 0.6), between(chance, 570, 610), 35, 40}};
  for (const double line : {404.7, 435.8, 546.1, 578.0}) humps.push_back({between(chance, 0.3, 2.5), line, 4.5, 4.5});
  for (const double line : {487.0, 545.0, 611.0})
    if (between(chance, 0, 1) < 0.6) humps.push_back({between(chance, 0.3, 3), line, 4, 5});
  return sum_of(std::move(humps));
}

Light sodium(std::mt19937_64& chance) {
  std::vector<Hump> humps{{between(chance, 0.5, 1.5), 570, 8, 6},    {between(chance, 0.7, 1.5), 600, 7, 14},
                          {between(chance, 0.05, 0.3), 640, 60, 60}, {between(chance, 0.1, 0.5), 498, 5, 5},
                          {between(chance, 0.1, 0.4), 467, 6, 6},    {between(chance, 0.05, 0.2), 450, 40, 40},
                          {between(chance, 0.1, 0.4), 615, 6, 8}};
  return sum_of(std::move(humps));
}

Light planckian(double temperature_k) {
  return [=](double nm) { return planckian_power(temperature_k, nm); };
}

}  // namespace sunbreak::test
