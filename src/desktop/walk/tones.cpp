#include "desktop/walk/tones.h"

#include <ao/ao.h>

#include <QDir>
#include <QSettings>
#include <atomic>
#include <cmath>
#include <mutex>
#include <numbers>

namespace sunbreak::desktop {
namespace {

constexpr int rate = 44100;

void add_note(std::vector<qint16>& samples, double hertz, double seconds) {
  const int count = static_cast<int>(seconds * rate), edge = rate / 100;  // 10 ms in and out, against clicks
  for (int i = 0; i < count; ++i) {
    const double fade = std::min({1.0, i / double(edge), (count - i) / double(edge)});
    samples.push_back(static_cast<qint16>(9000 * fade * std::sin(2 * std::numbers::pi * hertz * i / rate)));
  }
}

void add_rest(std::vector<qint16>& samples, double seconds) {
  samples.resize(samples.size() + static_cast<std::size_t>(seconds * rate), 0);
}

/// Blocks until the tone has been handed over; silent where there is no device. Where one could not be opened no other
/// try is made: each writes what it looked for to the terminal.
void play_now(std::vector<qint16> samples) {
  static std::atomic<bool> in_vain = !sound_is_there(QStringLiteral("/dev/snd"), qgetenv("XDG_RUNTIME_DIR"));
  if (in_vain) return;
  static std::once_flag started;
  std::call_once(started, ao_initialize);
  const int driver = ao_default_driver_id();
  in_vain = driver < 0;
  if (in_vain) return;
  ao_sample_format format{16, rate, 1, AO_FMT_NATIVE, nullptr};
  ao_device* device = ao_open_live(driver, &format, nullptr);
  in_vain = device == nullptr;
  if (in_vain) return;
  ao_play(device, reinterpret_cast<char*>(samples.data()), static_cast<uint_32>(samples.size() * sizeof(qint16)));
  ao_close(device);
}

}  // namespace

bool sound_is_there(const QString& devices, const QString& runtime) {
  const QDir cards(devices), sockets(runtime);
  return !cards.entryList({"pcm*p"}, QDir::System).isEmpty() || qEnvironmentVariableIsSet("PULSE_SERVER") ||
         (!runtime.isEmpty() && (sockets.exists("pulse/native") || sockets.exists("pipewire-0")));
}

std::vector<qint16> tone_samples(Tone tone) {
  std::vector<qint16> samples;
  switch (tone) {
    case Tone::Kept:
      add_note(samples, 1320, 0.09);
      break;
    case Tone::Look:
      add_note(samples, 220, 0.35);
      break;
    case Tone::Reference:
      for (int i = 0; i < 3; ++i) add_note(samples, 660, 0.12), add_rest(samples, 0.06);
      break;
    case Tone::Done:
      add_note(samples, 880, 0.15);
      add_note(samples, 1320, 0.25);
      break;
  }
  return samples;
}

Tones::Tones(QObject* parent) : QObject(parent), silenced_(QSettings().value("walk/silenced").toBool()) {
  player_.setMaxThreadCount(1);
}

Tones::~Tones() {
  player_.clear();
  player_.waitForDone();
}

void Tones::play(Tone tone) {
  if (silenced_ || player_.activeThreadCount() > 0) return;
  player_.start([samples = tone_samples(tone)]() mutable { play_now(std::move(samples)); });
}

void Tones::silence(bool silenced) {
  silenced_ = silenced;
  QSettings().setValue("walk/silenced", silenced);
}

}  // namespace sunbreak::desktop
