#pragma once

#include <optional>
#include <stop_token>
#include <string>
#include <utility>
#include <vector>

#include "core/figures/coverage.h"
#include "core/figures/serving_rule.h"
#include "core/lineup/comparable.h"
#include "core/lineup/standing.h"
#include "core/lineup/way.h"
#include "evaluation/evaluation.h"

namespace sunbreak::evaluation {

/// What decides an entry of a line-up beside its test. Which figure it is by, who is in it and money are asked of the
/// entries.
struct EntryQuestion {
  /// How much is worked out: sweep figures alone, coverage of the line-up's band, whole light, watts to meet a target.
  /// The last two take seconds a test.
  enum class Take { Sweep, Band, WholeLight, Target };

  LineUpWay way;
  std::optional<double> usual_height_m;  ///< where each hangs as measured, as nearly as it was walked
  Band band;                             ///< of the target that the line-up is for
  ServingRule rule;                      ///< when a target is met
  Take take = Take::Sweep;
};

/// The question as a text that two have in common where they give each test the same entry.
std::string question_key(const EntryQuestion& question);

/// One figure of an entry: a Standing whose sources are places in the entry's own list of them.
struct EntryFigure {
  double value = unread, own_variance = 0, between_variance = 0, bias = 0;  ///< as in Standing
  std::vector<std::pair<int, double>> shared;  ///< source, standard uncertainty
};

/// A figure of an entry as a Standing, whose sources are the places `numbers` gives them, or their own.
Standing standing_of(const EntryFigure& figure, std::span<const std::uint32_t> numbers = {});

/// What one test, in one configuration, stands in a line-up with.
struct LineUpEntry {
  std::optional<Problem> none;  ///< why the way has no light of this test; then nothing else is known
  ComparedFacts facts;
  double height_m = unread, percent = 100;
  std::optional<double> power_w;
  double photoperiod_h = 12;         ///< that daily light is of
  std::string spectrum;              ///< what its light is made of, in words; empty where no spectrum is on record
  std::vector<std::string> changes;  ///< what the way did to what was read, and what that adds, in words
  std::vector<std::string> sources;  ///< what its figures may have in common with others', one text for one cause
  std::vector<EntryFigure> figures;  ///< in the order of lineup_figures(); money is not among them
  std::vector<std::pair<int, std::string>> lacks;  ///< why there is none of a figure that takes more than a sweep
  Footprint footprint;                             ///< of the light below
  Grid grid;
  std::vector<double> ppfd;  ///< one a station of the grid on the footprint

  /// There is light of it to be drawn.
  bool has_light() const;
};

/// Works out a test's entry, of the configuration that its evaluation is of. `owner` tells meters and benches of one
/// lab from those of another that are called the same. Where `stop` asks for an end it means nothing.
LineUpEntry entry_of(const Evaluation& evaluation, const EntryQuestion& question, const std::string& owner,
                     UnitSystem units = UnitSystem::Metric, std::stop_token stop = {});

/// The height that most of the tests walked, the lower of two as frequent; nothing where none did.
std::optional<double> usual_height_m(std::span<const std::vector<double>> walked_heights_m);

}  // namespace sunbreak::evaluation
