#include <gtest/gtest.h>

#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>

#include "core/spectrum/spectrum_figures.h"
#include "spectrum/made_spectra.h"

namespace sunbreak {
namespace {

using namespace test;

SpectrumFigures figures_of(const Spectrum& s) { return spectrum_figures(SpectralCurve(s)); }

TEST(ColorTest, APlanckianRadiatorHasItsOwnTemperature) {
  for (double t = 2000; t <= 10000; t += 250)
    for (const double step : {1.0, 5.0}) {
      const SpectrumFigures figures = figures_of(sampled(planckian(t), every(step)));
      ASSERT_TRUE(figures.temperature);
      EXPECT_NEAR(figures.temperature->cct_k, t, 2);
      EXPECT_NEAR(figures.temperature->duv, 0, 1e-5);
      ASSERT_TRUE(figures.rendering);
      if (t < 5000) {
        EXPECT_GT(figures.rendering->ra, 99.9) << t;
      }
    }
}

TEST(ColorTest, LightOfOneWavelengthHasItsLuminousEfficacy) {
  // At 555 nm 1 W is 683 lm and 555 · 0.008359 µmol.
  const SpectralCurve curve(Spectrum{{400, 554.9, 555, 555.1, 700}, {0, 0, 1, 0, 0}, SpectralScale::Power, false});
  EXPECT_NEAR(lux_per_ppfd(curve), 683 / (555 * 0.00835935), 0.05);
}

TEST(ColorTest, EqualEnergyIsAThirdAndAThird) {
  const SpectrumFigures figures = figures_of(sampled([](double) { return 1.0; }, every(1)));
  EXPECT_NEAR(figures.color->x, 1 / 3.0, 2e-4);
  EXPECT_NEAR(figures.color->y, 1 / 3.0, 2e-4);
  EXPECT_NEAR(figures.temperature->cct_k, 5455, 5);
  EXPECT_NEAR(figures.temperature->duv, -0.0044, 2e-4);
}

TEST(ColorTest, PurpleHasNoTemperatureAndSaysSo) {
  const SpectrumFigures figures =
      figures_of(sampled([](double nm) { return gauss(nm, 450, 9) + 3 * gauss(nm, 660, 9); }, every(1)));
  EXPECT_FALSE(figures.temperature);
  EXPECT_FALSE(figures.rendering);
  ASSERT_FALSE(figures.notes.empty());
  EXPECT_NE(figures.notes.back().find("not defined"), std::string::npos);
}

struct Told {
  double cct_k = 0, ra = 0, r9 = 0;
};

void write_sp(const Spectrum& s, const std::filesystem::path& file) {
  std::ofstream out(file);
  const auto& nm = s.wavelengths_nm;
  out << "SPECT\n\nDESCRIPTOR \"made\"\nORIGINATOR \"test\"\nKEYWORD \"SPECTRAL_BANDS\"\nSPECTRAL_BANDS \"" << nm.size()
      << "\"\nKEYWORD \"SPECTRAL_START_NM\"\nSPECTRAL_START_NM \"" << nm.front()
      << "\"\nKEYWORD \"SPECTRAL_END_NM\"\nSPECTRAL_END_NM \"" << nm.back()
      << "\"\nKEYWORD \"SPECTRAL_NORM\"\nSPECTRAL_NORM \"1\"\n\n";
  for (const double place : nm) out << "KEYWORD \"SPEC_" << std::lround(place) << "\"\n";
  out << "NUMBER_OF_FIELDS " << nm.size() << "\nBEGIN_DATA_FORMAT\n";
  for (const double place : nm) out << "SPEC_" << std::lround(place) << ' ';
  out << "\nEND_DATA_FORMAT\n\nNUMBER_OF_SETS 1\nBEGIN_DATA\n";
  out.precision(9);
  for (const double value : s.values) out << value << ' ';
  out << "\nEND_DATA\n";
}

/// What another program tells of files of spectra, in their order.
std::vector<Told> told_by_specplot(const std::vector<std::filesystem::path>& files) {
  std::string command = "specplot -s -v";
  for (const auto& file : files) command += " " + file.string();
  std::vector<Told> all;
  FILE* out = popen((command + " 2>&1").c_str(), "r");
  char line[512];
  while (std::fgets(line, sizeof line, out)) {
    const std::string text = line;
    Told told;
    if (std::sscanf(line, "CCT = %lf", &told.cct_k) == 1) all.push_back(told);
    if (const auto at = text.find("CRI = "); at != std::string::npos && !all.empty())
      std::sscanf(line + at, "CRI = %lf", &all.back().ra);
    if (const auto at = text.find("R9 = "); at != std::string::npos && !all.empty())
      std::sscanf(line + at, "R9 = %lf", &all.back().r9);
  }
  pclose(out);
  return all;
}

TEST(ColorTest, AgreesWithAnotherProgramOnTwoHundredMadeLamps) {
  const auto folder = std::filesystem::temp_directory_path() / "sunbreak_spectra";
  std::filesystem::create_directories(folder);
  std::mt19937_64 chance(20261129);
  std::vector<Spectrum> lights;
  std::vector<std::filesystem::path> files;
  for (int i = 0; i < 200; ++i) {
    const Light light = i % 4 == 0   ? white_led(chance)
                        : i % 4 == 1 ? grow_led(chance)
                        : i % 4 == 2 ? fluorescent(chance)
                                     : sodium(chance);
    lights.push_back(sampled(light, every(i % 8 < 4 ? 1 : 5)));
    files.push_back(folder / (std::to_string(i) + ".sp"));
    write_sp(lights.back(), files.back());
  }
  const std::vector<Told> told = told_by_specplot(files);
  ASSERT_EQ(told.size(), lights.size());
  int compared = 0;
  for (std::size_t i = 0; i < lights.size(); ++i) {
    const SpectrumFigures ours = figures_of(lights[i]);
    if (!ours.temperature) continue;
    ++compared;
    EXPECT_NEAR(ours.temperature->cct_k, told[i].cct_k, 5) << i << " duv " << ours.temperature->duv;
    if (ours.rendering) {
      EXPECT_NEAR(ours.rendering->ra, told[i].ra, 0.3)
          << i << " duv " << ours.temperature->duv << " cct " << ours.temperature->cct_k;
    }
  }
  EXPECT_GT(compared, 150);
  std::filesystem::remove_all(folder);
}

}  // namespace
}  // namespace sunbreak
