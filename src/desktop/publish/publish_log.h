#pragma once

#include <QDateTime>
#include <QString>
#include <filesystem>
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

/// What was written of a test on this computer, by form; kept with the settings, not in the lab book. Knows the test as
/// it stands when the log is made.
class PublishLog {
 public:
  PublishLog(const book::Book& book, record::Id test);

  std::optional<LastWritten> last(const QString& form) const;
  void keep(const QString& form, const LastWritten& written) const;
  /// Where the lab book stands, for what is written of it; without files.
  const LastWritten& now() const { return now_; }

  /// Whether a form is as it was written last.
  struct Standing {
    QString words;  ///< empty where it never was written
    bool current = false;
  };
  Standing standing(const QString& form) const;

 private:
  const book::Book& book_;
  QString prefix_;  ///< of the test's settings
  LastWritten now_;
};

}  // namespace sunbreak::desktop
