#include "exchange/spectra/spectrum_file.h"

#include <gtest/gtest.h>

#include <cmath>
#include <string>

namespace sunbreak::exchange {
namespace {

bool told(const SpectrumDraft& draft, const std::string& words) {
  for (const Finding& f : draft.findings)
    if (f.words.find(words) != std::string::npos) return true;
  return false;
}

std::string regular(const char* header, int rows = 60, char separator = ',') {
  std::string text = header;
  for (int i = 0; i < rows; ++i)
    text += std::to_string(400 + 5 * i) + separator + " 0." + std::to_string(100 + i) + "\n";
  return text;
}

TEST(SpectrumFileTest, UnitsComeFromTheHeader) {
  const auto photons = read_spectra(regular("Wavelength (nm),Photon flux (µmol/m²/s/nm)\n"));
  ASSERT_TRUE(photons);
  EXPECT_EQ(photons.value().spectra[0].spectrum.scale, SpectralScale::Photons);
  EXPECT_TRUE(photons.value().spectra[0].spectrum.absolute);
  EXPECT_NEAR(photons.value().spectra[0].spectrum.values[0], 0.1, 1e-12);
  const auto power = read_spectra(regular("wavelength;irradiance [µW/cm^2/nm]\n", 60, ';'));
  ASSERT_TRUE(power);
  EXPECT_EQ(power.value().spectra[0].spectrum.scale, SpectralScale::Power);
  EXPECT_NEAR(power.value().spectra[0].spectrum.values[0], 0.1e-6 * 1e4, 1e-12);
  const auto relative = read_spectra(regular("nm,relative power\n"));
  ASSERT_TRUE(relative);
  EXPECT_FALSE(relative.value().spectra[0].spectrum.absolute);
  EXPECT_FALSE(relative.value().scale_needed);
}

TEST(SpectrumFileTest, WhereNothingNamesTheUnitItHasToBeChosen) {
  const std::string text = regular("nm,intensity\n");
  EXPECT_TRUE(read_spectra(text).value().scale_needed);
  SpectrumOptions options;
  options.scale = SpectralScale::Photons;
  const auto chosen = read_spectra(text, options);
  EXPECT_FALSE(chosen.value().scale_needed);
  EXPECT_EQ(chosen.value().spectra[0].spectrum.scale, SpectralScale::Photons);
  options.scale = SpectralScale::Power;
  const auto against = read_spectra(regular("nm,photons\n"), options);
  EXPECT_TRUE(told(against.value().spectra[0], "as you chose"));
}

TEST(SpectrumFileTest, RemarksTitlesInTwoRowsAndDecimalCommas) {
  const auto file = read_spectra(
      "Device;X-1\nIntegration time;100\n\nWavelength;Lamp A;Lamp B\nnm;W/m²/nm;W/m²/nm\n"
      "400,5;0,1;1\n410,0;0,2;2\n420,0;0,3;3\n");
  ASSERT_TRUE(file);
  ASSERT_EQ(file.value().spectra.size(), 2u);
  EXPECT_EQ(file.value().spectra[1].title, "Lamp B W/m²/nm");
  EXPECT_EQ(file.value().spectra[0].spectrum.wavelengths_nm, (std::vector<double>{400.5, 410, 420}));
  EXPECT_EQ(file.value().spectra[1].spectrum.values, (std::vector<double>{1, 2, 3}));
  SpectrumOptions options;
  options.column = "3";
  EXPECT_EQ(read_spectra("nm,power a,power b\n400,1,2\n500,1,2\n", options).value().spectra.at(0).title, "power b");
  options.column = "9";
  EXPECT_FALSE(read_spectra("nm,power a,power b\n400,1,2\n500,1,2\n", options));
}

TEST(SpectrumFileTest, TablesSetWithBlanksLyingAndFalling) {
  const auto blanks = read_spectra("nm   W\n700   0.3\n600   0.2\n500   0.1\n");
  ASSERT_TRUE(blanks);
  EXPECT_EQ(blanks.value().spectra[0].spectrum.wavelengths_nm, (std::vector<double>{500, 600, 700}));
  EXPECT_TRUE(told(blanks.value().spectra[0], "turned round"));
  std::string places = "power", values = "lamp";
  for (int i = 0; i < 20; ++i) places += "," + std::to_string(400 + 10 * i), values += ",0." + std::to_string(10 + i);
  const auto lying = read_spectra(places + "\n" + values + "\n", {SpectralScale::Power, {}});
  ASSERT_TRUE(lying);
  EXPECT_EQ(lying.value().spectra[0].spectrum.values.size(), 20u);
}

TEST(SpectrumFileTest, OddRowsAreLeftOutAndTold) {
  std::string text = regular("nm,power\n");
  text += "402,0.5\n";  // out of order, at the end
  const auto late = read_spectra(text);
  ASSERT_TRUE(late);
  EXPECT_TRUE(told(late.value().spectra[0], "out of order"));
  EXPECT_EQ(late.value().spectra[0].spectrum.values.size(), 60u);
  const auto odd = read_spectra("nm,power\n400,1\n410,n/a\n420,1\n420,2\n430,1,5\n440,1\n440,1\n450,-0.1\nabc,1\n");
  ASSERT_TRUE(odd);
  const SpectrumDraft& draft = odd.value().spectra[0];
  EXPECT_EQ(draft.spectrum.wavelengths_nm, (std::vector<double>{400, 440, 450}));
  EXPECT_TRUE(told(draft, "'n/a' is no number: 410 nm was left out"));
  EXPECT_TRUE(told(draft, "420 nm stands there 2 times with different light"));
  EXPECT_TRUE(told(draft, "440 nm stands there 2 times with the same light"));
  EXPECT_TRUE(told(draft, "3 cells where others have 2"));
  EXPECT_TRUE(told(draft, "below zero"));
}

TEST(SpectrumFileTest, RemarksThatNameAWavelengthAreNoHeader) {
  const auto file = read_spectra(
      "Peak wavelength (nm);450\nlamp;wavelength (nm);power\na;400;0.1\na;450;0.9\na;500;0.2\n"
      "a;550;0.3\nWavelength of the half height;;460\n");
  ASSERT_TRUE(file) << file.problem().sentence();
  EXPECT_EQ(file.value().spectra[0].title, "power");
  EXPECT_EQ(file.value().spectra[0].spectrum.wavelengths_nm, (std::vector<double>{400, 450, 500, 550}));
}

TEST(SpectrumFileTest, MissingRowsAndFlatTopsAreTold) {
  std::string text = regular("nm,power\n");
  text.erase(text.find("450,"), text.find("455,") - text.find("450,"));
  EXPECT_TRUE(told(read_spectra(text).value().spectra[0], "from 445 to 455 nm is a step of 10 nm"));
  std::string flat = "nm,power\n";
  for (int i = 0; i < 60; ++i) flat += std::to_string(400 + i) + "," + std::to_string(std::min(40, 10 + i)) + "\n";
  std::string top = "nm,power\n";
  for (int i = 0; i < 60; ++i)
    top += std::to_string(400 + i) + "," + std::to_string(i < 28 || i > 31 ? i % 30 : 99) + "\n";
  EXPECT_TRUE(told(read_spectra(top).value().spectra[0], "saturated"));
  EXPECT_FALSE(told(read_spectra(flat).value().spectra[0], "saturated"));  // half of it: that is how it is
}

TEST(SpectrumFileTest, WhatIsNoSpectrumIsRefusedWithASentence) {
  for (const char* text : {"", "hello", "nm,power\n", "nm,power\n400,1\n", "nm,power\n0.4,1\n0.5,1\n0.6,2\n",
                           "wavelength (µm),power\n400,1\n500,2\n", "nm,lux\n400,1\n500,2\n",
                           "nm,reflectance\n400,1\n500,2\n", "nm,power\n400,0\n500,0\n"}) {
    const auto file = read_spectra(text);
    ASSERT_FALSE(file) << text;
    EXPECT_FALSE(file.problem().sentence().empty());
  }
  // Two spectra one under the other.
  EXPECT_FALSE(read_spectra(regular("nm,power\n") + regular("")));
}

TEST(SpectrumFileTest, AVeryLongTableOfOtherThingsEndsSoon) {
  std::string text;
  for (int row = 0; row < 60000; ++row) text += "400,410,420,430,440,450,460,470,480,490,500,510\n";
  EXPECT_FALSE(read_spectra(text));
}

TEST(SpectrumFileTest, Tm27AndCgats) {
  const auto xml = read_spectra(
      "<?xml version=\"1.0\"?><IESTM2714 xmlns=\"iestm2714\" version=\"1.0\"><Header><Description>made lamp"
      "</Description></Header><SpectralDistribution><SpectralQuantity>irradiance</SpectralQuantity>"
      "<SpectralData wavelength=\"400\">0.1</SpectralData><SpectralData wavelength=\"410\">0.2</SpectralData>"
      "<SpectralData wavelength=\"oops\">0.2</SpectralData></SpectralDistribution></IESTM2714>");
  ASSERT_TRUE(xml);
  EXPECT_EQ(xml.value().spectra[0].title, "made lamp");
  EXPECT_EQ(xml.value().spectra[0].spectrum.values, (std::vector<double>{0.1, 0.2}));
  EXPECT_TRUE(told(xml.value().spectra[0], "'oops' is no wavelength"));
  EXPECT_FALSE(
      read_spectra("<IESTM2714><SpectralDistribution><SpectralQuantity>reflectance</SpectralQuantity>"
                   "<SpectralData wavelength=\"400\">1</SpectralData></SpectralDistribution></IESTM2714>"));
  EXPECT_FALSE(read_spectra("<!DOCTYPE x [<!ENTITY a SYSTEM \"file:///etc/passwd\">]><x>&a;</x>"));
  // Entities that grow without end.
  std::string laughs = "<?xml version=\"1.0\"?><!DOCTYPE IESTM2714 [<!ENTITY a0 \"1\">";
  for (int i = 1; i < 40; ++i)
    laughs +=
        "<!ENTITY a" + std::to_string(i) + " \"&a" + std::to_string(i - 1) + ";&a" + std::to_string(i - 1) + ";\">";
  EXPECT_FALSE(read_spectra(laughs + "]><IESTM2714><SpectralDistribution><SpectralQuantity>flux</SpectralQuantity>"
                                     "<SpectralData wavelength=\"400\">&a39;</SpectralData></SpectralDistribution>"
                                     "</IESTM2714>"));
  const std::string cgats =
      "SPECT\nDESCRIPTOR \"made\"\nSPECTRAL_BANDS \"3\"\nSPECTRAL_START_NM \"400\"\nSPECTRAL_END_NM \"420\"\n"
      "NUMBER_OF_FIELDS 3\nBEGIN_DATA_FORMAT\nSPEC_400 SPEC_410 SPEC_420\nEND_DATA_FORMAT\nNUMBER_OF_SETS 1\n"
      "BEGIN_DATA\n0.1 0.2 0.3\nEND_DATA\n";
  const auto sp = read_spectra(cgats);
  ASSERT_TRUE(sp);
  EXPECT_EQ(sp.value().spectra[0].spectrum.wavelengths_nm, (std::vector<double>{400, 410, 420}));
  for (const auto& [from, to] : {std::pair{"0.1 0.2 0.3", "0.1 0.2"}, std::pair{"SPEC_410", "SPEC_450"},
                                 std::pair{"SPECTRAL_BANDS \"3\"", "SPECTRAL_BANDS \"4\""}, std::pair{"END_DATA\n", ""},
                                 std::pair{"NUMBER_OF_SETS 1", "NUMBER_OF_SETS 2"}}) {
    std::string harmed = cgats;
    harmed.replace(harmed.rfind(from), std::string(from).size(), to);
    EXPECT_FALSE(read_spectra(harmed)) << from;
  }
}

}  // namespace
}  // namespace sunbreak::exchange
