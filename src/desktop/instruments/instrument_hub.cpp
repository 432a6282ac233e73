#include "desktop/instruments/instrument_hub.h"

#include <QCoreApplication>
#include <QHostAddress>
#include <QRegularExpression>
#include <QSettings>
#include <QTcpSocket>
#include <algorithm>

#include "core/limits/light_limits.h"
#include "core/visible.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

using instruments::Instrument;
using instruments::InstrumentSettings;
using instruments::LinkState;
using instruments::Measurement;
using instruments::Measures;

namespace {

constexpr int lines_kept = 6;
constexpr double simulator_speed = 10;
constexpr int spectrometer_baud = 115200;

QString group_of(Measures what) {
  return what == Measures::Light ? QStringLiteral("instruments/light/") : QStringLiteral("instruments/power/");
}

void remember(const InstrumentSettings& s) {
  QSettings kept;
  const QString group = group_of(s.measures);
  kept.setValue(group + "name", s.name);
  kept.setValue(group + "kind", static_cast<int>(s.address.kind));
  kept.setValue(group + "host", s.address.host);
  kept.setValue(group + "port", s.address.port);
  kept.setValue(group + "path", s.address.path);
  kept.setValue(group + "baud", s.address.baud);
  kept.setValue(group + "speaks", static_cast<int>(s.speaks));
  kept.setValue(group + "separator", static_cast<int>(s.format.separator));
  kept.setValue(group + "column", s.format.column);
  kept.setValue(group + "factor", s.format.factor);
}

InstrumentSettings remembered(Measures what) {
  InstrumentSettings s;
  s.measures = what;
  const QSettings kept;
  const QString group = group_of(what);
  s.name = kept.value(group + "name").toString();
  s.address.kind = static_cast<instruments::TransportKind>(std::clamp(kept.value(group + "kind", 0).toInt(), 0, 2));
  s.address.host = kept.value(group + "host", s.address.host).toString();
  s.address.port = static_cast<quint16>(kept.value(group + "port", 0).toUInt());
  s.address.path = kept.value(group + "path").toString();
  s.address.baud = kept.value(group + "baud", s.address.baud).toInt();
  s.speaks = kept.value(group + "speaks", 0).toInt() == 1 ? instruments::Speaks::Stream : instruments::Speaks::Commands;
  s.format.separator = static_cast<char>(kept.value(group + "separator", ',').toInt());
  s.format.column = std::max(1, kept.value(group + "column", 1).toInt());
  s.format.factor = kept.value(group + "factor", 1.0).toDouble();
  return s;
}

}  // namespace

std::optional<double> Channel::live() const {
  return state == LinkState::Live && last && !impossible() ? std::optional(last->value) : std::nullopt;
}

bool Channel::impossible() const {
  if (!last) return false;
  const bool light = settings.measures == Measures::Light;
  return last->value < (light ? least_live : least_power_w) || last->value > (light ? most_ppfd : most_power_w);
}

InstrumentHub::InstrumentHub(QObject* parent) : QObject(parent) {
  for (const Measures what : {Measures::Light, Measures::Power})
    channels_[static_cast<int>(what)].settings = remembered(what);
  for (Channel& c : channels_) c.words = tr("not connected");
  thread_.setObjectName("instruments");
  thread_.start();
  connect(&simulator_, &QProcess::readyReadStandardOutput, this, &InstrumentHub::read_ports);
  connect(&simulator_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError error) {
    if (error == QProcess::FailedToStart)
      emit said(tr("The simulated bench could not be started: %1 is not there or may not be run. Install it beside "
                   "this program.")
                    .arg(simulator_.program()),
                true);
  });
  connect(&simulator_, &QProcess::finished, this, [this] {
    simulated_spectrometer_.reset();
    emit changed();
  });
}

InstrumentHub::~InstrumentHub() {
  for (const Measures what : {Measures::Light, Measures::Power}) disconnect_from(what);
  disconnect_carriage();
  drop_spectrometer();
  thread_.quit();
  thread_.wait();
  stop_simulated_bench();
}

void InstrumentHub::connect_to(const InstrumentSettings& settings) {
  disconnect_from(settings.measures);
  const int at = static_cast<int>(settings.measures);
  channels_[at] = Channel{settings, LinkState::Connecting, tr("connecting"), {}, {}, {}};
  auto* instrument = new Instrument(settings);
  instruments_[at] = instrument;
  instrument->moveToThread(&thread_);
  connect(instrument, &Instrument::changed, this, [this, at](LinkState state, const QString& words) {
    channels_[at].state = state;
    channels_[at].words = words;
    emit changed();
  });
  connect(instrument, &Instrument::measured, this, [this, at](const Measurement& m) {
    channels_[at].last = m;
    if (!channels_[at].impossible()) emit measured(static_cast<Measures>(at), m);
    emit changed();
  });
  connect(instrument, &Instrument::identified, this, [this, at](const QString& identity) {
    channels_[at].identity = identity;
    emit changed();
  });
  connect(instrument, &Instrument::heard, this, [this, at](const QString& line) {
    // As a device sends it, which may be anything: on one line, of a length that there is room for.
    constexpr int most_shown = 44;
    const QString shown = text_of(visible_line(line.toStdString()));
    channels_[at].heard.append(shown.size() > most_shown ? shown.left(most_shown) + QChar(0x2026) : shown);
    if (channels_[at].heard.size() > lines_kept) channels_[at].heard.removeFirst();
  });
  QMetaObject::invokeMethod(instrument, &Instrument::start, Qt::QueuedConnection);
  if (!simulated()) remember(settings);
  emit changed();
}

void InstrumentHub::disconnect_from(Measures what) {
  const int at = static_cast<int>(what);
  if (Instrument* instrument = std::exchange(instruments_[at], nullptr)) {
    instrument->disconnect(this);
    QMetaObject::invokeMethod(instrument, &Instrument::stop, Qt::QueuedConnection);
    instrument->deleteLater();
  }
  channels_[at].state = LinkState::Off;
  channels_[at].words = tr("not connected");
  channels_[at].last.reset();
  channels_[at].heard.clear();
  emit changed();
}

void InstrumentHub::connect_carriage(const instruments::TransportAddress& address, int poll_ms) {
  disconnect_carriage();
  carriage_ = new instruments::Carriage(address, poll_ms);
  carriage_state_ = LinkState::Connecting;
  carriage_words_ = tr("connecting");
  carriage_->moveToThread(&thread_);
  connect(carriage_, &instruments::Carriage::changed, this, [this](LinkState state, const QString& words) {
    carriage_state_ = state;
    carriage_words_ = words;
    emit changed();
  });
  connect(carriage_, &instruments::Carriage::arrived, this, &InstrumentHub::carriage_arrived);
  connect(carriage_, &instruments::Carriage::refused, this, &InstrumentHub::carriage_refused);
  QMetaObject::invokeMethod(carriage_, &instruments::Carriage::start, Qt::QueuedConnection);
  if (!simulated()) QSettings().setValue("instruments/carriage/port", address.port);
  emit changed();
}

void InstrumentHub::disconnect_carriage() {
  if (instruments::Carriage* carriage = std::exchange(carriage_, nullptr)) {
    carriage->disconnect(this);
    QMetaObject::invokeMethod(carriage, &instruments::Carriage::stop, Qt::QueuedConnection);
    carriage->deleteLater();
  }
  carriage_state_ = LinkState::Off;
  carriage_words_ = tr("not connected");
  emit changed();
}

void InstrumentHub::send_carriage(const QPointF& place_m) {
  if (carriage_)
    QMetaObject::invokeMethod(
        carriage_, [carriage = carriage_, place_m] { carriage->go(place_m); }, Qt::QueuedConnection);
}

QString InstrumentHub::spectrometer() const {
  if (simulated_spectrometer_) return QString::number(*simulated_spectrometer_);
  return QSettings().value("instruments/spectrometer").toString();
}

bool InstrumentHub::set_spectrometer(const QString& where) {
  const QString text = where.trimmed();
  if (!text.isEmpty() && !text.startsWith('/') && !instruments::tcp_address(text)) return false;
  QSettings().setValue("instruments/spectrometer", text);
  emit changed();
  return true;
}

void InstrumentHub::read_spectrum() {
  const QString where = spectrometer();
  instruments::TransportAddress address;
  if (where.startsWith('/')) {
    address.kind = instruments::TransportKind::Serial;
    address.path = where;
    address.baud = spectrometer_baud;
  } else if (const auto tcp = instruments::tcp_address(where)) {
    address = *tcp;
  } else {
    return emit spectrum_failed(
        tr("No spectrometer is named. Name its port or serial line with Ctrl+I, or start the simulated bench there."));
  }
  drop_spectrometer();
  spectrometer_ = new instruments::Spectrometer(address);
  spectrometer_->moveToThread(&thread_);
  connect(spectrometer_, &instruments::Spectrometer::taken, this, [this](const Spectrum& s, const QString& identity) {
    drop_spectrometer();
    emit spectrum_taken(s, identity);
  });
  connect(spectrometer_, &instruments::Spectrometer::failed, this, [this](const QString& words) {
    drop_spectrometer();
    emit spectrum_failed(words);
  });
  QMetaObject::invokeMethod(spectrometer_, &instruments::Spectrometer::take, Qt::QueuedConnection);
}

void InstrumentHub::drop_spectrometer() {
  instruments::Spectrometer* spectrometer = std::exchange(spectrometer_, nullptr);
  if (!spectrometer) return;
  spectrometer->disconnect(this);
  QMetaObject::invokeMethod(spectrometer, &instruments::Spectrometer::stop, Qt::QueuedConnection);
  spectrometer->deleteLater();
}

void InstrumentHub::hang_simulated(double height_m, double dimmer_pct) {
  command_simulator("SIM:HEIG " + QByteArray::number(height_m, 'f', 4) + "\nSIM:DIM " +
                    QByteArray::number(dimmer_pct, 'f', 2) + "\n");
}

void InstrumentHub::switch_simulated(bool on) { command_simulator(on ? "SIM:POW 0\nSIM:POW 1\n" : "SIM:POW 0\n"); }

double InstrumentHub::simulated_speed() const { return simulated() ? simulator_speed : 1; }

void InstrumentHub::command_simulator(const QByteArray& lines) {
  if (!simulated() || control_port_ == 0) return;
  auto* line = new QTcpSocket(this);
  connect(line, &QTcpSocket::connected, line, [=] {
    line->write(lines);
    line->disconnectFromHost();
  });
  connect(line, &QTcpSocket::disconnected, line, &QObject::deleteLater);
  connect(line, &QTcpSocket::errorOccurred, line, &QObject::deleteLater);
  line->connectToHost(QHostAddress::LocalHost, control_port_);
}

void InstrumentHub::start_simulated_bench() {
  if (simulated()) return;
  simulator_says_.clear();
  simulator_.start(QCoreApplication::applicationDirPath() + "/sunbreak-benchsim",
                   {"--speed", QString::number(simulator_speed), "--with-parent"});
  emit changed();
}

void InstrumentHub::stop_simulated_bench() {
  if (!simulated()) return;
  disconnect_carriage();
  simulated_spectrometer_.reset();
  control_port_ = 0;
  simulator_.terminate();
  if (!simulator_.waitForFinished(1000)) simulator_.kill(), simulator_.waitForFinished(1000);
}

void InstrumentHub::read_ports() {
  simulator_says_ += simulator_.readAllStandardOutput();
  if (!simulator_says_.contains("ready\n")) return;
  static const QRegularExpression line("^(sensor|meter|carriage|spectrometer|control) (\\d+)$",
                                       QRegularExpression::MultilineOption);
  for (auto matches = line.globalMatch(QString::fromUtf8(simulator_says_)); matches.hasNext();) {
    const auto match = matches.next();
    const auto port = static_cast<quint16>(match.captured(2).toUInt());
    if (match.captured(1) == "control") {
      control_port_ = port;
      continue;
    }
    if (match.captured(1) == "spectrometer") {
      simulated_spectrometer_ = port;
      continue;
    }
    if (match.captured(1) == "carriage") {
      instruments::TransportAddress address;
      address.port = port;
      connect_carriage(address);
      continue;
    }
    InstrumentSettings settings;
    settings.measures = match.captured(1) == "sensor" ? Measures::Light : Measures::Power;
    settings.name = settings.measures == Measures::Light ? tr("simulated sensor") : tr("simulated wall meter");
    settings.address.port = port;
    connect_to(settings);
  }
  simulator_says_.clear();
  emit said(tr("The simulated bench is running and connected. What it shows is computed, not measured."), false);
}

}  // namespace sunbreak::desktop
