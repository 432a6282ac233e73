#include "instruments/simulator/bench_server.h"

#include <fcntl.h>
#include <stdlib.h>
#include <termios.h>
#include <unistd.h>

#include <QSocketNotifier>
#include <QTcpServer>
#include <QTcpSocket>
#include <algorithm>
#include <utility>

namespace sunbreak::instruments {
namespace {

constexpr int longest_line = 4096, tick_ms = 20, accept_again_ms = 500;
constexpr qint64 most_waiting = 256 * 1024, most_unread = 64 * 1024;
constexpr Device devices[] = {Device::Sensor, Device::WallMeter, Device::Carriage, Device::Spectrometer,
                              Device::Control};
constexpr Device measuring[] = {Device::Sensor, Device::WallMeter, Device::Carriage, Device::Spectrometer};

}  // namespace

/// What has arrived of a line that is not whole yet.
struct BenchServer::Link {
  QByteArray pending;
  std::function<void(const QByteArray&)> write;
  int garbage_left = 0;  ///< bytes of a flood still to send, as the client takes them
};

BenchServer::BenchServer(SimulatedScene scene, const ServerOptions& options, QObject* parent)
    : QObject(parent), bench_(std::move(scene)), options_(options), speed_(options.speed) {
  bench_.switch_on(options.on);
  for (const Device device : devices)
    commands_[device] = std::make_unique<DeviceCommands>(device, bench_, faults_, speed_);
  connect(&timer_, &QTimer::timeout, this, &BenchServer::tick);
}

BenchServer::~BenchServer() {
  terminal_notifier_.reset();
  if (terminal_ >= 0) ::close(terminal_);
  if (terminal_far_ >= 0) ::close(terminal_far_);
}

QString BenchServer::start() {
  for (const Device device : devices) {
    servers_[device] = std::make_unique<QTcpServer>();
    if (!servers_[device]->listen(QHostAddress(options_.address), ports_[device]))
      return servers_[device]->errorString();
    ports_[device] = servers_[device]->serverPort();
    connect(servers_[device].get(), &QTcpServer::newConnection, this, [this, device] { serve(device); });
    // Out of file descriptors, say: a server that fails to accept stops trying.
    connect(servers_[device].get(), &QTcpServer::acceptError, this, [server = servers_[device].get()] {
      QTimer::singleShot(accept_again_ms, server, &QTcpServer::resumeAccepting);
    });
  }
  if (options_.pseudo_terminal && terminal_ < 0)
    if (const QString problem = open_terminal(); !problem.isEmpty()) return problem;
  if (!options_.log_file.isEmpty()) {
    log_.setFileName(options_.log_file);
    if (!log_.open(QIODevice::WriteOnly)) return log_.errorString();
    log_.write("time_s,ppfd,watts\n");
    log_.flush();
  }
  clock_.start();
  timer_.start(tick_ms);
  return {};
}

quint16 BenchServer::port(Device device) const { return ports_.at(device); }

QString BenchServer::open_terminal() {
  terminal_ = posix_openpt(O_RDWR | O_NOCTTY | O_NONBLOCK);
  if (terminal_ < 0 || grantpt(terminal_) != 0 || unlockpt(terminal_) != 0)
    return QStringLiteral("no pseudo-terminal can be had");
  terminal_name_ = QString::fromLocal8Bit(ptsname(terminal_));
  // The far end is held open, so that the line outlives the programs that come and go on it; raw, as a serial line is.
  terminal_far_ = ::open(terminal_name_.toLocal8Bit().constData(), O_RDWR | O_NOCTTY);
  termios settings{};
  tcgetattr(terminal_far_, &settings);
  cfmakeraw(&settings);
  tcsetattr(terminal_far_, TCSANOW, &settings);
  terminal_link_ = std::make_shared<Link>();
  terminal_link_->write = [this](const QByteArray& bytes) {
    if (::write(terminal_, bytes.constData(), static_cast<std::size_t>(bytes.size())) < 0) return;
  };
  terminal_notifier_ = std::make_unique<QSocketNotifier>(terminal_, QSocketNotifier::Read);
  connect(terminal_notifier_.get(), &QSocketNotifier::activated, this, [this] {
    char chunk[1024];
    const ssize_t n = ::read(terminal_, chunk, sizeof chunk);
    if (n > 0 && !away_) take(Device::Sensor, terminal_link_, QByteArray(chunk, static_cast<int>(n)));
  });
  return {};
}

void BenchServer::serve(Device device) {
  while (QTcpSocket* socket = servers_[device]->nextPendingConnection()) {
    auto link = std::make_shared<Link>();
    socket->setReadBufferSize(most_unread);
    link->write = [socket](const QByteArray& bytes) {
      if (!socket->isOpen()) return;
      if (socket->bytesToWrite() + bytes.size() > most_waiting) return socket->abort();
      socket->write(bytes);
    };
    connect(socket, &QTcpSocket::bytesWritten, this, [this, link = std::weak_ptr(link), socket] {
      if (const auto alive = link.lock(); alive && socket->bytesToWrite() < most_unread) send_garbage(*alive);
    });
    connect(socket, &QTcpSocket::readyRead, this,
            [this, device, link, socket] { take(device, link, socket->readAll()); });
    connect(socket, &QTcpSocket::disconnected, socket, &QObject::deleteLater);
  }
}

void BenchServer::take(Device device, const std::shared_ptr<Link>& link, QByteArray bytes) {
  link->pending += bytes;
  for (qsizetype at; (at = link->pending.indexOf('\n')) >= 0; link->pending.remove(0, at + 1)) {
    const std::string answer = commands_[device]->answer(link->pending.left(at).toStdString());
    if (answer.empty()) continue;
    const auto chance = [this] { return static_cast<double>(random_() >> 11) * 0x1p-53; };
    const bool faulty = device != Device::Control;
    if (faulty && chance() < faults_.drop_chance) continue;
    QByteArray line = QByteArray::fromStdString(answer) + "\n";
    if (faulty && chance() < faults_.garble_chance)
      for (char& c : line)
        if (c != '\n') c = static_cast<char>(random_());
    link->write(line);
    if (faulty && faults_.garbage_bytes > 0) {
      link->garbage_left = std::exchange(faults_.garbage_bytes, 0);
      send_garbage(*link);
    }
  }
  if (link->pending.size() > longest_line) link->pending.clear();
  carry_out_faults();
}

void BenchServer::send_garbage(Link& link) {
  if (link.garbage_left <= 0) return;
  QByteArray flood(static_cast<qsizetype>(std::min<qint64>(link.garbage_left, most_unread)), '\0');
  for (char& c : flood) c = static_cast<char>(random_());
  link.garbage_left -= static_cast<int>(flood.size());
  link.write(flood);
}

/// A device that vanishes takes its connections with it, and comes back on the same port.
void BenchServer::carry_out_faults() {
  if (faults_.away_s <= 0 || away_) return;
  const int away_ms = static_cast<int>(1000 * faults_.away_s);
  faults_.away_s = 0;
  away_ = true;
  // After the answer to the command that asked for it has gone out.
  QTimer::singleShot(0, this, [this, away_ms] {
    for (const Device device : measuring) {
      servers_[device]->close();
      for (QTcpSocket* socket : servers_[device]->findChildren<QTcpSocket*>()) socket->abort();
    }
    QTimer::singleShot(away_ms, this, [this] {
      away_ = false;
      for (const Device device : measuring) servers_[device]->listen(QHostAddress(options_.address), ports_[device]);
    });
  });
}

void BenchServer::tick() {
  bench_.advance(static_cast<double>(clock_.restart()) / 1000 * speed_);
  if (!log_.isOpen() || bench_.time_s() < logged_s_) return;
  logged_s_ = std::floor(bench_.time_s()) + 1;
  log_.write(QStringLiteral("%1,%2,%3\n")
                 .arg(bench_.time_s(), 0, 'f', 1)
                 .arg(bench_.sensor_reading(), 0, 'f', 1)
                 .arg(bench_.wall_reading().watts, 0, 'f', 1)
                 .toUtf8());
  log_.flush();
}

}  // namespace sunbreak::instruments
