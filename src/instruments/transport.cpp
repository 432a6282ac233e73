#include "instruments/transport.h"

#include <sys/stat.h>
#include <QFile>
#include <QFileInfo>
#include <QHostAddress>
#include <QSerialPort>
#include <QTcpSocket>
#include <QTimer>
#include <QUrl>

namespace sunbreak::instruments {
namespace {

/// What may wait to be read or to be taken by the device. Beyond it a sender is held up, and nothing more is written.
constexpr qint64 line_buffer_bytes = 64 * 1024;

class TcpTransport : public Transport {
 public:
  explicit TcpTransport(const TransportAddress& address) : address_(address) {
    socket_.setReadBufferSize(line_buffer_bytes);
    connect(&socket_, &QTcpSocket::connected, this, &Transport::opened);
    connect(&socket_, &QTcpSocket::readyRead, this, [this] { emit received(socket_.readAll()); });
    connect(&socket_, &QTcpSocket::errorOccurred, this, [this] {
      const QString why = socket_.errorString();
      socket_.abort();
      emit closed(why);
    });
  }
  void open() override {
    socket_.abort();
    const QHostAddress host =
        address_.host == "localhost" ? QHostAddress(QHostAddress::LocalHost) : QHostAddress(address_.host);
    if (!host.isLoopback()) return emit closed(tr("%1 is not an address of this machine").arg(address_.host));
    socket_.connectToHost(host, address_.port);
  }
  void close() override {
    const QSignalBlocker quiet(&socket_);
    socket_.abort();
  }
  void write(const QByteArray& bytes) override {
    if (socket_.bytesToWrite() < line_buffer_bytes) socket_.write(bytes);
  }

 private:
  TransportAddress address_;
  QTcpSocket socket_;
};

class SerialTransport : public Transport {
 public:
  explicit SerialTransport(const TransportAddress& address) {
    port_.setPortName(address.path);
    port_.setBaudRate(address.baud);
    port_.setReadBufferSize(line_buffer_bytes);
    connect(&port_, &QSerialPort::readyRead, this, [this] { emit received(port_.readAll()); });
    connect(&port_, &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError error) {
      if (error == QSerialPort::NoError || error == QSerialPort::TimeoutError || !port_.isOpen()) return;
      const QString why = port_.errorString();
      close();
      emit closed(why);
    });
  }
  void open() override {
    close();
    if (port_.open(QIODevice::ReadWrite))
      emit opened();
    else
      emit closed(port_.errorString());
  }
  void close() override {
    const QSignalBlocker quiet(&port_);
    if (port_.isOpen()) port_.close();
  }
  void write(const QByteArray& bytes) override {
    if (port_.bytesToWrite() < line_buffer_bytes) port_.write(bytes);
  }

 private:
  QSerialPort port_;
};

/// Follows a file that grows. What stands in it already is past; a file that shrinks or is replaced is read anew, but
/// for what the one before ended with: a log that is written whole each time and put in its place goes on.
class FileTransport : public Transport {
 public:
  explicit FileTransport(const TransportAddress& address) : path_(address.path) {
    timer_.setInterval(200);
    connect(&timer_, &QTimer::timeout, this, &FileTransport::look);
  }
  void open() override {
    close();
    file_.setFileName(path_);
    if (!file_.open(QIODevice::ReadOnly)) return emit closed(file_.errorString());
    file_.seek(std::max<qint64>(0, file_.size() - tail_bytes));
    tail_ = file_.readAll();
    timer_.start();
    emit opened();
  }
  void close() override {
    timer_.stop();
    file_.close();
  }
  void write(const QByteArray&) override {}
  bool can_write() const override { return false; }

 private:
  void look() {
    if (!QFileInfo::exists(path_)) {
      close();
      return emit closed(tr("the file is gone"));
    }
    take();
    if (replaced() || file_.size() < file_.pos()) {
      const qint64 end = file_.pos();
      file_.close();
      if (!file_.open(QIODevice::ReadOnly)) return emit closed(file_.errorString());
      file_.seek(end - tail_.size());
      if (file_.size() < end || file_.read(tail_.size()) != tail_) file_.seek(0);
      take();
    }
  }
  void take() {
    const QByteArray bytes = file_.read(1 << 20);
    if (bytes.isEmpty()) return;
    tail_ = (tail_ + bytes).right(tail_bytes);
    emit received(bytes);
  }
  /// Whether another file stands at the path now than the one that is open.
  bool replaced() const {
    struct stat there = {};
    struct stat open = {};
    return ::stat(QFile::encodeName(path_).constData(), &there) == 0 && ::fstat(file_.handle(), &open) == 0 &&
           (there.st_ino != open.st_ino || there.st_dev != open.st_dev);
  }

  static constexpr qint64 tail_bytes = 4096;
  QByteArray tail_;  ///< what was read last
  QString path_;
  QFile file_;
  QTimer timer_;
};

}  // namespace

std::optional<TransportAddress> tcp_address(const QString& text) {
  TransportAddress address;
  bool is_port = false;
  if (const quint16 port = text.trimmed().toUShort(&is_port); is_port) {
    address.port = port;
    return port > 0 ? std::optional(address) : std::nullopt;
  }
  const QUrl url("tcp://" + text.trimmed(), QUrl::StrictMode);
  if (!url.isValid() || url.host().isEmpty() || url.port() <= 0 || !url.path().isEmpty()) return {};
  if (url.host() != "localhost" && !QHostAddress(url.host()).isLoopback()) return {};
  address.host = url.host();
  address.port = static_cast<quint16>(url.port());
  return address;
}

QString tcp_words(const TransportAddress& address) {
  const QString port = QString::number(address.port);
  if (address.host == TransportAddress().host) return port;
  return (address.host.contains(':') ? QStringLiteral("[%1]:%2") : QStringLiteral("%1:%2")).arg(address.host, port);
}

std::unique_ptr<Transport> make_transport(const TransportAddress& address) {
  switch (address.kind) {
    case TransportKind::Tcp:
      return std::make_unique<TcpTransport>(address);
    case TransportKind::Serial:
      return std::make_unique<SerialTransport>(address);
    case TransportKind::File:
      return std::make_unique<FileTransport>(address);
  }
  return nullptr;
}

}  // namespace sunbreak::instruments
