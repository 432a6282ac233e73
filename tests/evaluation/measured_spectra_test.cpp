#include "evaluation/measured_spectra.h"

#include <gtest/gtest.h>

#include <cmath>

#include "evaluation/spectrum_words.h"
#include "record/spectrum_samples.h"

namespace sunbreak::evaluation {
namespace {

record::MeasuredSpectrum lamp(double far_red, double uv, std::optional<double> percent = {}) {
  Spectrum s;
  for (int nm = 300; nm <= 800; ++nm) {
    const auto hump = [&](double center, double sigma) { return std::exp(-std::pow((nm - center) / sigma, 2) / 2); };
    s.wavelengths_nm.push_back(nm);
    s.values.push_back(hump(450, 9) + hump(560, 40) + far_red * hump(735, 9) + uv * hump(385, 6));
  }
  record::MeasuredSpectrum row;
  record::put_spectrum(row, s);
  row.percent = percent;
  return row;
}

TEST(MeasuredSpectraTest, ARecordGivesBackTheSpectrumThatWasPutIn) {
  Spectrum s{{400.1, 450, 700.25}, {0.1, -1e-7, 3}, SpectralScale::Photons, true};
  record::MeasuredSpectrum row;
  record::put_spectrum(row, s);
  const auto back = record::spectrum_of(row);
  ASSERT_TRUE(back);
  EXPECT_EQ(back.value(), s);
  row.light = "1 2";
  EXPECT_FALSE(record::spectrum_of(row));
  row.light = "1 x 2";
  EXPECT_FALSE(record::spectrum_of(row));
}

TEST(MeasuredSpectraTest, ClaimsAreHeldAgainstTheOneNearestToFull) {
  record::TestRecord record;
  EXPECT_FALSE(spectrum_at_full(record));
  record.spectra = {lamp(0, 0, 40), lamp(1, 0, 90), lamp(0, 1, 50)};
  for (std::size_t i = 0; i < 3; ++i) record.spectra[i].id = static_cast<record::Id>(i) + 1;
  EXPECT_EQ(spectrum_at_full(record)->id, 2);
  record.spectra[2].percent = {};
  EXPECT_EQ(spectrum_at_full(record)->id, 3);
  record.spectra[2].light = "no";
  EXPECT_EQ(measured_spectra(record).size(), 2u);
}

TEST(MeasuredSpectraTest, UvAndFarRedAreSeenOrNotOrNotTold) {
  const auto figures = [](const record::MeasuredSpectrum& row) {
    return spectrum_figures(SpectralCurve(record::spectrum_of(row).value()));
  };
  EXPECT_EQ(shows_far_red(figures(lamp(0.5, 0))), true);
  EXPECT_EQ(shows_far_red(figures(lamp(0, 0))), false);
  EXPECT_EQ(shows_far_red(figures(lamp(0.1, 0))), true) << "a peak of its own";
  EXPECT_EQ(shows_uv(figures(lamp(0, 0.2))), true);
  record::MeasuredSpectrum from_380 = lamp(0, 0);
  Spectrum s = record::spectrum_of(from_380).value();
  s.wavelengths_nm.erase(s.wavelengths_nm.begin(), s.wavelengths_nm.begin() + 80);
  s.values.erase(s.values.begin(), s.values.begin() + 80);
  record::put_spectrum(from_380, s);
  EXPECT_EQ(shows_uv(figures(from_380)), std::nullopt) << "what lies under 380 nm was not measured";
}

TEST(SpectrumWords, WhatIsBelowZeroHasAMinusAndNothingHasNone) {
  SpectrumFigures figures;
  figures.bands.resize(photon_bands.size());
  figures.temperature = ColorTemperature{3456, -0.0123};
  figures.rendering = ColorRendering{70.2, {}, 0};
  figures.rendering->r[8] = -35.4;
  figures.rendering->r[9] = -0.3;
  const auto value = [&](const std::string& id) {
    for (const SpectrumRow& row : spectrum_rows(figures))
      if (row.id == id) return row.value;
    return std::string("none");
  };
  EXPECT_EQ(value("cct_k"), "3456 K, Duv −0.0123");
  EXPECT_EQ(value("ra"), "Ra 70, R9 −35");
  EXPECT_EQ(value("r"), "0  0  0  0  0  0  0  0  −35  0  0  0  0  0");
  figures.temperature->duv = 0.001;
  EXPECT_EQ(value("cct_k"), "3456 K, Duv +0.0010");
}

}  // namespace
}  // namespace sunbreak::evaluation
