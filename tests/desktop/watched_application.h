#pragma once

#include <QElapsedTimer>
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
    std::string what;  ///< receiver and kind of event
    double wall_ms = 0, thread_ms = 0;
  };

  bool notify(QObject* receiver, QEvent* event) override;
  /// From now on tasks that compute for at least so many milliseconds, or last five times as long, are noted; the list
  /// begins anew.
  void watch(double at_least_ms);
  const std::vector<Task>& slow() const { return slow_; }

 private:
  double at_least_ms_ = 1e9;
  int depth_ = 0;
  std::vector<Task> slow_;
};

}  // namespace sunbreak::desktop
