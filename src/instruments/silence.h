#pragma once

#include <QElapsedTimer>
#include <algorithm>

namespace sunbreak::instruments {

/// How long a line has been silent while somebody listened. Where this process or the whole machine stood still for a
/// while (asleep, or too busy), a quarter of a second of that counts: what the device said meanwhile waits to be read.
class Silence {
 public:
  /// Something was heard, or listening begins.
  void end() {
    silent_ms_ = 0;
    since_look_.start();
    since_heard_.start();
  }
  /// To be asked several times a second: how long it has lasted [ms].
  qint64 look() { return silent_ms_ += std::min<qint64>(since_look_.restart(), 250); }
  /// How old what was heard last is [ms], whether somebody listened since or not.
  qint64 age_ms() const { return since_heard_.elapsed(); }

 private:
  qint64 silent_ms_ = 0;
  QElapsedTimer since_look_, since_heard_;
};

}  // namespace sunbreak::instruments
