#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>
#include <algorithm>
#include <cmath>
#include <random>

#include "core/figures/figure_table.h"
#include "core/figures/statistics.h"
#include "core/figures/sweep_figures.h"
#include "core/quantity/number.h"
#include "core/square_bench.h"
#include "core/targets/target_sets.h"

using namespace sunbreak;

namespace {

/// Three by three cells of 0.4 m, front row first:   700 800 900 / 400 500 600 / 100 200 300 seen from above.
const std::vector<double> nine{100, 200, 300, 400, 500, 600, 700, 800, 900};

SweepFigures nine_figures() { return *sweep_figures(cells(3, 3), nine, {200.0, 12, Band{350, 650}, {}}); }

std::vector<double> some_readings(std::size_t count) {
  std::vector<double> readings;
  for (std::size_t i = 0; i < count; ++i) readings.push_back(*rc::gen::inRange(1, 200000) / 100.0);
  return readings;
}

}  // namespace

TEST(Statistics, PercentilesInterpolateBetweenOrderStatistics) {
  std::vector<double> mixed{30, 10, 40, 20};
  const auto found = percentiles(mixed, std::array{5.0, 50.0, 100.0});
  EXPECT_DOUBLE_EQ(found[0], 11.5);
  EXPECT_DOUBLE_EQ(found[1], 25);
  EXPECT_DOUBLE_EQ(found[2], 40);
  std::vector<double> one{7}, none;
  EXPECT_DOUBLE_EQ(percentiles(one, std::array{95.0})[0], 7);
  EXPECT_TRUE(std::isnan(percentiles(none, std::array{50.0})[0]));
}

TEST(Statistics, PercentilesOfManyValuesAreThoseOfTheSortedOnes) {
  std::mt19937 random(11);
  for (const int kind : {0, 1, 2, 3}) {
    std::vector<double> values;
    for (int i = 0; i < 2304; ++i) {
      const double u = std::generate_canonical<double, 53>(random);
      values.push_back(kind == 0 ? 300 + 600 * u : kind == 1 ? std::round(5 * u) : kind == 2 ? std::exp(30 * u) : 7);
    }
    std::vector<double> sorted = values;
    std::sort(sorted.begin(), sorted.end());
    const std::array wanted{0.0, 5.0, 50.0, 95.0, 100.0};
    const auto found = percentiles(values, wanted);
    for (std::size_t i = 0; i < wanted.size(); ++i) {
      const double rank = wanted[i] / 100 * 2303;
      const auto low = static_cast<std::size_t>(rank);
      const double next = sorted[std::min<std::size_t>(low + 1, 2303)];
      EXPECT_DOUBLE_EQ(found[i], sorted[low] + (rank - std::floor(rank)) * (next - sorted[low])) << kind;
    }
    std::sort(values.begin(), values.end());
    EXPECT_EQ(values, sorted) << "only their order may change";
  }
}

TEST(Figures, OfNineCellsWorkedByHand) {
  const SweepFigures f = nine_figures();
  EXPECT_NEAR(f.mean_ppfd, 500, 1e-9);
  EXPECT_NEAR(f.median_ppfd, 500, 1e-9);
  EXPECT_NEAR(f.sd_ppfd, std::sqrt(2.0 * (100 * 100 + 200 * 200 + 300 * 300 + 400 * 400) / 9), 1e-9);
  EXPECT_NEAR(f.cv, 258.19888974716116 / 500, 1e-12);
  EXPECT_NEAR(f.p5_ppfd, 140, 1e-9);
  EXPECT_NEAR(f.p95_ppfd, 860, 1e-9);
  EXPECT_EQ(f.lowest.station, 0);
  EXPECT_EQ(f.highest.station, 8);
  EXPECT_NEAR(f.ppf_umol_s, 720, 1e-9);
  EXPECT_NEAR(f.efficacy->canopy_efficacy_umol_j, 3.6, 1e-12);
  EXPECT_NEAR(f.efficacy->ppfd_per_watt, 2.5, 1e-12);
  EXPECT_NEAR(f.efficacy->power_density_w_m2, 200 / 1.44, 1e-9);
  EXPECT_NEAR(f.evenness.lowest_over_mean, 0.2, 1e-12);
  EXPECT_NEAR(f.evenness.lowest_over_highest, 1.0 / 9, 1e-12);
  EXPECT_NEAR(f.evenness.highest_over_lowest, 9, 1e-12);
  EXPECT_NEAR(f.evenness.p5_over_mean, 0.28, 1e-12);
  EXPECT_NEAR(f.dli_mean_mol_m2_d, 21.6, 1e-12);
}

TEST(Figures, RingsCenterAndBalanceWorkedByHand) {
  const SweepFigures f = nine_figures();
  ASSERT_EQ(f.rings.size(), 2u);
  EXPECT_NEAR(f.rings[0].mean_ppfd, 500, 1e-9);
  EXPECT_NEAR(f.rings[1].mean_ppfd, 500, 1e-9);
  EXPECT_EQ(f.rings[0].read, 8);
  EXPECT_NEAR(f.center_ppfd, 500, 1e-9);
  EXPECT_NEAR(f.balance.left_right_pct, 40, 1e-9);   // columns 400 and 600 about a mean of 500
  EXPECT_NEAR(f.balance.front_back_pct, 120, 1e-9);  // rows 200 and 800
  EXPECT_NEAR(f.balance.centroid_x_m, 0.4 * (18.0 - 12.0) / 45, 1e-12);
  EXPECT_NEAR(f.balance.centroid_y_m, 0.4 * (24.0 - 6.0) / 45, 1e-12);
}

TEST(Figures, FourMiddleStationsMakeTheCenterOfAnEvenGrid) {
  std::vector<double> readings(16, 100);
  readings[5] = 200, readings[6] = 300, readings[9] = 400, readings[10] = 500;
  EXPECT_NEAR(sweep_figures(cells(4, 4), readings, {})->center_ppfd, 350, 1e-9);
  EXPECT_NEAR(sweep_figures(cells(4, 4), readings, {})->rings[1].mean_ppfd, 350, 1e-9);
}

TEST(Figures, NodesWeighEdgesHalf) {
  const Layout layout = lay_out(square, {GridKind::Nodes, 3, 3, 0, 0, {}}).value();
  std::vector<double> readings(9, 0);
  readings[4] = 400;  // the middle weighs 4 of 16
  EXPECT_NEAR(sweep_figures(layout, readings, {})->mean_ppfd, 100, 1e-9);
  readings[1] = 400;  // an edge weighs 2 of 16
  EXPECT_NEAR(sweep_figures(layout, readings, {})->mean_ppfd, 150, 1e-9);
}

TEST(Figures, InsetHoldsForItsOwnAreaAlone) {
  const Layout layout = lay_out(square, {GridKind::Inset, 5, 5, 0.1, 0.1, {}}).value();
  const auto f = sweep_figures(layout, std::vector<double>(25, 300), {100.0, 12, std::nullopt, {}});
  EXPECT_NEAR(f->area_m2, 1.0, 1e-12);
  EXPECT_NEAR(f->ppf_umol_s, 300, 1e-9);
  EXPECT_NEAR(f->efficacy->canopy_efficacy_umol_j, 3, 1e-12);
}

TEST(Figures, SimpsonNeedsAllNineSpots) {
  const Layout layout = lay_out(square, {GridKind::Spots, 0, 0, 0, 0, nine_spots(square)}).value();
  std::vector<double> readings;
  for (const Station& s : layout.stations) readings.push_back(300 + 100 * (s.x_m - 0.6) * (s.x_m - 0.6) / 0.36);
  EXPECT_NEAR(sweep_figures(layout, readings, {})->mean_ppfd, 300 + 100.0 / 3, 1e-9);  // exact for squares
  const double dropped = readings[0];
  readings[0] = unread;
  double rest = 0;
  for (std::size_t i = 1; i < readings.size(); ++i) rest += readings[i];
  EXPECT_NEAR(sweep_figures(layout, readings, {})->mean_ppfd, rest / 8, 1e-9) << dropped;
}

TEST(Figures, MissingStationsNameTheirShareOfTheArea) {
  std::vector<double> readings = nine;
  readings[0] = readings[4] = unread;
  const auto f = sweep_figures(cells(3, 3), readings, {});
  EXPECT_EQ(f->missing, 2);
  EXPECT_NEAR(f->read_share, 7.0 / 9, 1e-12);
  EXPECT_NEAR(f->mean_ppfd, (4500.0 - 600) / 7, 1e-9);
  EXPECT_EQ(f->lowest.station, 1);
  EXPECT_TRUE(std::isnan(f->center_ppfd));
}

TEST(Figures, NothingReadHasNoFigures) {
  EXPECT_FALSE(sweep_figures(cells(3, 3), std::vector<double>(9, unread), {}).has_value());
}

TEST(Figures, ADarkStationMakesNoFiniteRatio) {
  std::vector<double> readings = nine;
  readings[0] = 0;
  const auto f = sweep_figures(cells(3, 3), readings, {});
  EXPECT_EQ(f->evenness.lowest_over_mean, 0);
  EXPECT_TRUE(std::isinf(f->evenness.highest_over_lowest));
}

RC_GTEST_PROP(Figures, ScaleWithTheLight, ()) {
  const auto readings = some_readings(48);
  const double k = *rc::gen::inRange(1, 500) / 100.0;
  std::vector<double> scaled;
  for (const double r : readings) scaled.push_back(r * k);
  const auto a = *sweep_figures(cells(8, 6), readings, {100.0, 12, std::nullopt, {}}),
             b = *sweep_figures(cells(8, 6), scaled, {100.0, 12, std::nullopt, {}});
  const auto close = [](double x, double y) { return std::abs(x - y) <= 1e-9 * (std::abs(x) + std::abs(y)) + 1e-11; };
  RC_ASSERT(close(a.mean_ppfd * k, b.mean_ppfd) && close(a.sd_ppfd * k, b.sd_ppfd) && close(a.p5_ppfd * k, b.p5_ppfd));
  RC_ASSERT(close(a.cv, b.cv) && close(a.evenness.lowest_over_mean, b.evenness.lowest_over_mean));
  RC_ASSERT(close(a.efficacy->canopy_efficacy_umol_j * k, b.efficacy->canopy_efficacy_umol_j));
}

RC_GTEST_PROP(Figures, MirroringTheRoomMirrorsTheBalanceOnly, ()) {
  const auto readings = some_readings(35);
  const Layout layout = cells(7, 5);
  std::vector<double> mirrored(readings.size());
  for (const Station& s : layout.stations)
    mirrored[layout.index(6 - s.column, s.row)] = readings[layout.index(s.column, s.row)];
  const auto a = *sweep_figures(layout, readings, {}), b = *sweep_figures(layout, mirrored, {});
  RC_ASSERT(std::abs(a.balance.left_right_pct + b.balance.left_right_pct) < 1e-7);
  RC_ASSERT(std::abs(a.balance.centroid_x_m + b.balance.centroid_x_m) < 1e-9);
  RC_ASSERT(std::abs(a.balance.front_back_pct - b.balance.front_back_pct) < 1e-7);
  RC_ASSERT(std::abs(a.balance.diagonal_rise_pct - b.balance.diagonal_fall_pct) < 1e-7);
  RC_ASSERT(std::abs(a.mean_ppfd - b.mean_ppfd) < 1e-7 && a.median_ppfd == b.median_ppfd);
}

RC_GTEST_PROP(Figures, RingsAndPercentilesStayBetweenTheExtremes, ()) {
  const auto f = *sweep_figures(cells(6, 6), some_readings(36), {});
  for (const Ring& ring : f.rings)
    RC_ASSERT(ring.mean_ppfd >= f.lowest.ppfd - 1e-9 && ring.mean_ppfd <= f.highest.ppfd + 1e-9);
  RC_ASSERT(f.lowest.ppfd <= f.p5_ppfd && f.p5_ppfd <= f.median_ppfd && f.median_ppfd <= f.p95_ppfd &&
            f.p95_ppfd <= f.highest.ppfd);
}

TEST(Definitions, EveryFigureSaysWhatItIs) {
  for (const Figure& d : figures()) {
    EXPECT_FALSE(d.label.empty());
    EXPECT_FALSE(d.meaning.empty());
    EXPECT_FALSE(d.formula.empty());
    EXPECT_EQ(&figure(d.id), &d);
  }
  EXPECT_NE(figure("ppfd_per_watt").unit, figure("canopy_efficacy_umol_j").unit);
}

TEST(Targets, ShipWithPpfdAndDailyLightBands) {
  const auto sets = shipped_target_sets();
  ASSERT_EQ(sets.size(), 4u);
  // The PPFD lists are the daily light over their hours, rounded to 5; Gentle is two thirds to three quarters of it.
  const auto daily = sets[3].targets;
  for (const std::size_t set : {0, 1, 2})
    for (std::size_t i = 0; i < sets[set].targets.size(); ++i) {
      const Target& t = sets[set].targets[i];
      EXPECT_FALSE(t.by_daily_light);
      EXPECT_TRUE(daily[i].by_daily_light);
      EXPECT_EQ(t.name, daily[i].name);
      for (const auto& [ppfd, dli] : {std::pair{t.low, daily[i].low}, {t.high, daily[i].high}}) {
        EXPECT_EQ(std::fmod(ppfd, 5), 0);
        const double share = ppfd * 3600e-6 * t.photoperiod_h / dli;
        EXPECT_GE(share, (set == 2 ? 2.0 / 3 : 1) - 2.6 / ppfd) << set << " " << t.name;
        EXPECT_LE(share, (set == 2 ? 0.81 : 1) + 2.6 / ppfd) << set << " " << t.name;
      }
    }
  for (const TargetSet& set : sets) {
    EXPECT_FALSE(set.reason.empty());
    for (const Target& t : set.targets) EXPECT_LT(t.low, t.high);
  }
}

TEST(AreaMean, IsTheFiguresMeanWithNineSpotsOrFewer) {
  const Layout nine = lay_out({1, 1}, {GridKind::Spots, 0, 0, 0, 0, nine_spots({1, 1})}).value();
  std::vector<double> ppfd{1, 2, 3, 4, 50, 6, 7, 8, 9};
  for (int missing = 0; missing < 3; ++missing) {
    EXPECT_DOUBLE_EQ(area_mean(nine, ppfd), sweep_figures(nine, ppfd, {})->mean_ppfd);
    ppfd[2 * missing] = unread;
  }
  EXPECT_TRUE(std::isnan(area_mean(nine, std::vector<double>(9, unread))));
}

TEST(Figures, AreShownInTheUnitsPeopleRead) {
  const auto shown = [](const char* id, double value, UnitSystem units = UnitSystem::Metric) {
    return shown_with_unit(figure(id), value, units);
  };
  EXPECT_EQ(shown("mean_ppfd", 423.7), "424 µmol/m²/s");
  EXPECT_EQ(shown("lowest_ppfd", 38.24), "38.2 µmol/m²/s");
  EXPECT_EQ(shown("cv", 0.1234), "12.3 %");
  EXPECT_EQ(shown("left_right_pct", 1.26), "+1.3 %");
  EXPECT_EQ(shown("front_back_pct", -1.26), "−1.3 %");
  EXPECT_EQ(shown("front_back_pct", -0.01), "0.0 %") << "no sign before nothing";
  EXPECT_EQ(shown("lowest_over_mean", 0.7149), "0.71");
  EXPECT_EQ(shown("highest_over_lowest", INFINITY), "∞");
  EXPECT_EQ(shown("centroid_x_m", 0.0123), "+1.2 cm");
  EXPECT_EQ(shown("centroid_x_m", 0.0254, UnitSystem::Imperial), "+1.0 in");
  EXPECT_EQ(shown("power_density_w_m2", 321.6), "322 W/m²");
  EXPECT_EQ(shown("power_density_w_m2", 321.6, UnitSystem::Imperial), "29.9 W/ft²");
  EXPECT_EQ(shown_value(figure("power_w"), unread, UnitSystem::Metric), "–");
}

TEST(PlusMinus, HasOneOrTwoDigitsThatDecideTheDecimalsOfBoth) {
  const auto text = [](const char* id, double value, double expanded) {
    return shown_told(figure(id), value, expanded, UnitSystem::Metric).text();
  };
  EXPECT_EQ(text("mean_ppfd", 424, 35.6), "424 ± 36");
  EXPECT_EQ(text("cv", 0.123, 0.0061), "12.3 ± 0.6");
  EXPECT_EQ(text("centroid_x_m", 0.0123, 0.0049), "+1.2 ± 0.5");
  EXPECT_EQ(text("centroid_x_m", 0.0021, 0.0003), "+0.21 ± 0.03") << "never ± 0.0";
  EXPECT_EQ(text("lowest_over_mean", 0.0512, 0.0021), "0.051 ± 0.002") << "never ± 0.00";
  EXPECT_EQ(text("mean_ppfd", 38.2, 0.31), "38.2 ± 0.3") << "never ± 0";
  EXPECT_EQ(text("lowest_over_mean", 2.06, 1.2), "2.1 ± 1.2") << "no third digit";
  EXPECT_EQ(text("lowest_over_mean", 0.7, 0.0996), "0.70 ± 0.10");
  EXPECT_EQ(text("mean_ppfd", 2345, 143), "2345 ± 143") << "decimals do not go below none";
  EXPECT_EQ(text("power_w", 320, unread), "320.0");
  EXPECT_EQ(text("power_w", 320, 0), "320.0") << "none known";
  EXPECT_EQ(text("power_w", unread, 3), "–");
}

TEST(PlusMinus, IsNeverNothingWhateverItsSize) {
  for (int power = -8; power <= 3; ++power)
    for (const double lead : {1.0, 1.04, 1.49, 2.5, 5.0, 9.49, 9.5, 9.96, 9.999})
      for (int usual = 0; usual <= 5; ++usual) {
        const Told pair = told(12.345, lead * std::pow(10, power), usual);
        const auto digits = [](const std::string& text) {
          const auto first = text.find_first_of("123456789");
          if (first == std::string::npos) return 0;
          return static_cast<int>(std::ranges::count_if(text.substr(first), [](char c) { return c != '.'; }));
        };
        EXPECT_GE(digits(pair.expanded), 1) << pair.text();
        if (power < 1) {
          EXPECT_LE(digits(pair.expanded), 2) << pair.text() << " from " << lead << "e" << power;
          EXPECT_EQ(decimals_of(pair.value), decimals_of(pair.expanded)) << pair.text();
        }
      }
}

TEST(Figures, AllValuesOfASweepStandInTheTablesOrder) {
  const Layout layout = lay_out({1, 1}, {GridKind::Cells, 2, 2, 0, 0, {}}).value();
  const std::vector<double> ppfd{100, 200, 300, 400};
  const SweepFigures f = *sweep_figures(layout, ppfd, {50, 12, Band{150, 350}, {}});
  const std::vector<double> values = figure_values({layout, ppfd, f});
  ASSERT_EQ(values.size(), figures().size());
  const auto value = [&](const char* id) { return values[static_cast<std::size_t>(figure_index(id))]; };
  EXPECT_EQ(value("mean_ppfd"), 250);
  EXPECT_EQ(value("canopy_efficacy_umol_j"), 5);
  EXPECT_EQ(value("centre_ppfd"), 250);
  EXPECT_EQ(value("coverage"), f.coverage->in_band_share);
  EXPECT_TRUE(std::isnan(value("rings"))) << "a list is no single number";
  EXPECT_EQ(figure_index("nothing"), -1);
  EXPECT_THROW(figure("nothing"), std::logic_error);
}
