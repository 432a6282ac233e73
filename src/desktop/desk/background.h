#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <QtConcurrent>
#include <stop_token>
#include <vector>

namespace sunbreak::desktop {

/// Works answers out on another thread, the latest question only. Belongs to an object of the interface thread, as one
/// of its members. What the work looks at must be its own or never change.
///
///     background_.ask([record = *test](std::stop_token stop) { return evaluate(record)->grade(); },
///                     [this](std::optional<Grade> grade) { show(grade); });
class Background {
 public:
  explicit Background(QObject* owner) : owner_(owner) {}
  /// Waits for what is still under way, told to stop.
  ~Background() {
    drop();
    for (QFuture<void>& future : running_) future.waitForFinished();
  }
  Background(const Background&) = delete;
  Background& operator=(const Background&) = delete;

  /// Asks for `work(stop_token)`. `take` is called with its answer on the interface thread, unless another question was
  /// asked since, or none is of interest any more: then the work is told to stop, and its answer dropped.
  template <typename Work, typename Take>
  void ask(Work work, Take take) {
    drop();
    stop_ = std::stop_source();
    working_ = true;
    using Answer = std::invoke_result_t<Work, std::stop_token>;
    auto* watcher = new QFutureWatcher<Answer>(owner_);
    QObject::connect(watcher, &QFutureWatcher<Answer>::finished, owner_,
                     [this, watcher, question = question_, take = std::move(take)]() mutable {
                       watcher->deleteLater();
                       if (question != question_) return;
                       working_ = false;
                       take(watcher->result());
                     });
    QFuture<Answer> future = QtConcurrent::run(
        [work = std::move(work), stop = stop_.get_token()]() mutable -> Answer { return work(stop); });
    std::erase_if(running_, [](const QFuture<void>& f) { return f.isFinished(); });
    running_.push_back(QFuture<void>(future));
    watcher->setFuture(future);
  }

  /// Nobody waits for an answer any more.
  void drop() {
    stop_.request_stop();
    ++question_;
    working_ = false;
  }
  bool working() const { return working_; }

 private:
  QObject* owner_;
  std::stop_source stop_;
  std::vector<QFuture<void>> running_;
  int question_ = 0;
  bool working_ = false;
};

}  // namespace sunbreak::desktop
