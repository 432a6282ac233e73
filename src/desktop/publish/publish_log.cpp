#include "desktop/publish/publish_log.h"

#include <QCoreApplication>
#include <QSettings>
#include <algorithm>

#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "exchange/files/digest.h"

namespace sunbreak::desktop {
namespace {

QString log_words(const char* words) { return QCoreApplication::translate("PublishLog", words); }

}  // namespace

PublishLog::PublishLog(const book::Book& book, record::Id test)
    : book_(book),
      prefix_(QStringLiteral("published/%1/%2/")
                  .arg(text_of(exchange::sha256_digits(book.file().string()).substr(0, 16)))
                  .arg(test)),
      now_{{}, book.content_token(test), book.last_edit(), QDateTime::currentDateTime()} {}

bool LastWritten::is_own(const std::filesystem::path& file) const {
  const auto found = std::ranges::find(files, file, [](const auto& of) { return of.first; });
  return found != files.end() && exchange::digest_of_file(file) == found->second;
}

std::optional<LastWritten> PublishLog::last(const QString& form) const {
  // Token, edit, moment, then file and digest in turn.
  const QStringList parts = QSettings().value(prefix_ + form).toStringList();
  if (parts.size() < 5 || parts.size() % 2 == 0) return {};
  LastWritten w{{}, text_of(parts[0]), parts[1].toLongLong(), QDateTime::fromString(parts[2], Qt::ISODate)};
  for (int i = 3; i + 1 < parts.size(); i += 2) w.files.emplace_back(text_of(parts[i]), text_of(parts[i + 1]));
  return w;
}

void PublishLog::keep(const QString& form, const LastWritten& w) const {
  QStringList parts{text_of(w.token), QString::number(w.edit), w.when.toString(Qt::ISODate)};
  for (const auto& [file, digest] : w.files) parts << text_of(file.string()) << text_of(digest);
  QSettings().setValue(prefix_ + form, parts);
}

PublishLog::Standing PublishLog::standing(const QString& form) const {
  const auto w = last(form);
  if (!w) return {};
  std::error_code error;
  if (!std::filesystem::exists(w->files.front().first, error)) return {log_words("its file is gone: write again")};
  if (w->token != now_.token) {
    const int edits = std::max(1, book_.edits_after(w->edit));
    return {log_words("%1 old: write again").arg(counted(edits, log_words("edit"), log_words("edits")))};
  }
  const bool today = w->when.date() == now_.when.date();
  return {log_words("written %1, up to date")
              .arg(w->when.toString(today ? QStringLiteral("HH:mm") : QStringLiteral("yyyy-MM-dd"))),
          true};
}

}  // namespace sunbreak::desktop
