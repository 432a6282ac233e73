#pragma once

#include <QDateTime>
#include <QString>
#include <filesystem>
#include <map>
#include <optional>
#include <vector>

#include "book/book.h"

namespace sunbreak::desktop {

/// A form as it was last written: its files, and of which state of the lab book.
struct LastWritten {
  std::vector<std::pair<std::filesystem::path, std::string>> files;  ///< with their digests, the leading one first
  std::string token;                                                 ///< of the test's content
  std::int64_t edit = 0;
  QDateTime when;

  /// Whether that file is one of them, and as it was written.
  bool is_own(const std::filesystem::path& file) const;
};

/// What was written of a test on this computer, by form; kept with the settings, not in the lab book.
class PublishLog {
 public:
  PublishLog(const book::Book& book, record::Id test);

  std::optional<LastWritten> last(const QString& form) const;
  void keep(const QString& form, const LastWritten& written) const;
  /// Where the lab book stands now, for what is written of it.
  LastWritten now() const;
  /// Whether a form is as it was written last, in words; empty where it never was.
  QString words(const QString& form) const;
  bool is_current(const QString& form) const;

 private:
  QString key(const QString& form) const;
  const book::Book& book_;
  record::Id test_;
};

}  // namespace sunbreak::desktop
