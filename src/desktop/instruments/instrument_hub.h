#pragma once

#include <QObject>
#include <QProcess>
#include <QThread>
#include <array>
#include <optional>

#include "instruments/carriage.h"
#include "instruments/instrument.h"
#include "instruments/spectrometer.h"

namespace sunbreak::desktop {

/// What is known of one device at this moment.
struct Channel {
  instruments::InstrumentSettings settings;
  instruments::LinkState state = instruments::LinkState::Off;
  QString words, identity;
  std::optional<instruments::Measurement> last;
  QStringList heard;  ///< the latest lines as they came

  /// The value, if it is of now and can be; never an old one.
  std::optional<double> live() const;
  /// Whether what it shows can be no light and no power: the wrong column, a unit, a sensor that is broken.
  bool impossible() const;
};

/// The instruments of this window: a light sensor and a wall meter, each on the other thread, and the simulated bench
/// as a process of its own where one was started.
class InstrumentHub : public QObject {
  Q_OBJECT
 public:
  explicit InstrumentHub(QObject* parent = nullptr);
  ~InstrumentHub() override;

  const Channel& channel(instruments::Measures what) const { return channels_[static_cast<int>(what)]; }
  void connect_to(const instruments::InstrumentSettings& settings);
  void disconnect_from(instruments::Measures what);

  /// The carriage that brings the sensor to a station, where there is one.
  void connect_carriage(const instruments::TransportAddress& address, int poll_ms = 100);
  void disconnect_carriage();
  instruments::LinkState carriage_state() const { return carriage_state_; }
  const QString& carriage_words() const { return carriage_words_; }
  void send_carriage(const QPointF& place_m);

  /// Where the spectrometer is, as its address is written; empty where none is named.
  QString spectrometer() const;
  /// A port of this machine, or the path of a serial line. False, and nothing changed, where it is neither.
  bool set_spectrometer(const QString& where);
  /// Asks it for one spectrum; spectrum_taken() or spectrum_failed() follows.
  void read_spectrum();

  /// Starts the simulated bench and connects to its sensor and meter once it says where they are.
  void start_simulated_bench();
  void stop_simulated_bench();
  bool simulated() const { return simulator_.state() != QProcess::NotRunning; }
  /// Whether what a device shows is computed: it is of this simulated bench, or says that it is of another.
  bool computed(instruments::Measures what) const {
    return simulated() || channel(what).identity.contains("simulated");
  }
  /// Hangs the simulated fixture at a height and sets its dimmer, as a tester's hands would.
  void hang_simulated(double height_m, double dimmer_pct);
  /// Switches the simulated fixture, on from cold.
  void switch_simulated(bool on);
  /// How many times real time the simulated bench runs; 1 without one.
  double simulated_speed() const;
  quint16 simulator_control_port() const { return control_port_; }

 signals:
  void changed();
  void measured(sunbreak::instruments::Measures what, const sunbreak::instruments::Measurement& measurement);
  void spectrum_taken(const sunbreak::Spectrum& spectrum, const QString& identity);
  void spectrum_failed(const QString& words);
  void carriage_arrived(const QPointF& place_m);
  void carriage_refused(const QPointF& place_m);
  void said(const QString& words, bool bad);

 private:
  void read_ports();
  void drop_spectrometer();
  void command_simulator(const QByteArray& lines);

  QThread thread_;
  std::array<Channel, 2> channels_;
  std::array<instruments::Instrument*, 2> instruments_{};
  instruments::Spectrometer* spectrometer_ = nullptr;
  std::optional<quint16> simulated_spectrometer_;
  instruments::Carriage* carriage_ = nullptr;
  instruments::LinkState carriage_state_ = instruments::LinkState::Off;
  QString carriage_words_;
  quint16 control_port_ = 0;
  QProcess simulator_;
  QByteArray simulator_says_;
};

}  // namespace sunbreak::desktop
