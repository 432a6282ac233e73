#pragma once

#include <QObject>
#include <QThreadPool>
#include <vector>

namespace sunbreak::desktop {

/// What a tone says: a reading was kept; look here; the reference is due, not the next station; the sweep is done.
enum class Tone { Kept, Look, Reference, Done };

/// A tone as 16-bit mono samples at 44.1 kHz: high and short, low and long, three of a height,
/// or two rising.
std::vector<qint16> tone_samples(Tone tone);

/// Whether anything could play a tone: a card that plays among the devices of a folder, or a sound server that listens
/// in the folder of what runs.
bool sound_is_there(const QString& devices, const QString& runtime);

/// Plays tones beside the interface, which never waits for them. Silenced or without a sound device they are not heard;
/// everything they say is also written.
class Tones : public QObject {
 public:
  explicit Tones(QObject* parent = nullptr);
  ~Tones() override;

  void play(Tone tone);
  bool silenced() const { return silenced_; }
  void silence(bool silenced);

 private:
  QThreadPool player_;
  bool silenced_ = false;
};

}  // namespace sunbreak::desktop
