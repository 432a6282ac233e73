#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>
#include <sys/resource.h>

#include <chrono>
#include <cstdio>
#include <filesystem>
#include <random>

#include "book/backup.h"
#include "book/plan.h"
#include "book/test_rows.h"
#include "evaluation/evaluation.h"
#include "pictures/clean_picture.h"
#include "pictures/pixels.h"

/// A lab book with 500 pictures of 4 MB: opening it, working in it and its daily backup, each in a process of its own,
/// beside what a book costs whose pictures are checked and copied with all else.
namespace {

using namespace sunbreak;
namespace fs = std::filesystem;

constexpr int pictures_kept = 500, looked_at = 40, stations_read = 100;
constexpr int width = 2200, height = 1600;  // of noise: about 4 MB

double now_ms() {
  return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

double most_mb() {
  rusage use{};
  getrusage(RUSAGE_SELF, &use);
  return static_cast<double>(use.ru_maxrss) / 1024;
}

/// Photographs that no encoder makes small.
std::string noise(std::uint64_t seed) {
  std::mt19937_64 random(seed);
  pictures::Rgb8 p{width, height, std::vector<std::uint8_t>(3 * std::size_t{width} * height)};
  for (std::size_t i = 0; i + 8 <= p.bytes.size(); i += 8) {
    const std::uint64_t bits = random();
    std::copy_n(reinterpret_cast<const std::uint8_t*>(&bits), 8, &p.bytes[i]);
  }
  return pictures::jpeg_of(p, 95);
}

record::Picture attach(book::Edit& e, record::Id test, const std::string& file) {
  record::Picture p;
  p.test_id = test;
  p.digest = e.keep_picture(file);
  p.media_type = "image/jpeg";
  p.width_px = width, p.height_px = height;
  p.size_bytes = static_cast<int>(file.size());
  p.added_at = book::utc_now();
  p.id = e.add(p);
  return p;
}

void make(const fs::path& file) {
  auto opened = std::move(book::Book::open(file).value());
  const record::Id test = book::new_test(*opened);
  for (int i = 0; i < pictures_kept; ++i) {
    const std::string picture = noise(20261130 + static_cast<std::uint64_t>(i));
    opened->edit("picture", [&](book::Edit& e) { attach(e, test, picture); });
  }
  opened->forget_history();
}

/// A day's work: open, evaluate, read stations, look at pictures, attach one, undo and redo.
int work(const fs::path& file) {
  const double began = now_ms();
  const auto opened = std::move(book::Book::open(file).value());
  const double open_ms = now_ms() - began, open_mb = most_mb();
  record::TestRecord test = *book::load_test(*opened, 1);
  opened->on_change = [&](const book::Change& change) { book::refresh_test(test, *opened, change); };
  record::Id sweep = 0;
  opened->edit("sweep",
               [&](book::Edit& e) { sweep = book::sweep_for(e, test, test.rungs[0].id, test.stops[0].id).id; });
  const double reading_began = now_ms();
  for (int i = 0; i < stations_read; ++i) {
    opened->edit("reading", [&](book::Edit& e) { e.accept({0, sweep, i % 36, 500.0 + i, "typed", book::utc_now()}); });
    evaluation::evaluate(test)->figures(sweep);
  }
  const double reading_ms = (now_ms() - reading_began) / stations_read;
  for (int i = 0; i < looked_at; ++i)
    if (!pictures::pixels_of(opened->picture(test.pictures[static_cast<std::size_t>(i)].digest).value(), 860)) return 1;
  const std::string another = noise(1);
  opened->edit("picture", [&](book::Edit& e) { attach(e, 1, another); });
  const double undo_began = now_ms();
  opened->undo();
  opened->redo();
  const double undo_ms = (now_ms() - undo_began) / 2;
  fmt::print("{:.1f} {:.1f} {:.2f} {:.2f} {:.1f}\n", open_ms, open_mb, reading_ms, undo_ms, most_mb());
  return 0;
}

struct Told {
  double open_ms = 0, open_mb = 0, reading_ms = 0, undo_ms = 0, most_mb = 0;
};

Told told_by_process(const fs::path& file) {
  const std::string command = fmt::format("/proc/{}/exe --work '{}'", getpid(), file.string());
  Told t;
  FILE* out = popen(command.c_str(), "r");
  if (!out ||
      std::fscanf(out, "%lf %lf %lf %lf %lf", &t.open_ms, &t.open_mb, &t.reading_ms, &t.undo_ms, &t.most_mb) != 5)
    fmt::print("the work was not done\n");
  if (out) pclose(out);
  return t;
}

/// What opening costs where every page is looked at and the day's backup has all of it.
double whole_ms(const fs::path& file, const fs::path& copy) {
  const double began = now_ms();
  SQLite::Database db(file.string(), SQLite::OPEN_READWRITE);
  db.execAndGet("PRAGMA quick_check");
  SQLite::Statement vacuum(db, "VACUUM INTO ?");
  vacuum.bind(1, copy.string());
  vacuum.exec();
  return now_ms() - began;
}

}  // namespace

int main(int argc, char** argv) {
  if (argc == 3 && std::string_view(argv[1]) == "--work") return work(argv[2]);
  if (argc == 3 && std::string_view(argv[1]) == "--make") return make(argv[2]), 0;
  const fs::path folder = fs::temp_directory_path() / fmt::format("sunbreak-bench-{}", getpid());
  fs::create_directories(folder);
  const fs::path file = folder / "book.sunbreak";
  make(file);
  fmt::print("{} pictures, {} MB together\n", pictures_kept, fs::file_size(file) >> 20);
  for (const char* day : {"first of the day, with its backup", "again"}) {
    if (std::string_view(day).starts_with("first")) fs::remove(book::Book::newest_backup(file).value_or(""));
    const Told t = told_by_process(file);
    fmt::print(
        "  opened, {}: {:.0f} ms, {:.0f} MB; a reading with its figures {:.1f} ms; undo {:.1f} ms; at most {:.0f} MB\n",
        day, t.open_ms, t.open_mb, t.reading_ms, t.undo_ms, t.most_mb);
  }
  const double whole = whole_ms(file, folder / "whole.sunbreak");
  const double ours = told_by_process(file).open_ms;
  fmt::print("pictures-500-open {:.1f} {:.1f} {:.1f}\n", ours, whole, whole / ours);
  fs::remove_all(folder);
}
