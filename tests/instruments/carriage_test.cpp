#include "instruments/carriage.h"

#include <QTcpServer>

#include "bench_process.h"

using namespace sunbreak::instruments;

namespace {

TransportAddress at(quint16 port) {
  TransportAddress address;
  address.port = port;
  return address;
}

/// A carriage and what it told.
class CarriageTest : public ::testing::Test {
 protected:
  CarriageTest() : bench_({"--speed", "20"}), carriage_(at(bench_.port("carriage")), 10) {
    QObject::connect(&carriage_, &Carriage::changed, [this](LinkState s, const QString&) { state_ = s; });
    QObject::connect(&carriage_, &Carriage::arrived, [this](const QPointF& p) { arrived_.append(p); });
    QObject::connect(&carriage_, &Carriage::refused, [this](const QPointF& p) { refused_.append(p); });
    carriage_.start();
  }
  bool wait(const std::function<bool()>& until, int ms = 60000) { return QTest::qWaitFor(until, ms); }
  /// Where the bench itself says that the carriage stands.
  QByteArray position() {
    QTcpSocket line;
    line.connectToHost(QHostAddress::LocalHost, bench_.port("carriage"));
    EXPECT_TRUE(line.waitForConnected(60000));
    line.write("POS?\n");
    EXPECT_TRUE(line.waitForReadyRead(60000));
    return line.readAll().trimmed();
  }

  BenchProcess bench_;
  Carriage carriage_;
  LinkState state_ = LinkState::Off;
  QList<QPointF> arrived_, refused_;
};

}  // namespace

TEST_F(CarriageTest, GoesWhereItIsSentAndTellsWhenItIsThere) {
  carriage_.go({0.25, 0.85});
  ASSERT_TRUE(wait([&] { return !arrived_.isEmpty(); }));
  EXPECT_EQ(position(), "0.2500,0.8500");
  carriage_.go({1.05, 0.15});
  ASSERT_TRUE(wait([&] { return arrived_.size() == 2; }));
  EXPECT_EQ(arrived_[1], QPointF(1.05, 0.15));
  EXPECT_EQ(position(), "1.0500,0.1500");
}

TEST_F(CarriageTest, APlaceBeyondItsReachIsRefused) {
  carriage_.go({0.005, 0.5});
  ASSERT_TRUE(wait([&] { return !refused_.isEmpty(); }));
  EXPECT_TRUE(arrived_.isEmpty());
  carriage_.go({0.1, 0.5});
  EXPECT_TRUE(wait([&] { return !arrived_.isEmpty(); })) << "and it goes on working";
}

TEST_F(CarriageTest, ANewPlaceTakesTheFirstOnesPlace) {
  bench_.control("SIM:SPE 1");
  carriage_.go({1.1, 1.1});
  carriage_.go({0.6, 0.65});
  ASSERT_TRUE(wait([&] { return !arrived_.isEmpty(); }));
  EXPECT_EQ(arrived_[0], QPointF(0.6, 0.65));
}

TEST(Carriage, ALateAnswerOfWhereItStoodIsNoRefusal) {
  QTcpServer server;
  ASSERT_TRUE(server.listen(QHostAddress::LocalHost));
  QTcpSocket* line = nullptr;
  QByteArray place, withheld;
  int positions = 0;
  QObject::connect(&server, &QTcpServer::newConnection, [&] {
    line = server.nextPendingConnection();
    QObject::connect(line, &QTcpSocket::readyRead, [&] {
      for (const QByteArray& command : line->readAll().split('\n')) {
        if (command.startsWith("POS ")) place = command.mid(4);
        if (command == "MOV?") line->write("0\n");
        if (command == "SYST:ERR?") line->write(std::exchange(withheld, {}) + "0,\"No error\"\n");
        if (command == "POS?" && ++positions == 1)
          withheld = place + "\n";
        else if (command == "POS?")
          line->write(place + "\n");
      }
    });
  });
  Carriage carriage(at(server.serverPort()), 10);
  QList<QPointF> arrived, refused;
  QObject::connect(&carriage, &Carriage::arrived, [&](const QPointF& p) { arrived.append(p); });
  QObject::connect(&carriage, &Carriage::refused, [&](const QPointF& p) { refused.append(p); });
  carriage.start();
  carriage.go({0.25, 0.85});
  ASSERT_TRUE(QTest::qWaitFor([&] { return positions == 1; }, 60000));
  carriage.go({0.65, 0.45});
  EXPECT_TRUE(QTest::qWaitFor([&] { return !arrived.isEmpty(); }, 60000));
  EXPECT_EQ(arrived, QList<QPointF>{QPointF(0.65, 0.45)});
  EXPECT_TRUE(refused.isEmpty());
}

TEST_F(CarriageTest, AJourneyIsBegunAgainAfterTheLineBroke) {
  ASSERT_TRUE(wait([&] { return state_ == LinkState::Live; }));
  bench_.control("SIM:AWAY 1.5");
  ASSERT_TRUE(wait([&] { return state_ == LinkState::Lost; }));
  carriage_.go({0.35, 0.35});
  EXPECT_TRUE(arrived_.isEmpty());
  ASSERT_TRUE(wait([&] { return !arrived_.isEmpty(); }));
  EXPECT_EQ(position(), "0.3500,0.3500");
}

TEST_F(CarriageTest, LostAndGarbledAnswersDoNotLoseTheWay) {
  ASSERT_TRUE(wait([&] { return state_ == LinkState::Live; }));
  bench_.control("SIM:DROP 0.3");
  bench_.control("SIM:GARB 0.3");
  for (int i = 0; i < 3; ++i) {
    carriage_.go({0.2 + 0.2 * i, 0.4});
    ASSERT_TRUE(wait([&] { return arrived_.size() == i + 1; }, 30000)) << i;
  }
}

TEST_F(CarriageTest, TheBenchTiltsTheSensorOnlyWhereItWasTold) {
  QTcpSocket line;
  line.connectToHost(QHostAddress::LocalHost, bench_.port("sensor"));
  ASSERT_TRUE(line.waitForConnected(60000));
  const auto reading = [&] {
    line.write("MEAS:PPFD?\n");
    EXPECT_TRUE(line.waitForReadyRead(60000));
    return line.readAll().trimmed().toDouble();
  };
  bench_.control("SIM:TILC 0");
  carriage_.go({0.05, 0.55});
  ASSERT_TRUE(wait([&] { return !arrived_.isEmpty(); }));
  const double level = reading();
  bench_.control("SIM:TILT 0.05,0.55,-40");
  EXPECT_LT(reading(), 0.9 * level) << "turned to the near wall, away from the light";
  bench_.control("SIM:TILT");
  EXPECT_NEAR(reading(), level, 0.05 * level);
}
