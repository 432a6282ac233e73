#include <gtest/gtest.h>

#include <cmath>

#include "core/square_bench.h"
#include "drawing/contour_lines.h"
#include "drawing/field_pixels.h"
#include "drawing/hatching.h"
#include "drawing/interval_axis.h"
#include "drawing/map_drawing.h"
#include "drawing/png.h"
#include "drawing/svg_canvas.h"

using namespace sunbreak;
using namespace sunbreak::drawing;

namespace {

/// A hill of light over twelve by twelve stations.
struct Hill {
  Layout layout = cells(12, 12);
  std::vector<double> ppfd;

  Hill() {
    for (const Station& s : layout.stations)
      ppfd.push_back(200 + 600 * std::exp(-3 * (std::pow(s.x_m - 0.6, 2) + std::pow(s.y_m - 0.6, 2))));
  }
  Field field() const { return Field(layout, ppfd); }
};

int count(const std::string& text, const std::string& part) {
  int found = 0;
  for (auto at = text.find(part); at != std::string::npos; at = text.find(part, at + 1)) ++found;
  return found;
}

}  // namespace

TEST(ContourLines, AreLabeledAtRoundValuesInsideTheMap) {
  const MapFit fit = fit_map({0, 0, 600, 640}, square, true);
  const auto lines = contour_lines(SvgCanvas(600, 640, ""), Hill().field(), fit, {});
  ASSERT_GE(lines.size(), 4u);
  std::vector<Box> labels;
  for (const ContourLines& contour : lines) {
    EXPECT_NEAR(std::remainder(contour.level, 50), 0, 1e-9);
    for (const Box& label : contour.labels) {
      EXPECT_TRUE(fit.frame.contains(label));
      for (const Box& other : labels) EXPECT_FALSE(other.intersects(label));
      labels.push_back(label);
    }
  }
  EXPECT_GE(labels.size(), 4u);
}

TEST(FieldPixels, AreHatchedWhereOutOfBand) {
  const MapFit fit = fit_map({0, 0, 200, 200}, square, false);
  const Layout layout = cells(12, 12);
  const Field field(layout, std::vector<double>(144, 500));
  ValueScale scale;
  scale.range = {0, 1000};
  const auto picture = [&](std::optional<Band> band) {
    return field_pixels(field, fit, scale, paper_palette(), band, 1).pixels.argb;
  };
  const auto bare = picture({});
  const Rgb middle = light_color(0.5);
  EXPECT_EQ(bare[100 * 200 + 100], 0xFF000000u | middle.red << 16 | middle.green << 8 | middle.blue);
  EXPECT_EQ(picture(Band{400, 600}), bare);
  EXPECT_NE(picture(Band{600, 700}), bare);
  EXPECT_NE(picture(Band{300, 400}), bare);
  EXPECT_NE(picture(Band{300, 400}), picture(Band{600, 700}));
}

TEST(ValueText, WritesSignsOnlyWhereTheyMeanSomething) {
  const ValueText plain{0, false, "%"}, with_sign{1, true, "x"};
  EXPECT_EQ(plain.text(104.4), "104");
  EXPECT_EQ(with_sign.text(3.14), "+3.1");
  EXPECT_EQ(with_sign.text(-3.14), "\u22123.1");
  EXPECT_EQ(with_sign.text(-0.01), "0.0") << "no sign on nothing";
  EXPECT_EQ(ValueText().text(432.4), "432");
  EXPECT_EQ(ValueText().text(38.24), "38.2");
}

TEST(ValueScale, OfDifferencesIsOddAboutZero) {
  const Palette& t = paper_palette();
  const ValueScale scale{{-50, 50}, true};
  EXPECT_EQ(scale.color(80, t).hex(), t.ember.hex()) << "held at its end";
  EXPECT_EQ(scale.color(-50, t).hex(), t.lake.hex());
  EXPECT_EQ(scale.color(0, t).hex(), t.ground.hex());
  EXPECT_EQ(scale.color(std::nan(""), t).hex(), t.ground.hex());
  EXPECT_EQ(ValueScale({{0, 1000}, false}).color(500, t).hex(), light_color(0.5).hex());
}

TEST(Hatching, RunsOnFromBoxToBox) {
  const auto length = [](const Box& box) {
    double sum = 0;
    for_diagonals(box, [&](const Point& a, const Point& b) {
      EXPECT_TRUE(
          box.grown(1e-9).contains({std::min(a.x, b.x), std::min(a.y, b.y), std::abs(a.x - b.x), std::abs(a.y - b.y)}));
      EXPECT_NEAR(std::remainder(a.x + a.y, hatch_pitch), 0, 1e-9);
      sum += std::hypot(a.x - b.x, a.y - b.y);
    });
    return sum;
  };
  EXPECT_NEAR(length({13, 7, 83, 41}), length({13, 7, 30, 41}) + length({43, 7, 53, 41}), 1e-6);
}

TEST(SvgCanvas, CutsOffWhatLiesOutsideTheClip) {
  SvgCanvas canvas(100, 100, "a <label>");
  canvas.clip({0, 0, 50, 50});
  canvas.line({10, 10}, {90, 10}, {paper_palette().ink, 1});
  canvas.fill({40, 40, 30, 30}, paper_palette().ember);
  canvas.fill({60, 60, 10, 10}, paper_palette().lake);
  canvas.unclip();
  const std::string svg = canvas.svg();
  EXPECT_NE(svg.find("M10.0 10.0L50.0 10.0"), std::string::npos) << svg;
  EXPECT_NE(svg.find("width=\"10.00\" height=\"10.00\""), std::string::npos) << svg;
  EXPECT_EQ(svg.find(paper_palette().lake.hex()), std::string::npos);
  EXPECT_NE(svg.find("a &lt;label&gt;"), std::string::npos);
}

TEST(MapDrawing, ShowsEveryValueOrAtLeastLowestAndHighest) {
  const Hill hill;
  evaluation::SweepView view;
  view.layout = hill.layout;
  view.ppfd = hill.ppfd;
  view.states.assign(hill.ppfd.size(), {evaluation::StationState::Read});
  const record::Bench bench;
  MapScene scene;
  scene.view = &view;
  scene.bench = &bench;
  scene.scale.range = {0, 1000};
  const auto drawn = [&](double side) {
    SvgCanvas canvas(side, side, "");
    draw_map(canvas, fit_map({0, 0, side, side}, square, true), scene);
    return canvas.svg();
  };
  const std::string large = drawn(700), small = drawn(260);
  EXPECT_EQ(count(large, "<text") - count(drawn(700), "fill=\"#5C686C\" text"), 144)
      << "every station, beside the rulers";
  EXPECT_EQ(count(large, "▾"), 0);
  EXPECT_EQ(count(small, "▾"), 1);
  EXPECT_EQ(count(small, "▴"), 1);
  EXPECT_LT(count(small, "<text"), count(large, "<text"));
  scene.band = Band{400, 600};
  EXPECT_NE(drawn(700).find("stroke-opacity"), std::string::npos) << "diagonals where too dim";
  scene.contours = true;
  EXPECT_NE(drawn(700).find("data:image/png;base64,iVBORw0KGgo"), std::string::npos);
}

TEST(Png, SizesAndCheckSumsAreThoseOfTheStandard) {
  const std::string file = png({1, 1, {0xFFFFFFFF}});
  EXPECT_EQ(file.substr(0, 8), "\x89PNG\r\n\x1a\n");
  EXPECT_EQ(file.substr(file.size() - 8), std::string("IEND\xae\x42\x60\x82")) << "the check sum of an empty end chunk";
  EXPECT_EQ(file.substr(16, 8), std::string("\0\0\0\1\0\0\0\1", 8));
}

TEST(Base64, OfTheStandardsOwnExamples) {
  EXPECT_EQ(base64(""), "");
  EXPECT_EQ(base64("f"), "Zg==");
  EXPECT_EQ(base64("fo"), "Zm8=");
  EXPECT_EQ(base64("foo"), "Zm9v");
  EXPECT_EQ(base64("foobar"), "Zm9vYmFy");
}

TEST(Base64, GivesTheBytesBack) {
  std::string bytes;
  for (int i = 0; i < 256; ++i) {
    EXPECT_EQ(from_base64(base64(bytes)), bytes) << i;
    bytes += static_cast<char>(i);
  }
  for (const char* none : {"Zg=", "Zg", "Z!==", "====", "Zm9v Zg=="}) EXPECT_FALSE(from_base64(none)) << none;
}

TEST(IntervalAxis, LeavesOutNumbersThatWouldTouch) {
  const IntervalAxis axis{0, 2, 0.5};
  const auto numbers = [&](double wide) {
    SvgCanvas canvas(wide, 100, "axis");
    draw_interval_labels(canvas, {0, 80, wide, 15}, {0, 0, wide, 80}, axis, 1);
    return count(canvas.svg(), "<text");
  };
  EXPECT_EQ(numbers(300), 5);
  EXPECT_EQ(numbers(66), 3) << "0, 1 and 2";
}
