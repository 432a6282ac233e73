#pragma once

#include <string>
#include <vector>

#include "desktop/application/application.h"

namespace sunbreak::desktop {

/// The application, with a watch on how long each task keeps the interface thread: an event from its delivery until
/// all that it set off at once has returned.
class WatchedApplication : public Application {
 public:
  using Application::Application;

  struct Task {
    std::string what;        ///< receiver and kind of event
    double computed_ms = 0;  ///< of this thread, as on the computer that the bounds are for
    double waited_ms = 0;    ///< of the thread's own will: for a disk, a lock, another thread
  };

  bool notify(QObject* receiver, QEvent* event) override;
  /// From now on tasks that compute for at least so many milliseconds, or wait five times as long, are noted; the list
  /// begins anew. How fast this computer is at the time is measured first.
  void watch(double at_least_ms);
  void watch_no_more() { at_least_ms_ = 0; }
  const std::vector<Task>& slow() const { return slow_; }
  /// How many tasks that took any time worth a word there were under watch.
  int tasks() const { return tasks_; }

 private:
  double at_least_ms_ = 0;  ///< 0: no watch is kept
  double slowness_ = 1;     ///< how many times as long as on the computer of the bounds this one takes
  int depth_ = 0;
  int tasks_ = 0;
  std::vector<Task> slow_;
};

}  // namespace sunbreak::desktop
