#include "core/spectrum/spectrum.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

#include "core/spectrum/spectral_mix.h"
#include "core/spectrum/spectral_response.h"
#include "core/spectrum/spectrum_figures.h"
#include "spectrum/made_spectra.h"

namespace sunbreak {
namespace {

using namespace test;

double share(const SpectrumFigures& f, std::size_t band) { return f.bands[band].share; }

double below(double nm, double center, double sigma) {
  return 0.5 * std::erfc(-(nm - center) / sigma / std::sqrt(2.0));
}

TEST(SpectrumTest, EqualPhotonsAreSharedByWidth) {
  const SpectralCurve curve(sampled([](double) { return 1.0; }, every(5, 280, 800), SpectralScale::Photons));
  const SpectrumFigures f = spectrum_figures(curve);
  const double widths[] = {35, 85, 100, 100, 100, 100};
  for (std::size_t i = 0; i < 6; ++i) {
    EXPECT_NEAR(share(f, i), widths[i] / 520, 1e-12);
    EXPECT_TRUE(f.bands[i].whole);
  }
  EXPECT_NEAR(f.ppfd_share, 300.0 / 520, 1e-12);
  EXPECT_NEAR(f.eppfd_over_ppfd, 350.0 / 300, 1e-12);
  EXPECT_NEAR(f.blue_over_red, 1, 1e-12);
  EXPECT_NEAR(f.red_over_far_red, 1, 1e-12);
}

TEST(SpectrumTest, EqualPowerHasPhotonsByWavelength) {
  const SpectrumFigures f = spectrum_figures(SpectralCurve(sampled([](double) { return 2.0; }, every(7, 401, 751))));
  // ∫ λ dλ between a and b is (b² − a²) / 2.
  EXPECT_NEAR(share(f, 3), (600.0 * 600 - 500 * 500) / (751.0 * 751 - 401 * 401), 1e-12);
  EXPECT_NEAR(share(f, 5), (751.0 * 751 - 700 * 700) / (751.0 * 751 - 401 * 401), 1e-12);
  EXPECT_EQ(f.bands[5].measured, (WavelengthRange{700, 751}));
  EXPECT_FALSE(f.bands[5].whole);
}

TEST(SpectrumTest, StraightAndBentLightsHaveTheirClosedForms) {
  // A tent over 400 to 500 nm, told by its three corners.
  const SpectrumFigures tent = spectrum_figures(
      SpectralCurve(Spectrum{{380, 400, 450, 550, 700, 780}, {0, 0, 2, 0, 0, 0}, SpectralScale::Photons, false}));
  EXPECT_NEAR(share(tent, 2), (50 + 75) / 150.0, 1e-9);
  // A Gaussian cut at 500, 600 and 700 nm.
  for (const double sigma : {10.0, 20.0, 45.0})
    for (const double center : {495.0, 548.0, 603.0}) {
      const SpectrumFigures f = spectrum_figures(SpectralCurve(
          sampled([&](double nm) { return gauss(nm, center, sigma); }, every(1, 280, 1000), SpectralScale::Photons)));
      const double all = below(1000, center, sigma) - below(280, center, sigma);
      const double edges[] = {280, 315, 400, 500, 600, 700, 800};
      for (std::size_t i = 0; i < 6; ++i)
        EXPECT_NEAR(share(f, i), (below(edges[i + 1], center, sigma) - below(edges[i], center, sigma)) / all, 1e-6)
            << center << ' ' << sigma << ' ' << i;
    }
}

TEST(SpectrumTest, OneLightSampledInThreeWaysHasOneSetOfFigures) {
  std::mt19937_64 chance(41);
  for (int i = 0; i < 40; ++i) {
    const Light light = i % 2 == 0 ? white_led(chance) : grow_led(chance);
    const SpectrumFigures fine = spectrum_figures(SpectralCurve(sampled(light, every(1, 360, 800))));
    for (const std::vector<double>& places : {every(5, 360, 800), irregular(chance, 0.4, 5, 360, 800)}) {
      const SpectrumFigures other = spectrum_figures(SpectralCurve(sampled(light, places)));
      const auto alike = [&](double a, double b) { EXPECT_NEAR(a / b, 1, 0.005) << i; };
      for (std::size_t band = 2; band < 6; ++band) alike(share(other, band), share(fine, band));
      alike(other.ppfd_share, fine.ppfd_share);
      alike(other.eppfd_over_ppfd, fine.eppfd_over_ppfd);
      alike(other.blue_over_red, fine.blue_over_red);
      alike(other.red_over_far_red, fine.red_over_far_red);
      alike(other.lux_per_ppfd, fine.lux_per_ppfd);
      if (!fine.temperature) continue;
      ASSERT_TRUE(other.temperature);
      alike(other.temperature->cct_k, fine.temperature->cct_k);
      if (fine.rendering) {
        EXPECT_NEAR(other.rendering->ra, fine.rendering->ra, 0.5) << i;
      }
    }
  }
}

TEST(SpectrumTest, WhatWasNotMeasuredIsSaidAndNotAssumed) {
  const SpectrumFigures f = spectrum_figures(SpectralCurve(sampled([](double) { return 1.0; }, every(1, 420, 720))));
  EXPECT_TRUE(std::isnan(share(f, 0)));
  EXPECT_TRUE(std::isnan(share(f, 1)));
  EXPECT_TRUE(std::isnan(f.ppfd_share));
  EXPECT_TRUE(std::isnan(f.eppfd_over_ppfd));
  EXPECT_TRUE(std::isnan(f.red_over_far_red));  // only a fifth of far red was measured
  EXPECT_FALSE(std::isnan(f.blue_over_red));    // four fifths of blue were
  EXPECT_TRUE(std::isnan(f.lux_per_ppfd));
  EXPECT_FALSE(f.color);
  EXPECT_EQ(f.notes.size(), 4u);
}

TEST(SpectrumTest, AGapEntersNothing) {
  std::vector<double> places = every(1, 380, 780);
  std::erase_if(places, [](double nm) { return nm > 520 && nm < 560; });
  const SpectralCurve curve(sampled([](double) { return 1.0; }, places));
  ASSERT_EQ(curve.gaps(), (std::vector<WavelengthRange>{{520, 560}}));
  EXPECT_TRUE(std::isnan(curve.value(540)));
  EXPECT_NEAR(curve.photon_integral({500, 600}), (600 * 600 - 560 * 560 + 520 * 520 - 500 * 500) / 2.0, 1e-6);
  const SpectrumFigures f = spectrum_figures(curve);
  EXPECT_FALSE(f.bands[3].whole);
  EXPECT_TRUE(std::isnan(f.ppfd_share));
  EXPECT_FALSE(f.color);
}

TEST(SpectrumTest, PeaksHavePlaceWidthAndShare) {
  const SpectralCurve curve(sampled([](double nm) { return 3 * gauss(nm, 451.3, 9) + 5 * gauss(nm, 660.4, 8); },
                                    every(2), SpectralScale::Photons));
  const std::vector<SpectralPeak> peaks = spectral_peaks(curve);
  ASSERT_EQ(peaks.size(), 2u);
  EXPECT_NEAR(peaks[0].nm, 451.3, 0.1);
  EXPECT_NEAR(peaks[0].width_nm, 9 * 2.3548, 0.1);
  EXPECT_NEAR(peaks[0].share, 27 / 67.0, 1e-4);
  EXPECT_NEAR(peaks[0].height, 0.6, 1e-3);
  EXPECT_NEAR(peaks[1].nm, 660.4, 0.1);
  EXPECT_NEAR(peaks[1].width_nm, 8 * 2.3548, 0.1);
}

TEST(SpectrumTest, NoiseAndEdgesAreNoPeaks) {
  std::mt19937_64 chance(7);
  Spectrum s = sampled([](double nm) { return gauss(nm, 560, 40); }, every(0.5), SpectralScale::Photons);
  for (double& value : s.values) value += 0.01 * (static_cast<double>(chance() >> 11) * 0x1p-53 - 0.5);
  EXPECT_EQ(spectral_peaks(SpectralCurve(s)).size(), 1u);
  EXPECT_TRUE(
      spectral_peaks(SpectralCurve(sampled([](double nm) { return 1000 - nm; }, every(1), SpectralScale::Photons)))
          .empty());
  EXPECT_TRUE(spectral_peaks(SpectralCurve(sampled(planckian(2200), every(1)))).empty());
}

TEST(SpectrumTest, MixOfTwoHasFiguresBetweenTheirs) {
  const SpectralCurve white(sampled([](double nm) { return gauss(nm, 450, 10) + gauss(nm, 560, 45); }, every(1)));
  const SpectralCurve red(sampled([](double nm) { return gauss(nm, 660, 9); }, every(5)));
  const auto mix = mixed(white, red, 0.25);
  ASSERT_TRUE(mix);
  const SpectralCurve both(mix.value());
  EXPECT_NEAR(both.photon_integral(ppfd_range), 1, 1e-3);
  const auto red_of = [](const SpectralCurve& c) {
    return c.photon_integral({600, 700}) / c.photon_integral(ppfd_range);
  };
  EXPECT_NEAR(red_of(both), 0.75 * red_of(white) + 0.25 * red_of(red), 5e-4);
  // Lux of the mix is the lux of its parts.
  EXPECT_NEAR(lux_per_ppfd(both), 0.75 * lux_per_ppfd(white) + 0.25 * lux_per_ppfd(red), 0.05);
  EXPECT_NEAR(spectral_distance(white, white), 0, 1e-12);
  EXPECT_GT(spectral_distance(white, red), 0.8);
  EXPECT_FALSE(mixed(white, SpectralCurve(sampled([](double) { return 1.0; }, every(1, 500, 600))), 0.5));
}

TEST(SpectrumTest, TwoOfVeryManySamplesAreMixedAsAnyOther) {
  const auto many = [](double shift) {
    return SpectralCurve(sampled([](double nm) { return gauss(nm, 550, 60); }, every(0.025, 380 + shift, 780)));
  };
  const SpectralCurve first = many(0), second = many(0.01);
  ASSERT_GT(first.spectrum().values.size() + second.spectrum().values.size(), most_samples);
  const auto mix = mixed(first, second, 0.5);
  ASSERT_TRUE(mix) << mix.problem().sentence();
  EXPECT_NEAR(spectral_distance(SpectralCurve(mix.value()), first), 0, 1e-4);
}

TEST(SpectrumTest, AnIdealSensorNeedsNoCorrectionAndAFilteredOneItsShare) {
  const SpectralCurve sun(sampled(planckian(5700), every(1, 300, 900)));
  const SpectralCurve grow(
      sampled([](double nm) { return gauss(nm, 450, 9) + 4 * gauss(nm, 660, 9) + 2 * gauss(nm, 735, 12); },
              every(1, 300, 900)));
  const SpectralResponse ideal{{399.999, 400, 700, 700.001}, {0, 1, 1, 0}, 0.02};
  const auto exact = spectral_correction(ideal, grow, sun);
  ASSERT_TRUE(exact);
  EXPECT_NEAR(exact.value().factor, 1, 1e-5);
  EXPECT_TRUE(exact.value().finding.empty());
  // One that counts far red as well: it reads too much here, by what far red it counts more than under the sun.
  const SpectralResponse wide{{399.999, 400, 760, 760.001}, {0, 1, 1, 0}, 0.02};
  const auto counted = spectral_correction(wide, grow, sun);
  ASSERT_TRUE(counted);
  const auto over = [](const SpectralCurve& c) {
    return c.photon_integral({400, 760}) / c.photon_integral(ppfd_range);
  };
  EXPECT_NEAR(counted.value().factor, over(sun) / over(grow), 1e-5);
  EXPECT_NE(counted.value().finding.find("too much"), std::string::npos);
  EXPECT_GT(counted.value().far_red_share, 0.2);
  EXPECT_GT(counted.value().standard_uncertainty, 0);
}

TEST(SpectrumTest, WhatIsNoSpectrumIsRefused) {
  EXPECT_TRUE(spectrum_problem({{400}, {1}}));
  EXPECT_TRUE(spectrum_problem({{400, 500}, {1}}));
  EXPECT_TRUE(spectrum_problem({{400, 400}, {1, 1}}));
  EXPECT_TRUE(spectrum_problem({{0.4, 0.5}, {1, 1}}));
  EXPECT_TRUE(spectrum_problem({{400, 500}, {0, 0}}));
  EXPECT_TRUE(spectrum_problem({{400, 500}, {-1, -2}}));
  EXPECT_TRUE(spectrum_problem({{400, 500}, {1, std::nan("")}}));
  EXPECT_FALSE(spectrum_problem({{400, 500}, {0, 1}}));
}

RC_GTEST_PROP(SpectrumTest, SharesAddUpAndNothingDependsOnTheUnit, ()) {
  const auto count = *rc::gen::inRange<std::size_t>(2, 200);
  Spectrum s;
  double nm = 270;
  for (std::size_t i = 0; i < count; ++i) {
    s.wavelengths_nm.push_back(nm);
    nm += *rc::gen::inRange(1, 900) / 100.0;
    s.values.push_back(*rc::gen::inRange(1, 1000));
  }
  const SpectralCurve curve(s);
  double sum = curve.photon_integral({0, 280}) + curve.photon_integral({800, 9000});
  for (const PhotonBand& band : photon_bands) sum += curve.photon_integral(band.range);
  const double all = curve.photon_integral(curve.range());
  RC_ASSERT(std::fabs(sum / all - 1) < 1e-9);
  Spectrum tenfold = s;
  for (double& value : tenfold.values) value *= 10;
  const SpectrumFigures a = spectrum_figures(curve), b = spectrum_figures(SpectralCurve(tenfold));
  for (std::size_t i = 0; i < a.bands.size(); ++i)
    RC_ASSERT((std::isnan(a.bands[i].share) ? std::isnan(b.bands[i].share)
                                            : std::fabs(a.bands[i].share - b.bands[i].share) < 1e-9));
  RC_ASSERT(a.peaks.size() == b.peaks.size());
}

}  // namespace
}  // namespace sunbreak
