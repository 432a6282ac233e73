#include <QFile>
#include <QTemporaryDir>
#include <QTest>
#include <QThread>
#include <algorithm>
#include <cstdio>

#include "bench_process.h"

using namespace sunbreak::instruments;

/// The sensor of a simulated bench, over a socket and over a pseudo-terminal.
class SensorOver : public ::testing::TestWithParam<TransportKind> {
 protected:
  InstrumentSettings sensor_settings() const {
    InstrumentSettings settings = impatient(bench.port("sensor"));
    if (GetParam() == TransportKind::Serial)
      settings.address = {TransportKind::Serial, {}, 0, bench.place("sensor-pty"), 9600};
    return settings;
  }
  BenchProcess bench{{"--pty", "--speed", "100"}};
};
INSTANTIATE_TEST_SUITE_P(Lines, SensorOver, ::testing::Values(TransportKind::Tcp, TransportKind::Serial),
                         [](const auto& line) { return line.param == TransportKind::Tcp ? "Socket" : "Terminal"; });

TEST(Instrument, ReadsTheSensorOverASocket) {
  BenchProcess bench;
  Listener sensor(impatient(bench.port("sensor")));
  ASSERT_TRUE(sensor.wait_for_values(5)) << sensor.words.toStdString();
  EXPECT_EQ(sensor.state, LinkState::Live);
  EXPECT_TRUE(sensor.identity.contains("quantum sensor"));
  EXPECT_GT(sensor.values.back(), 300);
}

TEST(Instrument, ReadsTheWallMeter) {
  BenchProcess bench;
  Listener meter(impatient(bench.port("meter"), Measures::Power));
  ASSERT_TRUE(meter.wait_for_values(3));
  EXPECT_NEAR(meter.last.wall.volts, 230, 10);
  EXPECT_NEAR(meter.last.wall.watts / meter.last.wall.volt_amperes, meter.last.wall.power_factor, 0.01);
}

TEST(Instrument, ReadsTheSensorOverAPseudoTerminal) {
  BenchProcess bench({"--pty"});
  InstrumentSettings settings = impatient(0);
  settings.address = {TransportKind::Serial, {}, 0, bench.place("sensor-pty"), 9600};
  Listener sensor(settings);
  ASSERT_TRUE(sensor.wait_for_values(5)) << sensor.words.toStdString();
  EXPECT_TRUE(sensor.identity.contains("quantum sensor"));
}

TEST(Instrument, FollowsATableThatGrows) {
  QTemporaryDir folder;
  BenchProcess bench({"--speed", "10", "--log", folder.filePath("log.csv")});
  InstrumentSettings settings = impatient(0);
  settings.speaks = Speaks::Stream;
  settings.address = {TransportKind::File, {}, 0, folder.filePath("log.csv"), 0};
  settings.format.column = 2;
  Listener logger(settings);
  ASSERT_TRUE(logger.wait_for_values(3)) << logger.words.toStdString();
  EXPECT_GT(logger.values.back(), 300) << "the second column, not the time";
  QFile::remove(folder.filePath("log.csv"));
  EXPECT_TRUE(logger.wait_for_state(LinkState::Lost));
}

TEST(Instrument, ATableThatIsReplacedIsReadOn) {
  QTemporaryDir folder;
  const QString path = folder.filePath("log.csv");
  const auto replace = [&](const QByteArray& text) {
    QFile file(path + ".new");
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write(text);
    file.close();
    ASSERT_EQ(std::rename(qPrintable(path + ".new"), qPrintable(path)), 0);
  };
  replace("0,410\n1,411\n");
  InstrumentSettings settings = impatient(0);
  settings.speaks = Speaks::Stream;
  settings.lost_ms = 600000;  // on a busy machine, too, it is the same line
  settings.address = {TransportKind::File, {}, 0, path, 0};
  settings.format.column = 2;
  Listener logger(settings);
  QFile grown(path);
  ASSERT_TRUE(grown.open(QIODevice::Append));
  // Until it follows the file nothing that is written there reaches it.
  ASSERT_TRUE(QTest::qWaitFor(
      [&] {
        grown.write("2,412\n"), grown.flush();
        return !logger.values.empty();
      },
      20000));
  QFile kept(path);
  ASSERT_TRUE(kept.open(QIODevice::ReadOnly));
  QByteArray whole = kept.readAll();
  logger.values.clear();
  // Of values that come too fast to be told some are left out: it goes on growing.
  ASSERT_TRUE(QTest::qWaitFor(
      [&] {
        replace(whole += "3,413\n");
        return !logger.values.empty() && logger.values.back() == 413;
      },
      20000));
  EXPECT_TRUE(std::ranges::all_of(logger.values, [](double v) { return v >= 412; })) << "what was past comes no more";
  logger.values.clear();
  QTest::qWait(200);  // whatever comes first from now is told
  replace("time,light\n9,95\n");
  EXPECT_TRUE(QTest::qWaitFor([&] { return !logger.values.empty() && logger.values.back() == 95; }, 20000))
      << "another log is read from its beginning";
}

TEST_P(SensorOver, DroppedAnswersLeaveItLiveAndSilenceMakesItStale) {
  Listener sensor(sensor_settings());
  ASSERT_TRUE(sensor.wait_for_values(2));
  bench.control("SIM:DROP 0.5");
  sensor.values.clear();
  ASSERT_TRUE(sensor.wait_for_values(10));
  bench.control("SIM:DROP 1");
  ASSERT_TRUE(sensor.wait_for_state(LinkState::Stale));
  bench.control("SIM:DROP 0");
  EXPECT_TRUE(sensor.wait_for_state(LinkState::Live));
}

TEST_P(SensorOver, WhereNobodyListenedTheValueIsOldButTheLineIsNotLost) {
  const InstrumentSettings settings = sensor_settings();
  Listener sensor(settings);
  ASSERT_TRUE(sensor.wait_for_values(2));
  sensor.states.clear();
  sensor.values.clear();
  QThread::msleep(settings.lost_ms + 300);
  ASSERT_TRUE(sensor.wait_for_values(2));
  EXPECT_EQ(sensor.state, LinkState::Live);
  for (const LinkState state : sensor.states) EXPECT_TRUE(state == LinkState::Stale || state == LinkState::Live);
}

TEST_P(SensorOver, GarbageIsNoReading) {
  Listener sensor(sensor_settings());
  ASSERT_TRUE(sensor.wait_for_values(2));
  const double usual = sensor.values.back();
  sensor.values.clear();
  bench.control("SIM:GARB 0.6");
  ASSERT_TRUE(sensor.wait_for_values(20));
  for (const double value : sensor.values) EXPECT_NEAR(value / usual, 1, 0.2);
}

TEST_P(SensorOver, AFloodOfAMegabyteDoesNotDisturb) {
  Listener sensor(sensor_settings());
  ASSERT_TRUE(sensor.wait_for_values(2));
  const double usual = sensor.values.back();
  sensor.values.clear();
  bench.control("SIM:FLOO 1000000");
  ASSERT_TRUE(sensor.wait_for_values(20));
  int odd = 0;
  for (const double value : sensor.values) odd += std::abs(value / usual - 1) > 0.2;
  EXPECT_LE(odd, 1) << "a lone digit between two line ends is all that garbage can be";
}

TEST_P(SensorOver, ADeviceThatVanishesIsLostAndFoundAgain) {
  Listener sensor(sensor_settings());
  ASSERT_TRUE(sensor.wait_for_values(2));
  bench.control("SIM:AWAY 2.5");
  ASSERT_TRUE(sensor.wait_for_state(LinkState::Lost));
  sensor.values.clear();
  ASSERT_TRUE(sensor.wait_for_state(LinkState::Live, 60000)) << sensor.words.toStdString();
  EXPECT_TRUE(sensor.wait_for_values(1));
}

TEST_P(SensorOver, AStuckSensorAndAShadowComeThroughTheLine) {
  Listener sensor(sensor_settings());
  ASSERT_TRUE(sensor.wait_for_values(3));
  const double usual = sensor.values.back();
  bench.control("SIM:SHAD 0.6,0.6");
  sensor.values.clear();
  ASSERT_TRUE(sensor.wait_for_values(5));
  EXPECT_NEAR(sensor.values.back() / usual, 0.6, 0.06);
  bench.control("SIM:STUC 1");
  ASSERT_TRUE(sensor.wait_for_values(8));
  sensor.values.clear();
  ASSERT_TRUE(sensor.wait_for_values(5));
  for (const double value : sensor.values) EXPECT_EQ(value, sensor.values[0]);
}

TEST_P(SensorOver, OffLevelAndOffCenterComeThroughTheLine) {
  Listener sensor(sensor_settings());
  QTcpSocket carriage;
  carriage.connectToHost(QHostAddress::LocalHost, bench.port("carriage"));
  ASSERT_TRUE(carriage.waitForConnected(60000));
  const auto at = [&](const QByteArray& place) {
    carriage.write("POS " + place + "\n");
    carriage.flush();
    QTest::qWait(250);
    sensor.values.clear();
    EXPECT_TRUE(sensor.wait_for_values(6));
    double sum = 0;
    for (const double value : sensor.values) sum += value;
    return sum / static_cast<double>(sensor.values.size());
  };
  bench.control("SIM:CENT 0,0");
  EXPECT_NEAR(at("0.2,0.6") / at("1.0,0.6"), 1, 0.03);
  bench.control("SIM:CENT 0.1,0");
  EXPECT_LT(at("0.2,0.6") / at("1.0,0.6"), 0.97);
  bench.control("SIM:CENT 0,0");
  const double level = at("0.6,1.15");
  bench.control("SIM:LEV 0,8");
  EXPECT_GT(std::abs(at("0.6,1.15") / level - 1), 0.02) << "nearer, but turned away";
}

TEST(Instrument, NoOneThereIsSaidAndTriedAgain) {
  Listener sensor(impatient(1));
  ASSERT_TRUE(sensor.wait_for_state(LinkState::Lost));
  EXPECT_FALSE(sensor.words.isEmpty());
  InstrumentSettings elsewhere = impatient(80);
  elsewhere.address.host = "192.0.2.1";
  Listener far_away(elsewhere);
  EXPECT_EQ(far_away.state, LinkState::Lost) << "only this machine is spoken to";
}

TEST(Simulator, ServesLoopbackAlone) {
  for (const QString& address : {QStringLiteral("0.0.0.0"), QStringLiteral("192.0.2.1"), QStringLiteral("nonsense")}) {
    QProcess process;
    process.start(SUNBREAK_BENCHSIM, {"--address", address});
    ASSERT_TRUE(process.waitForFinished(60000)) << address.toStdString();
    EXPECT_EQ(process.exitCode(), 2);
    EXPECT_TRUE(process.readAllStandardError().contains("loopback"));
  }
}
