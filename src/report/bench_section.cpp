#include "report/bench_section.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/bench/walk_order.h"
#include "record/plan_grid.h"
#include "report/facts_table.h"
#include "report/sweep_section.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

std::string tape_words(const record::Test& test) {
  return test.tape_from == "floor"    ? "the floor; the sensor's height is taken off"
         : test.tape_from == "canopy" ? "a pretend canopy; its height less the sensor's is added"
                                      : "the sensor's receiving surface";
}

/// The factor that a meter's readings were corrected by: of the light sensor what its sweeps were taken with, whatever
/// its card says since.
std::string factor_words(const record::TestRecord& b, const record::Meter& m) {
  double least = m.factor, most = m.factor;
  if (b.test.sensor_id == m.id && !b.sweeps.empty()) {
    const auto [low, high] = std::minmax_element(
        b.sweeps.begin(), b.sweeps.end(), [](auto& x, auto& y) { return x.calibration_factor < y.calibration_factor; });
    least = low->calibration_factor / low->lux_k.value_or(1), most = high->calibration_factor / high->lux_k.value_or(1);
  }
  const std::string own = least == m.factor && most == m.factor
                              ? std::string()
                              : fmt::format(" (its card says {} by now)", short_number(m.factor, 4));
  return least == most ? fmt::format("factor {}{}", short_number(least, 4), own)
                       : fmt::format("factors {} to {}{}", short_number(least, 4), short_number(most, 4), own);
}

std::string lux_words(const record::TestRecord& b) {
  for (const record::Sweep& s : b.sweeps)
    if (s.lux_k)
      return fmt::format("k = {:.5f}{} µmol/m²/s per lx, found {}", *s.lux_k,
                         s.lux_k_expanded ? fmt::format(" ± {:.5f}", *s.lux_k_expanded) : ", ± not stated",
                         s.lux_fitted_here ? "under this fixture" : "under another light of its class: spot grade");
  return {};
}

std::string spectral_words(const record::TestRecord& b) {
  for (const record::Sweep& s : b.sweeps)
    if (s.spectral_factor != 1)
      return fmt::format("× {}{}", short_number(s.spectral_factor, 4),
                         b.test.spectral_uncertainty_pct
                             ? fmt::format(" ± {} %", short_number(2 * *b.test.spectral_uncertainty_pct, 1))
                             : std::string());
  return {};
}

std::string moved_words(const record::TestRecord& b) {
  for (const record::Sweep& s : b.sweeps)
    if (s.moved_factor != 1)
      return fmt::format("× {}{}", short_number(s.moved_factor, 4),
                         s.moved_uncertainty_pct ? fmt::format(" ± {} %", short_number(2 * *s.moved_uncertainty_pct, 1))
                                                 : std::string());
  return {};
}

/// By what rule the heights were chosen, which tests are compared by.
std::string height_rule_words(const record::Test& test) {
  if (test.height_rule == "ladder") return "a fixed ladder";
  if (test.height_rule == "maker") return "what the maker recommends";
  if (test.height_rule == "target") return "what is best for a target";
  if (test.height_rule == "center")
    return test.height_rule_ppfd ? fmt::format("the center reads {:.0f} µmol/m²/s", *test.height_rule_ppfd)
                                 : "what the center reads";
  return {};
}

/// How the stations were walked, for the method.
std::string walk_words(const record::TestRecord& b, const evaluation::SweepView& view) {
  const auto order = parse_walk_order(b.test.walk_order).value_or(WalkOrder::FarToDoor);
  std::string words = "Stations were read ";
  if (b.test.opening_probe && !opening_probe(view.layout).empty())
    words += "at the corners and the center first, then ";
  words += order == WalkOrder::FarToDoor   ? "from the far wall to the door"
           : order == WalkOrder::DoorToFar ? "from the door to the far wall"
                                           : "from the center outward";
  if (b.test.samples_a_reading > 1)
    words += fmt::format("; each live reading is a mean of {} values", b.test.samples_a_reading);
  if (b.test.reference_every > 0)
    words += fmt::format(
        "; the station nearest the center was read again every {} stations, and where it tells drift "
        "from noise the sweep is scaled to its start",
        b.test.reference_every);
  return words + ".";
}

/// A meter's uncertainty as its maker quotes it, and what is assumed of it.
std::string quoted_uncertainty(const record::Meter& m) {
  if (!m.uncertainty_pct) return "not stated; the usual one is assumed";
  const double k = m.uncertainty_k.value_or(1);
  const std::string quoted = fmt::format("± {} %", short_number(k * *m.uncertainty_pct, 2));
  if (!m.uncertainty_k) return quoted + ", coverage factor not stated: one standard deviation is assumed";
  return k == 1 ? quoted + ", one standard deviation" : quoted + fmt::format(" (k = {})", short_number(k, 2));
}

}  // namespace

void add_bench_section(data& page, const record::TestRecord& b, UnitSystem units) {
  FactsTable bench;
  bench.add("Bench", b.bench.name)
      .add("Footprint", size_text(b.bench.width_m, b.bench.depth_m, units))
      .add("Height available", b.bench.height_m ? length_text(*b.bench.height_m, units) : std::string())
      .add("Walls: left, right, front, back",
           fmt::format("{}, {}, {}, {}", stated(b.bench.wall_left), stated(b.bench.wall_right),
                       stated(b.bench.wall_front), stated(b.bench.wall_back)))
      .add_given("Ceiling", b.bench.ceiling)
      .add_given("Floor", b.bench.floor)
      .add("Door while reading", b.test.door)
      .add("Heights measured from", b.test.datum)
      .add("Heights chosen by", height_rule_words(b.test))
      .add("The tape ended at", tape_words(b.test))
      .add("Hung level, by a level", b.test.checked_level)
      .add("Centered, by the tape", b.test.checked_center)
      .add("Height checked at every corner", b.test.checked_height)
      .add("Fans as in use", b.test.checked_fans)
      .add_given("Driven by", b.test.control)
      .add_given("Hours already run", b.test.hours_run ? short_number(*b.test.hours_run, 0) + " h" : "");
  for (const record::Meter& m : b.meters) {
    if (b.test.sensor_id != m.id && b.test.wall_meter_id != m.id) continue;  // reads the same check lamp, no more
    bench.add(m.kind == "wall"           ? "Wall meter"
              : m.kind == "spectrometer" ? "Spectrometer"
              : m.kind == "lux"          ? "Lux meter"
                                         : "Quantum sensor",
              fmt::format("{}; calibrated {}; {}; uncertainty {}", stated(m.name), stated(m.calibrated_on),
                          factor_words(b, m), quoted_uncertainty(m)));
  }
  bench.add_given("Lux brought to PPFD by", lux_words(b))
      .add_given("Corrected for its spectrum", spectral_words(b))
      .add_given("Corrected by its check lamp", moved_words(b));
  page.set("bench", bench.take());
}

void add_method_section(data& page, const record::TestRecord& b, const evaluation::SweepView* first, UnitSystem units) {
  List method;
  method.push_back(
      data("PPFD was read at each station with the sensor facing up, in µmol/m²/s; the raw value is kept and corrected "
           "as (raw − dark) · calibration factor · spectral factor."));
  if (record::walked_by_lux(b))
    method.push_back(
        data("A lux meter weighs light as the eye does: its values are brought to PPFD by one factor, which "
             "holds for this light alone."));
  if (first) method.push_back(data("Stations: " + grid_words(first->layout, units) + "."));
  if (first) method.push_back(data(walk_words(b, *first)));
  method.push_back(data(
      (b.test.datum.empty()
           ? std::string("What heights are measured from is not stated; they end at the sensor's receiving surface.")
           : fmt::format("Height is the vertical distance from the {} to the sensor's receiving surface.",
                         b.test.datum)) +
      " Power is read at the wall plug, driver losses included."));
  method.push_back(
      data("Between stations the field is bilinear and keeps the outer value to the edge of the measured area; areas "
           "are counted on it at 1 cm. Lowest and highest are always readings."));
  method.push_back(data(fmt::format("Target: {}, {} to {} µmol/m²/s, {} h of light a day.", stated(b.test.target_name),
                                    short_number(b.test.target_low_ppfd, 1), short_number(b.test.target_high_ppfd, 1),
                                    short_number(b.test.photoperiod_h, 1))));
  page.set("method", data(method));
}

}  // namespace sunbreak::report
