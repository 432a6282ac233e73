#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScreen>
#include <QSpinBox>
#include <QTimer>
#include <QToolButton>
#include <QToolTip>
#include <QVBoxLayout>

#include "desktop/paint/map_painter.h"
#include "desktop/paint/painter_canvas.h"
#include "desktop/read/figure_row.h"
#include "desktop/shell/mast.h"
#include "desktop/shell/stages.h"
#include "desktop/shell/work_line.h"
#include "desktop/theme/theme.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

double luminance(const QColor& c) {
  const auto linear = [](double s) { return s <= 0.03928 ? s / 12.92 : std::pow((s + 0.055) / 1.055, 2.4); };
  return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
}

double contrast(const QColor& a, const QColor& b) {
  const double la = luminance(a), lb = luminance(b);
  return (std::max(la, lb) + 0.05) / (std::min(la, lb) + 0.05);
}

StageMark mark(const Desk& desk, Stage stage) { return mark_of(stage_kind(stage), desk); }

}  // namespace

TEST_F(WindowTest, BothLooksKeepTextReadable) {
  for (const LookChoice look : {LookChoice::Paper, LookChoice::Loft}) {
    apply_look(*qApp, look);
    const Theme& t = theme();
    for (const QColor& ink : {t.ink, t.quiet, t.ember, t.lake, t.good, t.attention, t.bad})
      for (const QColor& ground : {t.panel, t.ground})
        EXPECT_GE(contrast(ink, ground), 4.5) << ink.name().toStdString() << " on " << ground.name().toStdString();
    EXPECT_GE(contrast(t.strip_ink, t.strip), 4.5);
    EXPECT_GE(contrast(t.strip_quiet, t.strip), 4.5);
  }
  apply_look(*qApp, LookChoice::Paper);
}

TEST_F(WindowTest, WhatCannotBeUsedLooksSoInEitherLook) {
  QWidget sheet;
  auto* column = new QVBoxLayout(&sheet);
  auto* tick = new QCheckBox("shown", &sheet);
  auto* number = new QSpinBox(&sheet);
  auto* line = new QLineEdit(&sheet);
  for (QWidget* part : std::initializer_list<QWidget*>{tick, number, line}) column->addWidget(part);
  sheet.show();
  for (const LookChoice look : {LookChoice::Loft, LookChoice::Paper}) {
    apply_look(*qApp, look);
    for (QWidget* part : {static_cast<QWidget*>(tick), static_cast<QWidget*>(number)}) {
      part->setEnabled(true);
      EXPECT_EQ(part->palette().color(part->foregroundRole()), theme().ink) << part->metaObject()->className();
      part->setEnabled(false);
      EXPECT_EQ(part->palette().color(part->foregroundRole()), theme().quiet) << part->metaObject()->className();
    }
    EXPECT_EQ(line->palette().color(QPalette::PlaceholderText), theme().quiet);
    for (const QWidget* part : sheet.findChildren<QWidget*>()) {
      EXPECT_EQ(part->font().pixelSize(), 13) << part->metaObject()->className();
      EXPECT_EQ(part->font().family(), "Sunbreak Sans") << part->metaObject()->className();
    }
  }
}

TEST_F(WindowTest, AFirstWindowFitsItsScreenWithItsFrame) {
  window_.reset();
  QSettings().remove("window/geometry");
  MainWindow first(std::move(book::Book::open(book_file()).value()));
  const QSize screen = first.screen()->availableSize();
  EXPECT_EQ(first.height(), std::min(800, screen.height() - 40));
  EXPECT_EQ(first.width(), std::clamp(screen.width() - 8, first.minimumWidth(), 1280));
}

TEST_F(WindowTest, NumbersOnTheMapStandOutOnEveryColorOfTheScale) {
  for (double share = 0; share <= 1; share += 0.01) {
    const QColor ground = qcolor(drawing::light_color(share)),
                 ink = qcolor(drawing::ink_on(drawing::light_color(share)));
    EXPECT_GE(contrast(ink, ground), 4.5) << share;
  }
}

TEST_F(WindowTest, NoTextIsTakenForMarkup) {
  for (const QLabel* label : window_->findChildren<QLabel*>())
    if (label->isVisible()) {
      EXPECT_EQ(label->textFormat(), Qt::PlainText) << label->text().toStdString();
    }
  const QString name = QStringLiteral("<h1>Loud</h1><img src='/etc/hostname'>");
  QToolTip::showText(window_->mapToGlobal(QPoint(20, 20)), name, window_.get());
  const QLabel* tip = nullptr;
  for (const QWidget* widget : QApplication::topLevelWidgets())
    if (widget->inherits("QTipLabel")) tip = qobject_cast<const QLabel*>(widget);
  ASSERT_NE(tip, nullptr);
  EXPECT_EQ(tip->text(), name);
  EXPECT_EQ(tip->textFormat(), Qt::PlainText);
  QToolTip::hideText();
}

TEST_F(WindowTest, TheShippedFontIsTheOneShown) {
  EXPECT_EQ(QFontInfo(text_font(13)).family(), "Sunbreak Sans");
  EXPECT_FALSE(QFontInfo(text_font(13)).fixedPitch());
  const QFontMetrics figures(text_font(24, true));
  for (const char digit : std::string("0123456789"))
    EXPECT_EQ(figures.horizontalAdvance(QChar(digit)), figures.horizontalAdvance('0')) << digit;
}

TEST_F(WindowTest, TheWorkLineTellsHowFarTheTestIs) {
  EXPECT_EQ(mark(desk(), Stage::Walk), StageMark::Untouched);
  key(Qt::Key_N, Qt::ControlModifier);
  EXPECT_EQ(mark(desk(), Stage::Walk), StageMark::Untouched);
  EXPECT_EQ(mark(desk(), Stage::Rig), StageMark::Begun);
  EXPECT_EQ(mark(desk(), Stage::Settle), StageMark::Untouched);
  desk().edits().accept(0, 400, "typed");
  EXPECT_EQ(mark(desk(), Stage::Walk), StageMark::Begun);
  for (int i = 1; i < 35; ++i) desk().edits().accept(i, 400 + i % 5, "typed");
  desk().edits().declare_missing(35);
  EXPECT_EQ(mark(desk(), Stage::Walk), StageMark::NeedsLook) << "a hole in the sweep";
  desk().edits().accept(35, 400, "typed");
  EXPECT_EQ(mark(desk(), Stage::Walk), StageMark::Done);
  EXPECT_EQ(mark(desk(), Stage::Read), StageMark::Done);
  desk().edits().accept(20, 40, "typed");
  EXPECT_EQ(mark(desk(), Stage::Walk), StageMark::NeedsLook) << "a check is open";
}

TEST_F(WindowTest, TheWorkLineIsReachedByKeysAndClicks) {
  key(Qt::Key_N, Qt::ControlModifier);
  auto* line = window_->findChild<WorkLine*>();
  line->setFocus();
  QTest::keyClick(line, Qt::Key_Right);
  QTest::keyClick(line, Qt::Key_Right);
  QTest::keyClick(line, Qt::Key_Return);
  EXPECT_TRUE(find<QLineEdit>("walkValue")->isVisible());
  QTest::mouseClick(line, Qt::LeftButton, {}, QPoint(line->width() - 20, 20));
  EXPECT_TRUE(find<QPushButton>("writePage")->isVisible());
}

TEST_F(WindowTest, TheMastIsPictureAndNavigator) {
  key(Qt::Key_N, Qt::ControlModifier);
  fill("heights", "60, 45, 30");
  fill("stops", "100, 50");
  auto* mast = window_->findChild<Mast*>();
  ASSERT_TRUE(mast->isVisible());
  mast->setFocus();
  QTest::keyClick(mast, Qt::Key_Down);
  EXPECT_EQ(desk().rung()->height_m, 0.3);
  QTest::keyClick(mast, Qt::Key_Right);
  EXPECT_EQ(desk().stop()->percent, 50);
  EXPECT_TRUE(mast->accessibleDescription().contains("30 cm"));
  mast->grab();  // lays the marks out
  QTest::mouseClick(mast, Qt::LeftButton, {}, QPoint(24, mast->height() - 21));
  EXPECT_EQ(desk().stop()->percent, 100) << "the first setting in the row at the foot";
  window_->show_home();
  EXPECT_FALSE(mast->isVisible());
}

TEST_F(SampleWindowTest, HomeShowsSearchesDuplicatesAndTakesOff) {
  window_->show_home();
  auto* cards = find<QListWidget>("cards");
  EXPECT_EQ(cards->count(), 8);
  cards->setFocus();
  key(Qt::Key_F, Qt::ControlModifier);
  type("bess tent");
  EXPECT_EQ(cards->count(), 1);
  const auto spoken = [&] { return cards->item(0)->data(Qt::AccessibleTextRole).toString(); };
  EXPECT_TRUE(QTest::qWaitFor([&] { return spoken().contains("4 of 4 sweeps"); }, 60000));
  key(Qt::Key_F, Qt::ControlModifier);
  find<QLineEdit>("search")->selectAll();
  type("ostler 2026-10");
  ASSERT_EQ(cards->count(), 1) << "two tests of a fixture on a bench are told apart by their days";
  EXPECT_TRUE(spoken().contains("Drying loft tent · 2026-10-12")) << spoken().toStdString();
  find<QLineEdit>("search")->selectAll();
  type("bess tent");
  cards->setFocus();
  key(Qt::Key_Delete);
  EXPECT_EQ(cards->count(), 0);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(cards->count(), 1);
  cards->setCurrentRow(0);
  QTimer::singleShot(200, [] { QTest::keyClick(QApplication::activeModalWidget(), Qt::Key_Return); });
  key(Qt::Key_D, Qt::ControlModifier);
  ASSERT_NE(desk().test(), nullptr);
  EXPECT_EQ(desk().test()->test.name, "Bess 400 in the tent (again)");
  EXPECT_TRUE(desk().test()->readings.empty());
  window_->show_home();
  EXPECT_EQ(desk().book().all<record::Test>().size(), 9u);
}

TEST_F(SampleWindowTest, EnterOnACardReadsTheFullestSweep) {
  window_->show_home();
  find<QListWidget>("cards")->setFocus();
  key(Qt::Key_Return);
  ASSERT_NE(desk().test(), nullptr);
  EXPECT_GT(desk().view()->read(), 0);
  EXPECT_TRUE(find<FigureRow>("mean_ppfd")->isVisible());
}

TEST_F(WindowTest, AStageWithoutATestLeadsHomeAndSaysSo) {
  key(Qt::Key_4, Qt::AltModifier);
  EXPECT_TRUE(find<QListWidget>("cards")->isVisible());
  EXPECT_FALSE(find<QLabel>("message")->text().isEmpty());
}

TEST_F(SampleWindowTest, FiguresTellTheirDefinitionOnFocus) {
  open_test(1, Stage::Read);
  auto* row = find<FigureRow>("canopy_efficacy_umol_j");
  row->setFocus();
  EXPECT_TRUE(find<QLabel>("definition")->text().contains("PPF on the footprint ÷ wall power"));
  EXPECT_FALSE(row->whatsThis().isEmpty());
  EXPECT_FALSE(row->accessibleName().isEmpty());
  EXPECT_TRUE(row->accessibleDescription().contains("µmol/J"));
}

TEST_F(SampleWindowTest, ATargetOfOnesOwnMovesTheCoverage) {
  open_test(1, Stage::Read);
  const QString before = find<FigureRow>("coverage")->value();
  fill("targetLow", "100");
  EXPECT_EQ(desk().test()->test.target_low_ppfd, 100);
  EXPECT_EQ(desk().test()->test.target_name, "own band");
  EXPECT_NE(find<FigureRow>("coverage")->value(), before);
  fill("targetLow", "5000");
  EXPECT_EQ(desk().test()->test.target_low_ppfd, 100) << "a band cannot end before it begins";
  key(Qt::Key_Z, Qt::ControlModifier);
}

TEST_F(SampleWindowTest, ImperialShowsFeetAndInchesEverywhereOnRead) {
  open_test(1, Stage::Read);
  key(Qt::Key_M, Qt::ControlModifier);
  QString all;
  for (const QLabel* label : window_->findChildren<QLabel*>())
    if (label->isVisible()) all += label->text() + "\n";
  EXPECT_TRUE(all.contains("W/ft²"));
  EXPECT_TRUE(all.contains("ft² in band"));
  EXPECT_FALSE(all.contains(" cm")) << all.toStdString();
}

TEST_F(WindowTest, AMapIsPaintedInTheScalesColors) {
  key(Qt::Key_N, Qt::ControlModifier);
  fill("gridColumns", "2");
  fill("gridRows", "2");
  for (int i = 0; i < 4; ++i) desk().edits().accept(i, 100.0 * (i + 1), "typed");
  QImage image(400, 400, QImage::Format_RGB32);
  image.fill(Qt::white);
  QPainter p(&image);
  MapScene scene;
  scene.view = desk().view();
  scene.bench = &desk().test()->bench;
  scene.scale.range = desk().scale();
  scene.numbers = scene.rulers = false;
  const MapFit fit = fit_map(QRectF(0, 0, 400, 400), desk().view()->layout.footprint, false);
  paint_map(p, fit, scene);
  p.end();
  for (int i = 0; i < 4; ++i) {
    const Station& s = desk().view()->layout.stations[i];
    EXPECT_EQ(image.pixelColor(fit.pixel(s.x_m, s.y_m).toPoint()).name(),
              qcolor(drawing::light_color(scene.scale.range.share(100.0 * (i + 1)))).name())
        << i;
  }
  EXPECT_LT(fit.pixel(0.3, 0.9).y(), fit.pixel(0.3, 0.3).y()) << "the far wall is at the top";
  const QPointF there = fit.meters(fit.pixel(0.25, 0.75));
  EXPECT_NEAR(there.x(), 0.25, 1e-9);
  EXPECT_NEAR(there.y(), 0.75, 1e-9);
}

TEST_F(WindowTest, BandHatchMarksWhatIsTooDim) {
  key(Qt::Key_N, Qt::ControlModifier);
  for (int i = 0; i < 36; ++i) desk().edits().accept(i, 300, "typed");
  const auto painted = [&](std::optional<Band> band) {
    QImage image(300, 300, QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainter p(&image);
    MapScene scene;
    scene.view = desk().view();
    scene.bench = &desk().test()->bench;
    scene.scale.range = desk().scale();
    scene.band = band;
    scene.numbers = scene.rulers = false;
    paint_map(p, fit_map(QRectF(0, 0, 300, 300), desk().view()->layout.footprint, false), scene);
    return image;
  };
  EXPECT_EQ(painted(Band{200, 400}), painted(std::nullopt));
  EXPECT_NE(painted(Band{400, 800}), painted(std::nullopt));
  EXPECT_NE(painted(Band{100, 200}), painted(Band{400, 800}));
}
