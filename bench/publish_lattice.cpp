#include <fmt/format.h>
#include <sys/resource.h>

#include <chrono>
#include <cmath>
#include <filesystem>
#include <random>

#include "book/book.h"
#include "book/test_rows.h"
#include "core/bench/grid.h"
#include "publishing/publish.h"
#include "record/utc.h"

using namespace sunbreak;
namespace fs = std::filesystem;

namespace {

constexpr int heights = 10, settings = 6, side = 48, emitters = 6;
constexpr double floor_m = 1.2, light_of_each = 9;
constexpr double wanted_s = 60, wanted_mb = 500;  ///< at most, on two cores

/// PPFD under a board of Lambertian emitters over an open floor.
double light_at(double x_m, double y_m, double height_m) {
  double ppfd = 0;
  for (int i = 0; i < emitters; ++i)
    for (int j = 0; j < emitters; ++j) {
      const double dx = x_m - (0.2 + 0.16 * i), dy = y_m - (0.2 + 0.16 * j);
      const double r2 = dx * dx + dy * dy + height_m * height_m;
      ppfd += light_of_each * height_m * height_m / (r2 * r2);
    }
  return ppfd;
}

/// Ten heights by six settings, each a sweep of 48 × 48 stations, with a meter's scatter.
record::Id add_lattice(book::Book& book) {
  record::Id test_id = 0;
  std::mt19937 random(20);
  std::normal_distribution<double> scatter(1, 0.004);
  book.edit("lattice", [&](book::Edit& e) {
    record::Fixture fixture;
    fixture.name = "Lattice board";
    fixture.width_m = fixture.depth_m = 0.9;
    record::Bench floor;
    floor.name = "Open floor";
    floor.width_m = floor.depth_m = floor_m;
    for (auto* wall : {&floor.wall_left, &floor.wall_right, &floor.wall_back, &floor.wall_front}) *wall = "open";
    record::Test test;
    test.fixture_id = e.add(fixture);
    test.bench_id = e.add(floor);
    test.name = "Lattice";
    test.columns = test.rows = side;
    test.tariff_per_kwh = 0.3;
    test_id = test.id = e.add(test);
    const Layout layout = lay_out({floor_m, floor_m}, {GridKind::Cells, side, side, 0, 0, {}}).value();
    std::vector<record::Id> stops;
    for (int s = 0; s < settings; ++s) stops.push_back(e.add(record::Stop{0, test_id, 100 - 15.0 * s}));
    for (int h = 0; h < heights; ++h) {
      const double height_m = 0.7 - 0.05 * h;
      const record::Id rung = e.add(record::Rung{0, test_id, height_m});
      for (int s = 0; s < settings; ++s) {
        record::Sweep sweep;
        sweep.test_id = test_id;
        sweep.rung_id = rung;
        sweep.stop_id = stops[static_cast<std::size_t>(s)];
        sweep.columns = sweep.rows = side;
        sweep.power_w = 320 * (1 - 0.14 * s);
        sweep.id = e.add(sweep);
        for (int i = 0; i < side * side; ++i) {
          const Station& at = layout.stations[static_cast<std::size_t>(i)];
          const double ppfd = light_at(at.x_m, at.y_m, height_m) * (1 - 0.15 * s) * scatter(random);
          e.accept({0, sweep.id, i, std::round(10 * ppfd) / 10, "file", record::utc_text(1.78e9 + i)});
        }
      }
    }
  });
  return test_id;
}

double peak_mb() {
  rusage used{};
  getrusage(RUSAGE_SELF, &used);
  return static_cast<double>(used.ru_maxrss) / 1024;
}

}  // namespace

/// A lattice of 10 × 6 sweeps of 48 × 48 in every form: seconds, the size of each, and the most memory it took.
int main() {
  const fs::path folder = fs::temp_directory_path() / "sunbreak-publish-lattice";
  fs::remove_all(folder);
  fs::create_directories(folder);
  int status = 0;
  {
    auto book = book::Book::open(folder / "lattice.sunbreak");
    if (!book) return 2;
    const record::Id test = add_lattice(*book.value());
    publishing::Publication p;
    p.whole = std::make_shared<const record::TestRecord>(*book::load_test(*book.value(), test));
    const auto began = std::chrono::steady_clock::now();
    const auto seconds = [&] {
      return std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
    };
    p.evaluations = evaluation::evaluate_all(*p.whole);
    p.audit = [](const auto& evaluations, UnitSystem) {
      std::vector<evaluation::Audit> audits;
      for (const auto& evaluation : evaluations) audits.push_back(evaluation::audit(*evaluation, {}));
      return audits;
    };
    std::vector<const publishing::Form*> forms;
    for (const publishing::Form& form : publishing::forms()) forms.push_back(&form);
    publishing::publish(p, forms, folder / "out", exchange::Existing::Keep, [&](const publishing::Written& w) {
      std::uintmax_t bytes = 0;
      for (const fs::path& file : w.files) bytes += fs::file_size(file);
      fmt::print("{:10} at {:5.1f} s {:8.1f} MB in {} files{}\n", w.form->id, seconds(),
                 static_cast<double>(bytes) / 1e6, w.files.size(), w.problem ? ": " + w.problem->sentence() : "");
      if (w.problem) status = 1;
    });
    fmt::print("all forms: {:.1f} s (wanted: {:.0f} at most), {:.0f} MB of memory (wanted: {:.0f} at most)\n",
               seconds(), wanted_s, peak_mb(), wanted_mb);
    if (seconds() > wanted_s || peak_mb() > wanted_mb) status = 1;
  }
  fs::remove_all(folder);
  return status;
}
