#include <gtest/gtest.h>

#include <algorithm>

#include "drawing/svg_canvas.h"
#include "report/page_figures.h"

using namespace sunbreak;
using namespace sunbreak::report;
using drawing::round_range;
using drawing::svg_of;

namespace {

/// A sweep of `side` × `side` cells whose readings count up from `first`.
struct Sheet {
  record::TestRecord test_record;
  evaluation::SweepView view;

  explicit Sheet(int side, double first = 100, double step = 10) {
    test_record.bench.wall_left = test_record.bench.wall_right = "reflective";
    test_record.bench.wall_front = "open";
    test_record.bench.wall_back = "dark";
    view.layout = lay_out({1.2, 1.2}, {GridKind::Cells, side, side, 0, 0, {}}).value();
    for (int i = 0; i < side * side; ++i) {
      view.ppfd.push_back(first + step * i);
      view.states.push_back({evaluation::StationState::Read, view.ppfd.back(), i + 1});
    }
  }
  std::string map(const std::optional<Band>& band = {}, UnitSystem units = UnitSystem::Metric) const {
    return svg_of(map_figure(test_record, view, band, round_range(view.ppfd.front(), view.ppfd.back()), units));
  }
};

std::size_t count(const std::string& text, const std::string& part) {
  std::size_t n = 0;
  for (std::size_t at = 0; (at = text.find(part, at)) != std::string::npos; at += part.size()) ++n;
  return n;
}

}  // namespace

TEST(MapSvg, ShowsEveryValueOnACoarseGridAndSomeOnADenseOne) {
  const std::string coarse = Sheet(4, 1001).map();
  for (int i = 0; i < 16; ++i) EXPECT_EQ(count(coarse, ">" + std::to_string(1001 + 10 * i) + "<"), 1u) << i;
  const std::string dense = Sheet(60, 101, 0.5).map();
  EXPECT_EQ(count(dense, ">▾ 101<"), 1u) << "the lowest is always told";
  EXPECT_LT(count(dense, "<text"), 1000u);
  EXPECT_GE(count(dense, "<rect"), 3600u);
}

TEST(MapSvg, TheFarRowIsAtTheTop) {
  const std::string svg = Sheet(2).map();
  const auto y_of = [&](const std::string& value) {
    const auto at = svg.find(">" + value + "<"), from = svg.rfind("y=\"", at) + 3;
    return std::stod(svg.substr(from));
  };
  EXPECT_LT(y_of("130"), y_of("100"));
}

TEST(MapSvg, HatchMarksDimAndDotsMarkBright) {
  const Sheet sheet(4);
  EXPECT_EQ(count(sheet.map(), "stroke-opacity"), 0u);
  EXPECT_EQ(count(sheet.map(Band{150, 1000}), "stroke-opacity"), 3u) << "two rows and the key";
  EXPECT_EQ(count(sheet.map(Band{150, 1000}), "fill-opacity"), 1u) << "the key alone";
  EXPECT_EQ(count(sheet.map(Band{50, 200}), "fill-opacity"), 3u);
}

TEST(MapSvg, UnreadStationsAreBlankAndWallsAreDrawnAsStated) {
  Sheet sheet(4, 101);
  sheet.view.ppfd[5] = std::numeric_limits<double>::quiet_NaN();
  const std::string svg = sheet.map();
  EXPECT_EQ(count(svg, ">151<"), 0u);
  EXPECT_EQ(count(svg, ">161<"), 1u);
  EXPECT_EQ(count(svg, "stroke-dasharray=\"1 2\""), 1u) << "the open front";
}

TEST(MapSvg, RulersFollowTheUnits) {
  EXPECT_EQ(count(Sheet(4).map(), "door side · cm"), 1u);
  EXPECT_EQ(count(Sheet(4).map({}, UnitSystem::Imperial), "door side · in"), 1u);
}

TEST(RingsSvg, OneBarARingWithItsMean) {
  const Sheet sheet(6, 100, 0);
  const SweepFigures f = *sweep_figures(sheet.view.layout, sheet.view.ppfd, {});
  const std::string svg = svg_of(rings_figure(f, {0, 200}, {}, UnitSystem::Metric));
  EXPECT_EQ(count(svg, "<rect"), 6u) << "each filled and outlined";
  EXPECT_EQ(count(svg, ">100<"), 3u);
  EXPECT_EQ(count(svg, ">0–20<"), 1u) << "the outer ring's band from the wall, in cm";
}

TEST(AreaCurveSvg, MarksTheBandsLowEnd) {
  const Sheet sheet(6);
  const std::string plain = svg_of(area_curve_figure(sheet.view, {}, UnitSystem::Metric)),
                    marked = svg_of(area_curve_figure(sheet.view, Band{200, 900}, UnitSystem::Metric));
  EXPECT_EQ(count(plain, "<path"), 1u);
  EXPECT_GT(marked.size(), plain.size());
  EXPECT_GE(count(marked, "200"), 1u);
}

TEST(Svg, IsOneWellClosedElement) {
  for (const std::string& svg :
       {Sheet(3).map(Band{110, 150}), svg_of(area_curve_figure(Sheet(3).view, {}, UnitSystem::Metric))}) {
    EXPECT_EQ(count(svg, "<svg"), 1u);
    EXPECT_EQ(count(svg, "</svg>"), 1u);
    EXPECT_EQ(count(svg, "<text"), count(svg, "</text>"));
    EXPECT_EQ(count(svg, "nan"), 0u);
  }
}
