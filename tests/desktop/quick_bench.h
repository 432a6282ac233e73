#pragma once

#include <QTest>

#include "desktop/instruments/instrument_hub.h"
#include "desktop/walk/live_taker.h"

namespace sunbreak::desktop {

/// Hands-free reading at the pace of a test: a hold of a twentieth of a second.
inline void be_quick() { set_hold_rule({0.02, 0.05, 3}); }

/// Connects the sensor of a simulated bench that runs already, in place of what was connected before. It counts as
/// silent when its line is closed: no computer is so slow.
inline void connect_sensor(InstrumentHub& hub, quint16 port, int poll_ms) {
  instruments::InstrumentSettings sensor;
  sensor.address.port = port;
  sensor.poll_ms = poll_ms;
  sensor.answer_ms = sensor.lost_ms = 60000;
  sensor.longest_wait_ms = 500;
  hub.connect_to(sensor);
}

/// Connects sensor and carriage, both asked often.
inline void connect_quickly(InstrumentHub& hub, quint16 sensor_port, quint16 carriage_port) {
  connect_sensor(hub, sensor_port, 15);
  instruments::TransportAddress carriage;
  carriage.port = carriage_port;
  hub.connect_carriage(carriage, 10);
}

inline bool both_live(InstrumentHub& hub) {
  return QTest::qWaitFor(
      [&] {
        return hub.channel(instruments::Measures::Light).live() &&
               !hub.channel(instruments::Measures::Light).identity.isEmpty() &&
               hub.carriage_state() == instruments::LinkState::Live;
      },
      60000);
}

}  // namespace sunbreak::desktop
