#pragma once

#include <QApplication>
#include <exception>
#include <functional>

namespace sunbreak::desktop {

/// The application: an exception that nobody foresaw, in a slot, an event or an answer from another thread, ends in a
/// sentence to the person at the window and never ends the process.
class Application : public QApplication {
 public:
  using QApplication::QApplication;
  ~Application() override = default;

  bool notify(QObject* receiver, QEvent* event) override;

  /// Who tells the sentence; nobody: it goes to stderr. Asked on the interface thread.
  void tell_by(std::function<void(const QString& sentence)> tell) { tell_ = std::move(tell); }

  /// Tells of an exception that was caught where it could not be dealt with; on the interface thread, whoever calls it.
  static void tell_of(const std::exception_ptr& trouble);

 private:
  std::function<void(const QString&)> tell_;
};

}  // namespace sunbreak::desktop
