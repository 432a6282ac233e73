#include <QClipboard>
#include <QComboBox>
#include <QDir>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <QProcess>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <fstream>

#include "desktop/pictures/attach_dialog.h"
#include "desktop/read/read_view.h"
#include "exchange/package/data_package.h"
#include "exchange/package/zip_archive.h"
#include "instruments/bench_process.h"
#include "pictures/made_pictures.h"
#include "quick_bench.h"
#include "record/configurations.h"
#include "record/fact_sheet.h"
#include "record/json.h"
#include "window_fixture.h"

using namespace sunbreak;
using namespace sunbreak::desktop;

namespace {

std::string bytes_of(const QString& path) {
  QFile file(path);
  EXPECT_TRUE(file.open(QIODevice::ReadOnly)) << path.toStdString();
  return file.readAll().toStdString();
}

/// What a test knows about its fixture, by keys in the real window.
class StateTest : public WindowTest {
 protected:
  void begin_test() {
    key(Qt::Key_N, Qt::ControlModifier);
    fill("gridColumns", "4");
    fill("gridRows", "4");
  }
  /// Drives the next dialog of a name until `act` says that it is done.
  void in_dialog(const char* name, const std::function<bool(QWidget*)>& act) {
    auto* timer = new QTimer(window_.get());
    QObject::connect(timer, &QTimer::timeout, window_.get(), [=, this] {
      QWidget* dialog = QApplication::activeModalWidget();
      if (!dialog || dialog->objectName() != name) return;
      if (QApplication::activeWindow() != dialog) return QApplication::setActiveWindow(dialog);
      timer->stop();
      if (!act(dialog)) return timer->start(10);
      timer->deleteLater();
      QTimer::singleShot(5000, window_.get(), [] {
        if (auto* stuck = qobject_cast<QDialog*>(QApplication::activeModalWidget())) stuck->reject();
      });
    });
    timer->start(10);
  }
  /// Attaches a file as it is dropped on the window; `act` looks at the dialog before it is accepted.
  void attach(const QString& file, const QString& caption, const std::function<void(QWidget*)>& act = {}) {
    in_dialog("attachDialog", [=](QWidget* dialog) {
      QTest::keyClicks(dialog->findChild<QLineEdit*>("pictureCaption"), caption);
      if (act) act(dialog);
      QTest::keyClick(dialog->findChild<QLineEdit*>("pictureCaption"), Qt::Key_Return);
      return true;
    });
    attach_files(desk(), {file}, PictureOf::test(), window_.get());
  }
  QString write(const QString& name, const std::string& bytes) {
    QFile file(path(name));
    EXPECT_TRUE(file.open(QIODevice::WriteOnly));
    file.write(QByteArray::fromStdString(bytes));
    return file.fileName();
  }
  record::Json told_by_cli(const QStringList& arguments) {
    QProcess cli;
    cli.start(SUNBREAK_CLI, arguments);
    EXPECT_TRUE(cli.waitForFinished(60000));
    return record::json_of(cli.readAllStandardOutput().toStdString());
  }
  /// Presses a button of Publish and gives the file that it wrote.
  QString published(const char* button, const char* ending) {
    find<QPushButton>(button)->click();
    EXPECT_TRUE(QTest::qWaitFor(
        [&] {
          const QString words = find<QLabel>("written")->text();
          return words.startsWith("Written: ") && words.endsWith(ending);
        },
        60000))
        << find<QLabel>("written")->text().toStdString();
    return find<QLabel>("written")->text().mid(9);
  }
  void show_read_page(int page) {
    window_->show_stage(Stage::Read);
    find<QPushButton>(QString("readPage%1").arg(page).toUtf8().constData())->click();
  }
};

}  // namespace

TEST_F(StateTest, TheSheetIsTypedOnceAndToldByPageAndCommandLine) {
  begin_test();
  in_dialog("sheetDialog", [](QWidget* dialog) {
    for (auto* part : dialog->findChildren<QPushButton*>())
      if (part->property("part").toBool() && part->text().startsWith('+')) part->click();
    put(dialog, "fact_weight_stated", "9,4");
    put(dialog, "fact_weight_checked", "9.65");
    put(dialog, "fact_outer_length_m_stated", "110");
    put(dialog, "fact_ip_code_stated", "ip 65");
    put(dialog, "fact_emitter_count_stated", "12.5");  // no count
    put(dialog, "fact_made_on_stated", "2025-11-30");
    auto* cooling = dialog->findChild<QComboBox*>("fact_cooling_checked");
    cooling->setFocus();
    QTest::keyClick(cooling, Qt::Key_Down);
    dialog->findChild<QPushButton*>("sheetDone")->click();
    return true;
  });
  unfold_all();
  for (auto* button : window_->findChildren<QPushButton*>())
    if (button->text().startsWith("The sheet and pictures")) {
      button->click();
      break;
    }
  const record::TestRecord& t = *desk().test();
  ASSERT_TRUE(record::box_fact(t, "weight", "stated"));
  EXPECT_EQ(record::box_fact(t, "weight", "stated")->value, 9.4);
  EXPECT_EQ(record::box_fact(t, "weight", "checked")->value, 9.65);
  EXPECT_EQ(record::box_fact(t, "outer_length_m", "stated")->value, 1.1);
  EXPECT_EQ(record::box_fact(t, "ip_code", "stated")->words, "IP65");
  EXPECT_EQ(record::box_fact(t, "cooling", "checked")->words, "passive");
  EXPECT_EQ(record::box_fact(t, "emitter_count", "stated"), nullptr) << "half an emitter is refused";
  const auto json = told_by_cli({"read", QString::fromStdString(book_file()), "--json"});
  EXPECT_EQ(json["fixture"]["facts"]["weight"]["checked"], 9.65);
  EXPECT_EQ(json["fixture"]["facts"]["ip_code"]["stated"], "IP65");
  window_->show_stage(Stage::Publish);
  find<QLineEdit>("publishFolder")->setText(path("out"));
  const std::string page = bytes_of(published("writePage", ".html"));
  EXPECT_NE(page.find("<td>9.4 kg</td><td>9.65 kg</td>"), std::string::npos);
  EXPECT_NE(page.find("dust: dust tight; water: jets of water"), std::string::npos);
}

TEST_F(StateTest, TwoConfigurationsAreWalkedOnTheSimulatedBench) {
  instruments::BenchProcess bench({"--speed", "60"});
  be_quick();
  bench.control("SIM:SPE 6000");
  QTest::qWait(800);
  bench.control("SIM:SPE 60");
  bench.control("SIM:TILC 0");
  bench.control("SIM:HEIG 0.45");
  begin_test();
  desk().edits().make("bench as simulated", [&](book::Edit& e) {
    record::Bench tent = desk().test()->bench;
    tent.width_m = tent.depth_m = 1.2;
    e.save(tent);
    record::Test test = desk().test()->test;
    test.opening_probe = false;
    test.reference_every = 0;
    test.control = "its knob";
    e.save(test);
  });
  connect_quickly(window_->instruments(), bench.port("sensor"), bench.port("carriage"));
  ASSERT_TRUE(both_live(window_->instruments()));
  const auto walk = [&] {
    window_->show_stage(Stage::Walk);
    key(Qt::Key_H);
    return QTest::qWaitFor([&] { return desk().view() && desk().view()->complete(); }, 120000);
  };
  ASSERT_TRUE(walk());
  const double plain = desk().figures()->mean_ppfd;
  window_->show_stage(Stage::Rig);
  unfold_all();
  for (auto* button : window_->findChildren<QPushButton*>())
    if (button->text() == "Add a configuration") {
      button->click();
      break;
    }
  fill("configurationName", "two bars off");
  ASSERT_EQ(record::configuration_name(*desk().test(), desk().test()->configuration_id), "two bars off");
  EXPECT_TRUE(desk().test()->sweeps.empty()) << "its sweeps are its own";
  ASSERT_EQ(desk().test()->rungs.size(), 1u) << "planned as the first";
  bench.control("SIM:DIM 67");
  QTest::qWait(800);
  ASSERT_TRUE(walk());
  const double fewer = desk().figures()->mean_ppfd;
  EXPECT_LT(fewer, 0.8 * plain);
  EXPECT_EQ(desk().sweep()->control, "its knob");
  // { goes back, and } forth again; the mast says where one is.
  key(Qt::Key_BraceLeft);
  EXPECT_EQ(desk().test()->configuration_id, 0);
  EXPECT_NEAR(desk().figures()->mean_ppfd, plain, 1e-9);
  key(Qt::Key_BraceRight);
  EXPECT_NEAR(desk().figures()->mean_ppfd, fewer, 1e-9);
  EXPECT_TRUE(find<QWidget>("mast")->accessibleDescription().startsWith("two bars off"));
  // Both are on the page, in the package and told by the command line.
  const auto json = told_by_cli({"read", QString::fromStdString(book_file()), "--json"});
  ASSERT_EQ(json["sweeps"].size(), 2u);
  EXPECT_NEAR(json["sweeps"][0]["figures"]["mean_ppfd"].number(), plain, 1e-6);
  EXPECT_EQ(json["sweeps"][1]["configuration"], "two bars off");
  EXPECT_NEAR(json["sweeps"][1]["figures"]["mean_ppfd"].number(), fewer, 1e-6);
  window_->show_stage(Stage::Publish);
  find<QLineEdit>("publishFolder")->setText(path("out"));
  const std::string page = bytes_of(published("writePage", ".html"));
  EXPECT_NE(page.find("Configuration: as it comes"), std::string::npos);
  EXPECT_NE(page.find("Configuration: two bars off"), std::string::npos);
  const auto back = exchange::read_package_file(published("writePackage", ".zip").toStdString());
  ASSERT_TRUE(back.ok()) << back.problem().sentence();
  EXPECT_EQ(back.value().sweeps.size(), 2u);
  EXPECT_EQ(back.value().configurations.size(), 1u);
}

TEST_F(StateTest, ATemperatureAtBoostOverItsLimitIsSaidSo) {
  begin_test();
  fill("stops", "100, 110");
  window_->show_stage(Stage::WarmUp);
  unfold_all();
  fill("surfaceLimit", "62");
  const auto take = [&](const char* read, const char* dimmer) {
    in_dialog("temperatureDialog", [=](QWidget* dialog) {
      auto* how = dialog->findChild<QComboBox*>("temperatureMethod");
      how->setCurrentIndex(how->findData("contact"));
      emit how->activated(how->currentIndex());
      put(dialog, "temperatureRead", read);
      put(dialog, "temperatureDimmer", dimmer);
      QTest::mouseClick(dialog->findChild<QPushButton*>("keepTemperature"), Qt::LeftButton);
      return true;
    });
    window_->setFocus();
    find<QPushButton>("addTemperature")->click();
  };
  take("58", "100");
  take("66.5", "110");
  ASSERT_EQ(desk().test()->temperatures.size(), 2u);
  EXPECT_EQ(desk().test()->temperatures[1].percent, 110);
  EXPECT_EQ(desk().test()->temperatures[1].height_m, desk().test()->rungs[0].height_m) << "as it hangs";
  const QString verdicts = find<QLabel>("heatVerdicts")->text();
  EXPECT_TRUE(verdicts.contains("driver is 4.5 K over your limit of 62 °C")) << verdicts.toStdString();
  EXPECT_TRUE(verdicts.contains("Boost to 110 % is over your limit for surfaces")) << verdicts.toStdString();
  key(Qt::Key_M, Qt::ControlModifier);  // inches and °F
  EXPECT_TRUE(find<QLabel>("heatVerdicts")->text().contains("8.1 °F over your limit of 144 °F"))
      << find<QLabel>("heatVerdicts")->text().toStdString();
  const auto json = told_by_cli({"read", QString::fromStdString(book_file()), "--json"});
  EXPECT_NEAR(json["temperatures"][0]["rows"][1]["over_limit_k"].number(), 4.5, 1e-9);
}

TEST_F(StateTest, APhotographsPlaceAndDeviceAreNeverPublished) {
  begin_test();
  for (int i = 0; i < 16; ++i) ASSERT_TRUE(desk().edits().accept(i, 500, "typed"));
  const QString photo = write("photo.jpg", pictures::camera_jpeg(6));
  attach(photo, "in the tent", [](QWidget* dialog) {
    EXPECT_TRUE(dialog->findChild<QLabel*>("pictureTold")->text().contains("where and with what it was taken"));
  });
  ASSERT_EQ(desk().test()->pictures.size(), 1u);
  EXPECT_EQ(desk().test()->pictures[0].caption, "in the tent");
  EXPECT_EQ(desk().test()->pictures[0].width_px, 16) << "upright";
  show_read_page(8);
  auto* strip = find<QWidget>("testPictures")->findChild<QListWidget*>("pictureList");
  ASSERT_EQ(strip->count(), 1);
  EXPECT_TRUE(QTest::qWaitFor([&] { return !strip->item(0)->icon().isNull(); }, 60000)) << "it is drawn";
  window_->show_stage(Stage::Publish);
  find<QLineEdit>("publishFolder")->setText(path("out"));
  const std::string page = bytes_of(published("writePage", ".html"));
  EXPECT_NE(page.find("data:image/jpeg;base64,"), std::string::npos);
  EXPECT_NE(page.find("in the tent"), std::string::npos);
  const auto package = exchange::read_zip(published("writePackage", ".zip").toStdString(), {}, "pictures/");
  ASSERT_TRUE(package.ok());
  window_.reset();  // and the lab book is closed
  std::vector<std::string> kept{page, bytes_of(QString::fromStdString(book_file()))};
  bool pictured = false;
  for (const auto& [name, content] : package.value()) {
    kept.push_back(content);
    pictured |= name.starts_with("pictures/");
  }
  EXPECT_TRUE(pictured);
  const std::string seconds_of_latitude("\x00\x00\x0B\x60\x00\x00\x00\x64", 8);
  for (const std::string& bytes : kept)
    for (const std::string& told : {std::string(pictures::told_make), std::string(pictures::told_model),
                                    std::string(pictures::told_remark), seconds_of_latitude})
      EXPECT_EQ(bytes.find(told), std::string::npos) << told;
}

TEST_F(StateTest, WhatIsNoPictureIsRefusedInWords) {
  begin_test();
  QString said;
  QObject::connect(&desk(), &Desk::said, window_.get(), [&](const QString& words, bool) { said = words; });
  for (const auto& [bytes, words] : {std::pair{std::string("GIF89a"), "neither a PNG nor a JPEG"},
                                     {pictures::small_jpeg().substr(0, 300), "damaged"},
                                     {std::string("\xFF\xD8\xFF") + std::string(21 << 20, 'x'), "20 MB"}}) {
    EXPECT_FALSE(attach_files(desk(), {write("bad.jpg", bytes)}, PictureOf::test(), window_.get()));
    EXPECT_TRUE(said.contains(words)) << said.toStdString();
  }
  EXPECT_FALSE(attach_files(desk(), {path("nowhere.jpg")}, PictureOf::test(), window_.get()));
  EXPECT_TRUE(said.contains("cannot be read"));
  EXPECT_TRUE(desk().test()->pictures.empty());
}

TEST_F(StateTest, CellsCopiedWithAPictureOfThemArePastedAsReadings) {
  begin_test();
  window_->show_stage(Stage::Walk);
  QImage drawn(8, 8, QImage::Format_RGB32);
  drawn.fill(Qt::white);
  const auto copied = [&](bool with_text) {
    auto* held = new QMimeData;
    held->setImageData(drawn);
    if (with_text) held->setText("500\t510\t520\t530\n500\t510\t520\t530\n500\t510\t520\t530\n500\t510\t520\t530\n");
    QApplication::clipboard()->setMimeData(held);
  };
  QString opened;
  const auto note_dialog = [&](const char* name) {
    in_dialog(name, [&](QWidget* dialog) {
      opened = dialog->objectName();
      static_cast<QDialog*>(dialog)->reject();
      return true;
    });
  };
  copied(true);
  note_dialog("importDialog");
  key(Qt::Key_V, Qt::ControlModifier);
  EXPECT_EQ(opened, "importDialog");
  copied(false);
  window_->show_stage(Stage::Read);
  note_dialog("attachDialog");
  key(Qt::Key_V, Qt::ControlModifier);
  EXPECT_EQ(opened, "attachDialog");
}

TEST_F(StateTest, ARetestOfALostLabBookSaysSoAndIsComparedOnceItIsBack) {
  open_sample_book();
  open_test(8, Stage::Read);
  const std::filesystem::path file = desk().book().file(), away = file.parent_path() / "away.sunbreak";
  std::filesystem::rename(file, away);
  find<QPushButton>("readPage7")->click();
  const auto* words = find<QLabel>("retestWords");
  EXPECT_TRUE(QTest::qWaitFor([&] { return words->text().contains("could not be held against each other"); }, 60000))
      << words->text().toStdString();
  EXPECT_TRUE(find<QLabel>("message")->text().contains("there is no such file"));
  std::filesystem::rename(away, file);
  find<QPushButton>("readPage1")->click();
  find<QPushButton>("readPage7")->click();
  EXPECT_TRUE(QTest::qWaitFor([&] { return find<QTableWidget>("retestTable")->rowCount() == 2; }, 60000));
}

TEST_F(StateTest, ARetestIsComparedAndNotesAreKept) {
  open_sample_book();
  open_test(8, Stage::Read);
  find<QPushButton>("readPage7")->click();
  auto* table = find<QTableWidget>("retestTable");
  ASSERT_TRUE(QTest::qWaitFor([&] { return table->rowCount() == 2; }, 60000));
  EXPECT_TRUE(find<QLabel>("retestHead")->text().contains("Ostler Six-Bar in the tent"));
  EXPECT_TRUE(find<QLabel>("retestWords")->text().contains("Over 2500 h of running the light fell by"))
      << find<QLabel>("retestWords")->text().toStdString();
  const auto json = told_by_cli({"read", QString::fromStdString(book_file()), "--test", "8", "--json"});
  const double ratio = json["retest"]["sweeps"][0]["mean_ppfd"]["ratio"].number();
  EXPECT_NEAR(ratio, 0.968, 0.004) << "as the sample was made";
  EXPECT_TRUE(table->item(0, 1)->text().contains(QString::number(100 * (1 - ratio), 'f', 1)));
  // A plain test says how one becomes a retest, and the way leads to its field.
  open_test(7, Stage::Read);
  find<QPushButton>("readPage7")->click();
  EXPECT_TRUE(find<QLabel>("retestHead")->text().contains("first test"));
  find<QPushButton>("chooseRetest")->click();
  EXPECT_EQ(focused()->objectName(), "retestOf");
  // A dated note of what grew.
  show_read_page(8);
  find<QPushButton>("addNote")->click();
  ASSERT_EQ(focused()->objectName(), "noteWords");
  type("cress, four days");
  key(Qt::Key_Return);
  ASSERT_EQ(desk().test()->growth_notes.size(), 1u);
  EXPECT_EQ(desk().test()->growth_notes[0].words, "cress, four days");
  auto* day = find<QLineEdit>("noteDay");
  day->setFocus();
  day->selectAll();
  type("last week");
  key(Qt::Key_Return);
  EXPECT_NE(desk().test()->growth_notes[0].noted_on, "last week") << "that is no day";
}
