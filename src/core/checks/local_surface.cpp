#include "core/checks/local_surface.h"

#include <array>
#include <bit>
#include <cmath>
#include <cstdint>
#include <unordered_map>

#include "core/linear/least_squares.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr int reach = 2;   ///< neighbors up to so many columns and rows away
constexpr int fewest = 9;  ///< readings that a quadratic surface needs, with three to spare

bool usable(double ppfd) { return !std::isnan(ppfd) && ppfd > 0; }

constexpr int stencil_side = 2 * reach + 1, neighbors = stencil_side * stencil_side;

/// What the surface at a station comes to, for one pattern of neighbors that are read: a weighted sum of their ln PPFD.
struct Stencil {
  bool determined = false;
  std::array<double, neighbors> share{};
  double leverage = 0;
};

/// The neighbors that are read as bits, row by row.
using NeighborPattern = std::uint32_t;

/// Weighted least squares of c₀ + c₁dx + c₂dy + c₃dx² + c₄dxdy + c₅dy² over the neighbors: the surface at the station
/// itself is c₀ = e₀ᵀ (BᵀWB)⁻¹ BᵀW · ln E, which depends on the readings only by that last product.
Stencil stencil_of(NeighborPattern pattern) {
  const auto each = [&](auto act) {
    for (int k = 0; k < neighbors; ++k) {
      if (!(pattern >> k & 1)) continue;
      const int dx = k % stencil_side - reach, dy = k / stencil_side - reach;
      const std::array<double, 6> basis{1.0, 1.0 * dx, 1.0 * dy, 1.0 * dx * dx, 1.0 * dx * dy, 1.0 * dy * dy};
      act(k, 1 / (1.0 + 0.5 * (dx * dx + dy * dy)), basis);
    }
  };
  Stencil stencil;
  if (std::popcount(pattern) < fewest) return stencil;
  LeastSquares surface(6);
  each([&](int, double weight, const auto& basis) { surface.add(basis, 0, weight); });
  if (!surface.solve() || surface.reciprocal_condition() < 1e-9) return stencil;
  stencil.determined = true;
  each([&](int k, double weight, const auto& basis) {
    double& share = stencil.share[k];
    for (std::size_t t = 0; t < basis.size(); ++t) share += weight * surface.inverse(0, t) * basis[t];
    stencil.leverage += share * share;
  });
  return stencil;
}

/// Stencils of the patterns met so far: a full sweep has twenty-five, each hole a few more.
class Stencils {
 public:
  const Stencil& of(NeighborPattern pattern) {
    if (pattern == last_pattern_ && last_) return *last_;
    const auto [at, is_new] = kept_.try_emplace(pattern);
    if (is_new) at->second = stencil_of(pattern);
    last_pattern_ = pattern;
    return *(last_ = &at->second);
  }

 private:
  std::unordered_map<NeighborPattern, Stencil> kept_;
  NeighborPattern last_pattern_ = 0;
  const Stencil* last_ = nullptr;
};

SurfaceResidual residual_at(const Layout& layout, std::span<const double> logs, std::span<const char> left_out,
                            int station, Stencils& stencils) {
  const Station& s = layout.stations[station];
  NeighborPattern pattern = 0;
  for (int k = 0; k < neighbors; ++k) {
    const int column = s.column + k % stencil_side - reach, row = s.row + k / stencil_side - reach;
    if (k == neighbors / 2 || column < 0 || row < 0 || column >= layout.columns || row >= layout.rows) continue;
    const int i = layout.index(column, row);
    if (!std::isnan(logs[i]) && !left_out[i]) pattern |= NeighborPattern{1} << k;
  }
  const Stencil& stencil = stencils.of(pattern);
  if (!stencil.determined) return {unread, 0};
  double surface = 0;
  for (int k = 0; k < neighbors; ++k)
    if (pattern >> k & 1)
      surface +=
          stencil.share[k] * logs[layout.index(s.column + k % stencil_side - reach, s.row + k / stencil_side - reach)];
  return {logs[station] - surface, stencil.leverage};
}

}  // namespace

std::vector<SurfaceResidual> surface_residuals(const Layout& layout, std::span<const double> ppfd,
                                               std::span<const char> left_out) {
  std::vector<SurfaceResidual> residuals(ppfd.size(), {unread, 0});
  if (!layout.is_lattice()) return residuals;
  std::vector<double> logs(ppfd.size(), unread);
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (usable(ppfd[i])) logs[i] = std::log(ppfd[i]);
  Stencils stencils;
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (usable(ppfd[i])) residuals[i] = residual_at(layout, logs, left_out, static_cast<int>(i), stencils);
  return residuals;
}

}  // namespace sunbreak
