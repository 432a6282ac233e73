#include "core/evidence/grade.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/figures/sweep_figures.h"

namespace sunbreak {
namespace {

constexpr int least_stations = 36, most_missing_for_working = 2;
constexpr double least_per_m2 = 25, most_drift = 0.03, most_months = 24;

std::string density_words(double per_m2, UnitSystem units) {
  const double foot_m = to_m(1, LengthUnit::Foot);
  return units == UnitSystem::Metric ? fmt::format("{:.0f} per m²", per_m2)
                                     : fmt::format("{:.1f} per ft²", per_m2 * foot_m * foot_m);
}

Condition grid_condition(const EvidenceFacts& f) {
  const double density = f.area_m2 > 0 ? f.stations / f.area_m2 : 0;
  Condition c{"grid", f.lattice && f.stations >= least_stations && density >= least_per_m2, {}, {}, Condition::Rig};
  c.saw = f.lattice ? fmt::format("{} stations on a regular grid, {}", f.stations, density_words(density, f.units))
                    : fmt::format("{} loose spots", f.stations);
  if (!c.met)
    c.way = fmt::format("plan a regular grid of at least {} stations",
                        std::max(least_stations, static_cast<int>(std::ceil(least_per_m2 * f.area_m2))));
  return c;
}

Condition stabilized_condition(const EvidenceFacts& f) {
  return {"settled", f.stabilization == EvidenceFacts::Stabilized,
          f.stabilization_words.empty() ? "not known whether light and watts had settled" : f.stabilization_words,
          f.stabilization == EvidenceFacts::Stabilized
              ? ""
              : "record light and watts from switch-on and walk once they settled",
          Condition::WarmUp};
}

Condition drift_condition(const EvidenceFacts& f) {
  Condition c{"drift", f.drift && std::abs(*f.drift) <= most_drift, {}, {}, Condition::Walk};
  c.saw = f.drift ? fmt::format("reference {} by {:.1f} % during the walk", *f.drift < 0 ? "fell" : "rose",
                                100 * std::abs(*f.drift))
                  : "reference not read again during the walk";
  if (!c.met)
    c.way = f.drift ? "let light and sensor settle, then walk again"
                    : "read the reference station again at the beginning and at the end of the walk";
  return c;
}

Condition watts_condition(const EvidenceFacts& f) {
  Condition c{"watts", f.power_w && f.power_in_the_same_state, {}, {}, Condition::Walk};
  c.saw = !f.power_w                  ? "no watts at the wall"
          : f.power_in_the_same_state ? fmt::format("{:.1f} W at the wall, in the same state", *f.power_w)
          : f.power_carried
              ? fmt::format("{:.1f} W at the wall, carried from another height of the same setting", *f.power_w)
              : fmt::format("{:.1f} W at the wall, not known to be in the same state", *f.power_w);
  if (!c.met) c.way = f.power_w ? "log the watts while the sweep is walked" : "note the watts with the sweep";
  return c;
}

Condition height_condition(const EvidenceFacts& f) {
  Condition c{"height", !f.datum.empty() && f.sensor_height_m, {}, {}, Condition::Rig};
  c.saw = f.datum.empty() ? "not stated where heights are measured from"
                          : fmt::format("heights from the {}{}", f.datum,
                                        f.sensor_height_m
                                            ? fmt::format("; sensor {} high", length_text(*f.sensor_height_m, f.units))
                                            : "; the sensor's own height is not stated");
  if (!c.met)
    c.way = f.datum.empty() ? "state the datum of the heights" : "state the height of the sensor's receiving surface";
  return c;
}

Condition calibration_condition(const EvidenceFacts& f) {
  Condition c{
      "calibration",
      f.months_since_calibration && *f.months_since_calibration <= most_months && *f.months_since_calibration >= 0,
      {},
      {},
      Condition::Rig};
  if (f.months_since_calibration && *f.months_since_calibration < 0) {
    c.saw = "the sensor's calibration is dated after the test";
    c.way = "state when the test was done and when the sensor was calibrated before it";
    return c;
  }
  c.saw = f.months_since_calibration
              ? fmt::format("sensor calibrated {:.0f} months before the test", *f.months_since_calibration)
              : "no calibration date of the sensor";
  if (!c.met) c.way = f.months_since_calibration ? "have the sensor calibrated" : "state the sensor's calibration date";
  return c;
}

}  // namespace

std::string_view name(Grade grade) {
  return grade == Grade::Benchmark ? "Benchmark" : grade == Grade::Working ? "Working" : "Spot";
}

std::string told(const Condition& c) { return c.met ? c.saw : fmt::format("{}: {}", c.saw, c.way); }

int Evidence::missing() const {
  return static_cast<int>(std::count_if(conditions.begin(), conditions.end(), [](auto& c) { return !c.met; }));
}

Evidence grade(const EvidenceFacts& f) {
  Evidence e;
  const auto add = [&](Condition c) { e.conditions.push_back(std::move(c)); };
  add(grid_condition(f));
  add({"complete", f.unread == 0, read_words(f.stations - f.unread, f.stations),
       f.unread == 0 ? ""
       : f.read_share >= least_read
           ? "read the stations that are open"
           : "read the stations that are open: under nine tenths of the area it is a spot check",
       Condition::Walk});
  add(stabilized_condition(f));
  add(drift_condition(f));
  add(watts_condition(f));
  add(height_condition(f));
  add(calibration_condition(f));
  const bool surroundings = f.walls_stated && f.door_stated;
  add({"walls", surroundings,
       surroundings     ? "walls and door stated"
       : f.walls_stated ? "door not stated"
                        : "walls not stated on all sides",
       surroundings ? "" : "state all four walls, and the door", Condition::Rig});
  const bool hung = f.level_checked && f.center_checked;
  add({"level", hung,
       hung              ? "level and center checked"
       : f.level_checked ? "center not checked"
                         : "level not checked",
       hung ? "" : "check level and center, and tick them on the list", Condition::Rig});
  add({"checks", f.open_checks == 0,
       f.open_checks == 0 ? "nothing open"
                          : fmt::format("{} open {}", f.open_checks, f.open_checks == 1 ? "check" : "checks"),
       f.open_checks == 0 ? "" : "read again what looks wrong, or set it aside with a reason", Condition::Walk});
  if (f.altered)
    add({"altered", false, "it came by a package that was altered after it was written",
         "ask for the package again from who measured", Condition::Rig});
  if (!f.impossible.empty())
    add({"possible", false, f.impossible, "look for the factor that it is wrong by: a unit, a size, the watts",
         Condition::Walk});
  const int missing = e.missing();
  if (f.lattice && !f.by_lux && !f.altered && f.impossible.empty() && f.read_share >= least_read)
    e.grade = missing == 0 ? Grade::Benchmark : missing <= most_missing_for_working ? Grade::Working : Grade::Spot;
  return e;
}

}  // namespace sunbreak
