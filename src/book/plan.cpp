#include "book/plan.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "book/test_rows.h"
#include "core/quantity/display.h"
#include "evaluation/lux_walk.h"
#include "record/configurations.h"
#include "record/plan_grid.h"

namespace sunbreak::book {

namespace {

bool has_readings(const TestRecord& test, const Sweep& sweep) {
  return std::any_of(test.readings.begin(), test.readings.end(),
                     [&](const Reading& r) { return r.sweep_id == sweep.id; });
}

/// Brings a list of rungs or stops to the wanted values. `value` names the member, `of` the sweep's reference to it.
template <typename Step>
std::optional<Problem> bring_to(Book& book, const TestRecord& test, const std::vector<Step>& present,
                                double Step::*value, Id Sweep::*of, const std::vector<double>& wanted, double same,
                                const std::string& label, const std::function<std::string(double)>& text) {
  std::vector<Step> dropped;
  std::vector<double> fresh;
  const auto near = [&](double a, double b) { return std::abs(a - b) <= same; };
  for (const Step& step : present)
    if (!step.extra && std::none_of(wanted.begin(), wanted.end(), [&](double w) { return near(w, step.*value); }))
      dropped.push_back(step);
  // What is there beside the plan joins it.
  std::vector<Step> joining;
  for (const Step& step : present)
    if (step.extra && std::any_of(wanted.begin(), wanted.end(), [&](double w) { return near(w, step.*value); }))
      joining.push_back(step);
  for (const double w : wanted)
    if (std::none_of(present.begin(), present.end(), [&](const Step& s) { return near(w, s.*value); }) &&
        std::none_of(fresh.begin(), fresh.end(), [&](double f) { return near(f, w); }))
      fresh.push_back(w);
  for (const Step& step : dropped)
    for (const Sweep& sweep : test.sweeps)
      if (sweep.*of == step.id && has_readings(test, sweep))
        return Problem{fmt::format("{} has readings", text(step.*value)), "dropping it from the plan would hide them",
                       fmt::format("keep {} in the list", text(step.*value))};
  book.edit(label, [&](Edit& edit) {
    for (const Step& step : dropped) edit.erase<Step>(step.id);
    for (Step step : joining) {
      step.extra = false;
      edit.save(step);
    }
    for (const double w : fresh) {
      Step step;
      step.test_id = test.test.id;
      step.configuration_id = configuration_of(test);
      step.*value = w;
      edit.add(step);
    }
  });
  return {};
}

Id add_new_fixture(Edit& edit) {
  Fixture fixture;
  fixture.name = "New fixture";
  return edit.add(fixture);
}

}  // namespace

std::optional<Problem> plan_heights(Book& book, const TestRecord& test, const std::vector<double>& heights_m) {
  const auto text = [](double m) { return length_text(m, UnitSystem::Metric); };
  if (heights_m.empty())
    return Problem{"no height is given", "a test needs one at least", "type the heights with commas between them"};
  const double most = test.bench.height_m.value_or(10);
  for (const double h : heights_m)
    if (!(h >= 0.01 && h <= most))
      return Problem{fmt::format("a height of {} does not fit in the bench", text(h)),
                     fmt::format("heights run from 1 cm to {}", text(most)), "check the number and its unit"};
  return bring_to(book, test, test.rungs, &Rung::height_m, &Sweep::rung_id, heights_m, 0.0005, "heights of the plan",
                  text);
}

std::optional<Problem> plan_stops(Book& book, const TestRecord& test, const std::vector<double>& percents) {
  if (percents.empty())
    return Problem{"no dimmer setting is given", "a test needs one at least",
                   "type 100 for a fixture without a dimmer"};
  for (const double p : percents)
    if (!(p > 0 && p <= 200))
      return Problem{fmt::format("a dimmer setting of {} % makes no sense", short_number(p, 2)),
                     "settings run from above 0 to 200 %", "check the number"};
  return bring_to(book, test, test.stops, &Stop::percent, &Sweep::stop_id, percents, 0.01,
                  "dimmer settings of the plan", [](double p) { return "the setting " + short_number(p, 1) + " %"; });
}

std::optional<Problem> plan_grid(Book& book, const TestRecord& test, const Grid& grid) {
  if (auto layout = lay_out(footprint_of(test.bench), grid); !layout) return layout.problem();
  book.edit("grid of the plan", [&](Edit& edit) {
    Test changed = test.test;
    set_grid(changed, grid);
    edit.save(changed);
    for (Sweep sweep : test.sweeps) {
      const bool begun =
          std::any_of(test.placements.begin(), test.placements.end(), [&](auto& p) { return p.sweep_id == sweep.id; });
      if (begun || sweep.confirms || has_readings(test, sweep)) continue;
      set_grid(sweep, grid);
      edit.save(sweep);
    }
  });
  return {};
}

std::optional<Problem> resize_bench(Book& book, const TestRecord& test, const Footprint& footprint) {
  const auto sides_ok = [](double m) { return m >= 0.05 && m <= 20; };
  if (!sides_ok(footprint.width_m) || !sides_ok(footprint.depth_m))
    return Problem{fmt::format("a footprint of {} makes no sense",
                               size_text(footprint.width_m, footprint.depth_m, UnitSystem::Metric)),
                   "sides run from 5 cm to 20 m", "check the number and its unit"};
  const auto measured = book.all<Test>(
      "WHERE bench_id = ? AND id <> ? AND removed = 0 AND EXISTS (SELECT 1 FROM reading r JOIN sweep s ON r.sweep_id = "
      "s.id WHERE s.test_id = test.id)",
      test.bench.id, test.test.id);
  if (!measured.empty())
    return Problem{fmt::format("{} other test{} measured on {}", measured.size(),
                               measured.size() == 1 ? " was" : "s were", test.bench.name),
                   "another footprint would change their figures", "choose a new bench for this test"};
  for (const Sweep& sweep : test.sweeps)
    if (auto layout = lay_out(footprint, grid_of(sweep)); !layout) return layout.problem();
  if (auto layout = lay_out(footprint, grid_of(test.test)); !layout) return layout.problem();
  book.edit("footprint of the bench", [&](Edit& edit) {
    Bench changed = test.bench;
    changed.width_m = footprint.width_m;
    changed.depth_m = footprint.depth_m;
    edit.save(changed);
  });
  return {};
}

Id duplicate_plan(Book& book, Id test_id, Id fixture_id) {
  const TestRecord source = of_configuration(load_test(book, test_id).value(), 0);
  Test copy = source.test;
  copy.id = 0;
  copy.name = fixture_id == source.test.fixture_id ? title_of(source) + " (again)" : "";
  copy.fixture_id = fixture_id;
  copy.created_at = utc_now();
  copy.tested_on.clear();
  copy.simulated = false;
  for (std::string Test::*answer : {&Test::checked_level, &Test::checked_center, &Test::checked_height,
                                    &Test::checked_fans, &Test::mark, &Test::retest_of, &Test::retest_unit})
    (copy.*answer).clear();
  copy.hours_run.reset();
  if (fixture_id != source.test.fixture_id) copy.lux_factor_id.reset(), copy.light_class.clear();
  book.edit("duplicate the plan of " + title_of(source), [&](Edit& edit) {
    if (copy.fixture_id == 0) copy.fixture_id = add_new_fixture(edit);
    copy.id = edit.add(copy);
    for (const Rung& rung : source.rungs) edit.add(Rung{0, copy.id, rung.height_m});
    for (const Stop& stop : source.stops) edit.add(Stop{0, copy.id, stop.percent});
  });
  return copy.id;
}

namespace {

std::optional<Problem> name_refused(const TestRecord& test, const std::string& name) {
  if (name.empty())
    return Problem{"a configuration without a name", "it could not be told from the others",
                   "name what was changed, such as: two bars added"};
  for (const Id id : configurations_of(test))
    if (id != test.configuration_id && configuration_name(test, id) == name)
      return Problem{fmt::format("the test has a configuration '{}' already", name), "two could not be told apart",
                     "choose another name"};
  return {};
}

}  // namespace

Result<Id> add_configuration(Book& book, const TestRecord& test, const std::string& name) {
  if (auto refused = name_refused(test, name)) return *refused;
  if (name == configuration_name(test, test.configuration_id))
    return Problem{fmt::format("the test has a configuration '{}' already", name), "two could not be told apart",
                   "choose another name"};
  Configuration added;
  added.test_id = test.test.id;
  added.name = name;
  book.edit("configuration " + name, [&](Edit& edit) {
    added.id = edit.add(added);
    for (const Rung& rung : test.planned_rungs()) edit.add(Rung{0, test.test.id, rung.height_m, false, added.id});
    for (const Stop& stop : test.planned_stops()) edit.add(Stop{0, test.test.id, stop.percent, false, added.id});
  });
  return added.id;
}

std::optional<Problem> rename_configuration(Book& book, const TestRecord& test, const std::string& name) {
  if (auto refused = name_refused(test, name)) return refused;
  book.edit("name of the configuration", [&](Edit& edit) {
    if (test.configuration_id == 0) {
      Test changed = test.test;
      changed.as_it_comes = name;
      return edit.save(changed);
    }
    for (Configuration c : test.configurations)
      if (c.id == test.configuration_id) {
        c.name = name;
        edit.save(c);
      }
  });
  return {};
}

Id new_test(Book& book, UnitSystem units) {
  // Round lengths in what the tester measures in.
  const bool inches = units == UnitSystem::Imperial;
  const double bench_side_m = inches ? to_m(48, LengthUnit::Inch) : 1.2,
               height_m = inches ? to_m(18, LengthUnit::Inch) : 0.45;
  const auto latest = book.all<Test>("WHERE removed = 0 ORDER BY id DESC LIMIT 1");
  const auto benches = book.all<Bench>("WHERE removed = 0 ORDER BY id");
  Test test;
  test.created_at = utc_now();
  test.tested_on = test.created_at.substr(0, 10);
  book.edit("new test", [&](Edit& edit) {
    test.fixture_id = add_new_fixture(edit);
    if (!latest.empty()) {
      test.bench_id = latest.front().bench_id;
      test.sensor_id = latest.front().sensor_id;
      test.wall_meter_id = latest.front().wall_meter_id;
      test.tested_by = latest.front().tested_by;
      test.mains_v = latest.front().mains_v;
      test.mains_hz = latest.front().mains_hz;
      test.evenness_lead = latest.front().evenness_lead;
    } else if (!benches.empty()) {
      test.bench_id = benches.front().id;
    } else {
      Bench bench;
      bench.name = "New bench";
      bench.width_m = bench.depth_m = bench_side_m;
      test.bench_id = edit.add(bench);
    }
    test.columns = test.rows = 6;
    test.id = edit.add(test);
    edit.add(Rung{0, test.id, height_m});
    edit.add(Stop{0, test.id, 100});
  });
  return test.id;
}

namespace {

/// What is read by a sensor, or taken as its readings, is corrected by its card.
template <typename Row>
void correct_as_by(Row& row, const Meter& sensor, const FittedLuxFactor* lux) {
  row.dark_offset = sensor.dark_offset;
  row.calibration_factor = sensor.factor * (lux ? lux->k : 1);
}

/// The lux factor that a sweep is walked by stands in the sweep itself: what it was holds whatever the shelf says
/// later.
void walk_by_lux(Sweep& sweep, const FittedLuxFactor* lux, Id fixture_id) {
  sweep.lux_k = sweep.lux_k_expanded = sweep.lux_lowest = sweep.lux_highest = std::nullopt;
  sweep.lux_fitted_here = false;
  if (!lux) return;
  sweep.lux_k = lux->k;
  sweep.lux_k_expanded = evaluation::whole_k_expanded(*lux);
  sweep.lux_lowest = lux->lowest_lux, sweep.lux_highest = lux->highest_lux;
  sweep.lux_fitted_here = lux->source == "paired" && evaluation::found_under_fixture(*lux, fixture_id);
}

void correct_all(Edit& edit, const TestRecord& test, const Meter& sensor, const FittedLuxFactor* lux) {
  for (Sweep sweep : test.sweeps) {
    correct_as_by(sweep, sensor, lux);
    walk_by_lux(sweep, lux, test.fixture.id);
    // What was said of another sensor is not so of this one.
    if (test.test.sensor_id != sensor.id) {
      sweep.moved_factor = sweep.spectral_factor = 1;
      sweep.moved_uncertainty_pct = std::nullopt;
    }
    edit.save(sweep);
  }
  for (LogPart part : test.log_parts) {
    correct_as_by(part, sensor.kind == "lux" ? Meter{} : sensor, nullptr);  // a log holds PPFD
    edit.save(part);
  }
}

}  // namespace

void choose_fixture(Edit& edit, const TestRecord& test, Id fixture_id) {
  if (test.test.fixture_id == fixture_id) return;
  Test changed = test.test;
  changed.fixture_id = fixture_id;
  changed.lux_factor_id = std::nullopt;
  changed.light_class.clear();
  edit.save(changed);
  const Meter* sensor = test.meter(test.test.sensor_id);
  correct_all(edit, test, sensor ? *sensor : Meter{}, nullptr);
}

void choose_sensor(Edit& edit, const TestRecord& test, const std::optional<Meter>& chosen) {
  Test changed = test.test;
  changed.sensor_id = chosen ? std::optional(chosen->id) : std::nullopt;
  if (changed.sensor_id != test.test.sensor_id) changed.lux_factor_id = std::nullopt;
  edit.save(changed);
  const FittedLuxFactor* lux = changed.sensor_id == test.test.sensor_id ? lux_factor_of(test) : nullptr;
  correct_all(edit, test, chosen.value_or(Meter{}), lux);
}

void choose_lux_factor(Edit& edit, const TestRecord& test, const std::optional<FittedLuxFactor>& chosen) {
  Test changed = test.test;
  changed.lux_factor_id = chosen ? std::optional(chosen->id) : std::nullopt;
  edit.save(changed);
  const Meter* sensor = test.meter(test.test.sensor_id);
  correct_all(edit, test, sensor ? *sensor : Meter{}, chosen ? &*chosen : nullptr);
}

Sweep sweep_for(Edit& edit, const TestRecord& test, Id rung_id, Id stop_id) {
  if (const Sweep* present = test.sweep(rung_id, stop_id)) return *present;
  Sweep sweep;
  sweep.test_id = test.test.id;
  sweep.rung_id = rung_id;
  sweep.stop_id = stop_id;
  sweep.control = test.test.control;
  set_grid(sweep, grid_of(test.test));
  const FittedLuxFactor* lux = lux_factor_of(test);
  if (const Meter* sensor = test.meter(test.test.sensor_id)) correct_as_by(sweep, *sensor, lux);
  walk_by_lux(sweep, lux, test.fixture.id);
  // What holds for the sensor under this light holds for the next sweep too.
  if (!test.sweeps.empty()) {
    const Sweep& last = test.sweeps.back();
    sweep.spectral_factor = last.spectral_factor;
    sweep.moved_factor = last.moved_factor, sweep.moved_uncertainty_pct = last.moved_uncertainty_pct;
  }
  sweep.id = edit.add(sweep);
  return sweep;
}

}  // namespace sunbreak::book
