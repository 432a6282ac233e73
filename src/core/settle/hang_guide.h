#pragma once

#include <optional>
#include <vector>

namespace sunbreak {

/// How far to raise or lower a fixture by what the sensor reads at the center, until it reads a PPFD.
class HangGuide {
 public:
  /// The center's light [µmol/m²/s] at rising heights [m], as a model has it. Only its falling part, from the brightest
  /// height up, is used.
  HangGuide(std::vector<double> heights_m, std::vector<double> ppfd);

  /// What the sensor reads at a height that is known by the tape: from then on the model is scaled to it.
  void agree(double height_m, double ppfd);

  struct Step {
    double now_m = 0, wanted_m = 0;
    double raise_m() const { return wanted_m - now_m; }
  };
  /// Nothing where the model reaches one of the two at no height.
  std::optional<Step> step(double reads_ppfd, double wanted_ppfd) const;

 private:
  std::optional<double> height_of(double ppfd) const;
  std::vector<double> heights_m_, ppfd_;
  double scale_ = 1;
};

}  // namespace sunbreak
