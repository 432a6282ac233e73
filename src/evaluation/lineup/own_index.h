#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/lineup/standing.h"
#include "core/result.h"
#include "evaluation/lineup/lineup_figures.h"

namespace sunbreak::evaluation {

/// A label as it stands within a sentence: "mean PPFD", and "PPF on the footprint".
std::string in_a_sentence(std::string_view label);

/// A figure of the user's own: several weighed together. Each counts by its percents: with weights w it is
/// 100 × Π (value ÷ middle)^(±w ÷ Σw), − where less is better, so that 100 is the middle of the line-up and one percent
/// of a figure is worth the same at any size. None is shipped; its weights are printed wherever it is.
struct OwnIndex {
  struct Part {
    const LineUpFigure* figure = nullptr;
    double weight = 1;
  };
  std::vector<Part> parts;

  /// Whether a line-up's figure is one.
  static bool is(std::string_view figure) { return figure.starts_with("index:"); }
  /// Reads "index:canopy_efficacy_umol_j=2,lowest_over_mean,power_w=0.5"; a weight that is not there is 1.
  static Result<OwnIndex> parse(std::string_view text);
  /// As it is written.
  std::string id() const;
  /// "2 × canopy efficacy, 1 × lowest ÷ mean, 0.5 × less power".
  std::string words() const;
  /// What has to be alike: all that any of its figures needs.
  LineUpFigure figure(std::string_view id, std::string_view meaning) const;

  /// The logarithm of the product, of values in the order of the parts; NaN where one is missing or not over 0.
  double log_of(std::span<const Standing> values) const;
  /// The index where exp(`log_middle`) is 100.
  Standing standing(std::span<const Standing> values, double log_middle) const;

 private:
  double share(const Part& part) const;
};

}  // namespace sunbreak::evaluation
