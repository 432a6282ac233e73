#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <QThreadPool>
#include <QtConcurrent>
#include <stop_token>

#include "desktop/application/application.h"

namespace sunbreak::desktop {

/// Works answers out on another thread, the latest question only. Belongs to an object of the interface thread, as one
/// of its members. What the work looks at must be its own or never change; an answer is default-made where the work was
/// overtaken before it began. An exception of the work or of what takes its answer is told, and there is no answer:
/// `missed` says so where somebody waits for it.
///
///     background_.ask([record = *test](std::stop_token stop) { return evaluate(record)->grade(); },
///                     [this](std::optional<Grade> grade) { show(grade); });
class Background {
 public:
  explicit Background(QObject* owner) : owner_(owner) {
    pool_.setMaxThreadCount(1);
    pool_.setThreadPriority(QThread::LowPriority);
  }
  /// Waits for what is still under way, told to stop.
  ~Background() {
    drop();
    pool_.waitForDone();
  }
  Background(const Background&) = delete;
  Background& operator=(const Background&) = delete;

  /// Asks for `work(stop_token)`. `take` is called with its answer on the interface thread, unless another question was
  /// asked since, or none is of interest any more: then the work is told to stop, and its answer dropped. Where trouble
  /// kept the answer away, `missed()` is called once that was told.
  template <typename Work, typename Take, typename Missed>
  void ask(Work work, Take take, Missed missed) {
    drop();
    stop_ = std::stop_source();
    working_ = true;
    using Answer = std::invoke_result_t<Work, std::stop_token>;
    struct Outcome {
      Answer answer{};
      std::exception_ptr trouble;
    };
    auto* watcher = new QFutureWatcher<Outcome>(owner_);
    QObject::connect(
        watcher, &QFutureWatcher<Outcome>::finished, owner_,
        [this, watcher, question = question_, take = std::move(take), missed = std::move(missed)]() mutable {
          watcher->deleteLater();
          if (question != question_) return;
          working_ = false;
          Outcome outcome = watcher->future().takeResult();
          if (!outcome.trouble) {
            try {
              return take(std::move(outcome.answer));
            } catch (...) {
              outcome.trouble = std::current_exception();
            }
          }
          Application::tell_of(outcome.trouble);
          missed();
        });
    watcher->setFuture(
        QtConcurrent::run(&pool_, [work = std::move(work), stop = stop_.get_token()]() mutable -> Outcome {
          try {
            return stop.stop_requested() ? Outcome{} : Outcome{work(stop), nullptr};
          } catch (...) {
            return {Answer{}, std::current_exception()};
          }
        }));
  }

  template <typename Work, typename Take>
  void ask(Work work, Take take) {
    ask(std::move(work), std::move(take), [] {});
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
  QThreadPool pool_;  ///< of one thread: what a newer question has overtaken ends before that is begun
  int question_ = 0;
  bool working_ = false;
};

}  // namespace sunbreak::desktop
