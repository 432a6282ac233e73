#include "desktop/desk/background.h"

#include <QSemaphore>
#include <exception>

#include "desktop/application/application.h"

namespace sunbreak::desktop {

struct Background::Question {
  int number = 0;
  std::function<void(std::stop_token)> work;
  std::function<void()> take, missed;
  std::exception_ptr trouble;
};

WorkThread::~WorkThread() {
  // Told from here that it may end: who posts an event wakes the other thread after that may have taken it, and nothing
  // that is posted may be what ends it.
  finish();
  thread_.quit();
  thread_.wait();
}

void WorkThread::post(std::function<void()> work) {
  std::call_once(begun_, [this] {
    there_.moveToThread(&thread_);
    thread_.start(QThread::LowPriority);
  });
  QMetaObject::invokeMethod(&there_, std::move(work), Qt::QueuedConnection);
}

void WorkThread::finish() {
  if (!thread_.isRunning()) return;
  // Both hold it: who releases is still at it when who waits has gone on.
  const auto done = std::make_shared<QSemaphore>();
  post([done] { done->release(); });
  done->acquire();
}

Background::Background(QObject* owner) : owner_(owner), thread_(std::make_shared<WorkThread>()) {}

Background::Background(QObject* owner, const Background& beside) : owner_(owner), thread_(beside.thread_) {}

Background::~Background() {
  drop();
  thread_->finish();
}

void Background::drop() {
  stop_.request_stop();
  ++asked_;
  working_ = false;
}

void Background::run(std::function<void(std::stop_token)> work, std::function<void()> take,
                     std::function<void()> missed) {
  drop();
  stop_ = std::stop_source();
  working_ = true;
  auto question = std::make_shared<Question>(Question{asked_, std::move(work), std::move(take), std::move(missed), {}});
  thread_->post([this, question = std::move(question), stop = stop_.get_token()]() mutable {
    try {
      if (!stop.stop_requested()) question->work(stop);
    } catch (...) {
      question->trouble = std::current_exception();
    }
    question->work = {};
    // What takes the answer goes back with it: it belongs to the interface thread.
    QMetaObject::invokeMethod(
        owner_, [this, question = std::move(question)] { answered(*question); }, Qt::QueuedConnection);
  });
}

void Background::answered(Question& question) {
  if (question.number != asked_) return;
  working_ = false;
  if (!question.trouble) {
    try {
      return question.take();
    } catch (...) {
      question.trouble = std::current_exception();
    }
  }
  Application::tell_of(question.trouble);
  question.missed();
}

}  // namespace sunbreak::desktop
