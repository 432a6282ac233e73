#include "desktop/watched_application.h"

#include <sys/resource.h>

#include <QElapsedTimer>
#include <QEvent>
#include <QThread>
#include <algorithm>
#include <ctime>
#include <fstream>
#include <map>

namespace sunbreak::desktop {
namespace {

/// What this thread has computed, without what other processes took from it [ms].
double thread_time_ms() {
  timespec t{};
  clock_gettime(CLOCK_THREAD_CPUTIME_ID, &t);
  return 1e3 * static_cast<double>(t.tv_sec) + 1e-6 * static_cast<double>(t.tv_nsec);
}

/// How often this thread gave the processor up of its own will.
long waits() {
  rusage usage{};
  getrusage(RUSAGE_THREAD, &usage);
  return usage.ru_nvcsw;
}

/// How long this thread stood ready and another had the processor, and how long the processors belonged to another
/// computer [ms].
double kept_waiting_ms() {
  double computed_ns = 0, ready_ns = 0;
  std::ifstream("/proc/thread-self/schedstat") >> computed_ns >> ready_ns;
  std::string word;
  std::ifstream stat("/proc/stat");
  double ticks = 0;
  stat >> word;
  for (int column = 0; column < 8; ++column) stat >> ticks;
  return ready_ns / 1e6 + 10 * ticks;
}

/// A fixed piece of work of the kind that an interface does: small objects made, sorted and forgotten [ms].
double yardstick_ms() {
  const double before = thread_time_ms();
  std::map<std::string, double> words;
  unsigned state = 1;
  for (int i = 0; i < 6'000; ++i) {
    state = state * 1664525U + 1013904223U;
    words[std::to_string(state)] += i;
  }
  volatile double sum = 0;
  for (const auto& [word, value] : words) sum = sum + value;
  return thread_time_ms() - before;
}

constexpr double worth_a_word_ms = 1;

/// What the yardstick takes, compiled as the tests are, on the computer that the bounds are for.
constexpr double yardstick_there_ms = 15;

}  // namespace

bool WatchedApplication::notify(QObject* receiver, QEvent* event) {
  if (QThread::currentThread() != thread() || depth_ > 0 || at_least_ms_ == 0)
    return Application::notify(receiver, event);
  const std::string what = std::string(receiver->metaObject()->className()) + " " +
                           receiver->objectName().toStdString() + ", event " + std::to_string(event->type());
  const double kept_before_ms = kept_waiting_ms();
  const long waits_before = waits();
  QElapsedTimer wall;
  wall.start();
  const double before_ms = thread_time_ms();
  ++depth_;
  const bool accepted = Application::notify(receiver, event);
  --depth_;
  const double computed_ms = thread_time_ms() - before_ms;
  const double took_ms = static_cast<double>(wall.nsecsElapsed()) / 1e6;
  // What other processes and computers took of the processor is not the task's doing; a wait of its own is.
  const double waited_ms =
      waits() == waits_before ? 0 : std::max(0., took_ms - computed_ms - (kept_waiting_ms() - kept_before_ms));
  if (computed_ms >= worth_a_word_ms) ++tasks_;
  if (computed_ms / slowness_ >= at_least_ms_ || waited_ms / slowness_ >= 5 * at_least_ms_)
    slow_.push_back({what, computed_ms / slowness_, waited_ms});
  return accepted;
}

void WatchedApplication::watch(double at_least_ms) {
  at_least_ms_ = at_least_ms;
  slowness_ = std::max(1., yardstick_ms() / yardstick_there_ms);
  slow_.clear();
}

}  // namespace sunbreak::desktop
