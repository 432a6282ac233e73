#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>
#include <memory>

#include "instruments/line_buffer.h"
#include "instruments/line_format.h"
#include "instruments/silence.h"
#include "instruments/transport.h"

namespace sunbreak::instruments {

enum class Measures { Light, Power };
/// How a device is talked to: asked by commands, or listened to while it streams.
enum class Speaks { Commands, Stream };

struct InstrumentSettings {
  QString name;
  Measures measures = Measures::Light;
  Speaks speaks = Speaks::Commands;
  TransportAddress address;
  LineFormat format;  ///< of a stream
  int poll_ms = 250;
  int answer_ms = 1000;         ///< without an answer for so long, the value is stale
  int lost_ms = 4000;           ///< and for so long, the line is opened anew
  int longest_wait_ms = 15000;  ///< between two attempts
  bool operator==(const InstrumentSettings&) const = default;
};

enum class LinkState { Off, Connecting, Live, Stale, Lost };

/// A value as it came. `value` is PPFD [raw µmol m⁻² s⁻¹] or power [W].
struct Measurement {
  double value = 0;
  WallValues wall;   ///< of a wall meter asked by commands
  qint64 at_ms = 0;  ///< since the epoch, UTC
};

/// One device and the line to it: asks, listens, notices silence, tries again with growing waits (½ s doubling to 15
/// s). Lives in a thread of its own; talk to it by queued calls. A line that is no value is ignored; of a device that
/// sends more than fifty lines a second the first of each 20 ms is told, so that no flood can fill the queue of who
/// listens.
class Instrument : public QObject {
  Q_OBJECT
 public:
  explicit Instrument(const InstrumentSettings& settings);
  ~Instrument() override;

 public slots:
  void start();
  void stop();

 signals:
  void changed(sunbreak::instruments::LinkState state, const QString& words);
  void measured(const sunbreak::instruments::Measurement& measurement);
  void identified(const QString& identity);
  /// A line as it came, for the preview of a stream.
  void heard(const QString& line);

 private:
  void attempt();
  void on_open();
  void on_closed(const QString& why);
  void on_bytes(const QByteArray& bytes);
  void take(const QByteArray& line);
  void look_at_the_clock();
  static bool due(QElapsedTimer& since);
  void set_state(LinkState state, const QString& words);

  InstrumentSettings settings_;
  std::unique_ptr<Transport> transport_;
  LineBuffer buffer_;
  QTimer poll_, watch_, retry_;
  Silence silence_;
  QElapsedTimer since_heard_, since_told_;
  LinkState state_ = LinkState::Off;
  int wait_ms_ = 0;
  bool identity_known_ = false;
};

}  // namespace sunbreak::instruments

Q_DECLARE_METATYPE(sunbreak::instruments::Measurement)
