#include <QClipboard>
#include <QFile>
#include <QImage>
#include <QPainter>
#include <QSvgRenderer>

#include "desktop/paint/map_painter.h"
#include "desktop/read/field_map.h"
#include "desktop/read/map_overlays.h"
#include "desktop/read/save_picture.h"
#include "desktop/read_fixture.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/flow_layout.h"

namespace sunbreak::desktop {

TEST_F(ReadTest, ZoomKeepsThePlaceUnderThePointerAndTheFloorInTheFrame) {
  const MapFit whole = fit_map(QRectF(0, 0, 500, 560), {1.2, 1.2}, true);
  const MapFit near = zoomed(whole, 4, {0.1, 1.15});
  EXPECT_EQ(near.frame, whole.frame);
  EXPECT_NEAR(near.floor.left(), whole.frame.left(), 1e-9) << "held at the left wall";
  EXPECT_NEAR(near.floor.top(), whole.frame.top(), 1e-9);
  EXPECT_NEAR(near.scale, 4 * whole.scale, 1e-9);
  EXPECT_EQ(zoomed(whole, 1, {0, 0}).floor, whole.floor);
  auto* map = find<FieldMap>("fieldMap");
  map->zoom_by(2, QPointF(0.3, 0.9));
  EXPECT_DOUBLE_EQ(read().settings().zoom, 2);
  EXPECT_NEAR(read().settings().middle_m.x(), 0.3 + (0.6 - 0.3) / 2, 1e-9);
  key(Qt::Key_Right, Qt::ControlModifier);
  EXPECT_NEAR(read().settings().middle_m.x(), 0.55, 1e-6);
  key(Qt::Key_0);
  EXPECT_DOUBLE_EQ(read().settings().zoom, 1);
}

TEST_F(ReadTest, ALineDrawnWithShiftAndTheMouseCutsTheField) {
  auto* map = find<FieldMap>("fieldMap");
  const MapFit fit = fit_map(map->rect(), {1.2, 1.2}, true);
  const QPoint a = fit.pixel(0.2, 0.2).toPoint(), b = fit.pixel(1.0, 0.9).toPoint();
  QTest::mousePress(map, Qt::LeftButton, Qt::ShiftModifier, a);
  QTest::mouseMove(map, b);
  QTest::mouseRelease(map, Qt::LeftButton, Qt::ShiftModifier, b);
  ASSERT_TRUE(read().settings().cut);
  EXPECT_NEAR(read().settings().cut->second.x_m, 1.0, 0.01);
  EXPECT_NEAR(read().settings().cut->second.y_m, 0.9, 0.01);
}

TEST_F(ReadTest, PicturesAreWrittenAtAnySizeAsPixelsAndAsLines) {
  key(Qt::Key_C);
  const auto draw = [&](QPainter& p, const QRectF& room, bool in_vectors) {
    find<FieldMap>("fieldMap")->paint_picture(p, room, in_vectors);
  };
  ASSERT_FALSE(write_picture(draw, {900, 1000}, path("map.png")));
  EXPECT_EQ(QImage(path("map.png")).size(), QSize(900, 1000));
  ASSERT_FALSE(write_picture(draw, {900, 1000}, path("map.svg")));
  QSvgRenderer svg(path("map.svg"));
  EXPECT_TRUE(svg.isValid());
  QFile file(path("map.svg"));
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  EXPECT_GT(file.readAll().count("<text"), 20) << "numbers stay text";
  EXPECT_TRUE(write_picture(draw, {900, 1000}, path("no such folder/map.svg")));
  key(Qt::Key_C, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(QApplication::clipboard()->image().width(), 1600);
}

TEST_F(ReadTest, ADenseMapStillTellsItsLowestAndHighest) {
  // A needle in one station of a dense sweep has to be seen at any thinning.
  const Layout layout = lay_out({1.2, 1.2}, {GridKind::Cells, 48, 48, 0, 0, {}}).value();
  evaluation::SweepView view{
      layout, std::vector<evaluation::StationState>(2304), std::vector<double>(2304, 500), {}, {}};
  for (auto& s : view.states) s.kind = evaluation::StationState::Read;
  const auto painted = [&] {
    QImage image(600, 660, QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainter p(&image);
    MapScene scene;
    scene.view = &view;
    scene.bench = &desk().test()->bench;
    scene.scale.range = {0, 1000};
    paint_map(p, fit_map(QRectF(0, 0, 600, 660), layout.footprint, true), scene);
    return image;
  };
  view.ppfd[layout.index(20, 20)] = 501;
  const QImage one = painted();
  view.ppfd[layout.index(20, 20)] = 500;
  view.ppfd[layout.index(21, 20)] = 501;
  EXPECT_NE(painted(), one) << "the frame of the highest moved with it";
}

TEST_F(ReadTest, EveryPageShowsInBothLooksAtASmallWindow) {
  for (const LookChoice look : {LookChoice::Paper, LookChoice::Loft}) {
    apply_look(*qApp, look);
    window_->resize(1024, 700);
    for (const Qt::Key page : {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4}) {
      key(page);
      QApplication::processEvents();
      EXPECT_FALSE(window_->grab().isNull());
      EXPECT_LE(window_->width(), 1024) << "nothing pushes the window wider";
    }
  }
  apply_look(*qApp, LookChoice::Paper);
}

TEST_F(ReadTest, WhatIsDrawnOnTheMapShows) {
  const MapFit fit = fit_map(QRectF(0, 0, 500, 560), {1.2, 1.2}, true);
  const auto painted = [&](const MapSettings& settings) {
    QImage image(500, 560, QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainter p(&image);
    paint_overlays(p, fit, desk(), settings);
    return image;
  };
  MapSettings bare;
  const QImage nothing = painted(bare);
  for (bool MapSettings::*what :
       {&MapSettings::fixture, &MapSettings::footprints, &MapSettings::rings, &MapSettings::coverage}) {
    MapSettings one = bare;
    one.*what = true;
    EXPECT_NE(painted(one), nothing);
  }
  MapSettings cut = bare;
  cut.cut = {{0.1, 0.1}, {1.1, 0.9}};
  const QImage line = painted(cut);
  const QPoint on_it = fit.pixel(0.6, 0.5).toPoint();
  EXPECT_LT(std::abs(line.pixelColor(on_it).lightness() - theme().ink.lightness()), 12);
  MapSettings difference = bare;
  difference.coverage = true;
  difference.quantity = Quantity::Difference;
  EXPECT_EQ(painted(difference), nothing) << "a band means nothing on a difference";
}

TEST_F(ReadTest, TheLargestRectangleIsDrawnWhereTheFigureSaysItLies) {
  MapSettings settings;
  settings.coverage = true;
  const MapFit fit = fit_map(QRectF(0, 0, 600, 660), {1.2, 1.2}, true);
  QImage image(600, 660, QImage::Format_RGB32);
  image.fill(Qt::white);
  QPainter p(&image);
  paint_overlays(p, fit, desk(), settings);
  p.end();
  const Rectangle r = desk().figures()->coverage->largest_rectangle;
  ASSERT_GT(r.area_m2(), 0);
  // Its right side, a little above the middle, where no label stands.
  const QPointF side = fit.pixel(r.left_m + r.width_m, r.front_m + 0.6 * r.depth_m);
  bool found = false;
  for (int dx = -2; dx <= 2; ++dx) found = found || image.pixelColor(side.toPoint() + QPoint(dx, 0)) == theme().ember;
  EXPECT_TRUE(found);
}

TEST(FlowLayout, GoesOnInTheNextRow) {
  QWidget box;
  auto* flow = new FlowLayout(&box, 4);
  std::vector<QWidget*> cells;
  for (int i = 0; i < 3; ++i) {
    auto* cell = new QWidget(&box);
    cell->setFixedSize(60, 20);
    flow->addWidget(cell);
    cells.push_back(cell);
  }
  EXPECT_EQ(flow->heightForWidth(200), 20);
  EXPECT_EQ(flow->heightForWidth(130), 44);
  EXPECT_EQ(flow->heightForWidth(50), 68);
  flow->setGeometry(QRect(0, 0, 130, 60));
  EXPECT_EQ(cells[1]->geometry(), QRect(64, 0, 60, 20));
  EXPECT_EQ(cells[2]->geometry(), QRect(0, 24, 60, 20));
}

}  // namespace sunbreak::desktop
