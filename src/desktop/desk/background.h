#pragma once

#include <QObject>
#include <QThread>
#include <functional>
#include <memory>
#include <mutex>
#include <stop_token>
#include <type_traits>

namespace sunbreak::desktop {

/// A thread that does what it is given one after the other, in the background; begun when it is first given something.
class WorkThread {
 public:
  WorkThread() = default;
  /// Does what it was given, and ends. Never by itself.
  ~WorkThread();
  WorkThread(const WorkThread&) = delete;
  WorkThread& operator=(const WorkThread&) = delete;

  /// From any thread, but for the first time: then from the one it was made on.
  void post(std::function<void()> work);
  /// Waits until all that it was given is done.
  void finish();

 private:
  std::once_flag begun_;
  QThread thread_;
  QObject there_;  ///< lives on it
};

/// Works answers out on another thread, the latest question only. Belongs to an object of the interface thread, as one
/// of its members. What the work looks at must be its own or never change. An exception of the work or of what takes
/// its answer is told, and there is no answer: `missed` says so where somebody waits for it.
///
///     background_.ask([record = *test](std::stop_token stop) { return evaluate(record)->grade(); },
///                     [this](std::optional<Grade> grade) { show(grade); });
class Background {
 public:
  explicit Background(QObject* owner);
  /// One that works on the thread of another: what that one made of it may be used.
  Background(QObject* owner, const Background& beside);
  /// Waits for what is still under way, told to stop.
  ~Background();
  Background(const Background&) = delete;
  Background& operator=(const Background&) = delete;

  /// Asks for `work(stop_token)`. `take` is called with its answer on the interface thread, unless another question was
  /// asked since, or none is of interest any more: then the work is told to stop, and its answer dropped. Where trouble
  /// kept the answer away, `missed()` is called once that was told.
  template <typename Work, typename Take>
  void ask(
      Work work, Take take, std::function<void()> missed = [] {}) {
    const auto answer = std::make_shared<std::invoke_result_t<Work, std::stop_token>>();
    run([answer, work = std::move(work)](std::stop_token stop) mutable { *answer = work(stop); },
        [answer, take = std::move(take)]() mutable { take(std::move(*answer)); }, std::move(missed));
  }

  /// Owners of what a work made that is of its thread (documents and other objects of Qt): whoever lets go of it last,
  /// and on whatever thread, it is that thread that takes it apart. To be given to the work.
  class Keeper {
   public:
    template <typename Thing>
    std::shared_ptr<Thing> keep(std::unique_ptr<Thing> made) const {
      return {made.release(), [thread = thread_](Thing* thing) { thread->post([thing] { delete thing; }); }};
    }

   private:
    friend class Background;
    explicit Keeper(std::shared_ptr<WorkThread> thread) : thread_(std::move(thread)) {}
    std::shared_ptr<WorkThread> thread_;
  };
  Keeper keeper() const { return Keeper(thread_); }

  /// Nobody waits for an answer any more.
  void drop();
  bool working() const { return working_; }

 private:
  struct Question;

  void run(std::function<void(std::stop_token)> work, std::function<void()> take, std::function<void()> missed);
  void answered(Question& question);

  QObject* owner_;
  std::stop_source stop_;
  std::shared_ptr<WorkThread> thread_;  ///< what a newer question has overtaken ends before that is begun
  int asked_ = 0;
  bool working_ = false;
};

}  // namespace sunbreak::desktop
