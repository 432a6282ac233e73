#include "desktop/application/application.h"

#include <cstdio>
#include <new>

namespace sunbreak::desktop {
namespace {

QString words_of(const std::exception_ptr& trouble) {
  try {
    std::rethrow_exception(trouble);
  } catch (const std::bad_alloc&) {
    return QApplication::tr("there is not enough memory for it");
  } catch (const std::exception& e) {
    return QString::fromUtf8(e.what());
  } catch (...) {
    return QApplication::tr("no word of what");
  }
}

}  // namespace

bool Application::notify(QObject* receiver, QEvent* event) {
  try {
    return QApplication::notify(receiver, event);
  } catch (...) {
    tell_of(std::current_exception());
    return true;
  }
}

void Application::tell_of(const std::exception_ptr& trouble) {
  const QString sentence =
      tr("Something went wrong that was not foreseen (%1). What was asked for was not done; what is "
         "in the lab book stays as it is. Try again; if it comes back, start Sunbreak anew.")
          .arg(words_of(trouble));
  auto* app = dynamic_cast<Application*>(instance());
  if (app && app->tell_)
    app->tell_(sentence);
  else
    std::fprintf(stderr, "%s\n", qPrintable(sentence));
}

}  // namespace sunbreak::desktop
