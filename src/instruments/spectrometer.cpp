#include "instruments/spectrometer.h"

namespace sunbreak::instruments {
namespace {

constexpr int silence_ms = 5000, again_ms = 700;
constexpr int pairs_a_line = 32;

/// Numbers with commas between them; nothing where one is none.
std::optional<std::vector<double>> doubles_in(const QByteArray& line) {
  std::vector<double> numbers;
  for (const QByteArray& cell : line.split(',')) {
    bool ok = false;
    numbers.push_back(cell.trimmed().toDouble(&ok));
    if (!ok) return std::nullopt;
  }
  return numbers;
}

}  // namespace

Spectrometer::Spectrometer(const TransportAddress& address) : address_(address), silence_(this), again_(this) {
  qRegisterMetaType<Spectrum>();
  silence_.setSingleShot(true);
  silence_.setInterval(silence_ms);
  again_.setSingleShot(true);
  again_.setInterval(again_ms);
  connect(&silence_, &QTimer::timeout, this, [this] {
    fail(tr("The spectrometer did not answer for %1 s. Check its cable and its port.").arg(silence_ms / 1000));
  });
  connect(&again_, &QTimer::timeout, this, [this] { ask(asked_); });
}

Spectrometer::~Spectrometer() = default;

void Spectrometer::take() {
  stop();
  transport_ = make_transport(address_);
  connect(transport_.get(), &Transport::opened, this, [this] { ask(Asked::Identity); });
  connect(transport_.get(), &Transport::closed, this, [this](const QString& why) {
    fail(tr("The line to the spectrometer broke: %1. Check its cable and its port.").arg(why));
  });
  connect(transport_.get(), &Transport::received, this, [this](const QByteArray& bytes) {
    buffer_.add(bytes);
    while (const auto line = buffer_.next()) answered(*line);
  });
  spectrum_ = {};
  silence_.start();
  transport_->open();
}

void Spectrometer::stop() {
  silence_.stop();
  again_.stop();
  asked_ = Asked::Nothing;
  buffer_.clear();
  if (!transport_) return;
  transport_->disconnect(this);
  transport_->close();
  transport_.release()->deleteLater();
}

void Spectrometer::ask(Asked what) {
  asked_ = what;
  again_.start();
  if (what == Asked::Identity) transport_->write("*CLS\n*IDN?\n");
  if (what == Asked::Unit) transport_->write("UNIT?\n");
  if (what == Asked::Count) transport_->write("MEAS:SPEC?\n");
  if (what == Asked::Pairs)
    transport_->write("FETC:SPEC? " + QByteArray::number(static_cast<qulonglong>(spectrum_.values.size())) + "," +
                      QByteArray::number(pairs_a_line) + "\n");
}

void Spectrometer::answered(const QByteArray& line) {
  if (asked_ == Asked::Identity && line.count(',') == 3) {
    identity_ = QString::fromUtf8(line);
    silence_.start();
    return ask(Asked::Unit);
  }
  if (asked_ == Asked::Unit) {
    const QByteArray unit = line.trimmed().toLower();
    if (unit == "w/m2/nm" || unit == "umol/m2/s/nm") {
      spectrum_.scale = unit.startsWith('w') ? SpectralScale::Power : SpectralScale::Photons;
      spectrum_.absolute = true;
      silence_.start();
      return ask(Asked::Count);
    }
  }
  if (asked_ == Asked::Count) {
    bool ok = false;
    const qulonglong count = line.trimmed().toULongLong(&ok);
    if (ok && count >= 2 && count <= most_samples) {
      count_ = static_cast<std::size_t>(count);
      silence_.start();
      return ask(Asked::Pairs);
    }
  }
  if (asked_ != Asked::Pairs) return;
  const auto pairs = doubles_in(line);
  // A garbled line, or one that goes back in wavelength because it was asked for twice, is asked for again.
  if (!pairs || pairs->empty() || pairs->size() % 2 != 0) return;
  if (!spectrum_.wavelengths_nm.empty() && !(pairs->front() > spectrum_.wavelengths_nm.back())) return;
  for (std::size_t i = 0; i < pairs->size() && spectrum_.values.size() < count_; i += 2) {
    spectrum_.wavelengths_nm.push_back((*pairs)[i]);
    spectrum_.values.push_back((*pairs)[i + 1]);
  }
  silence_.start();
  if (spectrum_.values.size() < count_) return ask(Asked::Pairs);
  const Spectrum whole = spectrum_;
  const QString identity = identity_;
  stop();
  if (const auto problem = spectrum_problem(whole))
    emit failed(tr("What the spectrometer sent is no spectrum: %1").arg(QString::fromStdString(problem->sentence())));
  else
    emit taken(whole, identity);
}

void Spectrometer::fail(const QString& words) {
  stop();
  emit failed(words);
}

}  // namespace sunbreak::instruments
