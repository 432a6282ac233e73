#include "desktop/publish/publish_log.h"

#include <QCoreApplication>
#include <QSettings>

#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "exchange/files/digest.h"

namespace sunbreak::desktop {
namespace {

QString tr(const char* words) { return QCoreApplication::translate("PublishLog", words); }

}  // namespace

PublishLog::PublishLog(const book::Book& book, record::Id test) : book_(book), test_(test) {}

QString PublishLog::key(const QString& form) const {
  const std::string place = exchange::sha256_digits(book_.file().string()).substr(0, 16);
  return QStringLiteral("published/%1/%2/%3").arg(text_of(place)).arg(test_).arg(form);
}

std::optional<LastWritten> PublishLog::last(const QString& form) const {
  const QStringList parts = QSettings().value(key(form)).toStringList();
  if (parts.size() != 5) return {};
  return LastWritten{text_of(parts[0]), text_of(parts[1]), text_of(parts[2]), parts[3].toLongLong(),
                     QDateTime::fromString(parts[4], Qt::ISODate)};
}

void PublishLog::keep(const QString& form, const LastWritten& w) const {
  QSettings().setValue(key(form), QStringList{text_of(w.file.string()), text_of(w.digest), text_of(w.token),
                                              QString::number(w.edit), w.when.toString(Qt::ISODate)});
}

LastWritten PublishLog::now() const {
  const auto tokens = book_.content_tokens();
  const auto token = tokens.find(test_);
  return {
      {}, {}, token == tokens.end() ? std::string() : token->second, book_.last_edit(), QDateTime::currentDateTime()};
}

bool PublishLog::is_current(const QString& form) const {
  const auto w = last(form);
  std::error_code error;
  return w && std::filesystem::exists(w->file, error) && w->token == now().token;
}

QString PublishLog::words(const QString& form) const {
  const auto w = last(form);
  if (!w) return {};
  std::error_code error;
  if (!std::filesystem::exists(w->file, error)) return tr("its file is gone: write again");
  const QDate day = w->when.date();
  const QString when = day == QDate::currentDate() ? w->when.toString(QStringLiteral("HH:mm"))
                                                   : day.toString(QStringLiteral("yyyy-MM-dd"));
  if (w->token == now().token) return tr("written %1, up to date").arg(when);
  const int edits = std::max(1, book_.edits_after(w->edit));
  return tr("%1 old: write again").arg(counted(edits, tr("edit"), tr("edits")));
}

}  // namespace sunbreak::desktop
