#include "core/sweep/isolines.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace sunbreak {
namespace {

/// Station lines with the area's edges, where the field keeps the outer station's value.
struct Lines {
  std::vector<double> at;
  std::vector<int> station;  ///< the station line whose values hold there

  Lines(const std::vector<double>& stations, double from, double to) {
    const auto add = [&](double place, int index) {
      if (!at.empty() && place - at.back() < 1e-9) return;
      at.push_back(place);
      station.push_back(index);
    };
    add(from, 0);
    // The edge and the outer station are one line where they coincide.
    if (stations.front() - from < 1e-9) at.clear(), station.clear();
    for (std::size_t i = 0; i < stations.size(); ++i) add(stations[i], static_cast<int>(i));
    add(to, static_cast<int>(stations.size()) - 1);
  }
  int size() const { return static_cast<int>(at.size()); }
};

/// Two crossings of a cell's sides that one branch joins.
struct Branch {
  int from = -1, to = -1;  ///< sides of the whole mesh
  int column = 0, row = 0;
};

class Tracer {
 public:
  Tracer(const Field& field, double level, int steps)
      : field_(field),
        level_(level),
        steps_(std::max(1, steps)),
        x_(field.xs_m(), field.area().left_m, field.area().left_m + field.area().width_m),
        y_(field.ys_m(), field.area().front_m, field.area().front_m + field.area().depth_m),
        at_side_(static_cast<std::size_t>(2) * x_.size() * y_.size(), {-1, -1}) {
    for (int row = 0; row + 1 < y_.size(); ++row)
      for (int column = 0; column + 1 < x_.size(); ++column) add_cell(column, row);
  }

  std::vector<Isoline> lines() {
    std::vector<Isoline> result;
    used_.assign(branches_.size(), 0);
    // Lines that end somewhere are followed from an end; what is left runs in circles.
    for (int b = 0; b < static_cast<int>(branches_.size()); ++b)
      for (const int end : {branches_[b].from, branches_[b].to})
        if (!used_[b] && at_side_[end][1] < 0) result.push_back(follow(b, end));
    for (int b = 0; b < static_cast<int>(branches_.size()); ++b)
      if (!used_[b]) {
        result.push_back(follow(b, branches_[b].from));
        result.back().closed = true;
      }
    return result;
  }

 private:
  double value(int column, int row) const { return field_.at_station(x_.station[column], y_.station[row]); }
  int across(int column, int row) const { return row * x_.size() + column; }  ///< the side that runs along x
  int along(int column, int row) const { return x_.size() * y_.size() + row * x_.size() + column; }

  void join(int from, int to, int column, int row) {
    const int index = static_cast<int>(branches_.size());
    branches_.push_back({from, to, column, row});
    for (const int side : {from, to}) (at_side_[side][0] < 0 ? at_side_[side][0] : at_side_[side][1]) = index;
  }

  void add_cell(int column, int row) {
    const double v00 = value(column, row), v10 = value(column + 1, row), v01 = value(column, row + 1),
                 v11 = value(column + 1, row + 1);
    if (std::isnan(v00 + v10 + v01 + v11)) return;
    const bool in00 = v00 >= level_, in10 = v10 >= level_, in01 = v01 >= level_, in11 = v11 >= level_;
    const int front = across(column, row), back = across(column, row + 1), left = along(column, row),
              right = along(column + 1, row);
    std::array<int, 4> crossed{};
    int count = 0;
    if (in00 != in10) crossed[count++] = front;
    if (in10 != in11) crossed[count++] = right;
    if (in01 != in11) crossed[count++] = back;
    if (in00 != in01) crossed[count++] = left;
    if (count == 2) join(crossed[0], crossed[1], column, row);
    if (count != 4) return;
    const double saddle = (v00 * v11 - v10 * v01) / (v00 + v11 - v10 - v01);
    // What is at or above the level holds together where the saddle is too.
    if ((saddle >= level_) == in00) {
      join(front, right, column, row);
      join(back, left, column, row);
    } else {
      join(front, left, column, row);
      join(back, right, column, row);
    }
  }

  /// Where the line crosses a side.
  Place crossing(int side) const {
    const int mesh = x_.size() * y_.size(), at = side % mesh, column = at % x_.size(), row = at / x_.size();
    const bool is_across = side < mesh;
    const double here = value(column, row), there = is_across ? value(column + 1, row) : value(column, row + 1);
    const double share = (level_ - here) / (there - here);
    return is_across ? Place{x_.at[column] + share * (x_.at[column + 1] - x_.at[column]), y_.at[row]}
                     : Place{x_.at[column], y_.at[row] + share * (y_.at[row + 1] - y_.at[row])};
  }

  /// Adds the places of a branch after its first one: E = a + b·u + c·v + d·u·v solved for the slower coordinate.
  void add_branch(std::vector<Place>& places, const Branch& branch, const Place& to) const {
    const Place from = places.back();
    const double left = x_.at[branch.column], front = y_.at[branch.row];
    const double width = x_.at[branch.column + 1] - left, depth = y_.at[branch.row + 1] - front;
    const double a = value(branch.column, branch.row), b = value(branch.column + 1, branch.row) - a,
                 c = value(branch.column, branch.row + 1) - a, d = value(branch.column + 1, branch.row + 1) - a - b - c;
    const double u0 = (from.x_m - left) / width, u1 = (to.x_m - left) / width, v0 = (from.y_m - front) / depth,
                 v1 = (to.y_m - front) / depth;
    const bool by_u = std::abs(u1 - u0) >= std::abs(v1 - v0);
    for (int i = 1; i < steps_ && d != 0; ++i) {
      const double t = static_cast<double>(i) / steps_;
      double u = u0 + t * (u1 - u0), v = v0 + t * (v1 - v0);
      if (const double slope = by_u ? c + d * u : b + d * v; std::abs(slope) > 1e-12)
        (by_u ? v : u) = (level_ - a - (by_u ? b * u : c * v)) / slope;
      places.push_back({left + u * width, front + v * depth});
    }
    places.push_back(to);
  }

  Isoline follow(int branch, int side) {
    Isoline line;
    line.places.push_back(crossing(side));
    while (branch >= 0 && !used_[branch]) {
      used_[branch] = 1;
      const Branch& b = branches_[branch];
      side = b.from == side ? b.to : b.from;
      add_branch(line.places, b, crossing(side));
      const auto& ends = at_side_[side];
      branch = ends[0] == branch ? ends[1] : ends[0];
    }
    return line;
  }

  const Field& field_;
  double level_;
  int steps_;
  Lines x_, y_;
  std::vector<Branch> branches_;
  std::vector<std::array<int, 2>> at_side_;  ///< the branches that end on a side; −1: none
  std::vector<char> used_;
};

}  // namespace

std::vector<Isoline> isolines(const Field& field, double level, int steps_a_cell) {
  if (!field.exists()) return {};
  return Tracer(field, level, steps_a_cell).lines();
}

}  // namespace sunbreak
