#include "instruments/instrument.h"

#include <QDateTime>
#include <algorithm>

namespace sunbreak::instruments {
namespace {
constexpr int first_wait_ms = 500, watch_ms = 100, least_gap_ms = 20;
}

Instrument::Instrument(const InstrumentSettings& settings)
    : settings_(settings), poll_(this), watch_(this), retry_(this) {
  qRegisterMetaType<Measurement>();
  qRegisterMetaType<LinkState>();
  retry_.setSingleShot(true);
  connect(&retry_, &QTimer::timeout, this, &Instrument::attempt);
  connect(&poll_, &QTimer::timeout, this,
          [this] { transport_->write(settings_.measures == Measures::Light ? "MEAS:PPFD?\n" : "MEAS:POW?\n"); });
  connect(&watch_, &QTimer::timeout, this, &Instrument::look_at_the_clock);
}

Instrument::~Instrument() = default;

void Instrument::start() {
  stop();
  transport_ = make_transport(settings_.address);
  connect(transport_.get(), &Transport::opened, this, &Instrument::on_open);
  connect(transport_.get(), &Transport::closed, this, &Instrument::on_closed);
  connect(transport_.get(), &Transport::received, this, &Instrument::on_bytes);
  wait_ms_ = first_wait_ms;
  attempt();
}

void Instrument::stop() {
  for (QTimer* timer : {&poll_, &watch_, &retry_}) timer->stop();
  if (transport_) transport_->close();
  transport_.reset();
  if (state_ != LinkState::Off) set_state(LinkState::Off, tr("not connected"));
}

void Instrument::attempt() {
  buffer_.clear();
  identity_known_ = false;
  if (state_ != LinkState::Lost) set_state(LinkState::Connecting, tr("connecting"));
  // The watch bounds an attempt that gets no answer at all.
  silence_.end();
  watch_.start(watch_ms);
  transport_->open();
}

void Instrument::on_open() {
  silence_.end();
  if (settings_.speaks == Speaks::Commands && transport_->can_write()) {
    transport_->write("*IDN?\n");
    poll_.start(settings_.poll_ms);
  }
}

void Instrument::on_closed(const QString& why) {
  poll_.stop();
  watch_.stop();
  set_state(LinkState::Lost, tr("lost (%1); trying again").arg(why));
  retry_.start(wait_ms_);
  wait_ms_ = std::min(2 * wait_ms_, settings_.longest_wait_ms);
}

void Instrument::on_bytes(const QByteArray& bytes) {
  buffer_.add(bytes);
  while (const auto line = buffer_.next()) take(*line);
}

/// Whether enough time has passed since the last of its kind was told; then this one is.
bool Instrument::due(QElapsedTimer& since) {
  if (since.isValid() && !since.hasExpired(least_gap_ms)) return false;
  since.start();
  return true;
}

void Instrument::take(const QByteArray& line) {
  if (due(since_heard_)) emit heard(QString::fromUtf8(line.left(120)));
  Measurement m;
  m.at_ms = QDateTime::currentMSecsSinceEpoch();
  const std::string_view text(line.constData(), static_cast<std::size_t>(line.size()));
  if (settings_.speaks == Speaks::Stream) {
    const auto value = value_in(text, settings_.format);
    if (!value) return;
    m.value = *value;
  } else if (settings_.measures == Measures::Light) {
    const auto value = value_in(text, {});
    if (!value || line.contains(',')) {
      if (!identity_known_ && line.count(',') == 3) identity_known_ = true, emit identified(QString::fromUtf8(line));
      return;
    }
    m.value = *value;
  } else {
    const auto wall = wall_values_in(text);
    if (!wall) {
      if (!identity_known_ && line.count(',') == 3) identity_known_ = true, emit identified(QString::fromUtf8(line));
      return;
    }
    m.wall = *wall;
    m.value = wall->watts;
  }
  silence_.end();
  wait_ms_ = first_wait_ms;
  if (state_ != LinkState::Live) set_state(LinkState::Live, tr("live"));
  if (due(since_told_)) emit measured(m);
}

void Instrument::look_at_the_clock() {
  const qint64 silent_ms = silence_.look();
  if (silent_ms > settings_.lost_ms && !retry_.isActive()) {
    transport_->close();
    return on_closed(tr("silent for %1 s").arg(silent_ms / 1000));
  }
  if (silence_.age_ms() > settings_.answer_ms && state_ == LinkState::Live)
    set_state(LinkState::Stale, tr("silent; the last value is old"));
}

void Instrument::set_state(LinkState state, const QString& words) {
  state_ = state;
  emit changed(state, words);
}

}  // namespace sunbreak::instruments
