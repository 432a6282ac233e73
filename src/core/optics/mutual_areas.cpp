#include "core/optics/mutual_areas.h"

#include <algorithm>
#include <vector>

namespace sunbreak {
namespace {

/// A rule on [0, 1].
struct Quadrature {
  std::vector<double> places, weights;
};

Quadrature gauss_legendre(int points) {
  if (points == 2) return {{0.2113248654051871, 0.7886751345948129}, {0.5, 0.5}};
  return {{0.1127016653792583, 0.5, 0.8872983346207417}, {5.0 / 18, 8.0 / 18, 5.0 / 18}};
}

}  // namespace

Eigen::MatrixXd mutual_areas(std::span<const PatchGrid> sides, int points) {
  const Quadrature rule = gauss_legendre(points);
  std::vector<std::size_t> first{0};
  for (const PatchGrid& side : sides) first.push_back(first.back() + side.size());
  const auto count = static_cast<Eigen::Index>(first.back());
  Eigen::MatrixXd exchanged = Eigen::MatrixXd::Zero(count, count);
  std::vector<double> row;
  for (std::size_t f = 0; f < sides.size(); ++f) {
    const PatchGrid& from = sides[f];
    for (std::size_t p = 0; p < from.size(); ++p) {
      const std::size_t u = p % from.u_count(), v = p / from.u_count();
      const double u0 = from.u_edges_m[u], du = from.u_edges_m[u + 1] - u0;
      const double v0 = from.v_edges_m[v], dv = from.v_edges_m[v + 1] - v0;
      for (std::size_t t = 0; t < sides.size(); ++t) {
        if (t == f) continue;
        row.assign(sides[t].size(), 0);
        for (std::size_t a = 0; a < rule.places.size(); ++a)
          for (std::size_t b = 0; b < rule.places.size(); ++b) {
            double at[3];
            at[from.face.axis] = from.plane_m;
            at[from.u_axis()] = u0 + rule.places[a] * du;
            at[from.v_axis()] = v0 + rule.places[b] * dv;
            add_form_factors({at[0], at[1], at[2]}, from.face.axis, !from.face.high, sides[t],
                             rule.weights[a] * rule.weights[b] * du * dv, row);
          }
        for (std::size_t q = 0; q < row.size(); ++q)
          exchanged(static_cast<Eigen::Index>(first[f] + p), static_cast<Eigen::Index>(first[t] + q)) = row[q];
      }
    }
  }
  // Reciprocity holds for the exact factors; what quadrature leaves of a difference is shared between the two.
  return 0.5 * (exchanged + exchanged.transpose());
}

}  // namespace sunbreak
