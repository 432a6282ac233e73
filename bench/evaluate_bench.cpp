#include <benchmark/benchmark.h>
#include <fmt/format.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cmath>
#include <filesystem>
#include <random>

#include "core/whole_light/elsewhere.h"
#include "core/whole_light/reference_rooms.h"
#include "evaluation/evaluation.h"
#include "evaluation/test_light.h"
#include "exchange/files/new_file.h"
#include "exchange/package/data_package.h"
#include "exchange/package/zip_archive.h"
#include "five_heights.h"

/// All that is worked out of one sweep: figures, checks, budget, grade; and what a large package takes to read.
namespace {

using namespace sunbreak;

record::TestRecord one_sweep(int side) {
  record::TestRecord t;
  t.fixture.id = t.bench.id = t.test.id = 1;
  t.test.fixture_id = t.test.bench_id = 1;
  t.test.columns = t.test.rows = side;
  t.rungs = {{1, 1, 0.45}};
  t.stops = {{1, 1, 100}};
  record::Sweep sweep{1, 1, 1, 1, "cells", side, side};
  sweep.power_w = 320;
  t.sweeps = {sweep};
  const Layout layout = lay_out({1.2, 1.2}, {GridKind::Cells, side, side, 0, 0, {}}).value();
  std::mt19937_64 random(20261127);
  for (std::size_t i = 0; i < layout.stations.size(); ++i) {
    const Station& s = layout.stations[i];
    const double bell = std::exp(-1.5 * (std::pow(s.x_m - 0.6, 2) + std::pow(s.y_m - 0.6, 2)));
    const double noise = 1 + 0.005 * (static_cast<double>(random() >> 11) * 0x1p-53 - 0.5);
    const auto id = static_cast<record::Id>(i + 1);
    t.readings.push_back({id, 1, static_cast<int>(i), (300 + 500 * bell) * noise, "live", "2026-03-14T09:30:00.000Z"});
    t.placements.push_back({id, 1, static_cast<int>(i), id, ""});
  }
  return t;
}

void evaluate_all(benchmark::State& state) {
  const record::TestRecord t = one_sweep(static_cast<int>(state.range(0)));
  for (auto _ : state) {
    const auto evaluation = evaluation::evaluate(t);
    benchmark::DoNotOptimize(evaluation->figures(1));
    benchmark::DoNotOptimize(evaluation->findings(1).size());
    benchmark::DoNotOptimize(evaluation->budget(1));
    benchmark::DoNotOptimize(evaluation->evidence(1));
  }
  state.SetLabel(std::to_string(t.readings.size()) + " stations");
}
BENCHMARK(evaluate_all)->Name("evaluate")->Arg(12)->Arg(48)->Arg(316)->Unit(benchmark::kMillisecond);

/// A found fixture in another room: what moving its height there costs, map and ± of the mean together.
void move_elsewhere(benchmark::State& state) {
  const WholeLight found = whole_light(bench::five_heights());
  if (!found.fits) return state.SkipWithError(found.reason.c_str());
  const Room room = white_tent({3, 4});
  const Elsewhere elsewhere(found, room, evaluation::room_layout(room));
  double height_m = 0.4;
  for (auto _ : state) {
    height_m = height_m > 1 ? 0.4 : height_m + 0.01;
    benchmark::DoNotOptimize(elsewhere.at({2, 3, 1.2, 1.2}, height_m));
  }
}
BENCHMARK(move_elsewhere)->Name("elsewhere-height-2x3")->Unit(benchmark::kMillisecond);

/// A package read in a process of its own, compared with what it states, as an import does; and the most memory of it.
void read_package(benchmark::State& state) {
  const auto file = std::filesystem::temp_directory_path() / fmt::format("sunbreak-bench-{}.zip", getpid());
  const auto problem = exchange::write_new_file(
      file, exchange::zip_bytes(exchange::make_package(one_sweep(static_cast<int>(state.range(0))))));
  if (problem) return state.SkipWithError(problem->sentence().c_str());
  double most_mb = 0;
  for (auto _ : state) {
    const pid_t child = fork();
    if (child == 0) {
      execl("/proc/self/exe", "evaluate_bench", "--read", file.c_str(), nullptr);
      _exit(127);
    }
    int status = 0;
    rusage use{};
    wait4(child, &status, 0, &use);
    if (status != 0) state.SkipWithError("the package was not read");
    most_mb = static_cast<double>(use.ru_maxrss) / 1024;
  }
  state.counters["most_MB"] = most_mb;
  std::filesystem::remove(file);
}
BENCHMARK(read_package)->Arg(500)->Unit(benchmark::kMillisecond)->Iterations(1);

}  // namespace

int main(int argc, char** argv) {
  if (argc == 3 && std::string_view(argv[1]) == "--read") {
    std::vector<std::string> altered;
    return exchange::read_package_file(argv[2], &altered) && altered.empty() ? 0 : 1;
  }
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
}
