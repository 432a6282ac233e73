#include <gtest/gtest.h>

#include <cmath>
#include <cstdio>
#include <filesystem>
#include <fstream>

#include "record/json.h"

namespace {

using record::Json;

std::string output_of(const std::string& command) {
  std::string all;
  FILE* out = popen(command.c_str(), "r");
  char part[4096];
  while (const std::size_t size = std::fread(part, 1, sizeof part, out)) all.append(part, size);
  pclose(out);
  return all;
}

Json told(const std::string& arguments) {
  return record::json_of(output_of(std::string(SUNBREAK_CLI) + " " + arguments + " --json 2>/dev/null"));
}

std::string file_with(const std::string& name, const std::string& text) {
  const std::string path = (std::filesystem::temp_directory_path() / name).string();
  std::ofstream(path) << text;
  return path;
}

TEST(SpectrumCommandTest, ShippedIlluminantsAreToldAsAnotherProgramTellsThem) {
  int compared = 0;
  for (const auto& entry : std::filesystem::directory_iterator("/usr/share/color/argyll/ref")) {
    const std::string path = entry.path().string();
    if (!path.ends_with(".sp")) continue;
    double cct = 0, ra = 0;
    const std::string theirs = output_of("specplot -s -v " + path + " 2>&1");
    const auto number_after = [&](const char* words, double& into) {
      const auto at = theirs.find(words);
      return at != std::string::npos && std::sscanf(theirs.c_str() + at + std::string(words).size(), "%lf", &into) == 1;
    };
    if (!number_after("CCT = ", cct) || !number_after("CRI = ", ra)) continue;
    const std::string ours = output_of(std::string(SUNBREAK_CLI) + " spectrum " + path + " --json 2>/dev/null");
    if (ours.empty()) continue;  // a reflectance, or another thing that is no light
    const Json figures = record::json_of(ours);
    if (figures["cct_k"].is_null()) continue;
    ++compared;
    EXPECT_NEAR(figures["cct_k"].number(), cct, 5) << path;
    EXPECT_NEAR(figures["ra"].number(), ra, 0.3) << path;
  }
  EXPECT_GT(compared, 8);
}

TEST(SpectrumCommandTest, TellsSharesAndMixesAndRefusesWhatSaysNoUnit) {
  const std::string flat = file_with("sunbreak_flat.csv", "nm,photons\n400,1\n700,1\n");
  const Json figures = told("spectrum " + flat);
  EXPECT_NEAR(figures["photon_share"]["blue"].number(), 1 / 3.0, 1e-9);
  EXPECT_TRUE(figures["photon_share"].contains("far_red"));
  EXPECT_TRUE(figures["photon_share"]["far_red"].is_null());
  EXPECT_EQ(figures["range_nm"], Json::array({400.0, 700.0}));
  EXPECT_EQ(figures["r"].size(), 14u);
  const std::string silent = file_with("sunbreak_silent.csv", "nm,value\n400,1\n700,1\n");
  EXPECT_TRUE(output_of(std::string(SUNBREAK_CLI) + " spectrum " + silent + " --json 2>/dev/null").empty());
  EXPECT_FALSE(told("spectrum " + silent + " --unit power")["x"].is_null());
  const std::string red = file_with("sunbreak_red.csv", "nm,photons\n400,0\n600,0\n600.001,1\n700,1\n");
  const Json mix = told("spectrum " + flat + " --with " + red + " --share 0.5");
  EXPECT_NEAR(mix["photon_share"]["red"].number(), 0.5 / 3 + 0.5, 1e-4);
}

TEST(MeterCommandsTest, TellWhatTheirFilesHold) {
  const Json lux =
      told("lux-factor " + file_with("sunbreak_lux.csv", "lux,ppfd\n1000,20\n2000,40\n4000,80\n8000,160\n9000,180\n"));
  EXPECT_NEAR(lux["k"].number(), 0.02, 1e-12);
  EXPECT_EQ(lux["holds"], true);
  EXPECT_EQ(lux["range_lux"], Json::array({1000.0, 9000.0}));
  const Json pairs =
      told("agree " + file_with("sunbreak_pairs.csv", "trusted,other\n100,97\n200,194\n300,291\n400,392\n500,480\n"));
  EXPECT_NEAR(pairs["ratio"].number(), std::pow(0.97 * 0.97 * 0.97 * 0.98 * 0.96, 0.2), 1e-9);
  EXPECT_EQ(pairs["limits_pct"].size(), 2u);
  std::string days = "date,lamp,meter,center,left,right,watts\n";
  for (int day = 1; day <= 28; ++day)
    for (const char* lamp : {"A", "B"}) {
      const double level = (day >= 20 ? 0.98 : 1) * (1 + 0.002 * (day * 7 % 5 - 2));
      char line[160];
      std::snprintf(line, sizeof line, "2026-03-%02d,%s,QS-1,%.2f,%.2f,%.2f,100\n", day, lamp, 500 * level, 400 * level,
                    390 * level);
      days += line;
    }
  const Json lamp = told("check-lamp " + file_with("sunbreak_lamp.csv", days));
  ASSERT_EQ(lamp["findings"].size(), 1u);
  EXPECT_EQ(lamp["findings"][0]["moved"], "sensor");
  EXPECT_EQ(lamp["findings"][0]["since"], "2026-03-20");
  EXPECT_NEAR(lamp["findings"][0]["correction"].number(), 1 / 0.98, 0.003);
}

TEST(MeterCommandsTest, ReadALabBooksLampsAndFactors) {
  const std::string cli = SUNBREAK_CLI;
  const std::string book = (std::filesystem::temp_directory_path() / "sunbreak_meters.sunbreak").string();
  const std::string card = (std::filesystem::temp_directory_path() / "sunbreak_card.html").string();
  std::filesystem::remove(book);
  std::filesystem::remove(card);
  output_of(cli + " demo " + book);
  const Json lamps = told("check-lamp " + book);
  ASSERT_EQ(lamps["charts"].size(), 2u);
  ASSERT_EQ(lamps["findings"].size(), 1u);
  EXPECT_EQ(lamps["findings"][0]["who"], "old sensor");
  EXPECT_EQ(lamps["findings"][0]["moved"], "sensor");
  EXPECT_NEAR(lamps["findings"][0]["change_pct"].number(), -1.8, 0.4);
  output_of(cli + " factor-card " + book + " --output " + card);
  std::ifstream in(card);
  const std::string page((std::istreambuf_iterator<char>(in)), {});
  EXPECT_NE(page.find("borrowed lux meter"), std::string::npos);
  EXPECT_NE(page.find("Ostler Six-Bar (white with red)"), std::string::npos);
  EXPECT_NE(page.find("beside loft sensor"), std::string::npos);
  EXPECT_NE(page.find("k = 0.01750 ± 0.00088"), std::string::npos) << "5 % of the sensor's own, beside 0.6 of the fit";
  const std::string again = output_of(cli + " factor-card " + book + " --output " + card + " 2>&1");
  EXPECT_NE(again.find("there already"), std::string::npos) << again;
  const Json spectra = told("read " + book + " --test 1")["spectra"];
  ASSERT_EQ(spectra.size(), 2u);
  EXPECT_EQ(spectra[0]["name"], "center");
  EXPECT_GT(spectra[0]["figures"]["cct_k"].number(), 2000);
}

TEST(SpectrumCommandTest, BandsOfOnesOwnAreToldBesideTheNamedOnes) {
  const std::string flat = file_with("sunbreak_bands.csv", "nm,photons\n400,1\n700,1\n");
  const Json figures = told("spectrum " + flat + " --band 640-670 --band '690 to 720 nm'");
  ASSERT_EQ(figures["own_bands"].size(), 2u);
  EXPECT_NEAR(figures["own_bands"][0]["share"].number(), 0.1, 1e-9);
  EXPECT_EQ(figures["own_bands"][1]["whole"], false);
  EXPECT_NE(output_of(std::string(SUNBREAK_CLI) + " spectrum " + flat + " --band 700-600 2>&1").find("no band"),
            std::string::npos);
}

}  // namespace
