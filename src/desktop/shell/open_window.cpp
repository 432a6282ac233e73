#include "desktop/shell/open_window.h"

#include <QFileInfo>

#include "book/trouble.h"
#include "desktop/widgets/file_dialogs.h"
#include "desktop/widgets/question.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

QString opening_words(const char* text) { return QCoreApplication::translate("open", text); }

QString capitalized(QString words) {
  if (!words.isEmpty()) words[0] = words[0].toUpper();
  return words;
}

/// Where to go on from a lab book that cannot be opened; empty to leave.
QString way_on(const QString& path, const QString& trouble) {
  enum Way { Backup, Another, New, Leave };
  std::vector<Way> ways;
  Question question{opening_words("This lab book cannot be opened"), capitalized(trouble), {}, "bookTrouble", {}};
  const auto offer = [&](Way way, const QString& words, const char* name) {
    question.answers.push_back({words, name, ways.empty() ? Answer::Leads : Answer::Plain});
    ways.push_back(way);
  };
  if (book::Book::newest_backup(text_of(path)))
    offer(Backup, opening_words("Open a copy of the newest backup"), "openBackup");
  offer(Another, opening_words("Open another…"), "openAnother");
  offer(New, opening_words("New lab book…"), "openNew");
  offer(Leave, opening_words("Quit"), "leaveBook");
  const QString folder = QFileInfo(path).absolutePath(), kinds = opening_words("Lab books (*.sunbreak)");
  for (;;) {
    const int answer = ask(nullptr, question);
    const Way way = answer < 0 ? Leave : ways[static_cast<std::size_t>(answer)];
    if (way == Leave) return {};
    if (way == Backup) {
      const auto copy = book::Book::copy_backup_beside(text_of(path));
      if (copy) return text_of(copy.value().string());
      question.text = capitalized(text_of(copy.problem().sentence()));
      continue;
    }
    const QString chosen = way == Another
                               ? file_to_open(nullptr, opening_words("Open a lab book"), folder, kinds)
                               : new_file(nullptr, opening_words("Name the new lab book"), folder, kinds, "sunbreak");
    if (!chosen.isEmpty()) return chosen;
  }
}

}  // namespace

std::unique_ptr<MainWindow> open_window(QString path) {
  for (; !path.isEmpty();) {
    auto opened = book::Book::open(text_of(path));
    QString trouble;
    try {
      if (opened) return std::make_unique<MainWindow>(std::move(opened.value()));
      trouble = text_of(opened.problem().sentence());
    } catch (const std::exception& e) {
      trouble = text_of(book::trouble_with(text_of(path), e).sentence());
    }
    path = way_on(path, trouble);
  }
  return nullptr;
}

}  // namespace sunbreak::desktop
