#pragma once

#include <QObject>
#include <memory>
#include <optional>

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

/// Where a text says that a device listens: a port of 127.0.0.1 ("5025"), or an address of this machine with a port
/// ("[::1]:5025", "localhost:5025"). Nothing where it is neither.
std::optional<TransportAddress> tcp_address(const QString& text);
/// The text that names it, the shortest.
QString tcp_words(const TransportAddress& address);

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

/// Only loopback addresses are spoken to over TCP, of both kinds. At most 64 KiB wait on either side of a line.
std::unique_ptr<Transport> make_transport(const TransportAddress& address);

}  // namespace sunbreak::instruments
