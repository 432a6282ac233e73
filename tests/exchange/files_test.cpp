#include <fcntl.h>
#include <gtest/gtest.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <string>

#include "exchange/files/companions.h"
#include "exchange/files/new_file.h"
#include "exchange/files/read_file.h"
#include "exchange/files/targets.h"

namespace sunbreak::exchange {
namespace {

namespace fs = std::filesystem;

class Files : public testing::Test {
 protected:
  void SetUp() override {
    fs::remove_all(folder_);
    fs::create_directories(folder_);
  }
  void TearDown() override { fs::remove_all(folder_); }

  fs::path put(const std::string& name, const std::string& content) {
    std::ofstream(folder_ / name, std::ios::binary) << content;
    return folder_ / name;
  }
  /// The first bytes of a lab book are enough to be one to those that write.
  fs::path lab_book(const std::string& name) { return put(name, std::string("SQLite format 3\0", 16)); }
  std::size_t files_there() const {
    return static_cast<std::size_t>(std::distance(fs::directory_iterator(folder_), fs::directory_iterator()));
  }

  fs::path folder_ = fs::path(testing::TempDir()) / ("files with blanks\nand lines " + std::to_string(::getpid()) +
                                                     testing::UnitTest::GetInstance()->current_test_info()->name());
};

TEST_F(Files, ALabBookAndWhatStandsBesideItAreNeverWrittenOver) {
  const fs::path book = lab_book("grow book.sunbreak");
  const std::string before = read_file(book).value();
  fs::create_symlink(book, folder_ / "link");
  fs::create_hard_link(book, folder_ / "second name");
  for (const fs::path& target : {book, folder_ / "link", folder_ / "second name", folder_ / "." / "grow book.sunbreak"})
    for (const Existing existing : {Existing::Keep, Existing::Replace}) {
      const auto refused = write_new_file(target, "a page", existing);
      ASSERT_TRUE(refused) << target;
      EXPECT_EQ(refused->means, "it was left as it is");
    }
  for (const fs::path& beside :
       {fs::path(book.string() + "-wal"), fs::path(book.string() + "-shm"), fs::path(book.string() + "-journal"),
        lock_beside(book), cache_beside(book), backups_beside(book)}) {
    const auto refused = write_new_file(beside, "a page", Existing::Keep);
    ASSERT_TRUE(refused) << beside;
    EXPECT_NE(refused->seen.find("belongs to the lab book"), std::string::npos);
  }
  fs::create_directories(backups_beside(book) / "pictures");
  EXPECT_TRUE(write_new_file(backups_beside(book) / "pictures/new.html", "a page", Existing::Keep));
  EXPECT_FALSE(write_companion(backups_beside(book) / "pictures/new.html", "a picture"));
  EXPECT_FALSE(write_new_file(folder_ / "no book.lock", "beside nothing", Existing::Keep));
  EXPECT_EQ(read_file(book).value(), before);
}

TEST_F(Files, WhatIsReadFromIsNotWrittenOverByAnyName) {
  const HeldSources held;
  const fs::path source = put("package.zip", "PK");
  ASSERT_TRUE(read_file(source));
  fs::create_hard_link(source, folder_ / "other name.zip");
  fs::create_symlink(source, folder_ / "link.zip");
  for (const char* name : {"package.zip", "other name.zip", "link.zip"})
    EXPECT_TRUE(write_new_file(folder_ / name, "a page", Existing::Replace)) << name;
  EXPECT_EQ(read_file(source).value(), "PK");
  const fs::path other = put("page.html", "old");
  EXPECT_EQ(read_back(other).value(), "old") << "to be held against what is new";
  EXPECT_FALSE(write_new_file(other, "new", Existing::Replace));
  EXPECT_EQ(read_file(other).value(), "new");
}

TEST_F(Files, DevicesPipesAndFoldersAreNoTargets) {
  const fs::path pipe = folder_ / "pipe";
  ASSERT_EQ(::mkfifo(pipe.c_str(), 0600), 0);
  for (const fs::path& target : {fs::path("/dev/null"), pipe, folder_})
    EXPECT_TRUE(write_new_file(target, "a page", Existing::Replace)) << target;
  EXPECT_TRUE(fs::is_character_file("/dev/null"));
  EXPECT_TRUE(fs::is_fifo(pipe));
}

TEST_F(Files, WhatAWriterLeftThatWasEndedIsClearedAndWhatOneWritesIsNot) {
  put(".0123456789abcdef.partial", "half");
  const fs::path held = put(".fedcba9876543210.partial", "half");
  const int other = ::open(held.c_str(), O_RDONLY | O_CLOEXEC);
  ASSERT_EQ(::flock(other, LOCK_EX | LOCK_NB), 0);
  put(".another.partial", "of somebody else");
  EXPECT_FALSE(write_new_file(folder_ / "page.html", "a page"));
  EXPECT_FALSE(fs::exists(folder_ / ".0123456789abcdef.partial"));
  EXPECT_TRUE(fs::exists(held));
  EXPECT_EQ(files_there(), 3u);
  ::close(other);
}

TEST_F(Files, OneReaderTellsWhatKeepsItFromReading) {
  EXPECT_NE(read_file("/dev/zero", 1 << 20).problem().seen.find("larger than 1 MB"), std::string::npos);
  EXPECT_NE(read_file(folder_).problem().seen.find("is a folder"), std::string::npos);
  EXPECT_NE(read_file(folder_ / "none").problem().seen.find("No such file"), std::string::npos);
  const fs::path large = put("large.csv", std::string((1 << 20) + 1, '1'));
  EXPECT_FALSE(read_file(large, 1 << 20));
  EXPECT_EQ(read_file(put("just.csv", std::string(1 << 20, '1')), 1 << 20).value().size(), std::size_t{1} << 20);
  EXPECT_EQ(read_file(put("empty.csv", "")).value(), "");
}

}  // namespace
}  // namespace sunbreak::exchange
