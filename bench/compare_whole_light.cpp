#include <fmt/format.h>

#include <chrono>
#include <filesystem>

#include "array_file.h"
#include "core/optics/lobe_room.h"
#include "core/whole_light/fit_parameters.h"
#include "five_heights.h"
#include "peer.h"

using namespace sunbreak;
using bench::json;

namespace {

constexpr int rounds = 5;
/// Rounds that the peer may take, fewer than it wants: each costs it most of a minute, and the ratio is at least this.
constexpr int peer_rounds = 2;

double seconds_since(std::chrono::steady_clock::time_point begun) {
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
}

}  // namespace

/// Whole light of five heights of 144 stations, cold: ours and the same least squares by SciPy over NumPy sums.
int main(int argc, char** argv) {
  if (argc != 2) return 2;
  const std::filesystem::path file =
      std::filesystem::temp_directory_path() / fmt::format("whole-light-arrays-{}", getpid());
  try {
    const WholeLightQuestion q = bench::five_heights();
    std::vector<double> ours_s;
    WholeLight found;
    for (int round = 0; round < rounds; ++round) {
      const auto begun = std::chrono::steady_clock::now();
      found = whole_light(q);
      ours_s.push_back(seconds_since(begun));
    }
    if (!found.fits) throw std::runtime_error(found.reason);

    std::vector<double> heights;
    for (const FitSweep& sweep : q.sweeps) heights.push_back(sweep.height_m);
    const FitParameters parameters(q, heights);
    std::vector<double> believed, belief_sd;
    int first_side = -1;
    for (Eigen::Index k = 0; k < parameters.size(); ++k) {
      believed.push_back(parameters[k].believed);
      belief_sd.push_back(parameters[k].sd);
      if (first_side < 0 && parameters[k].kind == FitParameter::Kind::Side) first_side = static_cast<int>(k);
    }
    Room shape = q.room;
    for (std::size_t side = 0; side < faces.size(); ++side)
      set_reflectance(shape.reflectance, faces[side], q.sides[side].value);
    std::vector<Vec3> stations;
    for (const Station& s : q.sweeps[0].layout.stations) stations.push_back({s.x_m, s.y_m, 0});
    const LobeRoomArrays a = LobeRoom(shape).arrays(stations);
    std::vector<Vec3> emitters;
    for (const LobeSource& s : HungFixture(q.outline).unit(0, {}, {})) emitters.push_back(s.place_m);
    std::vector<double> read, sd, peaks;
    for (const FitSweep& sweep : q.sweeps)
      for (const double ppfd : sweep.ppfd) read.push_back(ppfd), sd.push_back(q.noise * ppfd);
    std::vector<std::pair<int, int>> family;
    for (const Lobe& lobe : lobes) {
      family.emplace_back(static_cast<int>(lobe.shape), lobe.exponent);
      peaks.push_back(lobe_peak(lobe));
    }
    const std::size_t fine = a.fine_areas_m2.size(), coarse = a.coarse_areas_m2.size();
    bench::ArrayFile arrays(file);
    arrays.add("stations", bench::flat(stations), {stations.size(), 3});
    arrays.add("emitters", bench::flat(emitters), {emitters.size(), 3});
    arrays.add("points", bench::flat(a.points), {a.points.size(), 3});
    arrays.add("normals", bench::flat(a.normals), {a.normals.size(), 3});
    arrays.add("fine_areas", a.fine_areas_m2, {fine});
    arrays.add("coarse_areas", a.coarse_areas_m2, {coarse});
    arrays.add("mutual", a.mutual_m2, {coarse, coarse});
    arrays.add("gathering_coarse", a.gathering_coarse, {stations.size(), coarse});
    arrays.add("gathering_fine", a.gathering_fine, {stations.size(), fine});
    arrays.add("read", read, {read.size()});
    arrays.add("sd", sd, {sd.size()});
    arrays.add("coarse_of_fine", a.coarse_of_fine, {fine});
    arrays.add("side_of_fine", a.side_of_fine, {fine});
    arrays.add("side_of_coarse", a.side_of_coarse, {coarse});
    json numbers = json::parse(arrays.header());
    numbers.update({{"heights", heights},
                    {"lobes", family},
                    {"peaks", peaks},
                    {"round_lobes", round_lobes},
                    {"usual_flux", found.ppf_umol_s.value},
                    {"believed", believed},
                    {"belief_sd", belief_sd},
                    {"first_side", first_side},
                    {"rounds", peer_rounds}});
    bench::Peer peer(argv[1]);
    peer.send(numbers.dump());
    const json answer = peer.ask();
    std::filesystem::remove(file);
    const double theirs_s = answer["s"], theirs = answer["ppf"];
    fmt::print("whole-light-5x144 {:.0f} {:.0f} {:.1f}\n", 1000 * bench::median(ours_s), 1000 * theirs_s,
               theirs_s / bench::median(ours_s));
    fmt::print(stderr, "whole-light-5x144: whole PPF {:.1f} and {:.1f} µmol/s; the peer was stopped after {} rounds\n",
               found.ppf_umol_s.value, theirs, peer_rounds);
    return 0;
  } catch (const std::exception& e) {
    std::filesystem::remove(file);
    fmt::print(stderr, "whole-light-5x144: {}\n", e.what());
    return 1;
  }
}
