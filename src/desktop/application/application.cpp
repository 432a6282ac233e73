#include "desktop/application/application.h"

#include <QThread>
#include <cstdio>
#include <new>

#include "book/trouble.h"
#include "desktop/widgets/wheel_guard.h"

namespace sunbreak::desktop {
namespace {

QString sentence_of(const std::exception_ptr& trouble) {
  const auto unforeseen = [](const QString& words) {
    return QApplication::tr(
               "Something went wrong that was not foreseen (%1). What was asked for was not done; what is "
               "in the lab book stays as it is. Try again; if it comes back, start Sunbreak anew.")
        .arg(words);
  };
  try {
    std::rethrow_exception(trouble);
  } catch (const book::BookTrouble& e) {
    return QString::fromUtf8(e.what());
  } catch (const std::bad_alloc&) {
    return unforeseen(QApplication::tr("there is not enough memory for it"));
  } catch (const std::exception& e) {
    return unforeseen(QString::fromUtf8(e.what()));
  } catch (...) {
    return unforeseen(QApplication::tr("no word of what"));
  }
}

}  // namespace

bool Application::notify(QObject* receiver, QEvent* event) {
  try {
    keep_keyboard_from_wheel(receiver, event);
    return QApplication::notify(receiver, event);
  } catch (...) {
    tell_of(std::current_exception());
    return true;
  }
}

void Application::tell_of(const std::exception_ptr& trouble) {
  auto* app = dynamic_cast<Application*>(instance());
  if (app && QThread::currentThread() != app->thread())
    return void(QMetaObject::invokeMethod(
        app, [trouble] { tell_of(trouble); }, Qt::QueuedConnection));
  const QString sentence = sentence_of(trouble);
  if (app && app->tell_)
    app->tell_(sentence);
  else
    std::fprintf(stderr, "%s\n", qPrintable(sentence));
}

}  // namespace sunbreak::desktop
