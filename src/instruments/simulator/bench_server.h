#pragma once

#include <QElapsedTimer>
#include <QFile>
#include <QObject>
#include <QTimer>
#include <map>
#include <memory>

#include "instruments/simulator/device_commands.h"

class QSocketNotifier;
class QTcpServer;

namespace sunbreak::instruments {

struct ServerOptions {
  QString address = QStringLiteral("127.0.0.1");  ///< to listen on
  bool pseudo_terminal = false;                   ///< the sensor on a pseudo-terminal too
  QString log_file;                               ///< the sensor and the watts as a growing table
  double speed = 1;                               ///< simulated seconds a second
  bool on = true;
};

/// Serves a simulated bench over text lines: each device on a TCP port of its own on the loopback interface, the sensor
/// on a pseudo-terminal if wanted, and a table that grows once a simulated second. Carries the line's faults out. A
/// client that does not read is let go once 256 KiB wait for it; when no more can be accepted, it tries again.
class BenchServer : public QObject {
  Q_OBJECT
 public:
  BenchServer(SimulatedScene scene, const ServerOptions& options, QObject* parent = nullptr);
  ~BenchServer() override;

  /// Starts to listen. Returns what cannot be had, or an empty text.
  QString start();
  quint16 port(Device device) const;
  QString pseudo_terminal() const { return terminal_name_; }

 private:
  struct Link;
  void serve(Device device);
  void take(Device device, const std::shared_ptr<Link>& link, QByteArray bytes);
  void send_garbage(Link& link);
  void tick();
  void carry_out_faults();
  QString open_terminal();

  SimulatedBench bench_;
  ServerOptions options_;
  LineFaults faults_;
  double speed_ = 1, logged_s_ = 0;
  std::map<Device, std::unique_ptr<QTcpServer>> servers_;
  std::map<Device, quint16> ports_;
  std::map<Device, std::unique_ptr<DeviceCommands>> commands_;
  std::mt19937_64 random_{7};
  QTimer timer_;
  QElapsedTimer clock_;
  QFile log_;
  int terminal_ = -1, terminal_far_ = -1;
  QString terminal_name_;
  std::unique_ptr<QSocketNotifier> terminal_notifier_;
  std::shared_ptr<Link> terminal_link_;
  bool away_ = false;
};

}  // namespace sunbreak::instruments
