#pragma once

#include <functional>
#include <memory>
#include <stop_token>
#include <utility>
#include <vector>

#include "core/settle/settle_maps.h"
#include "core/whole_light/between_heights.h"

namespace sunbreak {

inline constexpr std::size_t most_settle_heights = 60;

/// The heights a field is asked for: whole multiples of a step within reach, coarser steps where they would be over 60,
/// and those measured. Lowest first.
std::vector<double> settle_heights_m(const std::pair<double, double>& reach_m, std::vector<double> measured_m,
                                     double step_m);

/// Works out a field's heights from what is known between the walked ones.
class SettleMaker {
 public:
  using Heights = std::vector<std::shared_ptr<const SettleHeight>>;

  /// All of it has to outlive the maker. `area` lies on the floor of the bench; `walked` are the sweeps as they were
  /// read.
  SettleMaker(const WholeLightQuestion& question, const BetweenHeights& between, const Rectangle& area,
              std::vector<WalkedLight> walked = {});

  const SettleLattice& lattice() const { return lattice_; }

  /// Those nearest to `near_m` first, on two threads; returned lowest first. `on_more` is told those there are, from
  /// time to time, on the calling thread. Cut short where `stop` asks for an end. Heights at which nothing is known of
  /// some place are left out.
  Heights heights(std::vector<double> heights_m, double near_m, std::stop_token stop = {},
                  const std::function<void(const Heights&)>& on_more = {}) const;

 private:
  /// What the model leaves open at a few heights; straight between them.
  struct ErrorsAt {
    double height_m;
    SettleErrors errors;
  };
  SettleErrors errors_at(double height_m) const;
  SettleErrors cubic_errors(double height_m) const;

  const WholeLightQuestion& question_;
  const BetweenHeights& between_;
  std::vector<WalkedLight> walked_;
  SettleLattice lattice_;
  std::unique_ptr<const LightAtPlaces> light_;
  std::vector<ErrorsAt> errors_;
};

}  // namespace sunbreak
