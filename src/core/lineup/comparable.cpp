#include "core/lineup/comparable.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace sunbreak {
namespace {

/// A hair over the limits, so that lengths at them count as alike whatever their last binary digit.
constexpr double touching = 1e-9;

bool alike_sides(double a, double b) { return std::abs(a - b) <= alike_side * std::max(a, b) + touching; }

/// Which way round a footprint lies makes no difference.
bool alike_footprints(double aw, double ad, double bw, double bd) {
  return (alike_sides(aw, bw) && alike_sides(ad, bd)) || (alike_sides(aw, bd) && alike_sides(ad, bw));
}

bool alike_heights(double a, double b) { return std::abs(a - b) <= alike_height_m + touching; }

std::string way_size(double width_m, double depth_m) {
  return fmt::format("footprint:{}x{}cm", short_number(100 * width_m, 1), short_number(100 * depth_m, 1));
}

std::string height_words(const ComparedFacts& f, UnitSystem units) {
  return !f.height_rule.empty() ? f.height_rule : f.height_m ? length_text(*f.height_m, units) : "an unstated height";
}

std::string grade_words(const std::optional<Grade>& grade) {
  return grade ? std::string(name(*grade)) + " grade" : "nothing read";
}

bool graded(const ComparedFacts& f) { return f.grade && *f.grade >= Grade::Working; }

}  // namespace

std::vector<Unlike> why_not(const ComparedFacts& a, const ComparedFacts& b, Needs needed, UnitSystem units) {
  std::vector<Unlike> why;
  const Footprint &p = a.footprint, &q = b.footprint;
  if (needs(needed, Needs::Space) && !alike_footprints(p.width_m, p.depth_m, q.width_m, q.depth_m))
    why.push_back({Unlike::Footprints,
                   fmt::format("footprints of {} and {}", size_text(p.width_m, p.depth_m, units),
                               size_text(q.width_m, q.depth_m, units)),
                   {way_size(std::min(p.width_m, q.width_m), std::min(p.depth_m, q.depth_m))}});
  if (needs(needed, Needs::Height) &&
      (a.height_rule != b.height_rule ||
       (a.height_rule.empty() && a.height_m && b.height_m && !alike_heights(*a.height_m, *b.height_m))))
    why.push_back({Unlike::Heights, fmt::format("hung at {} and {}", height_words(a, units), height_words(b, units)),
                   a.height_m ? std::vector{fmt::format("height:{}cm", short_number(100 * *a.height_m, 1))}
                              : std::vector<std::string>{}});
  if (needs(needed, Needs::Space) && a.walls != b.walls)
    why.push_back({Unlike::Walls,
                   fmt::format("{} and {}", a.walls.empty() ? "walls not stated" : a.walls,
                               b.walls.empty() ? "walls not stated" : b.walls),
                   {"open-floor", "white-tent"}});
  if (needs(needed, Needs::Grid) && a.grid != b.grid)
    why.push_back(
        {Unlike::Grids, fmt::format("grids of {} and {}", a.grid, b.grid),
         a.columns > 0 && b.columns > 0
             ? std::vector{fmt::format("grid:{}x{}", std::min(a.columns, b.columns), std::min(a.rows, b.rows))}
             : std::vector<std::string>{}});
  if (needs(needed, Needs::Sensor)) {
    if (a.sensor != b.sensor)
      why.push_back({Unlike::Sensors,
                     fmt::format("read by {} and {}", a.sensor.empty() ? "a sensor that is not stated" : a.sensor,
                                 b.sensor.empty() ? "a sensor that is not stated" : b.sensor),
                     {}});
    if (!graded(a) || !graded(b))
      why.push_back({Unlike::Grades,
                     a.grade == b.grade
                         ? fmt::format("evidence of {}, where both need Working grade", grade_words(a.grade))
                         : fmt::format("evidence of {} and {}, where both need Working grade", grade_words(a.grade),
                                       grade_words(b.grade)),
                     {}});
  }
  if (a.simulated != b.simulated) why.push_back({Unlike::Simulations, "one was measured, the other is simulated", {}});
  return why;
}

std::string why_not_words(std::span<const Unlike> reasons) {
  std::string words;
  for (const Unlike& u : reasons) words += (words.empty() ? "" : "; ") + u.words;
  return words;
}

namespace {

/// All that counts of an entry for one figure, as numbers.
struct Coded {
  static constexpr double unstated = -1;
  double width_m = 0, depth_m = 0, height_m = unstated;
  int walls = 0, grid = 0, rule = 0, sensor = 0;
  bool graded = true, simulated = false, by_rule = false;
  auto operator<=>(const Coded&) const = default;
};

bool may_be_compared(const Coded& a, const Coded& b, Needs needed) {
  if (a.simulated != b.simulated || a.sensor != b.sensor || !a.graded || !b.graded || a.grid != b.grid) return false;
  if (a.rule != b.rule || (!a.by_rule && a.height_m > 0 && b.height_m > 0 && !alike_heights(a.height_m, b.height_m)))
    return false;
  return !needs(needed, Needs::Space) ||
         (a.walls == b.walls && alike_footprints(a.width_m, a.depth_m, b.width_m, b.depth_m));
}

}  // namespace

Comparability::Comparability(std::span<const ComparedFacts> facts, Needs needed) {
  std::map<std::string, int> codes;
  const auto code = [&](const std::string& text) {
    return codes.try_emplace(text, static_cast<int>(codes.size())).first->second;
  };
  std::map<Coded, int> classes;
  for (const ComparedFacts& f : facts) {
    // What the figure does not need stays the same for all.
    Coded c;
    c.simulated = f.simulated;
    if (needs(needed, Needs::Sensor)) c.sensor = code(f.sensor), c.graded = graded(f);
    if (needs(needed, Needs::Grid)) c.grid = code(f.grid);
    if (needs(needed, Needs::Height)) {
      c.rule = code(f.height_rule), c.by_rule = !f.height_rule.empty();
      if (!c.by_rule) c.height_m = f.height_m.value_or(Coded::unstated);
    }
    if (needs(needed, Needs::Space))
      c.walls = code(f.walls), c.width_m = f.footprint.width_m, c.depth_m = f.footprint.depth_m;
    classes_.push_back(classes.try_emplace(c, static_cast<int>(classes.size())).first->second);
  }
  count_ = classes.size();
  table_.resize(count_ * count_);
  for (const auto& [a, i] : classes)
    for (const auto& [b, j] : classes)
      table_[static_cast<std::size_t>(i) * count_ + static_cast<std::size_t>(j)] =
          may_be_compared(a, b, needed) ? 1 : 0;
}

}  // namespace sunbreak
