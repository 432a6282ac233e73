#include <fmt/format.h>
#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>
#include <QTimer>
#include <cmath>

#include "desktop/read_fixture.h"

namespace sunbreak::desktop {
namespace {

void when_spectra_are_offered(const std::function<void(QDialog*)>& look) {
  auto* timer = new QTimer(qApp);
  QObject::connect(timer, &QTimer::timeout, timer, [=] {
    auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
    if (!dialog || dialog->objectName() != "spectrumDialog") return;
    timer->stop();
    timer->deleteLater();
    look(dialog);
  });
  timer->start(10);
}

double hump(double nm, double center, double sigma) { return std::exp(-std::pow((nm - center) / sigma, 2) / 2); }

/// Two lamps side by side in a table, as a spectrometer writes it.
std::string two_lamps(const char* unit) {
  std::string text = std::string("nm\twhite ") + unit + "\tred " + unit + "\n";
  for (int nm = 380; nm <= 780; nm += 2)
    text += fmt::format("{}\t{:.5f}\t{:.5f}\n", nm, hump(nm, 451, 9) + hump(nm, 575, 55), hump(nm, 660, 9));
  return text;
}

record::Json told_of(const QStringList& arguments) {
  QProcess cli;
  cli.start(SUNBREAK_CLI, QStringList{"spectrum", "--json"} + arguments);
  cli.waitForFinished();
  return record::json_of(cli.readAllStandardOutput().toStdString());
}

class SpectrumPageTest : public ReadTest {
 protected:
  void paste(const std::string& text) {
    QApplication::clipboard()->setText(QString::fromStdString(text));
    key(Qt::Key_V, Qt::ControlModifier);
  }
  QString figure(const char* id) { return find<QLabel>((std::string("spectrum_") + id).c_str())->text(); }
};

TEST_F(SpectrumPageTest, PastedSpectraShowTheFiguresThatTheCommandLineTells) {
  key(Qt::Key_9);
  EXPECT_EQ(focused()->objectName(), "addSpectrum") << "there is nothing to choose yet";
  std::size_t while_open = 9;
  when_spectra_are_offered([&](QDialog* dialog) {
    while_open = desk().test()->spectra.size();
    EXPECT_TRUE(dialog->findChild<QLabel*>("understood")->text().contains("201 samples from 380 to 780 nm"));
    EXPECT_TRUE(dialog->findChild<QPushButton*>("takeSpectra")->isEnabled());
    QTest::keyClick(dialog, Qt::Key_Return);
  });
  paste(two_lamps("W/m2/nm"));
  EXPECT_EQ(while_open, 0u) << "nothing enters until it is taken";
  ASSERT_EQ(desk().test()->spectra.size(), 2u);
  EXPECT_EQ(desk().test()->spectra[0].percent, 100) << "the setting at hand";
  EXPECT_EQ(focused()->objectName(), "spectra");

  const std::string file = path("lamps.tsv").toStdString();
  ASSERT_FALSE(exchange::write_new_file(file, two_lamps("W/m2/nm")));
  const auto white = told_of({QString::fromStdString(file), "--column", "2"});
  EXPECT_EQ(figure("blue"), QString::number(100 * white["photon_share"]["blue"].number(), 'f', 1) + " %");
  EXPECT_TRUE(figure("cct_k").startsWith(QString::number(std::lround(white["cct_k"].number())) + " K"));
  EXPECT_TRUE(figure("ppfd_per_lux").startsWith(QString::number(white["ppfd_per_lux"].number(), 'f', 5)));
  key(Qt::Key_Down);
  const auto red = told_of({QString::fromStdString(file), "--column", "3"});
  EXPECT_EQ(figure("red"), QString::number(100 * red["photon_share"]["red"].number(), 'f', 1) + " %");
  EXPECT_TRUE(red.contains("cct_k") && red["cct_k"].is_null());
  EXPECT_EQ(figure("cct_k"), "none");

  // A mix of both, 30 % of the second.
  key(Qt::Key_Up);
  find<QComboBox>("spectrumMix")->setFocus();
  key(Qt::Key_Down);
  key(Qt::Key_Down);
  auto* share = find<QSpinBox>("spectrumShare");
  share->setFocus();
  share->selectAll();
  type("30");
  const auto mix_file = path("white.csv").toStdString(), other_file = path("red.csv").toStdString();
  std::string one = "nm,power\n", other = one;
  for (int nm = 380; nm <= 780; nm += 2) {
    one += fmt::format("{},{:.5f}\n", nm, hump(nm, 451, 9) + hump(nm, 575, 55));
    other += fmt::format("{},{:.5f}\n", nm, hump(nm, 660, 9));
  }
  ASSERT_FALSE(exchange::write_new_file(mix_file, one));
  ASSERT_FALSE(exchange::write_new_file(other_file, other));
  const auto mix =
      told_of({QString::fromStdString(mix_file), "--with", QString::fromStdString(other_file), "--share", "0.3"});
  EXPECT_EQ(figure("red"), QString::number(100 * mix["photon_share"]["red"].number(), 'f', 1) + " %");
  EXPECT_TRUE(figure("ra").startsWith("Ra " + QString::number(std::lround(mix["ra"].number()))));

  find<QListWidget>("spectra")->setFocus();
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(desk().test()->spectra.empty()) << "one step of undo";
}

TEST_F(SpectrumPageTest, WhatSaysNoUnitCannotBeTakenBeforeItIsChosen) {
  key(Qt::Key_9);
  when_spectra_are_offered([&](QDialog* dialog) {
    auto* take = dialog->findChild<QPushButton*>("takeSpectra");
    EXPECT_FALSE(take->isEnabled());
    EXPECT_TRUE(dialog->findChild<QLabel*>("spectrumProblem")->text().contains("photons or power"));
    dialog->findChild<QComboBox*>("spectrumScale")->setCurrentIndex(1);
    EXPECT_TRUE(take->isEnabled());
    dialog->findChild<QLineEdit*>("spectrumPercent")->setText("300");
    QTest::mouseClick(take, Qt::LeftButton);
    EXPECT_TRUE(dialog->findChild<QLabel*>("spectrumProblem")->text().contains("no dimmer setting"));
    dialog->findChild<QLineEdit*>("spectrumPercent")->clear();
    QTest::mouseClick(take, Qt::LeftButton);
  });
  paste(two_lamps("counts"));
  ASSERT_EQ(desk().test()->spectra.size(), 2u);
  EXPECT_EQ(desk().test()->spectra[0].scale, "photons");
  EXPECT_FALSE(desk().test()->spectra[0].percent);
  find<QPushButton>("removeSpectrum")->click();
  EXPECT_EQ(desk().test()->spectra.size(), 1u);
}

TEST_F(SpectrumPageTest, ATableOfReadingsSaysThatItIsNoSpectrum) {
  key(Qt::Key_9);
  when_spectra_are_offered([&](QDialog* dialog) {
    EXPECT_FALSE(dialog->findChild<QLabel*>("spectrumProblem")->text().isEmpty());
    EXPECT_FALSE(dialog->findChild<QPushButton*>("takeSpectra")->isEnabled());
    dialog->reject();
  });
  paste("x\ty\tppfd\n0\t0\thello\n");
  EXPECT_TRUE(desk().test()->spectra.empty());
}

}  // namespace
}  // namespace sunbreak::desktop
