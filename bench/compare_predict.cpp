#include <fmt/format.h>

#include <chrono>
#include <cmath>
#include <filesystem>

#include "array_file.h"
#include "core/optics/fixture_shapes.h"
#include "core/optics/room_light.h"
#include "peer.h"

using namespace sunbreak;
using bench::json;

namespace {

constexpr int rounds = 11;

double ms_since(std::chrono::steady_clock::time_point begun) {
  return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begun).count();
}

}  // namespace

/// 1,000 emitters on 2,304 stations in a room with walls, form factors cached: ours and the NumPy script's in turn.
int main(int argc, char** argv) {
  if (argc != 2) return 2;
  const std::filesystem::path file =
      std::filesystem::temp_directory_path() / fmt::format("predict-arrays-{}", getpid());
  try {
    const Room room{1.2, 1.2, 2.0, {0.82, 0.82, 0.82, 0.82, 0.7, 0.25}};
    auto lamp = joined(placed(board(1.0, 1.0, 25, 20, 500, 1), {0.6, 0.6, 0.45}),
                       placed(board(0.9, 0.9, 25, 20, 400, 2.6), {0.6, 0.6, 0.46}));
    std::vector<Vec3> stations;
    for (int j = 0; j < 48; ++j)
      for (int i = 0; i < 48; ++i) stations.push_back({(i + 0.5) * 0.025, (j + 0.5) * 0.025, 0});
    auto begun = std::chrono::steady_clock::now();
    const RoomLight light(room);
    const StationFactors factors = light.stations(stations);
    light.predict(lamp, factors);
    const double first_ms = ms_since(begun);

    const ModelArrays a = light.arrays();
    std::vector<double> emitters;
    for (const Emitter& e : lamp)
      emitters.insert(emitters.end(), {e.place_m.x, e.place_m.y, e.place_m.z, e.direction.x, e.direction.y,
                                       e.direction.z, e.ppf_umol_s, e.exponent});
    const std::size_t fine = a.fine_middles.size(), coarse = a.coarse_areas_m2.size();
    bench::ArrayFile arrays(file);
    arrays.add("emitters", emitters, {lamp.size(), 8});
    arrays.add("stations", bench::flat(stations), {stations.size(), 3});
    arrays.add("station_normals", bench::flat(std::vector<Vec3>(stations.size(), straight_up)), {stations.size(), 3});
    arrays.add("middles", bench::flat(a.fine_middles), {fine, 3});
    arrays.add("normals", bench::flat(a.fine_normals), {fine, 3});
    arrays.add("areas", a.fine_areas_m2, {fine});
    arrays.add("reflectances", a.fine_reflectances, {fine});
    arrays.add("weights", a.neighbor_weights, {fine, 4});
    arrays.add("coarse_areas", a.coarse_areas_m2, {coarse});
    arrays.add("coarse_reflectances", a.coarse_reflectances, {coarse});
    arrays.add("exchange", a.exchange, {coarse, coarse});
    arrays.add("coarse_of_fine", a.coarse_of_fine, {fine});
    arrays.add("neighbors", a.neighbors, {fine, 4});
    arrays.add("factors", factors.factors(), {stations.size(), fine});
    bench::Peer peer(argv[1]);
    peer.send(arrays.header());

    std::vector<double> ours_ms, peer_ms;
    for (int round = 0; round < rounds; ++round) {
      begun = std::chrono::steady_clock::now();
      const Prediction p = light.predict(lamp, factors);
      ours_ms.push_back(ms_since(begun));
      const json answer = peer.ask();
      peer_ms.push_back(answer["ms"]);
      for (std::size_t i = 0; i < stations.size(); ++i) {
        const double ours = p.direct[i] + p.reflected[i], theirs = answer["ppfd"][i];
        if (std::abs(ours - theirs) > 1e-5 * theirs)
          throw std::runtime_error(fmt::format("station {}: {} and {}", i, ours, theirs));
      }
    }
    std::filesystem::remove(file);
    fmt::print("predict-1000x2304 {:.3f} {:.3f} {:.1f}\n", bench::median(ours_ms), bench::median(peer_ms),
               bench::median(peer_ms) / bench::median(ours_ms));
    fmt::print(stderr, "predict-1000x2304: the first call, with the room's and the stations' factors, took {:.0f} ms\n",
               first_ms);
    return 0;
  } catch (const std::exception& e) {
    std::filesystem::remove(file);
    fmt::print(stderr, "predict-1000x2304: {}\n", e.what());
    return 1;
  }
}
