#include <unistd.h>
#include <QCommandLineParser>
#include <QCoreApplication>
#include <QHostAddress>
#include <QSocketNotifier>
#include <cstdio>

#include "instruments/simulator/bench_server.h"

using namespace sunbreak::instruments;

/// Starts the simulated bench and says on stdout where its devices are, one a line, then "ready".
int main(int argc, char** argv) {
  QCoreApplication app(argc, argv);
  QCoreApplication::setApplicationName("sunbreak-benchsim");
  QCommandLineParser parser;
  parser.setApplicationDescription(
      "A bench with quantum sensor, wall meter, spectrometer and carriage that behaves like a real one, faults "
      "included");
  parser.addHelpOption();
  const QCommandLineOption address("address", "Address to listen on; only loopback ones are served.", "ADDRESS",
                                   "127.0.0.1");
  const QCommandLineOption speed("speed", "Simulated seconds a second.", "FACTOR", "1");
  const QCommandLineOption terminal("pty", "Put the sensor on a pseudo-terminal too.");
  const QCommandLineOption log("log", "Write the sensor and the watts to FILE once a simulated second.", "FILE");
  const QCommandLineOption with_parent("with-parent", "Stop when the standard input closes.");
  const QCommandLineOption off("off", "Start with the fixture switched off.");
  parser.addOptions({address, speed, terminal, log, off, with_parent});
  parser.process(app);

  if (!QHostAddress(parser.value(address)).isLoopback()) {
    std::fprintf(stderr,
                 "%s is not a loopback address; the simulated bench serves this machine alone, so that no one else can "
                 "reach it. Use 127.0.0.1.\n",
                 qPrintable(parser.value(address)));
    return 2;
  }
  bool is_number = false;
  ServerOptions options{parser.value(address), parser.isSet(terminal), parser.value(log),
                        parser.value(speed).toDouble(&is_number), !parser.isSet(off)};
  if (!is_number || options.speed < 0) {
    std::fprintf(stderr, "--speed %s is no factor; give a number such as 60.\n", qPrintable(parser.value(speed)));
    return 2;
  }
  BenchServer server(SimulatedScene::six_bars(), options);
  if (const QString problem = server.start(); !problem.isEmpty()) {
    std::fprintf(stderr, "The simulated bench cannot start (%s); check that the loopback interface is up.\n",
                 qPrintable(problem));
    return 3;
  }
  // Whoever started it may die without a word; its end of the pipe closes then.
  std::unique_ptr<QSocketNotifier> parent;
  if (parser.isSet(with_parent)) {
    parent = std::make_unique<QSocketNotifier>(STDIN_FILENO, QSocketNotifier::Read);
    QObject::connect(parent.get(), &QSocketNotifier::activated, &app, [&app] {
      char bytes[256];
      if (read(STDIN_FILENO, bytes, sizeof bytes) <= 0) app.quit();
    });
  }
  std::printf("sensor %u\nmeter %u\ncarriage %u\nspectrometer %u\ncontrol %u\n", server.port(Device::Sensor),
              server.port(Device::WallMeter), server.port(Device::Carriage), server.port(Device::Spectrometer),
              server.port(Device::Control));
  if (options.pseudo_terminal) std::printf("sensor-pty %s\n", qPrintable(server.pseudo_terminal()));
  std::printf("ready\n");
  std::fflush(stdout);
  return QCoreApplication::exec();
}
