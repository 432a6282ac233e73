#pragma once

#include <gtest/gtest.h>
#include <sys/resource.h>

#include <QElapsedTimer>
#include <QProcess>
#include <QTcpSocket>
#include <QTest>
#include <map>

#include "instruments/instrument.h"

namespace sunbreak::instruments {

/// The simulated bench as a process of its own, and where its devices are.
class BenchProcess {
 public:
  /// `files`: how many files and sockets it may hold open; 0: as many as this process.
  explicit BenchProcess(const QStringList& arguments = {}, unsigned files = 0) {
    if (files > 0)
      process_.setChildProcessModifier([files] {
        const rlimit most{files, files};
        setrlimit(RLIMIT_NOFILE, &most);
      });
    process_.start(SUNBREAK_BENCHSIM, arguments);
    QByteArray says;
    while (!says.contains("ready\n") && process_.waitForReadyRead(60000)) says += process_.readAllStandardOutput();
    for (const QByteArray& line : says.split('\n'))
      if (const auto parts = line.split(' '); parts.size() == 2)
        places_[parts[0].toStdString()] = QString::fromLocal8Bit(parts[1]);
  }
  ~BenchProcess() {
    process_.kill();
    process_.waitForFinished();
  }
  bool runs() const { return !places_.empty(); }
  quint16 port(const std::string& device) const { return places_.at(device).toUShort(); }
  QString place(const std::string& device) const { return places_.at(device); }

  /// Sends a command to the bench's control and waits for its OK.
  void control(const QByteArray& command) {
    QTcpSocket socket;
    socket.connectToHost(QHostAddress::LocalHost, port("control"));
    ASSERT_TRUE(socket.waitForConnected(60000));
    socket.write(command + "\n");
    ASSERT_TRUE(socket.waitForReadyRead(60000)) << command.toStdString();
    ASSERT_EQ(socket.readAll(), "OK\n") << command.toStdString();
  }

 private:
  QProcess process_;
  std::map<std::string, QString> places_;
};

/// An instrument and what it told.
class Listener {
 public:
  explicit Listener(const InstrumentSettings& settings) : instrument(settings) {
    QObject::connect(&instrument, &Instrument::changed,
                     [this](LinkState s, const QString& w) { state = s, words = w, states.push_back(s); });
    QObject::connect(&instrument, &Instrument::measured,
                     [this](const Measurement& m) { values.push_back(m.value), last = m; });
    QObject::connect(&instrument, &Instrument::identified, [this](const QString& i) { identity = i; });
    instrument.start();
  }
  bool wait_for_state(LinkState wanted, int ms = 60000) {
    return QTest::qWaitFor([&] { return state == wanted; }, ms);
  }
  bool wait_for_values(std::size_t count, int ms = 60000) {
    return QTest::qWaitFor([&] { return values.size() >= count; }, ms);
  }

  Instrument instrument;
  LinkState state = LinkState::Off;
  QString words, identity;
  std::vector<LinkState> states;
  std::vector<double> values;
  Measurement last;
};

/// Quick to notice things, so that tests need not wait long.
inline InstrumentSettings impatient(quint16 port, Measures what = Measures::Light) {
  InstrumentSettings s;
  s.measures = what;
  s.address.port = port;
  s.poll_ms = 30;
  s.answer_ms = 250;
  s.lost_ms = 1200;
  s.longest_wait_ms = 1000;
  return s;
}

}  // namespace sunbreak::instruments
