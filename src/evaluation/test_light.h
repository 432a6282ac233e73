#pragma once

#include <atomic>
#include <memory>
#include <mutex>
#include <optional>
#include <string>
#include <vector>

#include "core/power/monotone_cubic.h"
#include "core/settle/settle_maps.h"
#include "core/uncertainty/budget.h"
#include "core/whole_light/between_heights.h"
#include "core/whole_light/elsewhere.h"
#include "core/whole_light/whole_light.h"
#include "evaluation/light_question.h"

namespace sunbreak::evaluation {

/// A sweep that nobody walked, with its figures and their ± (k = 2; NaN where none is known).
struct PredictedFigures {
  double height_m = 0, percent = 0;
  BetweenWay way = BetweenWay::Model;
  double left_out_rms = unread;
  Layout layout;
  std::vector<double> ppfd, expanded;  ///< one a station, with what all sweeps share
  SweepFigures figures;
  std::vector<double> figure_expanded;  ///< in the order of figures()
};

/// A test restated in another room.
struct RestatedFigures {
  Room room;
  HangingPattern pattern;
  double height_m = 0, percent = 0;
  Layout layout;
  std::vector<double> ppfd;
  SweepFigures figures;
  FoundValue mean_ppfd, efficacy_umol_j;  ///< with the sensor's calibration
};

/// A test's first setting at one measured height in one of the reference rooms.
struct ReferenceFigures {
  std::string room;  ///< "open floor" or "white tent"
  double height_m = 0;
  FoundValue mean_ppfd, efficacy_umol_j;
  double lowest_over_mean = 0;
};

/// How many of a fixture a room wants.
struct RoomAnswer {
  HangingPattern pattern;
  double height_m = 0, percent = 100;
  FoundValue mean_ppfd;
  double lowest_over_mean = 0;
  std::optional<double> power_w;  ///< of all together
  int count() const { return pattern.columns * pattern.rows; }
};

/// A test's whole light with everything that comes from it.
class TestLight {
 public:
  /// Takes a second or two. `budget` is of the first sweep, for what its figures share with all others.
  /// Where `stop` asks for an end it means nothing, and is to be thrown away.
  TestLight(const TestRecord& test_record, const SweepViews& views, const BudgetQuestion& question,
            const Budget& budget, const std::stop_token& stop = {});
  TestLight(const TestLight&) = delete;  // its parts refer to each other
  TestLight& operator=(const TestLight&) = delete;

  const LightQuestion& question() const { return question_; }
  const WholeLight& found() const { return found_; }
  /// Each height predicted from the others. This, and what is between the heights, takes a second or two more when it
  /// is first asked for.
  const std::vector<LeftOutHeight>& left_out() const { return inner().left_out; }
  /// Works that out where it is not known; not where `stop` asks for an end first.
  void work_out_left_out(const std::stop_token& stop) const;
  /// Whether that was asked for and is there: who may not wait asks this first.
  bool left_out_known() const { return inner_there_; }
  const BetweenHeights& between() const { return inner().between; }
  BetweenWay way() const { return inner().between.way(); }
  std::pair<double, double> heights_m() const { return inner().between.reach_m(); }
  std::pair<double, double> percents() const;

  /// With what the sensor is sure to; per joule with what the wall meter is sure to, too. NaN where it does not fit.
  FoundValue ppf_umol_s() const;
  FoundValue efficacy_umol_j() const;

  /// The question's sweep that is fitted, as the fit makes it; empty for a sweep that it does not know.
  std::vector<double> fitted_ppfd(Id sweep_id) const;
  /// Relative deviations of a sweep's readings from the fit; null for a sweep that it does not know.
  const std::vector<double>* residuals(Id sweep_id) const;

  /// Light at a height and setting between those walked. `use`: the hours and the target that its figures are for.
  Result<PredictedFigures> between(double height_m, double percent, const FigureContext& use) const;

  /// The sweep that was read at a height and setting, nearly whole; null where none was.
  const SweepView* read_at(double height_m, double percent) const;
  std::optional<Id> sweep_read_at(double height_m, double percent) const;
  /// The sweeps as they were read, for the first setting's light.
  std::vector<WalkedLight> walked() const;

  /// What the sensor's calibration and the like do to all light, a relative standard deviation.
  double shared_light_sd() const { return shared_light_ / 2; }

  /// Watts at a setting, where they are known; light beside the first setting's.
  std::optional<double> power_w(double percent) const;
  Result<BetweenSetting> setting(double percent) const;

  /// The fixture in another room. Refuses where the light does not fit, a fixture would not fit in, and settings beyond
  /// the measured ones.
  Result<RestatedFigures> restated(const Elsewhere& elsewhere, const HangingPattern& pattern, double height_m,
                                   double percent, const FigureContext& use) const;
  Result<RestatedFigures> restated(const Room& room, const HangingPattern& pattern, double height_m, double percent,
                                   const FigureContext& use) const;

  /// Each measured height in each reference room, at the first setting, lowest first; empty where the light does not
  /// fit.
  std::vector<ReferenceFigures> in_reference_rooms() const;

  /// The fewest of the fixture that bring a room's mean to `ppfd`, dimmed to it where that is known, evenly spread, at
  /// the most even of the measured heights.
  Result<RoomAnswer> fewest_for(const Room& room, double ppfd) const;

 private:
  /// The place, among the question's sweeps, of one that was read nearly whole there; nothing where none was.
  std::optional<std::size_t> walked_at(double height_m, double percent) const;
  FoundValue with_shared(const FoundValue& value, double shared) const;
  LightQuestion question_;
  WholeLight found_;
  struct Inner {
    std::vector<LeftOutHeight> left_out;
    BetweenHeights between;
  };
  const Inner& inner() const;
  mutable std::mutex inner_making_;
  mutable std::atomic<bool> inner_there_ = false;
  mutable std::unique_ptr<const Inner> inner_;
  double shared_light_ = 0, shared_efficacy_ = 0, shared_power_ = 0;  ///< relative, k = 2
  std::optional<MonotoneCubic> light_curve_, power_curve_;
};

/// The bench's footprint as the reference rooms have it, and the grid that rooms are worked out on.
Layout room_layout(const Room& room);

}  // namespace sunbreak::evaluation
