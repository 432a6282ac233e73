#include <gtest/gtest.h>

#include <QComboBox>
#include <QHeaderView>
#include <QLabel>
#include <QTest>
#include <QThread>
#include <atomic>
#include <memory>

#include "desktop/desk/background.h"
#include "desktop/widgets/elided_combo.h"
#include "desktop/widgets/figures_table.h"
#include "desktop/widgets/form.h"
#include "desktop/widgets/labels.h"

using namespace sunbreak::desktop;

TEST(Background, WhatItMadeDiesOnTheThreadThatMadeItWhoeverLetsGoOfIt) {
  struct Made {
    explicit Made(std::atomic<int>& deaths) : deaths(deaths) {}
    ~Made() { deaths += QThread::currentThread() == home ? 1 : 100; }
    std::atomic<int>& deaths;
    QThread* home = QThread::currentThread();
  };
  std::atomic<int> deaths = 0;
  {
    QObject owner;
    Background making(&owner), drawing(&owner, making);
    std::shared_ptr<Made> made;
    const auto make = [&] {
      making.ask([keeper = making.keeper(), &deaths](auto) { return keeper.keep(std::make_unique<Made>(deaths)); },
                 [&](std::shared_ptr<Made> answer) { made = std::move(answer); });
    };
    make();
    ASSERT_TRUE(QTest::qWaitFor([&] { return made != nullptr; }));
    bool same = false, answered = false;
    drawing.ask([made](auto) { return QThread::currentThread() == made->home; },
                [&](bool is) { same = is, answered = true; });
    ASSERT_TRUE(QTest::qWaitFor([&] { return answered; }));
    EXPECT_TRUE(same) << "the other works on its thread";
    made.reset();
    EXPECT_TRUE(QTest::qWaitFor([&] { return deaths == 1; }));
    make();  // overtaken, and its owner gone before the answer is taken
    make();
  }
  EXPECT_TRUE(QTest::qWaitFor([&] { return deaths == 2 || deaths == 3; })) << deaths;
}

TEST(Background, ComesAndGoesAThousandTimes) {
  std::atomic<int> worked = 0;
  for (int i = 0; i < 1000; ++i) {
    QObject owner;
    Background first(&owner), second(&owner, first);
    first.ask([&](auto) { return ++worked; }, [](int) {});
    second.ask([&, keeper = second.keeper()](auto) { return keeper.keep(std::make_unique<int>(++worked)); },
               [](std::shared_ptr<int>) {});
  }
  EXPECT_LE(worked, 2000);
}

TEST(FiguresTable, GivesALongNameTheLinesItNeeds) {
  FiguresTable table({"Figure", "Value"}, "table");
  table.show_rows({{{"lowest ÷ highest of all the stations", {}, false}, {"0.31 ± 0.02", {}, false}},
                   {{"Heat", {}, false}, {"201 ± 4 BTU/h", {}, false}}});
  table.resize(600, table.height());
  EXPECT_EQ(table.rowHeight(0), table.rowHeight(1)) << "there is room";
  const int flat = table.height();
  table.resize(230, table.height());
  EXPECT_GE(table.rowHeight(0), table.rowHeight(1) + table.fontMetrics().lineSpacing());
  EXPECT_EQ(table.height() - flat, table.rowHeight(0) - table.rowHeight(1)) << "no row is out of sight";
}

TEST(FiguresTable, ANameStandsOverWhatItsOwnValueLeavesFree) {
  FiguresTable table({"Figure", "Value"}, "table");
  table.show_rows({{{"Center minus corners", {}, false}, {"12 %", {}, false}},
                   {{"Heat", {}, false}, {"1,234.5 ± 23.4 µmol/m²/s/W", {}, false}}});
  table.resize(300, table.height());
  EXPECT_GT(table.fontMetrics().horizontalAdvance("Center minus corners"), table.columnWidth(0));
  EXPECT_EQ(table.rowHeight(0), table.rowHeight(1)) << "in one line, over the column of values";
  const QColor ground = QColor::fromRgb(255, 0, 255);
  table.setStyleSheet("QTableWidget { background: #f0f; color: #000; }");
  table.grab();  // what the style sheet changes is laid out
  const int over = table.columnViewportPosition(1), high = table.rowHeight(0) - 1;
  const auto inked = [&](const QImage& image) {
    for (int y = 0; y < high; ++y)
      for (int x = 0; x < 10; ++x)
        if (image.pixelColor(x, y).lightness() < ground.lightness() / 2) return true;
    return false;
  };
  const QRect beyond(over, table.rowViewportPosition(0), 10, high);
  EXPECT_TRUE(inked(table.viewport()->grab(beyond).toImage())) << "where only its neighbor is painted anew, too";
}

TEST(FiguresTable, LeavesOutWhatItHasNoRoomFor) {
  FiguresTable table({"Place", "Read", "True"}, "table");
  table.set_spare_columns({1});
  table.resize(600, 200);
  table.show_rows({{{"bar underside", {}, false}, {"47.9", {}, false}, {"49.1", {}, false}}});
  EXPECT_FALSE(table.isColumnHidden(1));
  table.resize(130, 200);
  table.show_rows({{{"bar underside", {}, false}, {"47.9", {}, false}, {"49.1", {}, false}}});
  EXPECT_TRUE(table.isColumnHidden(1));
  EXPECT_FALSE(table.isColumnHidden(2));
}

TEST(FiguresTable, IsAsWideAsWhatItShowsNow) {
  FiguresTable table({"Figure", "Read"}, "table");
  table.resize(600, table.height());
  const auto holds = [&](const QString& text) {
    return table.columnWidth(1) >= table.fontMetrics().horizontalAdvance(text);
  };
  table.show_rows({{{"Mean", {}, false}, {"5", {}, false}}});
  const int narrow = table.columnWidth(1);
  table.show_rows({{{"Mean", {}, false}, {"1,234.5 ± 23.4 µmol/m²/s", {}, false}}});
  EXPECT_TRUE(holds("1,234.5 ± 23.4 µmol/m²/s"));
  EXPECT_EQ(table.columnWidth(0) + table.columnWidth(1), table.viewport()->width());
  table.show_rows({{{"Mean", {}, false}, {"5", {}, false}}});
  EXPECT_EQ(table.columnWidth(1), narrow);
  table.name_column(1, "Read in the middle [µmol/m²/s]");
  table.show_rows({{{"Mean", {}, false}, {"5", {}, false}}});
  EXPECT_TRUE(holds("Read in the middle [µmol/m²/s]")) << "the same rows under another head";
}

TEST(WrappedLabel, IsAsTallAsItsWordsNeedNow) {
  const std::unique_ptr<QLabel> label(wrapped_label("few words", nullptr));
  QLabel plain("few words");
  plain.setWordWrap(true);
  const auto alike = [&](const char* after) {
    for (const int width : {60, 200, 60, 1000})
      EXPECT_EQ(label->heightForWidth(width), plain.heightForWidth(width)) << after << ", " << width;
  };
  const auto both = [&](auto change) { change(*label), change(plain); };
  alike("at first");
  both([](QLabel& l) { l.setText("many more words than go into one line of sixty pixels, or of two hundred"); });
  alike("other words");
  both([](QLabel& l) { l.setFont(QFont("Sunbreak Sans", 23)); });
  alike("another font");
  both([](QLabel& l) { l.setContentsMargins(20, 9, 20, 9); });
  alike("other margins");
  both([](QLabel& l) { l.setMargin(7); });
  alike("a margin");
  both([](QLabel& l) { l.setIndent(31); });
  alike("an indent");
  both([](QLabel& l) { l.setText("<b>bold</b> or<br>plain"); });
  alike("marked up");
  both([](QLabel& l) { l.setTextFormat(Qt::PlainText); });
  alike("as plain text");
  both([](QLabel& l) { l.setStyleSheet("font-size: 31px; padding: 5px;"); });
  alike("another style");
}

TEST(FormChoice, ShowsWhatIsOfferedNow) {
  Form form(nullptr);
  std::vector<Choice> offered{{"own band", 0}, {"dill", 1}};
  int chosen = 1;
  QComboBox* box = form.choice(
      "Target", [&] { return offered; }, [&] { return QVariant(chosen); },
      [&](const QVariant& v) { return chosen = v.toInt(), QString(); });
  const auto texts = [&] {
    QStringList all;
    for (int i = 0; i < box->count(); ++i) all << box->itemText(i);
    return all;
  };
  EXPECT_EQ(box->currentText(), "dill");
  chosen = 0;
  form.refresh();
  EXPECT_EQ(box->currentText(), "own band") << "the same choices, another one chosen";
  offered[1].text = "chard";
  form.refresh();
  EXPECT_EQ(texts(), QStringList({"own band", "chard"})) << "another word for the same";
  offered = {{"own band", 0}, {"chard", 2}};
  chosen = 2;
  form.refresh();
  EXPECT_EQ(box->currentData().toInt(), 2) << "another value under the same word";
  offered.push_back({"dill", 3});
  form.refresh();
  EXPECT_EQ(texts(), QStringList({"own band", "chard", "dill"}));
  EXPECT_EQ(box->currentText(), "chard");
}

TEST(ElidedCombo, AsksForItsLettersHoweverLongItsTexts) {
  ElidedCombo box(12, nullptr);
  QComboBox usual;
  usual.setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  usual.setMinimumContentsLength(12);
  const auto alike = [&](const char* when) {
    EXPECT_EQ(box.sizeHint(), usual.sizeHint()) << when;
    EXPECT_EQ(box.minimumSizeHint(), usual.minimumSizeHint()) << when;
  };
  alike("empty");
  for (QComboBox* b : {static_cast<QComboBox*>(&box), &usual})
    b->addItem("a name that is much longer than twelve letters, and goes on");
  alike("with a long text");
  box.resize(box.sizeHint());
  EXPECT_TRUE(box.shown().endsWith(QChar(0x2026))) << box.shown().toStdString();
  for (QComboBox* b : {static_cast<QComboBox*>(&box), &usual}) b->setStyleSheet("font-size: 23px;");
  alike("in larger letters");
}
