#include <fmt/format.h>
#include <gtest/gtest.h>
#include <sys/wait.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>

#include "exchange/files/new_file.h"
#include "exchange/package/zip_archive.h"
#include "record/json.h"

namespace fs = std::filesystem;

using namespace sunbreak;

namespace {

struct Outcome {
  int status;
  std::string out, err;
};

class Cli : public ::testing::Test {
 protected:
  void SetUp() override {
    std::string name = (fs::temp_directory_path() / "sunbreak-cli-XXXXXX").string();
    folder_ = mkdtemp(name.data());
  }
  void TearDown() override { fs::remove_all(folder_); }

  Outcome run(const std::string& arguments) {
    const fs::path out = folder_ / "stdout", err = folder_ / "stderr";
    const std::string command =
        std::string(SUNBREAK_CLI) + " " + arguments + " >" + out.string() + " 2>" + err.string();
    const int status = std::system(command.c_str());
    return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, text(out), text(err)};
  }
  /// The sample lab book, made once, in the test's own folder.
  std::string sample_book() {
    static const std::string made = [&] {
      const std::string book = (folder_ / "sample.sunbreak").string();
      EXPECT_EQ(run("demo " + book).status, 0);
      return text(book);
    }();
    return file("book.sunbreak", made).string();
  }
  fs::path file(const std::string& name, const std::string& content) {
    std::ofstream(folder_ / name, std::ios::binary) << content;
    return folder_ / name;
  }
  static std::string text(const fs::path& path) {
    std::stringstream all;
    all << std::ifstream(path, std::ios::binary).rdbuf();
    return all.str();
  }
  static std::ptrdiff_t lines(const std::string& text) { return std::count(text.begin(), text.end(), '\n'); }

  fs::path folder_;
};

const std::string nine = "700,800,900\n400,500,600\n100,200,300\n";

}  // namespace

TEST_F(Cli, FiguresAsJson) {
  const Outcome r =
      run("figures " + file("a.csv", nine).string() +
          " --footprint 120x120cm --grid cells --watts 200 --photoperiod 12 --target-low 350 --target-high 650 --json");
  ASSERT_EQ(r.status, 0) << r.err;
  const auto j = record::json_of(r.out);
  const std::pair<const char*, double> expected[] = {{"stations", 9},
                                                     {"missing", 0},
                                                     {"area_m2", 1.44},
                                                     {"mean_ppfd", 500},
                                                     {"lowest_ppfd", 100},
                                                     {"highest_ppfd", 900},
                                                     {"median_ppfd", 500},
                                                     {"p5_ppfd", 140},
                                                     {"p95_ppfd", 860},
                                                     {"sd_ppfd", 258.19888974716},
                                                     {"cv", 0.51639777949},
                                                     {"ppf_umol_s", 720},
                                                     {"power_w", 200},
                                                     {"canopy_efficacy_umol_j", 3.6},
                                                     {"ppfd_per_watt", 2.5},
                                                     {"power_density_w_m2", 138.888888889},
                                                     {"lowest_over_mean", 0.2},
                                                     {"lowest_over_highest", 1.0 / 9},
                                                     {"highest_over_lowest", 9},
                                                     {"p5_over_mean", 0.28},
                                                     {"centre_ppfd", 500},
                                                     {"left_right_pct", 40},
                                                     {"front_back_pct", 120},
                                                     {"dli_mean_mol_m2_d", 21.6}};
  for (const auto& [key, value] : expected) EXPECT_NEAR(j[key].number(), value, 1e-6) << key;
  EXPECT_NEAR(j["lowest_at_m"][0].number(), 0.2, 1e-12);
  EXPECT_NEAR(j["highest_at_m"][1].number(), 1.0, 1e-12);
  EXPECT_EQ(j["rings"].size(), 2u);
  for (const char* key : {"in_band_m2", "in_band_share", "too_dim_share", "too_bright_share", "largest_rectangle_m",
                          "largest_centred_rectangle_m", "largest_centred_circle_m"})
    EXPECT_TRUE(j["coverage"].contains(key)) << key;
  EXPECT_TRUE(j.contains("centroid_m"));
}

TEST_F(Cli, TheFirstRowAndTheUnitsAreChosen) {
  const std::string table = file("a.csv", nine).string();
  const auto near =
      record::json_of(run("figures " + table + " --footprint 4x4ft --grid cells --first-row near --json").out);
  EXPECT_NEAR(near["front_back_pct"].number(), -120, 1e-9);
  EXPECT_NEAR(near["area_m2"].number(), 1.2192 * 1.2192, 1e-12);
  const auto inset =
      record::json_of(run("figures " + table + " --footprint 1.2x1.2m --grid inset --margin 10cm --json").out);
  EXPECT_NEAR(inset["area_m2"].number(), 1.0, 1e-12);
}

TEST_F(Cli, WhatItCannotTakeIsOneSentenceAndExitThree) {
  for (const std::string& content :
       {std::string(), std::string("words\nonly\n"), std::string("\x89PNG\r\n\x1a\n\0\0\0", 11)}) {
    const Outcome r = run("figures " + file("bad.csv", content).string() + " --footprint 120x120cm --grid cells");
    EXPECT_EQ(r.status, 3);
    EXPECT_EQ(lines(r.err), 1) << r.err;
    EXPECT_TRUE(r.out.empty());
  }
  const Outcome none = run("figures " + (folder_ / "none.csv").string() + " --footprint 120x120cm --grid cells");
  EXPECT_EQ(none.status, 3);
  EXPECT_EQ(lines(none.err), 1);
}

TEST_F(Cli, UsageErrorsAreExitTwo) {
  const std::string table = file("a.csv", nine).string();
  for (const std::string& arguments : {std::string(), std::string("nonsense"), "figures " + table,
                                       "figures " + table + " --footprint 120 --grid cells",
                                       "figures " + table + " --footprint 120x120cm --grid rings",
                                       "figures " + table + " --footprint 120x120cm --grid cells --watts zero",
                                       "figures " + table + " --footprint 120x120cm --grid cells --target-low 300",
                                       "figures " + table + " --footprint 120x120cm --grid inset"})
    EXPECT_EQ(run(arguments).status, 2) << arguments;
}

TEST_F(Cli, DemoExportImportReportAndList) {
  const std::string book = (folder_ / "demo.sunbreak").string(), package = (folder_ / "t.zip").string(),
                    other = (folder_ / "other.sunbreak").string(), page = (folder_ / "t.html").string();
  ASSERT_EQ(run("demo " + book).status, 0);
  EXPECT_EQ(run("demo " + book).status, 3) << "it never writes over a lab book";
  const Outcome list = run("list " + book);
  EXPECT_EQ(lines(list.out), 8);
  EXPECT_NE(list.out.find("Ostler Six-Bar"), std::string::npos);
  EXPECT_EQ(run("export " + book + " --out " + package).status, 3) << "several tests, none named";
  ASSERT_EQ(run("export " + book + " --test 3 --out " + package).status, 0);
  ASSERT_EQ(run("import " + other + " " + package).status, 0);
  EXPECT_EQ(lines(run("list " + other).out), 1);
  ASSERT_EQ(run("report " + other + " --out " + page).status, 0);
  EXPECT_NE(text(page).find("Pell Narrow 300"), std::string::npos);
  const std::string again = (folder_ / "again.zip").string();
  ASSERT_EQ(run("export " + other + " --out " + again).status, 0);
  EXPECT_EQ(text(again), text(package)) << "a package that went through another lab book is the same";
  EXPECT_EQ(run("import " + other + " " + book).status, 3);
}

TEST_F(Cli, OutputsNeverDestroyWhatIsThere) {
  const std::string book = sample_book(), page = (folder_ / "page.html").string();
  const auto before = std::filesystem::file_size(book);
  for (const char* command : {"report ", "export ", "export --csv "}) {
    const Outcome onto_source = run(command + book + " --test 7 --force --out " + book);
    EXPECT_EQ(onto_source.status, 3) << command;
    EXPECT_NE(onto_source.err.find("is what is read from"), std::string::npos) << onto_source.err;
    std::ofstream(page) << "precious";
    const Outcome kept = run(command + book + " --test 7 --out " + page);
    EXPECT_EQ(kept.status, 3) << command;
    EXPECT_NE(kept.err.find("is there already"), std::string::npos) << kept.err;
    EXPECT_EQ(text(page), "precious");
    EXPECT_EQ(run(command + book + " --test 7 --force --out " + page).status, 0) << command;
    EXPECT_NE(text(page), "precious");
  }
  EXPECT_EQ(std::filesystem::file_size(book), before);
}

TEST_F(Cli, AnAlteredPackageIsListedBeforeItIsTaken) {
  const std::string book = sample_book(), sound = (folder_ / "sound.zip").string(),
                    other = (folder_ / "other.sunbreak").string(), altered = (folder_ / "altered.zip").string();
  ASSERT_EQ(run("export " + book + " --test 7 --out " + sound).status, 0);
  auto archive = exchange::read_zip(sound).value();
  std::string& readings = archive.at("reading.csv");
  const auto dot = readings.find('.', readings.find("\n1,"));
  readings[dot - 1] = readings[dot - 1] == '9' ? '8' : '9';
  ASSERT_FALSE(exchange::write_new_file(altered, exchange::zip_bytes(archive)));
  const Outcome told = run("import " + other + " " + altered);
  EXPECT_EQ(told.status, 3);
  EXPECT_NE(told.err.find("reading.csv was changed after it was written"), std::string::npos) << told.err;
  EXPECT_FALSE(std::filesystem::exists(other)) << "nothing was added, not even a lab book";
  EXPECT_EQ(run("import " + other + " " + altered + " --as-altered").status, 0);
  EXPECT_EQ(run("import " + other + " " + sound).status, 0);
}

TEST_F(Cli, PredictWorksASceneOut) {
  const std::string scene =
      R"({"room":{"width_m":1.2,"depth_m":1.2,"height_m":2,"reflectance":{"left":0,"right":0,"front":0,"back":0,"ceiling":0,"floor":0}},
    "emitters":[{"x_m":0.6,"y_m":0.6,"z_m":0.5,"nx":0,"ny":0,"nz":-2,"ppf_umol_s":100,"m":1}],
    "stations":[{"x_m":0.6,"y_m":0.6,"z_m":0},{"x_m":0.1,"y_m":0.6,"z_m":0}]})";
  const Outcome dark = run("predict " + file("dark.json", scene).string() + " --json");
  ASSERT_EQ(dark.status, 0) << dark.err;
  const auto j = record::json_of(dark.out);
  EXPECT_NEAR(j["stations"][0]["ppfd"].number(), 100 / 3.14159265358979 / 0.25, 1e-6);
  EXPECT_EQ(j["stations"][0]["reflected_ppfd"].number(), 0);
  EXPECT_NEAR(j["stations"][1]["direct_ppfd"].number(), 100 / 3.14159265358979 * 0.5 * 0.5 / 0.25, 1e-6)
      << "at 45 degrees";
  std::string lined = scene;
  lined.replace(lined.find("\"left\":0"), 8, "\"left\":0.8");
  const auto with_wall = record::json_of(run("predict " + file("lined.json", lined).string() + " --json").out);
  EXPECT_GT(with_wall["stations"][1]["reflected_ppfd"].number(), with_wall["stations"][0]["reflected_ppfd"].number());
}

TEST_F(Cli, ScenesItCannotTakeAreNamedByTheirMember) {
  const std::string good =
      R"({"room":{"width_m":1.2,"depth_m":1.2,"height_m":2,"reflectance":{"left":0,"right":0,"front":0,"back":0,"ceiling":0,"floor":0}},
    "emitters":[{"x_m":0.6,"y_m":0.6,"z_m":0.5,"nx":0,"ny":0,"nz":-1,"ppf_umol_s":100,"m":1}],"stations":[{"x_m":0.6,"y_m":0.6,"z_m":0}]})";
  const std::tuple<std::string, std::string, std::string> changes[] = {
      {"\"left\":0", "\"left\":1.5", "reflectance.left"},
      {"\"nz\":-1", "\"nz\":0", "no direction"},
      {"\"m\":1", "\"n\":1", "no 'm'"},
      {"\"z_m\":0.5", "\"z_m\":2.5", "emitters[0].z_m"},
      {"\"width_m\":1.2", "\"width_m\":\"wide\"", "room.width_m"},
      {"\"stations\":[", "\"station\":[", "stations"}};
  for (const auto& [from, to, named] : changes) {
    std::string bad = good;
    bad.replace(bad.find(from), from.size(), to);
    const Outcome r = run("predict " + file("bad.json", bad).string());
    EXPECT_EQ(r.status, 3) << to;
    EXPECT_EQ(lines(r.err), 1);
    EXPECT_NE(r.err.find(named), std::string::npos) << r.err;
  }
  EXPECT_EQ(run("predict " + file("no.json", "{").string()).status, 3);
  EXPECT_EQ(run("predict " + (folder_ / "none.json").string()).status, 3);
}

TEST_F(Cli, SettleCheckJudgesALogAndRefusesWhatIsNone) {
  std::string log = "time_min,ppfd,watts\n";
  for (int minute = 0; minute <= 90; ++minute)
    log += std::to_string(minute) + "," + std::to_string(600 + 30 * std::exp(-minute / 10.0)) + ",320.5\n";
  const Outcome good = run("settle-check " + file("log.csv", log).string() + " --json");
  ASSERT_EQ(good.status, 0) << good.err;
  const auto j = record::json_of(good.out);
  EXPECT_EQ(j["light"]["state"], "settled");
  EXPECT_NEAR(j["light"]["time_constant_s"].number(), 600, 60);
  EXPECT_EQ(j["watts"]["state"], "settled");
  const Outcome early = run("settle-check " + file("early.csv", log.substr(0, 400)).string());
  EXPECT_EQ(early.status, 0);
  EXPECT_NE(early.out.find("Too early"), std::string::npos) << early.out;
  EXPECT_EQ(run("settle-check " + file("bad.csv", "hello,there\n1,2\n").string()).status, 3);
  EXPECT_EQ(run("settle-check " + (folder_ / "none.csv").string()).status, 3);
}

TEST_F(Cli, DimmerWorksOutAStair) {
  const auto stair =
      file("stair.csv",
           "dial_pct;watts;power_factor;ppfd center;ppfd corner\n100;320;0,97;800;400\n50;168;0,95;440;220\n"
           "10;44;0,82;84;42\nlow;1;1;1;1\n0;0,6;0,35;;\n");
  const Outcome good = run("dimmer " + stair.string() + " --json");
  ASSERT_EQ(good.status, 0) << good.err;
  EXPECT_NE(good.err.find("row 5: 'low' is no number"), std::string::npos) << good.err;
  const auto j = record::json_of(good.out);
  ASSERT_EQ(j["stops"].size(), 3u);
  EXPECT_DOUBLE_EQ(j["stops"][1]["light_factor"].number(), 0.55);
  EXPECT_EQ(j["stops"][1]["stations"], 2);
  EXPECT_NEAR(j["stops"][2]["relative_efficacy"].number(), 0.105 / (44 / 320.0), 1e-12);
  EXPECT_EQ(j["standby_w"], 0.6);
  EXPECT_TRUE(j["notes"].empty());
  const Outcome words = run("dimmer " + stair.string());
  EXPECT_NE(words.out.find("Lowest stop with light: 10 %"), std::string::npos) << words.out;
  EXPECT_EQ(run("dimmer " + file("none.csv", "a,b\n1,2\n").string()).status, 3);
}

TEST_F(Cli, SettleCheckGoesByWattsAloneWhereThereIsNoLight) {
  std::string log = "time;V;W\n";
  for (int i = 0; i <= 60; ++i)
    log += std::string(i < 60 ? "0:" : "1:") + (i % 60 < 10 ? "0" : "") + std::to_string(i % 60) + ":00;230,1;" +
           (i < 10 ? "330,5" : "322,0") + "\n";
  const Outcome outcome = run("settle-check " + file("watts.csv", log).string() + " --json");
  ASSERT_EQ(outcome.status, 0) << outcome.err;
  const auto j = record::json_of(outcome.out);
  EXPECT_TRUE(j.contains("light") && j["light"].is_null());
  EXPECT_EQ(j["watts"]["state"], "settled");
}

TEST_F(Cli, ReadTellsFiguresWithTheirUncertaintyEvidenceAndTargets) {
  const std::string book = sample_book();
  const Outcome r = run("read " + book + " --test 7 --json --cut 0,60,60,60");
  ASSERT_EQ(r.status, 0) << r.err;
  const auto j = record::json_of(r.out);
  ASSERT_GE(j["sweeps"].size(), 1u);
  for (const auto& sweep : j["sweeps"]) {
    const double mean = sweep["figures"]["mean_ppfd"].number(),
                 sure = sweep["uncertainty"]["mean_ppfd"]["expanded_k2"].number();
    EXPECT_GT(sure / mean, 0.03);
    EXPECT_LT(sure / mean, 0.12);
    double squares = 0;
    for (const auto& part : sweep["uncertainty"]["mean_ppfd"]["contributions"])
      squares += part.number() * part.number();
    const auto& u = sweep["uncertainty"]["mean_ppfd"];
    EXPECT_NEAR(std::sqrt(squares), u["standard"].number(), 1e-9);
    EXPECT_NEAR(2 * u["standard"].number() + std::abs(u["bias"].number()), sure, 1e-9);
    EXPECT_EQ(sweep["evidence"]["conditions"].size(), 10u);
    EXPECT_EQ(sweep["targets"].size(), 19u);
    EXPECT_NEAR(sweep["cut"]["length_m"].number(), 0.6, 1e-9);
  }
  const Outcome words = run("read " + book + " --test 7");
  EXPECT_NE(words.out.find("largest part: "), std::string::npos);
  EXPECT_NE(words.out.find(" grade"), std::string::npos);
}

TEST_F(Cli, ReadRefusesWhatItDoesNotUnderstand) {
  EXPECT_EQ(run("read " + (folder_ / "none.sunbreak").string() + " --cut 1,2,3").status, 2);
  EXPECT_NE(run("read " + (folder_ / "none.zip").string()).status, 0);
}

TEST_F(Cli, FiguresOfAReducedSweep) {
  const std::string table = file("four.csv", "10,20,30,40\n10,20,30,40\n10,20,30,40\n10,20,30,40\n").string();
  const Outcome r = run("figures " + table + " --footprint 120x120cm --reduce 2x2 --json");
  ASSERT_EQ(r.status, 0) << r.err;
  const auto j = record::json_of(r.out);
  EXPECT_EQ(j["stations"], 4);
  EXPECT_NEAR(j["lowest_ppfd"].number(), 15, 1e-9);
  EXPECT_NEAR(j["mean_ppfd"].number(), 25, 1e-9);
  EXPECT_EQ(run("figures " + table + " --footprint 120x120cm --reduce 8x8").status, 2);
  EXPECT_EQ(run("figures " + table + " --footprint 120x120cm --reduce small").status, 2);
}

TEST_F(Cli, ASizeToReduceToIsAllOfItsWordAndEmptyCellsAreTold) {
  const std::string table = file("part.csv", "10,20,,\n10,20,,\n1,2,3,4\n1,2,3,4\n").string();
  const Outcome junk = run("figures " + table + " --footprint 1x1m --reduce 2x2junk");
  EXPECT_EQ(junk.status, 2);
  EXPECT_NE(junk.err.find("--reduce: '2x2junk' is no number across and deep"), std::string::npos) << junk.err;
  const Outcome part = run("figures " + table + " --footprint 1x1m --reduce 2x2 --json");
  ASSERT_EQ(part.status, 0) << part.err;
  EXPECT_EQ(record::json_of(part.out)["missing"], 1);
  const std::string none = file("none.csv", ",\n,\n").string();
  const Outcome empty = run("figures " + none + " --footprint 1x1m --reduce 1x1");
  EXPECT_EQ(empty.status, 3) << empty.out;
  EXPECT_FALSE(empty.err.empty());
}

TEST_F(Cli, AnExportedTableGivesTheFiguresOfItsTest) {
  const std::string book = sample_book(), table = (folder_ / "table.csv").string();
  ASSERT_EQ(run("export " + book + " --test 2 --csv --out " + table).status, 0);
  const Outcome several = run("figures " + table + " --footprint 120x120cm");
  EXPECT_EQ(several.status, 2);
  EXPECT_NE(several.err.find("name it with --sweep, by its number: 1 (60 cm, 100 %)"), std::string::npos)
      << several.err;
  const auto sweeps = record::json_of(run("read " + book + " --test 2 --json").out)["sweeps"];
  for (int sweep = 1; sweep <= 2; ++sweep) {
    const Outcome one = run(fmt::format("figures {} --footprint 120x120cm --sweep {} --json", table, sweep));
    ASSERT_EQ(one.status, 0) << one.err;
    const auto figures = record::json_of(one.out), known = sweeps[static_cast<std::size_t>(sweep - 1)]["figures"];
    for (const char* figure : {"mean_ppfd", "lowest_ppfd", "edge_ppfd"})
      EXPECT_NEAR(figures[figure].number(), known[figure].number(), 1e-6) << figure << " is of light as corrected";
  }
  const std::string all = text(table);
  EXPECT_EQ(all.find("00000"), std::string::npos) << "arithmetic leaves nothing in a table for people";
  EXPECT_EQ(all.find("99999"), std::string::npos);
}

TEST_F(Cli, LessThanNoLightIsSaid) {
  const Outcome r = run("figures " + file("low.csv", "300,-4\n300,310\n").string() + " --footprint 1x1m");
  EXPECT_EQ(r.status, 0);
  EXPECT_NE(r.err.find("-4 is less than no light"), std::string::npos) << r.err;
}

TEST_F(Cli, WholeLightIsFoundFromALabBookAndAPackageAlike) {
  const std::string book = sample_book();
  const auto from_book = run("whole-light " + book + " --test 3 --json");
  ASSERT_EQ(from_book.status, 0) << from_book.err;
  const auto light = record::json_of(from_book.out);
  ASSERT_TRUE(light["fits"].truth()) << light["reason"].text();
  for (const char* key :
       {"reason", "ppf_umol_s", "efficacy_umol_j", "utilization", "half_angle_deg", "wall_reflectance", "offset_m",
        "tilt_deg", "height_offset_m", "residual_rms_pct", "left_out"})
    EXPECT_TRUE(light.contains(key)) << key;
  EXPECT_TRUE(light.contains("wall_reflectance") && light["wall_reflectance"].is_null()) << "an open floor has none";
  EXPECT_GT(light["ppf_umol_s"]["expanded_k2"].number(), 0);
  EXPECT_EQ(light["utilization"].size(), 2u);
  EXPECT_LT(light["utilization"][1]["share"]["value"].number(), light["utilization"][0]["share"]["value"].number());

  const std::string package = (folder_ / "pell.zip").string();
  ASSERT_EQ(run("export " + book + " --test 3 --out " + package).status, 0);
  const auto from_package = run("whole-light " + package + " --json");
  EXPECT_EQ(from_package.out, from_book.out) << "the package is enough to work it out again";
  const auto archive = exchange::read_zip(package, {"whole_light.csv"});
  ASSERT_TRUE(archive);
  EXPECT_NE(archive.value().at("whole_light.csv").find("restated_white_tent_mean_ppfd"), std::string::npos);
}

TEST_F(Cli, SettleAnswersOrSaysWhyNot) {
  const std::string book = sample_book(), of = " --test 3 --json";
  const auto settle = [&](const std::string& how) {
    const auto answer = run("settle " + book + " " + how + of);
    EXPECT_EQ(answer.status, 0) << answer.err;
    return record::json_of(answer.out);
  };
  const auto wide = settle("--target-low 20 --target-high 5000 --rule every --area 60x60cm --list 'Short days'");
  for (const char* key : {"rule", "fewest_watts", "widest", "most_even", "reason", "card", "lacks", "area"})
    EXPECT_TRUE(wide.contains(key)) << key;
  ASSERT_FALSE(wide["fewest_watts"].is_null()) << wide["reason"].text();
  for (const char* key : {"height_m", "dimmer_pct", "power_w", "mean_ppfd", "edge_mean_ppfd", "lowest_ppfd",
                          "highest_ppfd", "in_band_share", "lowest_over_mean", "chance", "expanded_k2", "predicted"})
    EXPECT_TRUE(wide["fewest_watts"].contains(key)) << key;
  EXPECT_EQ(wide["widest"]["in_band_share"], 1.0);
  EXPECT_EQ(wide["card"].size(), 5u);
  EXPECT_EQ(wide["card"][0]["stage"], "propagation");
  EXPECT_FALSE(wide["lacks"].empty()) << "it has no stair";
  EXPECT_NEAR(wide["area"]["left_m"].number(), wide["area"]["front_m"].number(), 1e-9);
  // A band of daily light is one of PPFD by the hours: 0.864 mol/m²/d in 12 h are 20 µmol/m²/s.
  const auto daily = settle("--dli-low 0.864 --dli-high 216 --photoperiod 12 --rule every --area 60x60cm");
  EXPECT_EQ(daily["fewest_watts"]["height_m"], wide["fewest_watts"]["height_m"]);
  const auto none = settle("--target-low 4000 --target-high 5000");
  EXPECT_TRUE(none.contains("fewest_watts") && none["fewest_watts"].is_null());
  EXPECT_NE(none["reason"]["fewest_watts"].text().find("too dim everywhere"), std::string::npos);
  const auto at = settle("--target-low 20 --target-high 5000 --rule mean --at-height 50cm");
  EXPECT_EQ(at["fewest_watts"]["height_m"], 0.5);
  for (const char* wrong :
       {"--rule edges", "--area 5x5m", "--area nowhere", "--list none", "--policy best", "--target-low 5",
        "--target-low 500 --target-high 400", "--target-low 20 --target-high 50 --dli-low 3", "--at-height 3m",
        "--at-dimmer 40", "--at-watts 1"}) {
    const auto refused = run("settle " + book + " " + wrong + of);
    EXPECT_EQ(refused.status, 3) << wrong;
    EXPECT_FALSE(refused.err.empty()) << wrong;
  }
}

TEST_F(Cli, AuditHoldsClaimsAgainstWhatWasMeasured) {
  const std::string book = sample_book(), package = (folder_ / "pell.zip").string();
  const auto told = run("audit " + book + " --test 3 --json");
  ASSERT_EQ(told.status, 0) << told.err;
  const auto j = record::json_of(told.out);
  ASSERT_EQ(j["claims"].size(), 4u);
  const auto& power = j["claims"][0];
  EXPECT_EQ(power["kind"], "power_w");
  EXPECT_EQ(power["claimed"], 300);
  EXPECT_EQ(power["unit"], "W");
  EXPECT_NEAR(power["measured"].number(), 228, 0.5);
  EXPECT_NEAR(power["expanded_k2"].number(), 4.6, 0.1);
  EXPECT_NEAR(power["difference_pct"].number(), -24, 0.2);
  EXPECT_EQ(power["verdict"], "short");
  EXPECT_EQ(j["claims"][1]["verdict"], "short") << "a driver does not lose a third";
  EXPECT_EQ(j["claims"][2]["verdict"], "not testable here") << "it is in words alone";
  EXPECT_EQ(j["claims"][3]["verdict"], "not testable here") << "18 cm is beyond what was walked";
  EXPECT_FALSE(j["claims"][3]["lifts"].is_null());
  ASSERT_FALSE(j["words"].empty());
  EXPECT_EQ(j["words"][0]["figure"], "mean_ppfd");
  EXPECT_EQ(j["words"][0]["own"], false);
  EXPECT_NE(run("audit " + book + " --test 3").out.find("short by 24 %"), std::string::npos);
  EXPECT_EQ(run("audit " + book + " --test 99").status, 3);
  // The package has verdicts and words as tables, and audits alike.
  ASSERT_EQ(run("export " + book + " --test 3 --out " + package).status, 0);
  const auto archive = exchange::read_zip(package);
  ASSERT_TRUE(archive);
  EXPECT_NE(archive.value().at("audit.csv").find("\"power_w\",300,"), std::string::npos);
  EXPECT_NE(archive.value().at("verdict.csv").find("mean_ppfd"), std::string::npos);
  EXPECT_EQ(record::json_of(run("audit " + package + " --json").out)["claims"], j["claims"]);
}

TEST_F(Cli, LineUpRanksWhatMayBeComparedAndSaysWhyNot) {
  const std::string book = sample_book();
  const auto j = record::json_of(run("line-up " + book + " --by lowest_over_mean --json").out);
  EXPECT_EQ(j["way"], "as-measured");
  EXPECT_EQ(j["rows"].size(), 9u);
  const auto row = [&](const record::Json& from, const std::string& test) {
    for (const auto& r : from["rows"])
      if (r["test"] == test) return r;
    return record::Json();
  };
  const auto ostler = row(j, "Ostler Six-Bar in the tent");
  EXPECT_EQ(ostler["rank_low"], 1);
  EXPECT_EQ(ostler["rank_high"], 2);
  EXPECT_EQ(ostler["ties"], record::Json::array({"Ostler Six-Bar, seven months on"}));
  EXPECT_FALSE(row(j, "Bess 400 in the tent · lamp of 6,200 h")["dominated_by"].empty());
  bool told = false;
  for (const auto& pair : j["not_comparable"])
    told = told || (pair["a"] == "Brindle Panel 135 in the tent" && pair["b"] == "Pell Narrow 300 on the loft floor" &&
                    pair["why"].text().find("reflective walls and no walls") != std::string::npos);
  EXPECT_TRUE(told);
  // By the stair at equal watts, two of them are there at all, and the others say why not.
  const auto equal = record::json_of(run("line-up " + book + " --by mean_ppfd --way equal-watts:200 --json").out);
  EXPECT_NEAR(row(equal, "Ostler Six-Bar in the tent")["power_w"].number(), 200, 1e-6);
  EXPECT_TRUE(row(equal, "Tansy Round 60 in the window bay")["value"].is_null());
  EXPECT_NE(row(equal, "Tansy Round 60 in the window bay")["why_none"].text(), "");
  const Outcome table = run("line-up " + book + " --csv");
  EXPECT_EQ(lines(table.out), 10);
  EXPECT_EQ(table.out.substr(0, 13), "test,fixture,");
  // A package is a guest; what cannot be used is refused with what can.
  const std::string package = (folder_ / "guest.zip").string();
  ASSERT_EQ(run("export " + book + " --test 2 --out " + package).status, 0);
  const Outcome own = run("line-up " + book + " " + package + " --json");
  EXPECT_EQ(record::json_of(own.out)["rows"].size(), 9u);
  EXPECT_NE(own.err.find("it would count twice"), std::string::npos) << own.err;
  exchange::Archive walked_elsewhere = exchange::read_zip(package).value();
  std::string& readings = walked_elsewhere.at("reading.csv");
  for (std::size_t at = 0; (at = readings.find("\"2026-", at)) != std::string::npos; ++at)
    readings.replace(at, 6, "\"2025-");
  const std::string other = file("other.zip", exchange::zip_bytes(walked_elsewhere)).string();
  const auto guest = record::json_of(run("line-up " + book + " " + other + " --json").out);
  EXPECT_EQ(guest["rows"].size(), 10u);
  for (const char* wrong : {" --by beauty", " --way sideways", " --way best:moss", " --filter weight=3",
                            " --target moss", " --target-low 300"})
    EXPECT_EQ(run("line-up " + book + wrong).status, 3) << wrong;
  EXPECT_EQ(run("line-up " + (folder_ / "none.sunbreak").string()).status, 3);
}

TEST_F(Cli, SuitsTellsWhichFixturesLightARoom) {
  const std::string book = sample_book();
  const std::string room =
      "suits " + book + " --filter Brindle --target-low 120 --target-high 500 --photoperiod 14 --room ";
  const auto j = record::json_of(run(room + "1.2x1.2m --walls reflective --json").out);
  ASSERT_EQ(j["rows"].size(), 1u);
  const auto& suit = j["rows"][0];
  EXPECT_EQ(suit["count"], 1);
  // Price and 3 years of 14 h a day at 0.30.
  EXPECT_NEAR(suit["cost"].number(), suit["price"].number() + suit["power_w"].number() * 3 * 365 * 14 / 1000 * 0.3,
              1e-6);
  const auto poor = record::json_of(run(room + "1.2x1.2m --walls reflective --budget 20W --json").out);
  ASSERT_EQ(poor["almost"].size(), 1u);
  EXPECT_NE(poor["almost"][0]["why_not"].text().find("over the budget"), std::string::npos);
  const auto small = record::json_of(run(room + "0.2x0.2m --json").out);
  ASSERT_EQ(small["unknown"].size(), 1u);
  EXPECT_NE(small["unknown"][0]["why"].text().find("does not fit"), std::string::npos);
  for (const char* wrong : {"3x4m --budget cheap", "3x4m --by beauty", "3x4m --budget 0W"})
    EXPECT_EQ(run(room + wrong).status, 3) << wrong;
}

TEST_F(Cli, BetweenAndElsewhereAnswerOrSayWhyNot) {
  const std::string book = sample_book(), of = " --test 3 --json";
  const auto between = run("between " + book + " --height 50cm" + of);
  ASSERT_EQ(between.status, 0) << between.err;
  const auto predicted = record::json_of(between.out);
  EXPECT_TRUE(predicted["predicted"].truth());
  EXPECT_EQ(predicted["way"], "model");
  EXPECT_EQ(predicted["stations"].size(), 64u);
  EXPECT_GT(predicted["expanded_k2"]["mean_ppfd"].number(), 0);
  EXPECT_EQ(run("between " + book + " --height 2m" + of).status, 3);
  EXPECT_NE(run("between " + book + " --height 50cm --dimmer 40" + of).err.find("40 % was not measured"),
            std::string::npos);

  const auto mean = [&](const std::string& how) {
    const auto answer = run("elsewhere " + book + " --height 45cm " + how + of);
    EXPECT_EQ(answer.status, 0) << answer.err;
    return record::json_of(answer.out)["mean_ppfd"]["value"].number();
  };
  const double open = mean("--room open-floor"), tent = mean("--room white-tent");
  EXPECT_GT(tent, 1.1 * open);
  const auto room =
      file("room.json", R"({"width_m": 3, "depth_m": 4, "height_m": 2.4, "reflectance": {"left": 0.5, "right": 0.5,)"
                        R"( "front": 0.5, "back": 0.5, "ceiling": 0.7, "floor": 0.2}})");
  const double one = mean("--room " + room.string()),
               six = mean("--room " + room.string() + " --units 2x3 --spacing 120cm");
  EXPECT_NEAR(six, 6 * one, 0.35 * 6 * one) << "six of them, nearer to the walls";
  const auto count = run("elsewhere " + book + " --room " + room.string() + " --for-ppfd 100" + of);
  ASSERT_EQ(count.status, 0) << count.err;
  const auto answer = record::json_of(count.out);
  EXPECT_GT(answer["count"].whole(), 1);
  EXPECT_NEAR(answer["mean_ppfd"]["value"].number(), 100, 40);
  EXPECT_EQ(run("elsewhere " + book + " --room nowhere.json" + of).status, 3);
  EXPECT_NE(
      run("elsewhere " + book + " --room white-tent --height 45cm --units 3x3 --spacing 1m" + of).err.find("take"),
      std::string::npos);
}

TEST_F(Cli, ReadTellsWhatATestKnowsAboutItsFixture) {
  const std::string book = sample_book(), package = (folder_ / "ostler.zip").string(),
                    other = (folder_ / "o.sunbreak").string();
  const auto read = [&](const std::string& of) { return record::json_of(run("read " + of + " --json").out); };
  const auto bess = read(book + " --test 5");
  ASSERT_EQ(bess["sweeps"].size(), 4u);
  EXPECT_EQ(bess["sweeps"][0]["configuration"], "lamp of 6,200 h");
  EXPECT_EQ(bess["sweeps"][3]["configuration"], "a new lamp");
  EXPECT_EQ(bess["fixture"]["facts"]["hours_run"]["checked"], 6200);
  // Other commands are of one configuration, by its name.
  const auto none = run("whole-light " + book + " --test 5 --json --configuration 'another lamp'");
  EXPECT_EQ(none.status, 3);
  EXPECT_NE(none.err.find("it has: lamp of 6,200 h, a new lamp"), std::string::npos) << none.err;
  // Pictures go with the package into another lab book, and out of it again.
  const auto ostler = read(book + " --test 1");
  EXPECT_EQ(ostler["pictures"].size(), 3u);
  EXPECT_EQ(ostler["notes"].size(), 2u);
  ASSERT_EQ(run("export " + book + " --test 1 --out " + package).status, 0);
  ASSERT_EQ(run("import " + other + " " + package).status, 0);
  EXPECT_EQ(read(other), ostler);
}

TEST_F(Cli, LineUpByAnIndexPrintsItsWeights) {
  const std::string book = sample_book(), index = "index:canopy_efficacy_umol_j=2,lowest_over_mean";
  const auto j = record::json_of(run("line-up " + book + " --by " + index + " --json").out);
  EXPECT_EQ(j["weights"], "2 × canopy efficacy, 1 × lowest ÷ mean");
  EXPECT_NE(j["way_words"].text().find("Own index"), std::string::npos);
  const Outcome wrong = run("line-up " + book + " --by index:brightness");
  EXPECT_EQ(wrong.status, 3);
  EXPECT_NE(wrong.err.find("there is no figure 'brightness' to weigh"), std::string::npos) << wrong.err;
}

TEST_F(Cli, NoCommandWritesOverWhatItReadsOrWhatBelongsToALabBook) {
  const std::string book = sample_book(), package = (folder_ / "package.zip").string();
  ASSERT_EQ(run("export " + book + " --test 1 -o " + package).status, 0);
  const std::string before = text(book), packed = text(package);
  fs::create_directories(folder_ / "book-backups");
  for (const std::string& arguments :
       {"factor-card " + book + " --output " + book + " --force",
        "line-up " + book + " --workbook " + book + " --force", "export " + book + " --test 1 -o " + book + " --force",
        "export " + package + " -o " + package + " --force", "export " + book + " --test 1 -o " + book + "-journal",
        "export " + book + " --test 1 -o " + book + ".lock --force",
        "export " + book + " --test 1 -o " + (folder_ / "book-backups/page.zip").string(),
        "demo " + book + "-journal"}) {
    const Outcome o = run(arguments);
    EXPECT_NE(o.status, 0) << arguments;
    EXPECT_NE(o.err.find("it was left as it is"), std::string::npos) << arguments << ": " << o.err;
  }
  EXPECT_EQ(text(book), before);
  EXPECT_EQ(text(package), packed);
}

TEST_F(Cli, AnEndlessOrEmptySourceIsToldAsThat) {
  for (const char* command : {"spectrum", "predict", "lux-factor", "figures --footprint 120x120cm"})
    EXPECT_NE(run(std::string(command) + " /dev/zero").err.find("larger than 64 MB"), std::string::npos) << command;
  const std::string empty = file("empty.sunbreak", "").string();
  EXPECT_NE(run("list " + empty).err.find("is empty"), std::string::npos);
}

TEST_F(Cli, FiguresThatCannotBeAreRefused) {
  const std::string table = file("a.csv", nine).string();
  EXPECT_EQ(run("figures " + table + " --footprint 120x120cm --watts 130").status, 0);
  const Outcome r = run("figures " + table + " --footprint 120x120cm --watts 54");  // 13.3 µmol/J
  EXPECT_EQ(r.status, 3);
  EXPECT_NE(r.err.find("13.3 µmol/J on 1.44 m² is more than"), std::string::npos) << r.err;
  EXPECT_TRUE(r.out.empty());
}

TEST_F(Cli, WhatAnOptionCannotBeIsRefusedBeforeTheCommandRuns) {
  // Each with what its quantity cannot be, beside what no quantity can.
  const std::string nowhere = (folder_ / "nothing.sunbreak").string();
  const std::string suits = "suits X --room 3x4m --target-low 300 --target-high 600 --photoperiod 12";
  struct Wish {
    std::string command, option;
    std::vector<std::string> impossible;
  };
  const std::vector<Wish> wishes{
      {"settle X", "--target-low", {"0", "-5", "20001"}},
      {"settle X", "--target-high", {"0", "20001"}},
      {"settle X", "--dli-low", {"0", "1800"}},
      {"settle X", "--dli-high", {"-1"}},
      {"settle X", "--photoperiod", {"0", "25", "-12"}},
      {"settle X", "--sure", {"0", "100", "-1"}},
      {"settle X", "--max-watts", {"0", "-40", "1000000"}},
      {"settle X", "--max-ppfd", {"0", "30000"}},
      {"settle X", "--at-watts", {"0", "-1"}},
      {"settle X", "--at-dimmer", {"-1", "201"}},
      {"settle X", "--min-height", {"30", "0cm", "-30cm", "11m", "high"}},
      {"settle X", "--max-height", {"30", "0cm", "11m"}},
      {"settle X", "--at-height", {"30", "0cm", "11m"}},
      {"between X", "--height", {"30", "0cm", "-1in"}},
      {"between X --height 30cm", "--dimmer", {"-1", "201"}},
      {"elsewhere X --room open-floor", "--height", {"0m"}},
      {"elsewhere X --room open-floor", "--dimmer", {"-1"}},
      {"elsewhere X --room open-floor", "--units", {"0x2", "2", "1.5x2", "2x2x", "101x1", "two"}},
      {"elsewhere X --room open-floor", "--spacing", {"80", "0cm", "-80cm", "80x-60cm", "21m", "0x80cm"}},
      {"elsewhere X --room open-floor", "--for-ppfd", {"0", "-1"}},
      {suits, "--room", {"3m", "0x3m", "21x21m", "-3x4m"}},
      {suits, "--room-height", {"9cm", "11m", "2.4"}},
      {suits, "--target-low", {"0", "-1"}},
      {suits, "--target-high", {"0"}},
      {suits, "--photoperiod", {"0", "24.1"}},
      {suits, "--years", {"0", "101", "-3"}},
      {suits, "--tariff", {"-0.1"}},
      {suits, "--threads", {"0", "1.5", "257"}},
      {"line-up X", "--target-low", {"-1"}},
      {"line-up X", "--target-high", {"20001"}},
      {"line-up X", "--photoperiod", {"0"}},
      {"line-up X", "--years", {"0"}},
      {"line-up X", "--tariff", {"-1"}},
      {"line-up X", "--decay", {"-1", "51"}},
      {"line-up X", "--threads", {"0"}},
      {"agree X", "--trusted-pct", {"-1", "51"}},
      {"agree X", "--other-pct", {"-1"}},
      {"spectrum X", "--share", {"-0.1", "1.1"}},
      {"read X --json", "--cut", {"0,0,0,0", "0,0,10", "0,0,10,10,10", "0,0,9999,0", ",,,"}},
      {"figures X", "--footprint", {"1x1cm", "1m", "21x1m"}},
      {"figures X --footprint 1x1m", "--margin", {"-5cm", "5"}},
      {"figures X --footprint 1x1m", "--watts", {"0", "-1"}},
      {"figures X --footprint 1x1m", "--photoperiod", {"0", "25"}},
      {"figures X --footprint 1x1m", "--target-low", {"-1"}},
      {"figures X --footprint 1x1m", "--target-high", {"20001"}},
      {"figures X --footprint 1x1m", "--reduce", {"0x1", "2x2junk", "8.5x8"}},
  };
  for (const Wish& wish : wishes) {
    std::vector<std::string> impossible{"nan", "-inf", "1e999", "0x10", "''", "1e"};
    impossible.insert(impossible.end(), wish.impossible.begin(), wish.impossible.end());
    for (const std::string& value : impossible) {
      std::string command = wish.command + " " + wish.option + "=" + value;
      command.replace(command.find(" X") + 1, 1, nowhere);
      // What is given again counts once; CLI11 refuses the second.
      if (const auto earlier = command.find(" " + wish.option + " "); earlier != std::string::npos)
        command.erase(earlier, command.find(" ", earlier + wish.option.size() + 2) - earlier);
      const Outcome r = run(command);
      EXPECT_EQ(r.status, 2) << command << "\n" << r.err;
      EXPECT_TRUE(r.err.starts_with(wish.option + ": ")) << command << "\n" << r.err;
    }
  }
}

TEST_F(Cli, TextOfStrangersMakesNoLineOfItsOwnAndNothingThatATerminalDoes) {
  const std::string book = sample_book(), package = (folder_ / "a.zip").string(),
                    strange = (folder_ / "b.zip").string();
  ASSERT_EQ(run("export " + book + " --test 1 --out " + package).status, 0);
  const std::string script =
      "import sys, zipfile, csv, io\n"
      "a = zipfile.ZipFile(sys.argv[1])\n"
      "with zipfile.ZipFile(sys.argv[2], 'w') as b:\n"
      "  for n in a.namelist():\n"
      "    t = a.read(n)\n"
      "    if n.endswith('test.csv') or n.endswith('fixture.csv'):\n"
      "      rows = list(csv.reader(io.StringIO(t.decode('utf-8-sig'))))\n"
      "      rows[1][rows[0].index('name')] = 'mild\\n99\\tforged\\r\\x1b]0;owned\\x07\\u009b31m\\u202egnp'\n"
      "      o = io.StringIO(); csv.writer(o, quoting=csv.QUOTE_ALL).writerows(rows); t = o.getvalue().encode()\n"
      "    b.writestr(n, t)\n";
  ASSERT_EQ(std::system(("python3 " + file("strange.py", script).string() + " " + package + " " + strange).c_str()), 0);
  const auto is_quiet = [](const std::string& said) {
    return std::ranges::none_of(said,
                                [](char c) {
                                  const auto byte = static_cast<unsigned char>(c);
                                  return (byte < 0x20 && c != '\n' && c != '\t') || byte == 0x7F;
                                }) &&
           said.find("\u009B") == std::string::npos && said.find("\u202E") == std::string::npos;
  };
  const std::string own = (folder_ / "own.sunbreak").string();
  ASSERT_EQ(run("demo " + own).status, 0);
  const std::ptrdiff_t before = lines(run("list " + own).out);
  ASSERT_EQ(run("import " + own + " " + strange + " --as-altered").status, 0);
  EXPECT_EQ(lines(run("list " + own).out), before + 1);
  for (const std::string& command :
       std::vector<std::string>{"list " + own, "read " + strange, "verify " + strange, "verify " + strange + " --json",
                                "line-up " + strange, "line-up " + strange + " --csv", "line-up " + strange + " --json",
                                "audit " + strange, "settle " + strange, "import " + own + " " + strange,
                                "whole-light " + strange, "export " + own + " --test 'no such\x1b[31m' --out x"}) {
    const Outcome r = run(command);
    EXPECT_TRUE(is_quiet(r.out)) << command << "\n" << r.out;
    EXPECT_TRUE(is_quiet(r.err)) << command << "\n" << r.err;
    EXPECT_EQ(r.out.find("\n99\tforged"), std::string::npos) << command;
  }
}
