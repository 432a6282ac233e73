#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <QProcess>
#include <QPushButton>
#include <QScrollBar>
#include <QSettings>
#include <QTableWidget>
#include <QTimer>
#include <cmath>

#include "book/test_rows.h"
#include "desktop/lineup/lineup_strip.h"
#include "desktop/lineup/lineup_view.h"
#include "desktop/lineup/lineup_work.h"
#include "desktop/lineup/suits_page.h"
#include "desktop/lineup/way_field.h"
#include "desktop/widgets/text.h"
#include "exchange/files/new_file.h"
#include "exchange/package/data_package.h"
#include "exchange/package/zip_archive.h"
#include "record/json.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

/// The sample lab book lined up by keys in the real window.
class LineUpTest : public SampleWindowTest {
 protected:
  void SetUp() override {
    SampleWindowTest::SetUp();
    open_test(1, Stage::LineUp);
    ASSERT_TRUE(settled());
  }
  LineUpWork* work() { return window_->findChild<LineUpWork*>(); }
  LineUpStrip* strip() { return find<LineUpStrip>("lineupStrip"); }
  bool settled() {
    return QTest::qWaitFor([&] { return work()->shown() && !work()->working(); }, 90000);
  }
  const evaluation::LineUp& lineup() { return *work()->shown()->lineup; }
  int member(const std::string& title) {
    for (int m = 0; m < std::ssize(lineup().members()); ++m)
      if (lineup().members()[static_cast<std::size_t>(m)].entrant.title == title) return m;
    return -1;
  }
  /// Down through the strip until that one is under the hand.
  bool walk_to(const std::string& title) {
    key(Qt::Key_Home);
    for (std::size_t i = 0; i < lineup().members().size(); ++i, key(Qt::Key_Down))
      if (strip()->chosen() == member(title)) return true;
    return false;
  }
  QString words() { return find<QLabel>("lineupWords")->text(); }
  /// Does something with the dialog that the next key opens; one that is still open after it is closed.
  void on_dialog(std::function<void(QDialog*)> act) {
    QTimer::singleShot(0, window_.get(), [act = std::move(act)] {
      auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
      ASSERT_TRUE(dialog);
      dialog->activateWindow();
      EXPECT_TRUE(QTest::qWaitForWindowActive(dialog));
      act(dialog);
      if (dialog->isVisible()) dialog->reject();
    });
  }
  record::Json command_line(const QStringList& arguments) {
    QProcess cli;
    cli.start(SUNBREAK_CLI, arguments + QStringList{"--json"});
    EXPECT_TRUE(cli.waitForFinished(120000));
    EXPECT_EQ(cli.exitCode(), 0) << cli.readAllStandardError().toStdString();
    return record::json_of(cli.readAllStandardOutput().toStdString());
  }
  /// Holds what is shown against the command line's answer, to the last digit.
  void expect_same(const record::Json& there) {
    ASSERT_EQ(there["rows"].size(), lineup().members().size());
    for (const auto& row : there["rows"]) {
      const int m = member(row["test"].text());
      ASSERT_GE(m, 0) << row["test"].text();
      const Standing& s = lineup().ranking().standings()[static_cast<std::size_t>(m)];
      const RankInterval rank = lineup().ranking().rank(m);
      if (row["value"].is_null()) {
        EXPECT_TRUE(std::isnan(s.value)) << row["test"].text();
        continue;
      }
      EXPECT_DOUBLE_EQ(row["value"].number(), s.value) << row["test"].text();
      EXPECT_DOUBLE_EQ(row["expanded_k2"].number(), s.expanded()) << row["test"].text();
      EXPECT_EQ(row["rank_low"].whole(), rank.low) << row["test"].text();
      EXPECT_EQ(row["rank_high"].whole(), rank.high) << row["test"].text();
      EXPECT_EQ(row["ties"].size(), lineup().ranking().ties(m).size()) << row["test"].text();
      EXPECT_EQ(row["dominated_by"].size(), lineup().dominated()[static_cast<std::size_t>(m)].size())
          << row["test"].text();
    }
  }
};

}  // namespace

TEST(WayField, GivesTheWayThatWasMeantNotItsRounding) {
  WayField field(nullptr);
  std::vector<std::string> chosen;
  QStringList refused;
  QObject::connect(&field, &WayField::chosen, [&](const std::string& way) { chosen.push_back(way); });
  QObject::connect(&field, &WayField::refused, [&](const Problem& p) { refused << text_of(p.sentence()); });
  field.show_ways("height:45cm", {"as-measured", "footprint:60x60cm"}, UnitSystem::Imperial);
  EXPECT_EQ(field.currentText(), "height 17.7 in");
  const auto type = [&](const QString& text) {
    field.lineEdit()->setText(text);
    QTest::keyClick(field.lineEdit(), Qt::Key_Return);
  };
  type("height 17.7 in");
  type("Footprint 23.6 × 23.6 in");
  type("height 18 in + open floor");
  type("as high as can be");
  EXPECT_EQ(chosen, (std::vector<std::string>{"height:45cm", "footprint:60x60cm", "height:45.72cm+open-floor"}));
  ASSERT_EQ(refused.size(), 1) << "told once";
  EXPECT_TRUE(refused[0].contains("as high as can be")) << refused[0].toStdString();
  chosen.clear();
  field.setCurrentIndex(1);
  field.activated(1);
  EXPECT_EQ(chosen, (std::vector<std::string>{"footprint:60x60cm"})) << "from the list";
  field.show_ways("footprint:60x60cm", {"as-measured", "footprint:60x60cm"}, UnitSystem::Imperial);
  QFocusEvent away(QEvent::FocusOut, Qt::TabFocusReason);
  QApplication::sendEvent(field.lineEdit(), &away);
  EXPECT_EQ(chosen.size(), 1u) << "what is asked for already is not asked for again when the keyboard leaves";
}

/// A tester's way through the stage, by keys alone.
TEST_F(LineUpTest, FiguresWaysTiesARefusalAndTwoSideBySide) {
  EXPECT_EQ(lineup().members().size(), 9u);
  expect_same(command_line({"line-up", text_of(book_file())}));

  // The chosen one stays in sight when the line-up is told anew.
  const QSize usual = window_->size();
  window_->resize(1024, 700);
  QApplication::processEvents();
  QScrollBar* bar = strip()->verticalScrollBar();
  strip()->choose(strip()->in_order().back());
  EXPECT_GT(bar->maximum(), 0);
  EXPECT_EQ(bar->value(), bar->maximum()) << "the last one stands at the foot";
  bar->setValue(0);
  key(Qt::Key_H);
  ASSERT_TRUE(settled());
  EXPECT_EQ(strip()->chosen(), strip()->in_order().back());
  EXPECT_EQ(bar->value(), bar->maximum());
  key(Qt::Key_H);
  ASSERT_TRUE(settled());
  window_->resize(usual);

  // The figure, by the keyboard.
  key(Qt::Key_B);
  auto* figure = find<QComboBox>("lineupFigure");
  ASSERT_TRUE(figure->hasFocus());
  QTest::keyClicks(figure, "lowest");
  while (figure->currentData().toString() != "lowest_over_mean") QTest::keyClick(figure, Qt::Key_Down);
  figure->activated(figure->currentIndex());
  ASSERT_TRUE(settled());
  EXPECT_EQ(lineup().figure().id, "lowest_over_mean");
  expect_same(command_line({"line-up", text_of(book_file()), "--by", "lowest_over_mean"}));
  strip()->setFocus();

  // Ties, and one that is dominated.
  ASSERT_TRUE(walk_to("Ostler Six-Bar in the tent"));
  EXPECT_TRUE(words().contains("Rank 1 to 2 of 5")) << words().toStdString();
  EXPECT_TRUE(words().contains("Not told apart from: Ostler Six-Bar, seven months on")) << words().toStdString();
  ASSERT_TRUE(walk_to("Bess 400 in the tent · lamp of 6,200 h"));
  EXPECT_TRUE(words().contains("Dominated by Ostler Six-Bar in the tent")) << words().toStdString();

  // A refusal, with what would mend it.
  ASSERT_TRUE(walk_to("Brindle Panel 135 in the tent"));
  key(Qt::Key_Space);
  ASSERT_TRUE(walk_to("Pell Narrow 300 on the loft floor"));
  EXPECT_TRUE(words().contains("May not be held against Brindle Panel 135 in the tent: footprints of"))
      << words().toStdString();
  EXPECT_TRUE(words().contains("open floor")) << words().toStdString();
  key(Qt::Key_Return);
  EXPECT_TRUE(find<QLabel>("pairWhyNot")->text().contains("reflective walls"))
      << find<QLabel>("pairWhyNot")->text().toStdString();
  EXPECT_EQ(find<QTableWidget>("pairTable")->rowCount(), 0) << "no figure is said to be better";
  key(Qt::Key_Escape);

  // In one room they may.
  key(Qt::Key_W);
  auto* way = find<QComboBox>("lineupWay");
  QTest::keyClicks(way->lineEdit(), "open-floor+footprint:110x110cm+grid:6x6");
  QTest::keyClick(way->lineEdit(), Qt::Key_Return);
  ASSERT_TRUE(settled());
  EXPECT_TRUE(
      lineup().why_not(member("Pell Narrow 300 on the loft floor"), member("Brindle Panel 135 in the tent")).empty());
  EXPECT_EQ(strip()->chosen(), member("Pell Narrow 300 on the loft floor")) << "the same one under the hand";
  expect_same(command_line({"line-up", text_of(book_file()), "--by", "lowest_over_mean", "--way",
                            "open-floor+footprint:110x110cm+grid:6x6"}));
  key(Qt::Key_Return);
  EXPECT_GT(find<QTableWidget>("pairTable")->rowCount(), 15);
  for (const int page : {2, 3, 4, 7, 1}) key(static_cast<Qt::Key>(Qt::Key_0 + page));
  desk().say({});
  key(Qt::Key_C, Qt::ControlModifier);
  EXPECT_TRUE(QGuiApplication::clipboard()->text().contains("Pell Narrow 300 on the loft floor\t"));
}

TEST_F(LineUpTest, IsWrittenToBeReadByOthers) {
  QSettings().setValue("publish/folder", path("out"));
  ASSERT_TRUE(settled());
  for (int i = 0; i < 2; ++i) {
    const QString folder = path("out/line-up-by-canopy-efficacy") + (i == 0 ? "" : "-2");
    key(Qt::Key_E);
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return QFile::exists(folder + "/line-up-by-canopy-efficacy-stills/alt-texts.txt"); }, 60000))
        << "nothing is written over: the second goes beside the first";
    for (const char* ending : {".html", ".xlsx", ".csv"})
      EXPECT_TRUE(QFile::exists(folder + "/line-up-by-canopy-efficacy" + ending)) << ending;
    QTest::qWait(300);
  }
  QSettings().remove("publish/folder");
}

TEST_F(LineUpTest, ALostLabBookEndsTheWaitAndItGoesOnOnceItIsBack) {
  const std::filesystem::path file = desk().book().file(), away = file.parent_path() / "away.sunbreak";
  std::filesystem::rename(file, away);
  work()->look_again();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !work()->working(); }, 60000));
  const QString told = find<QLabel>("message")->text();
  EXPECT_TRUE(told.contains(text_of(file.string())) && told.contains("there is no such file")) << told.toStdString();
  EXPECT_FALSE(told.contains("not foreseen")) << told.toStdString();
  EXPECT_TRUE(find<QLabel>("lineupState")->text().startsWith("Stopped")) << words().toStdString();
  EXPECT_FALSE(find<QPushButton>("lineupCancel")->isVisible());
  std::filesystem::rename(away, file);
  strip()->setFocus();
  key(Qt::Key_Return);
  ASSERT_TRUE(settled());
  EXPECT_FALSE(work()->stopped());
  EXPECT_GT(lineup().members().size(), 2u);
  EXPECT_TRUE(find<QLabel>("message")->text().isEmpty()) << find<QLabel>("message")->text().toStdString();
}

TEST_F(LineUpTest, WhoIsInIt) {
  key(Qt::Key_F);
  auto* filter = find<QLineEdit>("lineupFilter");
  ASSERT_TRUE(filter->hasFocus());
  QTest::keyClicks(filter, "tent power<400");
  QTest::keyClick(filter, Qt::Key_Return);
  ASSERT_TRUE(settled());
  EXPECT_EQ(lineup().members().size(), 3u) << "two Ostlers and the Brindle";
  expect_same(command_line({"line-up", text_of(book_file()), "--filter", "tent power<400"}));
  strip()->setFocus();
  key(Qt::Key_Home);
  key(Qt::Key_Delete);
  ASSERT_TRUE(settled());
  EXPECT_EQ(lineup().members().size(), 2u);
  key(Qt::Key_S);
  ASSERT_TRUE(settled());
  const auto kept = desk().book().all<record::SavedLineUp>();
  ASSERT_EQ(kept.size(), 1u);
  EXPECT_EQ(kept.front().filter, "tent power<400");
  key(Qt::Key_R);
  ASSERT_TRUE(settled());
  EXPECT_EQ(lineup().members().size(), 3u);
  // What cannot be read is said, and what stood stays typed.
  key(Qt::Key_F);
  filter->selectAll();
  QTest::keyClicks(filter, "weight<3");
  QTest::keyClick(filter, Qt::Key_Return);
  ASSERT_TRUE(settled());
  EXPECT_TRUE(find<QLabel>("lineupState")->text().contains("'weight<3' is no condition"))
      << find<QLabel>("lineupState")->text().toStdString();
}

/// Two line-ups are kept, one by an index of the user's own; the other is called otherwise and opened again.
TEST_F(LineUpTest, KeptOnesAndAnIndex) {
  key(Qt::Key_S);
  ASSERT_TRUE(settled());
  on_dialog([&](QDialog* dialog) {
    auto* weights = dialog->findChild<QTableWidget*>("indexWeights");
    QTest::keyClick(dialog->findChild<QPushButton*>("takeIndex"), Qt::Key_Space);
    EXPECT_TRUE(dialog->findChild<QLabel*>("indexProblem")->text().contains("has no figure in it"));
    for (int row = 0; row < weights->rowCount(); ++row) {
      const QString name = weights->item(row, 0)->text();
      if (name == "Canopy efficacy") weights->item(row, 1)->setText("2");
      if (name == "lowest ÷ mean") weights->item(row, 1)->setText("1");
    }
    QTest::keyClick(dialog->findChild<QPushButton*>("takeIndex"), Qt::Key_Space);
  });
  key(Qt::Key_I);
  ASSERT_TRUE(settled());
  EXPECT_EQ(lineup().terms().figure, "index:lowest_over_mean=1,canopy_efficacy_umol_j=2");
  EXPECT_TRUE(find<QLabel>("lineupDeclared")->text().contains("2 × canopy efficacy"))
      << find<QLabel>("lineupDeclared")->text().toStdString();
  expect_same(command_line({"line-up", text_of(book_file()), "--by", text_of(lineup().terms().figure).toUtf8()}));
  key(Qt::Key_S, Qt::ShiftModifier);
  ASSERT_TRUE(settled());
  on_dialog([&](QDialog* dialog) {
    auto* list = dialog->findChild<QListWidget*>("keptList");
    ASSERT_EQ(list->count(), 2);
    EXPECT_TRUE(list->item(0)->text().contains("own index")) << "the latest first";
    QTest::keyClick(list, Qt::Key_Down);
    QTest::keyClick(list, Qt::Key_F2);
    auto* name = dialog->findChild<QLineEdit*>("keptName");
    ASSERT_TRUE(QTest::qWaitFor([&] { return name->hasFocus(); }, 2000));
    QTest::keyClicks(name, "By efficacy");
    QTest::keyClick(name, Qt::Key_Return);
    EXPECT_TRUE(list->item(1)->text().startsWith("By efficacy: by Canopy efficacy, as measured"))
        << list->item(1)->text().toStdString();
    QTest::keyClick(list, Qt::Key_Return);
  });
  key(Qt::Key_K);
  ASSERT_TRUE(settled());
  EXPECT_EQ(lineup().terms().figure, "canopy_efficacy_umol_j");
  EXPECT_EQ(work()->asked().name, "By efficacy");
  on_dialog([&](QDialog* dialog) {
    for (int i = 0; i < 2; ++i) QTest::keyClick(dialog->findChild<QListWidget*>("keptList"), Qt::Key_Delete);
    QTest::keyClick(dialog, Qt::Key_Escape);
  });
  key(Qt::Key_K);
  EXPECT_TRUE(desk().book().all<record::SavedLineUp>("WHERE removed = 0").empty());
}

/// A guest's package is read where it lies, marked, and worked out from its readings.
TEST_F(LineUpTest, AGuestStandsInIt) {
  record::TestRecord guest = *book::load_test(desk().book(), 2);
  guest.test.name = "Brindle at the ferry", guest.test.tested_by = "Ferry Lane Growers' Shed";
  for (record::Reading& r : guest.readings) r.taken_at.replace(0, 4, "2025");  // as if walked there, another day
  const auto file = text_of(path("ferry.zip"));
  ASSERT_FALSE(exchange::write_new_file(file, exchange::zip_bytes(exchange::make_package(guest))));
  ASSERT_FALSE(exchange::write_new_file(text_of(path("broken.zip")), "no package"));
  const auto tests = desk().book().all<record::Test>().size();
  QMimeData urls;
  urls.setUrls({QUrl::fromLocalFile(path("ferry.zip")), QUrl::fromLocalFile(path("broken.zip"))});
  auto* view = window_->findChild<LineUpView*>();
  QDragEnterEvent enter(QPoint(200, 200), Qt::CopyAction, &urls, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(view, &enter);
  QDropEvent drop(QPointF(200, 200), Qt::CopyAction, &urls, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(view, &drop);
  ASSERT_TRUE(settled());
  EXPECT_EQ(lineup().members().size(), 10u);
  EXPECT_TRUE(find<QLabel>("lineupState")->text().contains("1 package left out"));
  EXPECT_TRUE(find<QLabel>("lineupState")->toolTip().contains("broken.zip"));
  EXPECT_EQ(desk().book().all<record::Test>().size(), tests) << "a guest is no test of this lab book";
  const int there = member("Brindle at the ferry");
  ASSERT_GE(there, 0);
  const int own = member("Brindle Panel 135 in the tent");
  const auto& s = lineup().ranking().standings();
  EXPECT_DOUBLE_EQ(s[static_cast<std::size_t>(there)].value, s[static_cast<std::size_t>(own)].value);
  EXPECT_GT(difference(s[static_cast<std::size_t>(there)], s[static_cast<std::size_t>(own)]).expanded,
            1.2 * s[static_cast<std::size_t>(own)].expanded())
      << "another lab's meters are other meters, whatever they are called";
  // Home again by the list of guests.
  on_dialog([&](QDialog* dialog) {
    auto* guests = dialog->findChild<QListWidget*>("guestList");
    ASSERT_EQ(guests->count(), 2);
    QTest::keyClick(guests, Qt::Key_Home);
    if (!guests->currentItem()->text().endsWith("ferry.zip")) QTest::keyClick(guests, Qt::Key_Down);
    QTest::keyClick(guests, Qt::Key_Delete);
    EXPECT_EQ(guests->count(), 1);
    QTest::keyClick(dialog, Qt::Key_Escape);
  });
  key(Qt::Key_K);
  ASSERT_TRUE(settled());
  EXPECT_EQ(lineup().members().size(), 9u) << "sent home";
  EXPECT_TRUE(QFile::exists(path("ferry.zip"))) << "nothing becomes of the file";
}

/// The question turned round, with the command line's answer.
TEST_F(LineUpTest, ARoomIsAskedFor) {
  key(Qt::Key_F);
  QTest::keyClicks(find<QLineEdit>("lineupFilter"), "tent LED");
  QTest::keyClick(find<QLineEdit>("lineupFilter"), Qt::Key_Return);
  ASSERT_TRUE(settled());
  strip()->setFocus();
  key(Qt::Key_6);
  auto* room = find<QLineEdit>("suitRoom");
  ASSERT_TRUE(room->hasFocus());
  const auto type = [&](const char* name, const char* text) {
    auto* edit = find<QLineEdit>(name);
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, text);
  };
  type("suitRoom", "somewhere");
  QTest::keyClick(room, Qt::Key_Return);
  EXPECT_TRUE(find<QLabel>("suitState")->text().contains("is not a footprint"));
  type("suitRoom", "2 x 2 m");
  type("suitLow", "150");
  type("suitHigh", "500");
  type("suitHours", "14");
  QTest::keyClick(find<QLineEdit>("suitHours"), Qt::Key_Return);
  auto* page = window_->findChild<SuitsPage*>();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !page->working() && !page->answers().empty(); }, 90000));
  const auto there = command_line({"suits", text_of(book_file()), "--filter", "tent LED", "--room", "2x2m",
                                   "--target-low", "150", "--target-high", "500", "--photoperiod", "14"});
  const auto* table = find<QTableWidget>("suitTable");
  ASSERT_EQ(static_cast<std::size_t>(table->rowCount()),
            there["rows"].size() + there["almost"].size() + there["unknown"].size());
  ASSERT_FALSE(there["rows"].empty());
  for (std::size_t r = 0; r < there["rows"].size(); ++r) {
    const auto& row = there["rows"][r];
    EXPECT_EQ(text_of(table->item(static_cast<int>(r), 0)->text()), row["test"].text());
    EXPECT_EQ(table->item(static_cast<int>(r), 1)->text().toInt(), row["count"].whole());
    EXPECT_EQ(table->item(static_cast<int>(r), 6)->text(), QString::number(row["lowest_over_mean"].number(), 'f', 2));
  }
  EXPECT_TRUE(find<QLabel>("suitState")->text().contains("licensed electrician"));
}
