#include <arpa/inet.h>
#include <netinet/in.h>
#include <sys/socket.h>
#include <unistd.h>

#include <QTcpServer>

#include "bench_process.h"

using namespace sunbreak::instruments;

namespace {

/// A client of a port on this machine that keeps what comes waiting in a small buffer.
int raw_client(quint16 port) {
  const int client = socket(AF_INET, SOCK_STREAM | SOCK_CLOEXEC, 0);
  const int small = 4096;
  setsockopt(client, SOL_SOCKET, SO_RCVBUF, &small, sizeof small);
  sockaddr_in where{};
  where.sin_family = AF_INET;
  where.sin_port = htons(port);
  where.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
  EXPECT_EQ(connect(client, reinterpret_cast<const sockaddr*>(&where), sizeof where), 0);
  return client;
}

QByteArray answer_to(quint16 port, const QByteArray& command, int wait_ms) {
  QTcpSocket socket;
  socket.connectToHost(QHostAddress::LocalHost, port);
  if (!socket.waitForConnected(60000)) return {};
  socket.write(command);
  return socket.waitForReadyRead(wait_ms) ? socket.readAll() : QByteArray();
}

}  // namespace

TEST(Flood, AClientThatNeverReadsIsLetGo) {
  const BenchProcess bench;
  const int client = raw_client(bench.port("sensor"));
  QByteArray questions;
  while (questions.size() < 16 * 1024) questions += "*IDN?\n";
  bool let_go = false;
  qint64 asked = 0;
  QElapsedTimer clock;
  for (clock.start(); !let_go && clock.elapsed() < 20'000;) {
    const ssize_t sent =
        send(client, questions.constData(), static_cast<std::size_t>(questions.size()), MSG_NOSIGNAL | MSG_DONTWAIT);
    if (sent > 0) asked += sent;
    let_go = sent < 0 && (errno == ECONNRESET || errno == EPIPE);
    if (sent < 0 && !let_go) QTest::qSleep(5);
  }
  close(client);
  EXPECT_TRUE(let_go) << asked << " bytes of questions taken";
  EXPECT_LT(asked, 8 << 20);
  EXPECT_TRUE(answer_to(bench.port("sensor"), "*IDN?\n", 2000).contains("quantum sensor")) << "others go on";
}

TEST(Flood, OutOfFilesTheBenchServesAgainOnceThereAreSome) {
  constexpr unsigned files = 48;
  const BenchProcess bench({}, files);
  ASSERT_TRUE(bench.runs());
  std::vector<int> clients;
  for (unsigned i = 0; i < files + 10; ++i) clients.push_back(raw_client(bench.port("sensor")));
  EXPECT_TRUE(answer_to(bench.port("sensor"), "*IDN?\n", 300).isEmpty()) << "the bench had files left: no test of this";
  for (const int client : clients) close(client);
  EXPECT_TRUE(QTest::qWaitFor(
      [&] { return answer_to(bench.port("sensor"), "*IDN?\n", 500).contains("quantum sensor"); }, 60000));
}

TEST(Flood, LinesWithoutEndAreToldFiftyASecondAtMost) {
  QTcpServer device;
  ASSERT_TRUE(device.listen(QHostAddress::LocalHost));
  qint64 lines = 0;
  QTimer feed;
  QTcpSocket* out = nullptr;
  QObject::connect(&device, &QTcpServer::newConnection, [&] { out = device.nextPendingConnection(), feed.start(0); });
  QObject::connect(&feed, &QTimer::timeout, [&] {
    for (; out->bytesToWrite() < 32 * 1024; ++lines) out->write("512.5\n");
  });
  InstrumentSettings settings = impatient(device.serverPort());
  settings.speaks = Speaks::Stream;
  Listener sensor(settings);
  int heard = 0;
  QObject::connect(&sensor.instrument, &Instrument::heard, [&] { ++heard; });
  ASSERT_TRUE(sensor.wait_for_values(1));
  const auto before = sensor.values.size();
  QElapsedTimer clock;
  clock.start();
  QTest::qWait(1000);
  const double s = static_cast<double>(clock.elapsed()) / 1000;
  const double told = static_cast<double>(sensor.values.size() - before);
  EXPECT_GT(lines, 5000);
  EXPECT_LE(told, 50 * s + 2);
  EXPECT_GE(told, 10 * s) << "and the latest value stays live";
  EXPECT_LE(heard, 50 * s + 4);
  EXPECT_EQ(sensor.state, LinkState::Live);
}

TEST(Address, IsAPortOrAnAddressOfThisMachine) {
  EXPECT_EQ(tcp_address(" 5025 ")->port, 5025);
  EXPECT_EQ(tcp_address("5025")->host, "127.0.0.1");
  EXPECT_EQ(tcp_address("[::1]:5025")->host, "::1");
  EXPECT_EQ(tcp_address("localhost:5025")->host, "localhost");
  for (const char* other :
       {"", "0", "70000", "-1", "::1", "192.168.0.7:5025", "device.example:5025", "[::1]", "127.0.0.1:"})
    EXPECT_FALSE(tcp_address(other).has_value()) << other;
  for (const char* text : {"5025", "[::1]:5025", "localhost:5025"})
    EXPECT_EQ(tcp_words(*tcp_address(text)), QString(text));
}

TEST(Address, TheOtherLoopbackIsServedAndSpokenTo) {
  if (!QTcpServer().listen(QHostAddress::LocalHostIPv6)) GTEST_SKIP() << "this machine has no ::1";
  const BenchProcess bench({"--address", "::1"});
  ASSERT_TRUE(bench.runs());
  InstrumentSettings settings = impatient(bench.port("sensor"));
  settings.address.host = "::1";
  Listener sensor(settings);
  EXPECT_TRUE(sensor.wait_for_values(2)) << sensor.words.toStdString();
}
