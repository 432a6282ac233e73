#pragma once

#include <QObject>
#include <QPointF>
#include <QTimer>
#include <memory>
#include <optional>

#include "instruments/instrument.h"
#include "instruments/line_buffer.h"
#include "instruments/silence.h"

namespace sunbreak::instruments {

/// A motorized carriage that brings the sensor to a place of the floor: asked by commands over one line, which is
/// opened anew when it breaks (½ s doubling to 15 s); a journey that was under way is begun again. Lives in a thread of
/// its own; talk to it by queued calls.
class Carriage : public QObject {
  Q_OBJECT
 public:
  explicit Carriage(const TransportAddress& address, int poll_ms = 100);
  ~Carriage() override;

 public slots:
  void start();
  void stop();
  /// Sends the sensor to a place [m from the front left]. A new call takes the place of the one under way.
  void go(const QPointF& place_m);

 signals:
  void changed(sunbreak::instruments::LinkState state, const QString& words);
  /// Stands still where it was sent.
  void arrived(const QPointF& place_m);
  /// It cannot get there; it stays where it is.
  void refused(const QPointF& place_m);

 private:
  enum class Asked { Nothing, Error, Moving, Position };
  void attempt();
  void on_closed(const QString& why);
  void take(const QByteArray& line);
  void ask(Asked what);
  void look();
  void set_state(LinkState state, const QString& words);

  TransportAddress address_;
  int poll_ms_;
  std::unique_ptr<Transport> transport_;
  LineBuffer buffer_;
  QTimer poll_, retry_;
  Silence silence_;
  LinkState state_ = LinkState::Off;
  Asked asked_ = Asked::Nothing;
  std::optional<QPointF> target_m_;
  int wait_ms_ = 0;
};

}  // namespace sunbreak::instruments
