#pragma once

#include <optional>
#include <string>
#include <vector>

#include "evaluation/evaluation.h"
#include "evaluation/test_light.h"

namespace sunbreak::evaluation {

/// One place where a prediction is held against a reading.
struct ConfirmedPlace {
  std::string name;
  double predicted_ppfd = 0, expanded = 0, read_ppfd = unread;
  bool within() const { return std::abs(read_ppfd - predicted_ppfd) <= expanded; }
};

/// A sweep that confirms a prediction, or does not. What the sensor's calibration does is in both, and is left out of
/// the ±.
struct Confirmation {
  double height_m = 0, percent = 0;
  std::vector<ConfirmedPlace> places;
  int read = 0, outside = 0;
  double ratio = unread, ratio_expanded = unread;  ///< of what was read to what was predicted, over the places read
  bool complete = false;                           ///< every place is read
  /// The ratio is 1 within its ±, and one place at most is outside of its own.
  bool confirmed = false;
  std::string words;  ///< the verdict, and what it says of the model
};

/// Of a sweep that is marked so; nothing for others, or where nothing predicts it.
std::optional<Confirmation> confirmation(const Evaluation& evaluation, const TestLight& light, Id sweep_id);

}  // namespace sunbreak::evaluation
