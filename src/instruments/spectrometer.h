#pragma once

#include <QObject>
#include <QTimer>
#include <memory>

#include "core/spectrum/spectrum.h"
#include "instruments/line_buffer.h"
#include "instruments/transport.h"

namespace sunbreak::instruments {

/// Reads one spectrum from a spectrometer that is asked by commands: who it is, its unit, a measurement, and that in
/// pieces. What comes back garbled is asked for again; it gives up in words after 5 s of silence, or when the device
/// says what is no spectrum. One journey a call of take(); lives in a thread of its own, talk to it by queued calls.
class Spectrometer : public QObject {
  Q_OBJECT
 public:
  explicit Spectrometer(const TransportAddress& address);
  ~Spectrometer() override;

 public slots:
  void take();
  void stop();

 signals:
  void taken(const sunbreak::Spectrum& spectrum, const QString& identity);
  void failed(const QString& words);

 private:
  enum class Asked { Nothing, Identity, Unit, Count, Pairs };
  void ask(Asked what);
  void answered(const QByteArray& line);
  void fail(const QString& words);

  TransportAddress address_;
  std::unique_ptr<Transport> transport_;
  LineBuffer buffer_;
  QTimer silence_, again_;
  Asked asked_ = Asked::Nothing;
  QString identity_;
  Spectrum spectrum_;
  std::size_t count_ = 0;
};

}  // namespace sunbreak::instruments

Q_DECLARE_METATYPE(sunbreak::Spectrum)
