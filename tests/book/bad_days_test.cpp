#include <fcntl.h>
#include <grp.h>
#include <gtest/gtest.h>
#include <signal.h>
#include <sys/file.h>
#include <sys/mount.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>
#include <functional>

#include "book/temporary_book.h"
#include "book/trouble.h"
#include "exchange/files/new_file.h"

using namespace sunbreak;
using namespace sunbreak::book;
namespace fs = std::filesystem;

namespace {

constexpr uid_t nobody = 65534;

/// Runs something as a user without rights in a process of its own; what it returns comes back as its words.
std::string as_nobody(const std::function<std::string()>& act) {
  int ends[2];
  if (pipe(ends) != 0) return "no pipe";
  const pid_t child = fork();
  if (child == 0) {
    close(ends[0]);
    if (setgroups(0, nullptr) != 0 || setgid(nobody) != 0 || setuid(nobody) != 0) _exit(1);
    const std::string words = act();
    const bool told = write(ends[1], words.data(), words.size()) == static_cast<ssize_t>(words.size());
    _exit(told ? 0 : 1);
  }
  close(ends[1]);
  std::string words;
  char part[512];
  for (ssize_t n; (n = read(ends[0], part, sizeof part)) > 0;) words.append(part, static_cast<std::size_t>(n));
  close(ends[0]);
  int status = 0;
  waitpid(child, &status, 0);
  return WIFEXITED(status) && WEXITSTATUS(status) == 0 ? words : "the other user's process died";
}

std::string how_it_opens(const fs::path& file, Book::Mode mode = Book::Mode::ReadWrite) {
  const auto book = Book::open(file, mode);
  if (!book) return book.problem().sentence();
  return book.value()->read_only() ? "read-only: " + book.value()->why_read_only() : "may be written";
}

bool tells(const std::string& words, const char* part) { return words.find(part) != std::string::npos; }

class BadDays : public testing::Test {
 protected:
  void SetUp() override {
    if (geteuid() != 0) GTEST_SKIP() << "other users' rights need root";
    book_.add_sweep();
    book_.close();
    fs::permissions(book_.folder(), fs::perms(0755));
    fs::permissions(book_.file(), fs::perms(0644));
  }
  TemporaryBook book_;
};

}  // namespace

TEST_F(BadDays, AFileThatMayOnlyBeReadIsReadAndNotCalledDamaged) {
  const std::string words = as_nobody([&] { return how_it_opens(book_.file()); });
  EXPECT_TRUE(tells(words, "read-only: the file may only be read")) << words;
}

TEST_F(BadDays, AFileOfNoRightsSaysSo) {
  fs::permissions(book_.file(), fs::perms(0));
  const std::string words = as_nobody([&] { return how_it_opens(book_.file()); });
  EXPECT_TRUE(tells(words, "you may not read it")) << words;
  EXPECT_FALSE(tells(words, "damaged")) << words;
}

TEST_F(BadDays, ASecondReaderSaysWhyItCannotRead) {
  const auto words_of = [](const fs::path& file) -> std::string {
    try {
      Book::read_beside(file);
      return "read";
    } catch (const BookTrouble& e) {
      EXPECT_EQ(trouble_with("another file", e).sentence(), e.problem().sentence());
      return e.what();
    }
  };
  EXPECT_EQ(words_of(book_.file()), "read");
  EXPECT_TRUE(tells(words_of(book_.folder() / "gone.sunbreak"), "gone.sunbreak cannot be opened"));
  EXPECT_TRUE(tells(words_of(book_.folder() / "gone.sunbreak"), "there is no such file"));
  fs::permissions(book_.file(), fs::perms(0));
  EXPECT_TRUE(tells(as_nobody([&] { return words_of(book_.file()); }), "you may not read it"));
}

TEST_F(BadDays, AFolderThatMayOnlyBeReadStillShowsTheBook) {
  fs::permissions(book_.file(), fs::perms(0666));
  fs::remove(book_.file().string() + ".lock");
  const std::string words = as_nobody([&] { return how_it_opens(book_.file()); });
  EXPECT_TRUE(tells(words, "read-only: its folder cannot be written to")) << words;
}

TEST_F(BadDays, ALockLeftBehindByAnotherUserHoldsNothing) {
  fs::permissions(book_.folder(), fs::perms(0777));
  fs::permissions(book_.file(), fs::perms(0666));
  const std::string lock = book_.file().string() + ".lock";
  std::ofstream(lock) << "";
  fs::permissions(lock, fs::perms(0644));
  const std::string words = as_nobody([&] { return how_it_opens(book_.file()); });
  EXPECT_EQ(words, "may be written");
}

TEST_F(BadDays, AnotherProcessesLockMakesItReadOnlyAndALinkIsTheSameBook) {
  const std::string lock = book_.file().string() + ".lock";
  const int held = ::open(lock.c_str(), O_RDWR | O_CREAT, 0644);
  ASSERT_EQ(flock(held, LOCK_EX), 0);
  const fs::path link = book_.folder() / "link.sunbreak";
  fs::create_symlink(book_.file(), link);
  for (const fs::path& name : {book_.file(), link})
    EXPECT_TRUE(tells(how_it_opens(name), "another window has this lab book open")) << name;
  close(held);
  EXPECT_EQ(how_it_opens(link), "may be written");
}

TEST_F(BadDays, AForbiddenFolderAndAFolderForAFileAreTold) {
  const fs::path forbidden = book_.folder() / "forbidden";
  fs::create_directory(forbidden);
  fs::permissions(forbidden, fs::perms(0700));
  const std::string words = as_nobody([&] { return how_it_opens(forbidden / "new.sunbreak"); });
  EXPECT_TRUE(tells(words, "Permission denied")) << words;
  EXPECT_TRUE(tells(how_it_opens(forbidden), "that is a folder"));
  EXPECT_TRUE(tells(how_it_opens(book_.folder() / (std::string(300, 'x') + ".sunbreak")), "shorten"));
}

TEST_F(BadDays, ABackupFolderThatCannotBeWrittenIsToldButDoesNotStopTheWork) {
  const fs::path backups = book_.folder() / (book_.file().stem().string() + "-backups");
  fs::remove_all(backups);
  fs::create_directory(backups);
  fs::permissions(backups, fs::perms(0555));
  fs::permissions(book_.folder(), fs::perms(0777));
  fs::permissions(book_.file(), fs::perms(0666));
  const std::string words = as_nobody([&]() -> std::string {
    const auto book = Book::open(book_.file());
    if (!book) return book.problem().sentence();
    return (book.value()->read_only() ? "read-only " : "writes ") + book.value()->notice();
  });
  EXPECT_TRUE(tells(words, "writes No backup of today could be written")) << words;
}

TEST_F(BadDays, LostWorkIsToldAtTheNextOpening) {
  const fs::path early = book_.folder() / "early.copy";
  {
    auto opened = Book::open(book_.file());
    Book* book = opened.value().get();
    const auto keep = [&](int station) {
      book->edit("reading", [&](Edit& e) { e.accept({0, 1, station, 400, "typed", utc_now()}); });
    };
    keep(0);
  }
  fs::copy_file(book_.file(), early);
  {
    auto opened = Book::open(book_.file());
    Book* book = opened.value().get();
    for (int station = 1; station < 8; ++station)
      book->edit("reading", [&](Edit& e) { e.accept({0, 1, station, 400, "typed", utc_now()}); });
  }
  EXPECT_EQ(Book::open(book_.file()).value()->notice(), "");
  fs::copy_file(early, book_.file(), fs::copy_options::overwrite_existing);
  fs::remove(book_.file().string() + "-wal");
  const std::string notice = Book::open(book_.file()).value()->notice();
  EXPECT_TRUE(tells(notice, "The last work may be missing: 7 readings")) << notice;
}

TEST_F(BadDays, AFullDiskIsAFullDisk) {
  const fs::path small = book_.folder() / "small";
  fs::create_directory(small);
  if (mount("tmpfs", small.c_str(), "tmpfs", 0, "size=600k") != 0) GTEST_SKIP() << "no small disk can be mounted here";
  fs::copy_file(book_.file(), small / "full.sunbreak");
  std::string words;
  int kept = 0;
  {
    auto opened = Book::open(small / "full.sunbreak");
    ASSERT_TRUE(opened.ok()) << opened.problem().sentence();
    try {
      for (; kept < 100000; ++kept)
        opened.value()->edit("reading", [&](Edit& e) { e.accept({0, 1, kept % 36, 400, "typed", utc_now()}); });
    } catch (const std::exception& e) {
      words = trouble_with(small / "full.sunbreak", e).sentence();
    }
    EXPECT_GE(static_cast<int>(opened.value()->all<Reading>().size()), kept) << "what was kept is there";
  }
  EXPECT_TRUE(tells(words, "the disk is full")) << words;
  EXPECT_FALSE(tells(how_it_opens(small / "full.sunbreak"), "damaged"));
  const auto problem = exchange::write_new_file(small / "page.html", std::string(1 << 20, 'x'));
  ASSERT_TRUE(problem);
  EXPECT_TRUE(tells(problem->sentence(), "free some space")) << problem->sentence();
  EXPECT_FALSE(fs::exists(small / "page.html"));
  for (const auto& entry : fs::directory_iterator(small))
    EXPECT_FALSE(tells(entry.path().string(), ".partial")) << "nothing half is left";
  umount(small.c_str());
}

TEST_F(BadDays, OnlyWhatSqliteCallsSoIsDamaged) {
  {
    std::fstream file(book_.file(), std::ios::in | std::ios::out | std::ios::binary);
    file.seekp(4096);
    file << std::string(8192, 'x');
  }
  EXPECT_TRUE(tells(how_it_opens(book_.file()), "is damaged"));
  std::ofstream(book_.folder() / "none.sunbreak") << std::string(5000, 'y');
  EXPECT_TRUE(tells(how_it_opens(book_.folder() / "none.sunbreak"), "is damaged"));
}

TEST_F(BadDays, OutputsKeepWhatIsThereAndFollowNoLink) {
  const fs::path target = book_.folder() / "target", link = book_.folder() / "link";
  std::ofstream(target) << "precious";
  fs::create_symlink(target, link);
  const auto text = [](const fs::path& file) {
    std::ifstream in(file);
    return std::string(std::istreambuf_iterator<char>(in), {});
  };
  for (const fs::path& name : {target, link}) {
    const auto problem = exchange::write_new_file(name, "new");
    ASSERT_TRUE(problem);
    EXPECT_TRUE(tells(problem->sentence(), "is there already")) << problem->sentence();
  }
  ASSERT_FALSE(exchange::write_new_file(link, "new", exchange::Existing::Replace));
  EXPECT_EQ(text(target), "precious") << "the link was replaced, not what it led to";
  EXPECT_EQ(text(link), "new");
  struct stat status {};
  ASSERT_EQ(stat(link.c_str(), &status), 0);
  EXPECT_EQ(status.st_mode & 0777, 0644u);
}
