#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "core/figures/figure_table.h"
#include "drawing/light_scale.h"
#include "pictures/made_pictures.h"
#include "record/faults.h"
#include "report/html_report.h"

using namespace sunbreak;
using namespace sunbreak::report;
using namespace sunbreak::drawing;

namespace {

/// One sweep of 2 × 2 cells at 45 cm: 100 200 300 400, 100 W on 1.44 m².
record::TestRecord small_record() {
  record::TestRecord b;
  b.fixture.name = "Fixture";
  b.bench.name = "Bench";
  b.test.columns = b.test.rows = 2;
  b.test.target_low_ppfd = 150;
  b.test.target_high_ppfd = 350;
  b.rungs = {{1, 0, 0.45}};
  b.stops = {{1, 0, 100}};
  record::Sweep sweep;
  sweep.id = sweep.rung_id = sweep.stop_id = 1;
  sweep.columns = sweep.rows = 2;
  sweep.power_w = 100;
  b.sweeps = {sweep};
  for (int i = 0; i < 4; ++i) {
    b.readings.push_back({i + 1, 1, i, 100.0 * (i + 1), "typed", ""});
    b.placements.push_back({i + 1, 1, i, i + 1, ""});
  }
  return b;
}

bool holds(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }

}  // namespace

TEST(HtmlReport, ShowsTheFiguresAndTheirDefinitions) {
  const std::string html = html_report({evaluation::evaluate(small_record())}).html;
  EXPECT_TRUE(holds(html, ">250 µmol/m²/s<"));
  EXPECT_TRUE(holds(html, ">3.60 µmol/J<")) << "250 · 1.44 / 100";
  EXPECT_TRUE(holds(html, ">0.40")) << "lowest ÷ mean";
  for (const Figure& d : figures()) {
    std::string label(d.label);
    if (const auto at = label.find('\''); at != std::string::npos) label.replace(at, 1, "&apos;");
    EXPECT_TRUE(holds(html, label)) << label;
  }
}

TEST(HtmlReport, BeginsWithWhatAReaderWantsInTwentySeconds) {
  record::TestRecord b = small_record();
  b.fixture.obtained = "bought by a library";
  const std::string html = html_report({evaluation::evaluate(b)}).html;
  const std::size_t glance = html.find("All sweeps at a glance");
  ASSERT_NE(glance, std::string::npos);
  const std::string first = html.substr(0, glance);
  for (const char* part : {"<svg", "<b>250 µmol/m²/s</b>", "<b>100.0 W</b>", "<b>3.60 µmol/J</b>", "±", "Evidence",
                           "bought by a library", "45 cm, 100 %: "})
    EXPECT_TRUE(holds(first, part)) << part;
}

TEST(HtmlReport, PrintsAllThatIsOnRecordOfPowerAndTargets) {
  record::TestRecord b = small_record();
  record::TargetSetting turned;
  turned.target_name = "basil", turned.place = "corner", turned.wanted_ppfd = 222, turned.raw = 223.4;
  turned.power_w = 61.5, turned.percent = 40;
  b.target_settings = {turned};
  record::WallReading wall;
  wall.sweep_id = 1;
  wall.power_w = 100.5, wall.voltage_v = 229.7, wall.current_a = 0.452, wall.apparent_va = 103.8;
  wall.power_factor = 0.968, wall.frequency_hz = 50.1;
  b.wall_readings = {wall};
  const std::string html = html_report({evaluation::evaluate(b)}).html;
  for (const char* part : {">basil<", ">222<", ">223<", ">61.5<", ">100.5<", ">229.7<", ">0.452<", ">103.8<", ">0.968<",
                           ">50.1<", "What each setting serves", "flowering &amp; fruiting"})
    EXPECT_TRUE(holds(html, part)) << part;
}

TEST(HtmlReport, LeavesOutThePartsThatAreNotWanted) {
  const auto evaluation = evaluation::evaluate(small_record());
  const std::pair<PagePart, const char*> told[] = {
      {PagePart::HowToRead, "How to read the maps"}, {PagePart::Targets, "What each setting serves"},
      {PagePart::Sweeps, "<h3>How sure</h3>"},        {PagePart::Budgets, "Where it comes from"},
      {PagePart::Readings, "Corrected PPFD in"},     {PagePart::Power, "Warm-up and power"},
      {PagePart::Bench, "Bench and meters"},         {PagePart::Definitions, "Definitions"}};
  const std::string whole = html_report({evaluation}).html;
  for (const auto& [part, words] : told) {
    EXPECT_TRUE(holds(whole, words)) << words;
    ReportOptions options;
    options.parts.reset(static_cast<std::size_t>(part));
    const std::string without = html_report({evaluation}, options).html;
    EXPECT_FALSE(holds(without, words)) << words;
    EXPECT_TRUE(holds(without, "Disclosure")) << words;
  }
  EXPECT_EQ(part_named("how-to-read"), PagePart::HowToRead);
  EXPECT_FALSE(part_named("everything"));
}

TEST(HtmlReport, ToExploreHasOneScriptThatItsPolicyNames) {
  ReportOptions options;
  options.explore = true;
  record::TestRecord b = small_record();
  b.test.target_name = "</script><script>alert(1)</script>";
  const std::string html = html_report({evaluation::evaluate(b)}, options).html;
  EXPECT_TRUE(holds(html, "script-src 'sha256-"));
  EXPECT_FALSE(holds(html, "<script>alert(1)"));
  std::size_t scripts = 0;
  for (std::size_t at = html.find("<script"); at != std::string::npos; at = html.find("<script", at + 1)) ++scripts;
  EXPECT_EQ(scripts, 2u) << "what it works with, and the script";
}

TEST(HtmlReport, NeedsNoNetworkAndNoScript) {
  const std::string html = html_report({evaluation::evaluate(small_record())}).html;
  for (const char* part : {"<script", "http://", "https://", "src=", "@import", "url(", "<link", "<iframe"}) {
    std::string rest = html;
    for (std::size_t at; (at = rest.find("http://www.w3.org/2000/svg")) != std::string::npos;)
      rest.erase(at, 26);  // a name, not an address
    EXPECT_FALSE(holds(rest, part)) << part;
  }
}

TEST(HtmlReport, EscapesEveryTextOfTheLabBook) {
  const std::string evil = "<script>alert(1)</script>\"'&";
  record::TestRecord b = small_record();
  for (std::string* text :
       {&b.fixture.name, &b.fixture.maker, &b.fixture.kind, &b.fixture.emitters, &b.fixture.serial, &b.fixture.currency,
        &b.fixture.obtained, &b.fixture.interest, &b.bench.name, &b.bench.wall_left, &b.bench.wall_back, &b.test.name,
        &b.test.target_name, &b.test.door, &b.test.datum, &b.test.tested_by, &b.test.tested_on, &b.test.notes})
    *text = evil;
  b.fixture.price = 5;
  b.claims = {{1, 0, evil, std::nullopt, evil}};
  b.meters = {{}};
  b.meters[0].name = b.meters[0].calibrated_on = evil;
  const std::string html = html_report({evaluation::evaluate(b)}).html;
  EXPECT_FALSE(holds(html, "<script"));
  EXPECT_TRUE(holds(html, "&lt;script&gt;"));
}

TEST(HtmlReport, UnstatedDisclosureSaysSo) {
  EXPECT_TRUE(holds(html_report({evaluation::evaluate(small_record())}).html, "not stated"));
}

TEST(HtmlReport, AnIncompleteSweepSaysWhichShareItStandsFor) {
  record::TestRecord b = small_record();
  b.placements.pop_back();
  const std::string html = html_report({evaluation::evaluate(b)}).html;
  EXPECT_TRUE(holds(html, "3 of 4"));
  EXPECT_TRUE(holds(html, "75 %"));
}

TEST(HtmlReport, ATestWithoutReadingsStillMakesAPage) {
  record::TestRecord b = small_record();
  b.placements.clear();
  b.readings.clear();
  EXPECT_TRUE(holds(html_report({evaluation::evaluate(b)}).html, "No station has been read yet"));
}

TEST(HtmlReport, ASweepWithoutItsHeightIsSetApartAndItsDismissalStillPrinted) {
  record::TestRecord b = small_record();
  b.sweeps.push_back(b.sweeps[0]);
  b.sweeps[1].id = 2, b.sweeps[1].rung_id = 77;
  b.dismissals = {{1, 0, 2, "drift", "", "it fell", "the door was open", "2026-03-14T09:30:00.000Z"}};
  record::set_apart(b);
  const std::string html = html_report({evaluation::evaluate(b)}).html;
  EXPECT_TRUE(holds(html, "a sweep set apart"));
  EXPECT_TRUE(holds(html, "the door was open"));
}

TEST(HtmlReport, SaysPlainlyWhatItKnowsAndWhatNot) {
  record::TestRecord b = small_record();
  b.claims = {{1, 0, "power_w", 320, ""}, {2, 0, "efficacy_umol_j", 2.8, ""}};
  std::string html = html_report({evaluation::evaluate(b)}).html;
  EXPECT_TRUE(holds(html, "What heights are measured from is not stated"));
  EXPECT_FALSE(holds(html, "emitting plane"));
  EXPECT_TRUE(holds(html, "320 W"));
  EXPECT_TRUE(holds(html, "2.8 µmol/J"));
  EXPECT_TRUE(holds(html, "In band<br><span>150–350 µmol/m²/s</span>"));
  b.test.datum = "diodes";
  html = html_report({evaluation::evaluate(b)}).html;
  EXPECT_TRUE(holds(html, "vertical distance from the diodes"));
}

TEST(HtmlReport, ImperialUnitsHoldThroughout) {
  ReportOptions options;
  options.units = UnitSystem::Imperial;
  const std::string html = html_report({evaluation::evaluate(small_record())}, options).html;
  EXPECT_TRUE(holds(html, "17.7 in"));
  EXPECT_FALSE(holds(html, "45 cm"));
  EXPECT_TRUE(holds(html, "W/ft²"));
}

TEST(LightScale, RisesInLightnessFromEndToEnd) {
  const auto lightness = [](double share) {
    const Rgb c = light_color(share);
    return 0.2126 * std::pow(c.red / 255.0, 2.2) + 0.7152 * std::pow(c.green / 255.0, 2.2) +
           0.0722 * std::pow(c.blue / 255.0, 2.2);
  };
  for (double share = 0.01; share <= 1.0; share += 0.01) EXPECT_GT(lightness(share), lightness(share - 0.01)) << share;
  EXPECT_EQ(light_color(-1).hex(), light_color(0).hex());
  EXPECT_EQ(light_color(2).hex(), light_color(1).hex());
}

TEST(LightScale, RoundRangesHoldBothEnds) {
  for (const auto& [low, high] : {std::pair{243.0, 560.0}, {0.0, 1.0}, {37.0, 1804.0}, {500.0, 500.0}}) {
    const ScaleRange range = round_range(low, high);
    EXPECT_LE(range.low, low);
    EXPECT_GE(range.high, high);
    EXPECT_GT(range.high, range.low);
  }
}

TEST(HtmlReport, ShowsWarmUpStairTemperaturesAndCost) {
  record::TestRecord b = small_record();
  b.test.tariff_per_kwh = 0.3;
  b.stair_stops = {{1, 0, 100, 100.0, 0.97, "2026-03-14T09:00:00.000Z"},
                   {2, 0, 50, 55.0, 0.95, "2026-03-14T09:02:00.000Z"}};
  b.stair_readings = {{1, 1, 0, 400, "typed", 1, {}}, {2, 2, 0, 210, "typed", 1, {}}};
  record::Temperature hot;
  hot.place = "ballast";
  hot.read_c = 71.5;
  b.temperatures = {hot};
  const std::string html = html_report({evaluation::evaluate(b)}).html;
  EXPECT_TRUE(holds(html, ">0.525<")) << "210 / 400";
  EXPECT_TRUE(holds(html, ">+2.5 %<"));
  EXPECT_TRUE(holds(html, ">71.5<"));
  EXPECT_TRUE(holds(html, "burns at a touch"));
  EXPECT_TRUE(holds(html, "1.2 kWh a day")) << "100 W for 12 h";
  EXPECT_TRUE(holds(html, "whether it was walked settled is not known"));
  b.stair_stops.clear();
  b.stair_readings.clear();
  EXPECT_FALSE(holds(html_report({evaluation::evaluate(b)}).html, "Dimmer stair"));
}

TEST(HtmlReport, SaysHowSureItsFiguresAre) {
  const std::string html = html_report({evaluation::evaluate(small_record())}).html;
  EXPECT_TRUE(holds(html, "How sure"));
  EXPECT_TRUE(holds(html, "Evidence: Spot grade"));
  EXPECT_TRUE(holds(html, "Sensor calibration"));
  EXPECT_TRUE(holds(html, "Largest part of the mean&apos;s: ") || holds(html, "Largest part of the mean's: "));
  EXPECT_TRUE(holds(html, "± "));
}

TEST(HtmlReport, EachConfigurationHasItsPartAndOneAloneIsNotNamed) {
  record::TestRecord b = small_record();
  EXPECT_FALSE(holds(html_report({evaluation::evaluate(b)}).html, "Configuration:"));
  b.configurations = {{1, 0, "new tubes", "four of them"}};
  b.rungs.push_back({2, 0, 0.4, false, 1});
  b.stops.push_back({2, 0, 100, false, 1});
  record::Sweep sweep = b.sweeps[0];
  sweep.id = sweep.rung_id = sweep.stop_id = 2;
  sweep.control = "controller";
  b.sweeps.push_back(sweep);
  b.readings.push_back({9, 2, 0, 250, "typed", ""});
  b.placements.push_back({9, 2, 0, 9, ""});
  const auto all = evaluation::evaluate_all(b);
  const std::string html = html_report(all).html;
  EXPECT_TRUE(holds(html, "Configuration: as it comes"));
  EXPECT_TRUE(holds(html, "Configuration: new tubes"));
  EXPECT_TRUE(holds(html, "four of them"));
  EXPECT_TRUE(holds(html, "Driven by: controller."));
  ReportOptions one_sweep;
  one_sweep.sweeps = {2};
  const std::string alone = html_report(all, one_sweep).html;
  EXPECT_TRUE(holds(alone, "Configuration: new tubes"));
  EXPECT_FALSE(holds(alone, "Configuration: as it comes")) << "nothing of it was asked for";
}

TEST(HtmlReport, PicturesStandWhereTheyBelongAndADamagedOneHurtsNothing) {
  record::TestRecord b = small_record();
  b.fixture_pictures = {{1, 0, "photograph", "from below", "good"}};
  b.pictures = {{1, 0, 1, {}, {}, "", "photograph", "the \"tent\" <u>", "good"},
                {2, 0, {}, {}, {}, "", "photograph", "lost", "none"},
                {3, 0, {}, {}, {}, "", "photograph", "broken", "bad"}};
  ReportOptions options;
  options.pictures = [](const std::string& digest) -> std::optional<std::string> {
    if (digest == "good") return pictures::camera_jpeg(6);
    if (digest == "bad") return pictures::small_jpeg().substr(0, 200);
    return {};
  };
  const std::string html = html_report({evaluation::evaluate(b)}, options).html;
  EXPECT_TRUE(holds(html, "data:image/jpeg;base64,"));
  EXPECT_TRUE(holds(html, "<figcaption><div>from below</div></figcaption>"));
  EXPECT_FALSE(holds(html, "<u>")) << "captions are text";
  EXPECT_TRUE(holds(html, "s file is not here.</p>")) << "one that is missing leaves a sentence";
  EXPECT_TRUE(holds(html, "A picture is not shown: the picture is damaged"));
  EXPECT_TRUE(holds(html, "250")) << "and the figures stand";
}

TEST(HtmlReport, TheSheetIsPrintedWhereItIsFilled) {
  record::TestRecord b = small_record();
  EXPECT_FALSE(holds(html_report({evaluation::evaluate(b)}).html, "The box and what is in it"));
  b.box_facts = {{1, 0, "weight", "stated", 6.2, ""},
                 {2, 0, "listing_body", "stated", {}, "a body"},
                 {3, 0, "listing_number", "stated", {}, "12-34"},
                 {4, 0, "emitter_count", "checked", 50.0, ""}};
  b.fixture.price = 400, b.fixture.discount_pct = 10, b.fixture.shipping = 25, b.fixture.currency = "EUR";
  b.test.unit_columns = 2, b.test.unit_rows = 2, b.test.unit_turn_deg = 45;
  const std::string html = html_report({evaluation::evaluate(b)}).html;
  EXPECT_TRUE(holds(html, "<td>6.2 kg</td>"));
  EXPECT_TRUE(holds(html, "local codes and a licensed electrician decide"));
  EXPECT_TRUE(holds(html, "2 W each, of 100 W read at the wall"));
  EXPECT_TRUE(holds(html, "400 EUR, less 10 %, shipping 25 EUR: 385 EUR"));
  EXPECT_TRUE(holds(html, "2 × 2 units"));
  EXPECT_TRUE(holds(html, "turned by 45°"));
}
