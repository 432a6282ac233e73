#include "instruments/carriage.h"

#include <algorithm>
#include <cmath>

namespace sunbreak::instruments {
namespace {

constexpr int carriage_wait_ms = 500, carriage_longest_wait_ms = 15000, answer_ms = 1000, lost_ms = 4000;
constexpr double there_m = 0.003;

}  // namespace

Carriage::Carriage(const TransportAddress& address, int poll_ms)
    : address_(address), poll_ms_(poll_ms), poll_(this), retry_(this) {
  qRegisterMetaType<LinkState>();
  retry_.setSingleShot(true);
  connect(&retry_, &QTimer::timeout, this, &Carriage::attempt);
  connect(&poll_, &QTimer::timeout, this, &Carriage::look);
}

Carriage::~Carriage() = default;

void Carriage::start() {
  stop();
  transport_ = make_transport(address_);
  connect(transport_.get(), &Transport::opened, this, [this] {
    silence_.end();
    if (target_m_)
      go(*target_m_);
    else
      ask(Asked::Moving);
  });
  connect(transport_.get(), &Transport::closed, this, &Carriage::on_closed);
  connect(transport_.get(), &Transport::received, this, [this](const QByteArray& bytes) {
    buffer_.add(bytes);
    while (const auto line = buffer_.next()) take(*line);
  });
  wait_ms_ = carriage_wait_ms;
  attempt();
}

void Carriage::stop() {
  poll_.stop();
  retry_.stop();
  if (transport_) transport_->close();
  transport_.reset();
  target_m_.reset();
  if (state_ != LinkState::Off) set_state(LinkState::Off, tr("not connected"));
}

void Carriage::attempt() {
  buffer_.clear();
  asked_ = Asked::Nothing;
  if (state_ != LinkState::Lost) set_state(LinkState::Connecting, tr("connecting"));
  silence_.end();
  poll_.start(poll_ms_);
  transport_->open();
}

void Carriage::on_closed(const QString& why) {
  poll_.stop();
  set_state(LinkState::Lost, tr("lost (%1); trying again").arg(why));
  retry_.start(wait_ms_);
  wait_ms_ = std::min(2 * wait_ms_, carriage_longest_wait_ms);
}

void Carriage::go(const QPointF& place_m) {
  target_m_ = place_m;
  if (!transport_ || retry_.isActive()) return;  // once the line is back
  transport_->write("*CLS\nPOS " + QByteArray::number(place_m.x(), 'f', 4) + "," +
                    QByteArray::number(place_m.y(), 'f', 4) + "\n");
  ask(Asked::Error);
}

void Carriage::ask(Asked what) {
  asked_ = what;
  transport_->write(what == Asked::Error ? "SYST:ERR?\n" : what == Asked::Moving ? "MOV?\n" : "POS?\n");
}

void Carriage::take(const QByteArray& line) {
  silence_.end();
  wait_ms_ = carriage_wait_ms;
  if (state_ != LinkState::Live) set_state(LinkState::Live, tr("live"));
  const Asked answered = asked_;
  if (!target_m_ || answered == Asked::Nothing) return;
  if (answered == Asked::Error) {
    if (!line.contains('"')) return;  // an answer from before
    asked_ = Asked::Nothing;
    if (line.startsWith("0,")) return;
    const QPointF place = *target_m_;
    target_m_.reset();
    emit refused(place);
  } else if (answered == Asked::Moving) {
    if (line == "0") ask(Asked::Position);
    if (line == "1") asked_ = Asked::Nothing;
  } else {
    const QList<QByteArray> xy = line.split(',');
    bool x_ok = false, y_ok = false;
    if (xy.size() != 2) return;
    const QPointF at(xy[0].toDouble(&x_ok), xy[1].toDouble(&y_ok));
    if (!x_ok || !y_ok) return;
    if (std::hypot(at.x() - target_m_->x(), at.y() - target_m_->y()) > there_m) return go(*target_m_);
    asked_ = Asked::Nothing;
    const QPointF place = *target_m_;
    target_m_.reset();
    emit arrived(place);
  }
}

void Carriage::look() {
  const qint64 silent_ms = silence_.look();
  if (silent_ms > lost_ms) {
    transport_->close();
    return on_closed(tr("silent for %1 s").arg(silent_ms / 1000));
  }
  if (silent_ms > answer_ms && state_ == LinkState::Live) set_state(LinkState::Stale, tr("silent"));
  // An answer that did not come within a second is asked for again; a line at rest is asked now and then.
  if (asked_ == Asked::Nothing ? target_m_.has_value() || silent_ms > answer_ms / 2 : silent_ms > answer_ms)
    ask(Asked::Moving);
}

void Carriage::set_state(LinkState state, const QString& words) {
  state_ = state;
  emit changed(state, words);
}

}  // namespace sunbreak::instruments
