#include <benchmark/benchmark.h>

#include "core/figures/area_curve.h"
#include "sample_sweep.h"

using namespace sunbreak;

namespace {

void all_figures(benchmark::State& state) {
  const auto side = static_cast<int>(state.range(0));
  const auto s = bench::sample_sweep(side, side);
  for (auto _ : state) benchmark::DoNotOptimize(sweep_figures(s.layout, s.ppfd, s.context));
}
BENCHMARK(all_figures)->Arg(6)->Arg(12)->Arg(48)->Arg(200)->Unit(benchmark::kMillisecond);

void field_at_one_centimeter(benchmark::State& state) {
  const auto s = bench::sample_sweep(48, 48);
  const Field field(s.layout, s.ppfd);
  for (auto _ : state) benchmark::DoNotOptimize(field.raster());
}
BENCHMARK(field_at_one_centimeter)->Unit(benchmark::kMillisecond);

void area_curve(benchmark::State& state) {
  const auto s = bench::sample_sweep(48, 48);
  const Raster raster = Field(s.layout, s.ppfd).raster();
  for (auto _ : state) benchmark::DoNotOptimize(AreaCurve(raster).area_m2_at_or_above(600));
}
BENCHMARK(area_curve)->Unit(benchmark::kMillisecond);

}  // namespace
