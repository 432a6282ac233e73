#include "instruments/spectrometer.h"

#include "bench_process.h"
#include "core/spectrum/photon_bands.h"

using namespace sunbreak;
using namespace sunbreak::instruments;

namespace {

/// A spectrometer of the simulated bench and what it told.
class SpectrometerTest : public ::testing::Test {
 protected:
  SpectrometerTest() : bench_({"--speed", "20"}) {
    TransportAddress address;
    address.port = bench_.port("spectrometer");
    spectrometer_ = std::make_unique<Spectrometer>(address);
    QObject::connect(spectrometer_.get(), &Spectrometer::taken, [this](const Spectrum& s, const QString& identity) {
      taken_.push_back(s);
      identity_ = identity;
    });
    QObject::connect(spectrometer_.get(), &Spectrometer::failed, [this](const QString& words) { failed_ = words; });
  }
  void command(const QByteArray& lines) {
    QTcpSocket line;
    line.connectToHost(QHostAddress::LocalHost, bench_.port("control"));
    ASSERT_TRUE(line.waitForConnected(60000));
    line.write(lines);
    ASSERT_TRUE(line.waitForReadyRead(60000));
  }

  BenchProcess bench_;
  std::unique_ptr<Spectrometer> spectrometer_;
  std::vector<Spectrum> taken_;
  QString identity_, failed_;
};

}  // namespace

TEST_F(SpectrometerTest, GivesAWholeSpectrumInItsUnit) {
  spectrometer_->take();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !taken_.empty(); }, 20000)) << failed_.toStdString();
  const Spectrum& light = taken_[0];
  EXPECT_TRUE(identity_.contains("simulated spectrometer"));
  ASSERT_EQ(light.values.size(), 201u);
  EXPECT_EQ(light.wavelengths_nm.front(), 380);
  EXPECT_EQ(light.wavelengths_nm.back(), 780);
  EXPECT_TRUE(light.absolute);
  EXPECT_EQ(light.scale, SpectralScale::Power);
  const BandShare red = band_share(SpectralCurve(light), photon_bands[4].range);
  EXPECT_GT(red.share, 0.35);
}

TEST_F(SpectrometerTest, GarbledAndLostAnswersAreAskedForAgain) {
  command("SIM:GARB 0.1\nSIM:DROP 0.05\n");
  spectrometer_->take();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !taken_.empty() || !failed_.isEmpty(); }, 60000));
  ASSERT_FALSE(taken_.empty()) << failed_.toStdString();
  const Spectrum& light = taken_[0];
  ASSERT_EQ(light.values.size(), 201u);
  for (std::size_t i = 0; i < light.values.size(); ++i)
    EXPECT_EQ(light.wavelengths_nm[i], 380 + 2.0 * static_cast<double>(i)) << "each sample once, in its order";
}

TEST_F(SpectrometerTest, OneThatVanishesIsSaid) {
  command("SIM:AWAY 30\n");
  QTest::qWait(200);
  spectrometer_->take();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !failed_.isEmpty(); }, 20000));
  EXPECT_TRUE(taken_.empty());
  EXPECT_TRUE(failed_.contains("Check its cable")) << failed_.toStdString();
}
