#include "book/flip_rounds.h"

#include <fmt/format.h>

#include <fstream>
#include <map>
#include <random>
#include <sstream>

#include "book/book.h"
#include "book/test_rows.h"
#include "record/faults.h"

namespace sunbreak::book {
namespace fs = std::filesystem;
namespace {

/// Every row of a lab book as text, by kind and id, as the product reads it: what is shelved, and tests with all that
/// hangs on them.
struct Contents {
  std::map<std::string, std::string> rows;
  bool told = false;
};

std::string text_of_row(const Kind& kind, const void* row) {
  std::string text;
  for (const Column& column : kind.columns) {
    const Value value = column.get(row);
    if (const auto* whole = std::get_if<std::int64_t>(&value))
      text += fmt::format("{}|", *whole);
    else if (const auto* number = std::get_if<double>(&value))
      text += fmt::format("{}|", *number);
    else if (const auto* words = std::get_if<std::string_view>(&value))
      text += fmt::format("'{}'|", *words);
    else
      text += "-|";
  }
  return text;
}

Contents contents_of(const Book& book) {
  Contents all;
  const auto shelve = [&]<typename Record>(Record*) {
    for (const Record& row : book.all<Record>())
      all.rows[fmt::format("shelf {} {}", kind_of<Record>().name(), row.id)] = text_of_row(kind_of<Record>(), &row);
  };
  shelve(static_cast<Test*>(nullptr)), shelve(static_cast<Fixture*>(nullptr)), shelve(static_cast<Bench*>(nullptr));
  shelve(static_cast<Meter*>(nullptr)), shelve(static_cast<CropTarget*>(nullptr));
  shelve(static_cast<CheckLampReading*>(nullptr)), shelve(static_cast<FittedLuxFactor*>(nullptr));
  shelve(static_cast<SavedLineUp*>(nullptr)), shelve(static_cast<Guest*>(nullptr));
  for (const Test& test : book.all<Test>()) {
    auto record = load_test(book, test.id);
    if (!record) continue;
    all.told = all.told || !record->faults.empty();
    for (TableRows& rows : tables_of(*record))
      for (std::size_t i = 0; i < rows.size(); ++i)
        all.rows[fmt::format("test {} {} {}", test.id, rows.kind().name(), rows.kind().id(rows.at(i)))] =
            text_of_row(rows.kind(), rows.at(i));
  }
  all.told = all.told || !book.damaged().empty();
  return all;
}

}  // namespace

FlipRounds flip_and_read(const fs::path& sound, const fs::path& folder, int flips, unsigned seed) {
  const auto opened = Book::open(sound, Book::Mode::ReadOnly);
  const Contents expected = contents_of(*opened.value());
  std::stringstream whole;
  whole << std::ifstream(sound, std::ios::binary).rdbuf();
  const std::string bytes = whole.str();
  std::mt19937 random(seed);
  FlipRounds rounds;
  for (int i = 0; i < flips; ++i) {
    std::string changed = bytes;
    const std::size_t at = std::uniform_int_distribution<std::size_t>(0, bytes.size() - 1)(random);
    changed[at] = static_cast<char>(changed[at] ^ std::uniform_int_distribution<int>(1, 255)(random));
    const fs::path copy = folder / "flipped.sunbreak";
    std::ofstream(copy, std::ios::binary) << changed;
    ++rounds.flips;
    try {
      const auto book = Book::open(copy, Book::Mode::ReadOnly);
      if (!book) {
        ++rounds.refused;
        continue;
      }
      const Contents found = contents_of(*book.value());
      if (found.told) {
        ++rounds.told;
      } else if (found.rows == expected.rows) {
        ++rounds.same;
      } else {
        ++rounds.silent;
        if (!rounds.first.empty()) continue;
        for (const auto& [name, row] : expected.rows)
          if (const auto there = found.rows.find(name); there == found.rows.end() || there->second != row) {
            rounds.first = fmt::format("byte {}: {} was {}, is {}", at, name, row.substr(0, 80),
                                       there == found.rows.end() ? "gone" : there->second.substr(0, 80));
            break;
          }
        if (rounds.first.empty()) rounds.first = fmt::format("byte {}: rows that were not there", at);
      }
    } catch (const std::exception&) {
      ++rounds.refused;
    }
  }
  return rounds;
}

}  // namespace sunbreak::book
