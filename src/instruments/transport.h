#pragma once

#include <QObject>
#include <memory>

namespace sunbreak::instruments {

enum class TransportKind { Tcp, Serial, File };

/// Where a device is: a port on this machine, a serial line, or a table that another program keeps writing.
struct TransportAddress {
  TransportKind kind = TransportKind::Tcp;
  QString host = QStringLiteral("127.0.0.1");
  quint16 port = 0;
  QString path;  ///< serial line or file
  int baud = 9600;

  bool operator==(const TransportAddress&) const = default;
};

/// Bytes to and from a device. Lives in one thread; close() is silent, any other end is told by closed().
class Transport : public QObject {
  Q_OBJECT
 public:
  using QObject::QObject;
  virtual void open() = 0;
  virtual void close() = 0;
  virtual void write(const QByteArray& bytes) = 0;
  virtual bool can_write() const { return true; }

 signals:
  void opened();
  void closed(const QString& why);
  void received(const QByteArray& bytes);
};

/// Only loopback addresses are spoken to over TCP.
std::unique_ptr<Transport> make_transport(const TransportAddress& address);

}  // namespace sunbreak::instruments
