#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/optics/room_light.h"
#include "core/quantity/normal_deviates.h"
#include "record/test_record.h"

/// Fixtures made up for trials of line-ups: measured on one bench by one set of meters, which err alike for all of
/// them, while each walk, height and reading errs for itself; their truth is planted.
namespace sunbreak::trial {

/// What all fixtures of a line-up share: the bench, and how far its meters are off.
struct LineUpBench {
  record::Bench bench;
  Room room;
  std::shared_ptr<const struct KnownRoom> known;  ///< its model
  double height_m = 0.4;
  std::vector<record::Meter> meters;
  double sensor = 1;  ///< calibration and spectral response together
  double cosine = 0;  ///< share lost or won where the light comes in lowest
  double wall = 1;
  double edge_x_m = 0, edge_y_m = 0;  ///< the footprint's true sides are so much longer
};

/// What is true of a fixture at full, at the bench's height.
struct LineUpTruth {
  double mean_ppfd = 0, lowest_over_mean = 0, watts = 0;
  double canopy_efficacy = 0;  ///< of the true footprint
};

struct TrialFixture {
  record::TestRecord record;
  LineUpTruth truth;
  std::vector<Emitter> emitters;  ///< of 1 µmol/s, about their middle
  double ppf_umol_s = 0;
  double bend = 0;       ///< by which its light is brighter along the edge than its emitters make it
  double dim_power = 1;  ///< light goes with the dial to this power
  double light_factor(double percent) const;
  double watts(double percent) const;
};

/// A fixture to be: where a truth is not wanted it is drawn.
struct WantedFixture {
  std::optional<double> mean_ppfd, lowest_over_mean, canopy_efficacy;
};

LineUpBench line_up_bench(NormalDeviates& draw, bool open = false);

/// A fixture on the bench, walked at its height, or at three heights about it, with a stair or without.
enum class Walks { OneHeight, ThreeHeights };
TrialFixture trial_fixture(const LineUpBench& bench, const WantedFixture& wanted, int number, NormalDeviates& draw,
                           Walks walks = Walks::OneHeight, bool with_stair = false);

/// Its true light in another room at a height, at the cells of a floor, without the bend.
std::vector<double> true_light(const TrialFixture& fixture, const Room& room, double height_m, const Layout& layout);

}  // namespace sunbreak::trial
