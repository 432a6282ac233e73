#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>

#include "book/temporary_book.h"
#include "core/figures/figure_table.h"
#include "doors/doors.h"
#include "evaluation/evaluation.h"
#include "record/faults.h"
#include "record/kinds.h"
#include "report/html_report.h"

namespace sunbreak::doors {
namespace {

namespace fs = std::filesystem;
using namespace record;

/// Opens what is left of a lab book and works out all there is in it. Words where it was refused.
std::string open_and_use(const fs::path& file, Random& random, std::vector<TestRecord>& tests) {
  const auto opened = book::Book::open(file);
  if (!opened) return opened.problem().sentence();
  for (const record::Test& test : opened.value()->all<record::Test>()) {
    auto loaded = book::load_test(*opened.value(), test.id);
    if (!loaded) continue;
    const auto evaluations = evaluation::evaluate_all(*loaded);
    for (const auto& evaluation : evaluations)
      for (const auto& [id, view] : evaluation->views())
        if (const SweepFigures* f = evaluation->figures(id)) figure_values(FigureSource(view->layout, view->ppfd, *f));
    if (random() % 10 == 0) report::html_report(evaluations, {});
    tests.push_back(std::move(*loaded));
  }
  return {};
}

void tell(const fs::path& file) {
  if (!also_try) return;
  std::ifstream in(file, std::ios::binary);
  also_try({".sunbreak", std::string(std::istreambuf_iterator<char>(in), {})});
}

}  // namespace

Case try_book(const std::string& sound_file, const std::string& scratch_folder, Random& random) {
  const fs::path file = fs::path(scratch_folder) / "harmed.sunbreak";
  for (const char* tail : {"", "-wal", "-shm", ".lock"}) fs::remove(file.string() + tail);
  fs::remove_all(fs::path(scratch_folder) / "harmed-backups");
  fs::copy_file(sound_file, file);
  std::vector<TestRecord> tests;
  if (random() % 2 == 0) {
    std::fstream bytes(file, std::ios::in | std::ios::out | std::ios::binary);
    const auto size = static_cast<std::uint64_t>(fs::file_size(file));
    for (std::uint64_t i = 0, n = 1 + random() % 40; i < n; ++i) {
      bytes.seekp(static_cast<std::streamoff>(random() % size));
      bytes.put(static_cast<char>(random() % 256));
    }
    bytes.close();
    if (random() % 8 == 0) fs::resize_file(file, random() % size);
    tell(file);
    std::string words;
    try {
      words = open_and_use(file, random, tests);
    } catch (const SQLite::Exception& e) {
      words = e.what();  // damage met while reading: the application tells it as trouble_with()
    }
    return {"a lab book of garbled bytes", words, words.empty() ? Outcome::Taken : Outcome::RefusedWithPlace};
  }
  std::vector<std::pair<const Kind*, const Column*>> columns;
  for (const Kind& kind : kinds())
    for (const Column& c : kind.columns)
      if (kind.facts.published && kind.name() != "fixture" && (c.type == Type::Number || c.type == Type::Integer) &&
          c.refers_to.empty())
        columns.emplace_back(&kind, &c);
  const auto& [kind, column] = columns[random() % columns.size()];
  const std::vector<std::string> values = {fmt::format("{}", column->most * 2 + 10), "-1e308", "1e308", "9e999",
                                           "'four'"};
  const std::string value = values[random() % values.size()];
  const std::string what = fmt::format("{}.{} = {}", kind->name(), column->name, value);
  try {
    SQLite::Database db(file.string(), SQLite::OPEN_READWRITE);
    db.exec(fmt::format("UPDATE {} SET {} = {} WHERE id = (SELECT max(id) FROM {})", kind->name(), column->name, value,
                        kind->name()));
  } catch (const SQLite::Exception& e) {
    return {"a lab book with what cannot be", what + " -> " + e.what(),
            Outcome::RefusedWithPlace};  // by its own tables
  }
  tell(file);
  const std::string words = open_and_use(file, random, tests);
  if (!words.empty()) return {"a lab book with what cannot be", what + " -> " + words, Outcome::RefusedWithoutPlace};
  for (const TestRecord& t : tests)
    for (const Fault& f : t.faults)
      if (f.table == kind->name() && (f.of_all || t.apart(f.sweep_id) || faults_of(t).empty()))
        return {"a lab book with what cannot be", what, Outcome::SetApart};
  return {"a lab book with what cannot be", what, Outcome::TookImpossible};
}

Case book_case(Random& random) {
  static const std::string folder = [] {
    std::string name = (fs::temp_directory_path() / "sunbreak-doors-XXXXXX").string();
    return std::string(mkdtemp(name.data()));
  }();
  static const std::string sound = [] {
    const std::string file = folder + "/sound.sunbreak";
    auto opened = book::Book::open(file);
    book::add_test(*opened.value(), whole_test(), "whole");
    opened.value().reset();
    for (const char* tail : {"-wal", "-shm"}) fs::remove(file + tail);
    return file;
  }();
  return try_book(sound, folder, random);
}

}  // namespace sunbreak::doors
