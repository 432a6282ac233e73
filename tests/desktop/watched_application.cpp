#include "desktop/watched_application.h"

#include <QEvent>
#include <ctime>

namespace sunbreak::desktop {
namespace {

/// What this thread has computed, without what other processes took from it [ms].
double thread_time_ms() {
  timespec t{};
  clock_gettime(CLOCK_THREAD_CPUTIME_ID, &t);
  return 1e3 * static_cast<double>(t.tv_sec) + 1e-6 * static_cast<double>(t.tv_nsec);
}

}  // namespace

bool WatchedApplication::notify(QObject* receiver, QEvent* event) {
  if (depth_ > 0) return Application::notify(receiver, event);
  const std::string what = std::string(receiver->metaObject()->className()) + " " +
                           receiver->objectName().toStdString() + ", event " + std::to_string(event->type());
  QElapsedTimer wall;
  wall.start();
  const double before_ms = thread_time_ms();
  ++depth_;
  const bool accepted = Application::notify(receiver, event);
  --depth_;
  const double took_ms = static_cast<double>(wall.nsecsElapsed()) / 1e6;
  const double computed_ms = thread_time_ms() - before_ms;
  // What another process took of the processor is not the task's doing; a long wait is.
  if (computed_ms >= at_least_ms_ || took_ms >= 5 * at_least_ms_) slow_.push_back({what, took_ms, computed_ms});
  return accepted;
}

void WatchedApplication::watch(double at_least_ms) {
  at_least_ms_ = at_least_ms;
  slow_.clear();
}

}  // namespace sunbreak::desktop
