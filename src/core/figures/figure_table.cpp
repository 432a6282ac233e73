#include "core/figures/figure_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <iterator>
#include <stdexcept>

#include "core/quantity/number.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

using Group = Figure::Group;
using Shown = Figure::Shown;
using Sampling = Figure::Sampling;
using Source = const FigureSource&;

constexpr std::string_view light = "µmol/m²/s";

std::string ratio(double a, double b, double result) {
  return std::isfinite(result) ? fmt::format("{:.1f} ÷ {:.1f} = {:.3f}", a, b, result) : std::string();
}

int stations_read(Source s) { return s.sweep.stations - s.sweep.missing; }

std::string place(Source s, int station, UnitSystem units) {
  const Station& at = s.layout.stations[static_cast<std::size_t>(station)];
  const LengthUnit unit = surface_unit(units);
  return fmt::format("at x {}, y {} {}", short_number(from_m(at.x_m, unit), 1), short_number(from_m(at.y_m, unit), 1),
                     symbol(unit));
}

/// Which of the middle stations the center is of, where some were not read: "1 of 4: front left".
std::string middle_read(Source s, UnitSystem) {
  const std::vector<int> middle = middle_stations(s.layout);
  const auto station = [&](int i) -> const Station& { return s.layout.stations[static_cast<std::size_t>(i)]; };
  const auto is_read = [&](int i) { return !std::isnan(s.ppfd[static_cast<std::size_t>(i)]); };
  const auto read = std::ranges::count_if(middle, is_read);
  if (read == 0 || read == std::ssize(middle)) return {};
  double x_m = 0, y_m = 0;
  for (const int i : middle)
    x_m += station(i).x_m / static_cast<double>(middle.size()),
        y_m += station(i).y_m / static_cast<double>(middle.size());
  const auto side = [](double off_m, const char* less, const char* more) {
    constexpr double in_line_m = 1e-6;
    return std::abs(off_m) < in_line_m ? "" : off_m < 0 ? less : more;
  };
  std::string names;
  for (const int i : middle) {
    if (!is_read(i)) continue;
    const std::string depth = side(station(i).y_m - y_m, "front", "far"),
                      width = side(station(i).x_m - x_m, "left", "right");
    names += (names.empty() ? "" : ", ") + depth + (depth.empty() || width.empty() ? "" : " ") + width;
  }
  return fmt::format("{} of {}: {}", read, middle.size(), names);
}

double of_power(Source s, double Efficacy::*member) { return s.sweep.efficacy ? (*s.sweep.efficacy).*member : unread; }

constexpr std::string_view needs_watts = "needs watts";
constexpr std::string_view of_two_readings = "two readings; the grid's density; not the sensor's calibration";

constexpr Figure table[] = {
    {.id = "mean_ppfd",
     .label = "Mean PPFD",
     .symbol = "Ē",
     .unit = light,
     .shown = Shown::Light,
     .group = Group::Light,
     .meaning =
         "Photons between 400 and 700 nm that reach each square meter each second, averaged over the measured area",
     .formula = "Σ weight · PPFD, weights by the area each station stands for",
     .depends_on = "readings, their weights, the measured area; height, dimmer, walls and door",
     .value = [](Source s) { return s.sweep.mean_ppfd; },
     .worked =
         [](Source s) {
           return fmt::format("sum over {} stations = {:.1f} {} on {:.4f} m²", stations_read(s), s.sweep.mean_ppfd,
                              light, s.sweep.area_m2);
         },
     .where = [](Source s, UnitSystem u) { return "over " + area_text(s.sweep.area_m2, u); },
     .sampling = Sampling::WithMean},
    {.id = "lowest_ppfd",
     .label = "Lowest",
     .symbol = "Emin",
     .unit = light,
     .shown = Shown::Light,
     .meaning = "The lowest reading, at the station named; never an interpolated value",
     .formula = "min PPFD",
     .depends_on = "one reading: more stations nearer the walls make it lower",
     .value = [](Source s) { return s.sweep.lowest.ppfd; },
     .worked =
         [](Source s) {
           return fmt::format("least of {} readings = {:.1f} {}", stations_read(s), s.sweep.lowest.ppfd, light);
         },
     .where = [](Source s, UnitSystem u) { return place(s, s.sweep.lowest.station, u); }},
    {.id = "highest_ppfd",
     .label = "Highest",
     .symbol = "Emax",
     .unit = light,
     .shown = Shown::Light,
     .meaning = "The highest reading, at the station named; never an interpolated value",
     .formula = "max PPFD",
     .depends_on = "one reading: more stations make it higher",
     .value = [](Source s) { return s.sweep.highest.ppfd; },
     .worked =
         [](Source s) {
           return fmt::format("largest of {} readings = {:.1f} {}", stations_read(s), s.sweep.highest.ppfd, light);
         },
     .where = [](Source s, UnitSystem u) { return place(s, s.sweep.highest.station, u); }},
    {.id = "centre_ppfd",
     .label = "Center",
     .symbol = "Ec",
     .unit = light,
     .shown = Shown::Light,
     .meaning = "Mean of the one, two or four stations nearest the middle",
     .formula = "plain mean",
     .depends_on = "one, two or four readings",
     .lacks = "not read",
     .value = [](Source s) { return s.sweep.center_ppfd; },
     .where = middle_read},
    {.id = "edge_ppfd",
     .label = "Edge",
     .symbol = "Ee",
     .unit = light,
     .shown = Shown::Light,
     .meaning = "Mean along the outermost closed line of stations; what a target's low end is held against",
     .formula = "Σ length · PPFD ÷ Σ length, lengths of the line that each station stands for",
     .depends_on = "readings of the outer stations; how near they are to the walls",
     .lacks = "needs a lattice whose outer stations were read",
     .value = [](Source s) { return s.sweep.edge_ppfd; }},
    {.id = "median_ppfd",
     .label = "Median",
     .symbol = "E50",
     .unit = light,
     .shown = Shown::Light,
     .meaning = "Half of the stations read less",
     .formula = "50th percentile, linear between order statistics",
     .depends_on = "readings, the grid",
     .value = [](Source s) { return s.sweep.median_ppfd; },
     .sampling = Sampling::HalfGrids},
    {.id = "p5_ppfd",
     .label = "5th percentile",
     .symbol = "E5",
     .unit = light,
     .shown = Shown::Light,
     .meaning = "One station in twenty reads less",
     .formula = "5th percentile, linear between order statistics",
     .depends_on = "readings, the grid",
     .value = [](Source s) { return s.sweep.p5_ppfd; },
     .sampling = Sampling::HalfGrids},
    {.id = "p95_ppfd",
     .label = "95th percentile",
     .symbol = "E95",
     .unit = light,
     .shown = Shown::Light,
     .meaning = "One station in twenty reads more",
     .formula = "95th percentile, linear between order statistics",
     .depends_on = "readings, the grid",
     .value = [](Source s) { return s.sweep.p95_ppfd; },
     .sampling = Sampling::HalfGrids},
    {.id = "sd_ppfd",
     .label = "Standard deviation",
     .symbol = "s",
     .unit = light,
     .shown = Shown::Light,
     .meaning = "The usual distance of a place from the mean",
     .formula = "√ Σ weight · (PPFD − mean)²",
     .depends_on = "readings and reading noise, the grid",
     .value = [](Source s) { return s.sweep.sd_ppfd; },
     .sampling = Sampling::HalfGrids},
    {.id = "lowest_over_mean",
     .label = "lowest ÷ mean",
     .symbol = "Emin/Ē",
     .unit = "1",
     .decimals = 2,
     .group = Group::Evenness,
     .meaning = "How far the dimmest station falls below the mean; 1 is perfectly even",
     .formula = "lowest ÷ mean PPFD",
     .depends_on = "the lowest reading and the mean; the grid's density; not the sensor's calibration",
     .value = [](Source s) { return s.sweep.evenness.lowest_over_mean; },
     .worked =
         [](Source s) { return ratio(s.sweep.lowest.ppfd, s.sweep.mean_ppfd, s.sweep.evenness.lowest_over_mean); },
     .sampling = Sampling::AgainstMean},
    {.id = "lowest_over_highest",
     .label = "lowest ÷ highest",
     .symbol = "Emin/Emax",
     .unit = "1",
     .decimals = 2,
     .group = Group::Evenness,
     .meaning = "The dimmest station beside the brightest; 1 is perfectly even",
     .formula = "lowest ÷ highest",
     .depends_on = of_two_readings,
     .value = [](Source s) { return s.sweep.evenness.lowest_over_highest; },
     .worked =
         [](Source s) {
           return ratio(s.sweep.lowest.ppfd, s.sweep.highest.ppfd, s.sweep.evenness.lowest_over_highest);
         }},
    {.id = "highest_over_lowest",
     .label = "highest ÷ lowest",
     .symbol = "Emax/Emin",
     .unit = "1",
     .decimals = 2,
     .group = Group::Evenness,
     .meaning = "The brightest station beside the dimmest; 1 is perfectly even",
     .formula = "highest ÷ lowest",
     .depends_on = of_two_readings,
     .value = [](Source s) { return s.sweep.evenness.highest_over_lowest; },
     .worked =
         [](Source s) {
           return ratio(s.sweep.highest.ppfd, s.sweep.lowest.ppfd, s.sweep.evenness.highest_over_lowest);
         }},
    {.id = "p5_over_mean",
     .label = "5th percentile ÷ mean",
     .symbol = "E5/Ē",
     .unit = "1",
     .decimals = 2,
     .group = Group::Evenness,
     .meaning = "As lowest ÷ mean, steadier on dense grids",
     .formula = "5th percentile ÷ mean PPFD",
     .depends_on = "readings; less on the grid's density than the lowest",
     .value = [](Source s) { return s.sweep.evenness.p5_over_mean; },
     .worked = [](Source s) { return ratio(s.sweep.p5_ppfd, s.sweep.mean_ppfd, s.sweep.evenness.p5_over_mean); },
     .sampling = Sampling::AgainstMean},
    {.id = "cv",
     .label = "Spread (CV)",
     .symbol = "CV",
     .unit = "1",
     .shown = Shown::Percent,
     .decimals = 1,
     .group = Group::Evenness,
     .meaning = "Standard deviation in percent of the mean",
     .formula = "SD ÷ mean",
     .depends_on = "readings and reading noise, the grid; not the sensor's calibration",
     .value = [](Source s) { return s.sweep.cv; },
     .worked =
         [](Source s) {
           return fmt::format("{:.1f} ÷ {:.1f} = {:.1f} %", s.sweep.sd_ppfd, s.sweep.mean_ppfd, 100 * s.sweep.cv);
         },
     .sampling = Sampling::HalfGrids},
    {.id = "center_minus_corners_ppfd",
     .label = "Center minus corners",
     .symbol = "Ec − Ek",
     .unit = light,
     .shown = Shown::Light,
     .with_sign = true,
     .group = Group::Evenness,
     .meaning = "By how much the middle is brighter than the four corner stations on average",
     .formula = "center − mean of the four corner stations",
     .depends_on = "five to eight readings; how near the corner stations are to the walls",
     .lacks = "needs a lattice",
     .value = [](Source s) { return s.sweep.center_ppfd - s.sweep.corner_ppfd; },
     .worked =
         [](Source s) {
           return std::isnan(s.sweep.corner_ppfd)
                      ? std::string()
                      : fmt::format("{:.1f} − {:.1f} = {:+.1f} {}", s.sweep.center_ppfd, s.sweep.corner_ppfd,
                                    s.sweep.center_ppfd - s.sweep.corner_ppfd, light);
         }},
    {.id = "rings",
     .label = "Rings, wall to center",
     .symbol = "",
     .unit = light,
     .group = Group::Pattern,
     .meaning = "Mean of each closed line of stations, from the wall inwards",
     .formula = "Σ length · PPFD ÷ Σ length, lengths of the ring that each station stands for",
     .depends_on = "readings of each ring, the grid"},
    {.id = "left_right_pct",
     .label = "Left to right",
     .symbol = "",
     .unit = "%",
     .decimals = 1,
     .with_sign = true,
     .group = Group::Balance,
     .meaning = "Positive: the right half is brighter",
     .formula = "(right mean − left mean) ÷ mean",
     .depends_on = "readings; how level and centered the fixture hangs",
     .value = [](Source s) { return s.sweep.balance.left_right_pct; },
     .where = [](Source, UnitSystem) { return std::string("+ right is brighter"); },
     .sampling = Sampling::HalfGrids},
    {.id = "front_back_pct",
     .label = "Front to back",
     .symbol = "",
     .unit = "%",
     .decimals = 1,
     .with_sign = true,
     .group = Group::Balance,
     .meaning = "Positive: the half away from the door is brighter",
     .formula = "(back mean − front mean) ÷ mean",
     .depends_on = "readings; how level and centered the fixture hangs",
     .value = [](Source s) { return s.sweep.balance.front_back_pct; },
     .where = [](Source, UnitSystem) { return std::string("+ back is brighter"); },
     .sampling = Sampling::HalfGrids},
    {.id = "centroid_x_m",
     .label = "Centroid, across",
     .symbol = "",
     .unit = "m",
     .shown = Shown::Length,
     .decimals = 1,
     .with_sign = true,
     .group = Group::Balance,
     .meaning = "Where the light balances, from the middle of the stations: right is positive",
     .formula = "Σ weight · PPFD · x ÷ Σ weight · PPFD",
     .depends_on = "readings; how level and centered the fixture hangs",
     .value = [](Source s) { return s.sweep.balance.centroid_x_m; },
     .where = [](Source, UnitSystem) { return std::string("+ right"); },
     .sampling = Sampling::HalfGrids},
    {.id = "centroid_y_m",
     .label = "Centroid, deep",
     .symbol = "",
     .unit = "m",
     .shown = Shown::Length,
     .decimals = 1,
     .with_sign = true,
     .group = Group::Balance,
     .meaning = "Where the light balances, from the middle of the stations: away from the door is positive",
     .formula = "Σ weight · PPFD · y ÷ Σ weight · PPFD",
     .depends_on = "readings; how level and centered the fixture hangs",
     .value = [](Source s) { return s.sweep.balance.centroid_y_m; },
     .where = [](Source, UnitSystem) { return std::string("+ back"); },
     .sampling = Sampling::HalfGrids},
    {.id = "ppf_umol_s",
     .label = "PPF on the footprint",
     .symbol = "Φ",
     .unit = "µmol/s",
     .group = Group::Power,
     .meaning = "Photons that reach the measured area each second",
     .formula = "mean PPFD · area",
     .depends_on = "mean PPFD and the measured area",
     .value = [](Source s) { return s.sweep.ppf_umol_s; },
     .worked =
         [](Source s) {
           return fmt::format("{:.1f} {} · {:.4f} m² = {:.1f} µmol/s", s.sweep.mean_ppfd, light, s.sweep.area_m2,
                              s.sweep.ppf_umol_s);
         },
     .where = [](Source s, UnitSystem u) { return "on " + area_text(s.sweep.area_m2, u); },
     .sampling = Sampling::WithMean,
     .goes_with_area = true},
    {.id = "power_w",
     .label = "Wall power",
     .symbol = "P",
     .unit = "W",
     .decimals = 1,
     .group = Group::Power,
     .meaning = "Input power at the wall plug, driver losses included",
     .formula = "as read",
     .depends_on = "wall meter, mains voltage, warm-up",
     .lacks = "not read",
     .value = [](Source s) { return s.sweep.power_w.value_or(unread); },
     .of_watts_alone = true},
    {.id = "canopy_efficacy_umol_j",
     .label = "Canopy efficacy",
     .symbol = "Φ/P",
     .unit = "µmol/J",
     .decimals = 2,
     .group = Group::Light,
     .meaning =
         "Photons on the measured area for each joule from the wall; light lost to walls and outside the area is "
         "not in it",
     .formula = "PPF on the footprint ÷ wall power",
     .depends_on = "mean PPFD, measured area, watts; walls and height, since lost light is not in it",
     .lacks = needs_watts,
     .value = [](Source s) { return of_power(s, &Efficacy::canopy_efficacy_umol_j); },
     .worked =
         [](Source s) {
           return s.sweep.efficacy ? fmt::format("{:.1f} µmol/s ÷ {:.1f} W = {:.3f} µmol/J", s.sweep.ppf_umol_s,
                                                 *s.sweep.power_w, s.sweep.efficacy->canopy_efficacy_umol_j)
                                   : std::string();
         },
     .sampling = Sampling::WithMean,
     .goes_with_area = true},
    {.id = "ppfd_per_watt",
     .label = "PPFD per watt",
     .symbol = "Ē/P",
     .unit = "µmol/m²/s/W",
     .decimals = 2,
     .group = Group::Power,
     .meaning = "Another quantity than efficacy: it depends on the area",
     .formula = "mean PPFD ÷ wall power",
     .depends_on = "mean PPFD and watts; falls as the area grows",
     .lacks = needs_watts,
     .value = [](Source s) { return of_power(s, &Efficacy::ppfd_per_watt); },
     .worked =
         [](Source s) {
           return s.sweep.efficacy ? fmt::format("{:.1f} {} ÷ {:.1f} W = {:.3f}", s.sweep.mean_ppfd, light,
                                                 *s.sweep.power_w, s.sweep.efficacy->ppfd_per_watt)
                                   : std::string();
         },
     .sampling = Sampling::WithMean},
    {.id = "power_density_w_m2",
     .label = "Power density",
     .symbol = "P/A",
     .unit = "W/m²",
     .shown = Shown::PowerDensity,
     .group = Group::Power,
     .meaning = "Wall power spread over the measured area",
     .formula = "wall power ÷ area",
     .depends_on = "watts and the measured area",
     .lacks = needs_watts,
     .value = [](Source s) { return of_power(s, &Efficacy::power_density_w_m2); },
     .worked =
         [](Source s) {
           return s.sweep.efficacy ? fmt::format("{:.1f} W ÷ {:.4f} m² = {:.1f} W/m²", *s.sweep.power_w,
                                                 s.sweep.area_m2, s.sweep.efficacy->power_density_w_m2)
                                   : std::string();
         },
     .goes_with_area = true,
     .of_watts_alone = true},
    {.id = "dli_mean_mol_m2_d",
     .label = "Daily light (DLI)",
     .symbol = "DLI",
     .unit = "mol/m²/day",
     .decimals = 1,
     .group = Group::Target,
     .meaning = "Photons a square meter collects in a day at the stated photoperiod",
     .formula = "mean PPFD · 3600 · hours ÷ 10⁶",
     .depends_on = "mean PPFD and the photoperiod",
     .value = [](Source s) { return s.sweep.dli_mean_mol_m2_d; },
     .worked =
         [](Source s) {
           return fmt::format("{:.1f} {} · 3600 s/h · {:.1f} h ÷ 10⁶ = {:.2f} mol/m²/day", s.sweep.mean_ppfd, light,
                              s.sweep.photoperiod_h, s.sweep.dli_mean_mol_m2_d);
         },
     .where = [](Source s, UnitSystem) { return short_number(s.sweep.photoperiod_h, 1) + " h of light"; },
     .sampling = Sampling::WithMean},
    {.id = "coverage",
     .label = "In band",
     .symbol = "",
     .unit = "1",
     .shown = Shown::Percent,
     .group = Group::Target,
     .meaning = "Share of the measured area whose PPFD lies inside the target's band, on the field at 1 cm",
     .formula = "area in band ÷ measured area",
     .depends_on = "readings, the target's band and, for a band of daily light, the photoperiod",
     .lacks = "needs a lattice of stations and a band",
     .value = [](Source s) { return s.in_band_share; },
     .worked =
         [](Source s) {
           if (!s.sweep.coverage) return std::string();
           const Coverage& c = *s.sweep.coverage;
           return fmt::format("{:.4f} m² between {:.0f} and {:.0f} {} ÷ {:.4f} m² = {:.1f} %", c.in_band_m2, c.band.low,
                              c.band.high, light, s.sweep.area_m2, 100 * c.in_band_share);
         },
     .where =
         [](Source s, UnitSystem u) {
           if (!s.sweep.coverage) return std::string();
           const Coverage& c = *s.sweep.coverage;
           return fmt::format("{} of {}; too dim {} %, too bright {} %", area_text(c.in_band_m2, u),
                              area_text(s.sweep.area_m2, u), short_number(100 * c.too_dim_share, 0),
                              short_number(100 * c.too_bright_share, 0));
         },
     .sampling = Sampling::Field},
    {.id = "area_curve",
     .label = "Area at or above",
     .symbol = "",
     .unit = "m²",
     .group = Group::Pattern,
     .meaning = "How much of the measured area reaches at least each PPFD, on the field at 1 cm",
     .formula = "area where PPFD ≥ E",
     .depends_on = "readings and the measured area"},
    {.id = "nominal",
     .label = "Nominal footprints",
     .symbol = "",
     .unit = "",
     .group = Group::Target,
     .meaning = "Usual growing areas centered in the measured one",
     .formula = "passes where the test's own rule is met over it; its edge is read half a cell inside its border",
     .depends_on = "readings, the target's band, the size of the area"},
};

}  // namespace

FigureSource::FigureSource(const Layout& of, std::span<const double> light_of, const SweepFigures& basics)
    : layout(of),
      ppfd(light_of),
      sweep(basics),
      in_band_share(basics.coverage ? basics.coverage->in_band_share : unread) {}

std::span<const Figure> figures() { return table; }

int figure_index(std::string_view id) {
  const auto found = std::find_if(std::begin(table), std::end(table), [&](const Figure& f) { return f.id == id; });
  return found == std::end(table) ? -1 : static_cast<int>(found - std::begin(table));
}

const Figure& figure(std::string_view id) {
  const int at = figure_index(id);
  if (at < 0) throw std::logic_error("no such figure: " + std::string(id));
  return table[at];
}

std::vector<const Figure*> figures_led_by(std::string_view evenness_lead) {
  std::vector<const Figure*> order;
  for (const Figure& f : figures()) order.push_back(&f);
  const auto in_group = [](const Figure* f) { return f->group == Group::Evenness; };
  const auto first = std::find_if(order.begin(), order.end(), in_group);
  const auto lead =
      std::find_if(order.begin(), order.end(), [&](const Figure* f) { return in_group(f) && f->id == evenness_lead; });
  if (lead != order.end()) std::rotate(first, lead, lead + 1);
  return order;
}

std::vector<double> figure_values(const FigureSource& source) {
  std::vector<double> values;
  values.reserve(std::size(table));
  for (const Figure& f : table) values.push_back(f.value ? f.value(source) : unread);
  return values;
}

double shown_per_stored(const Figure& f, UnitSystem units) {
  switch (f.shown) {
    case Shown::Percent:
      return 100;
    case Shown::Length:
      return 1 / meters_per(surface_unit(units));
    case Shown::PowerDensity:
      return units == UnitSystem::Imperial ? 1 / square_feet(1) : 1;
    case Shown::AsIs:
    case Shown::Light:
      break;
  }
  return 1;
}

std::string shown_unit(const Figure& f, UnitSystem units) {
  if (f.shown == Shown::Percent) return "%";
  if (f.shown == Shown::Length) return std::string(symbol(surface_unit(units)));
  if (f.shown == Shown::PowerDensity && units == UnitSystem::Imperial) return "W/ft²";
  return f.unit == "1" ? std::string() : std::string(f.unit);
}

std::string shown_value(const Figure& f, double value, UnitSystem units) {
  return shown_told(f, value, unread, units).value;
}

std::string shown_with_unit(const Figure& f, double value, UnitSystem units) {
  const std::string unit = shown_unit(f, units);
  return shown_value(f, value, units) + (unit.empty() ? "" : " " + unit);
}

Told shown_told(const Figure& f, double value, double expanded, UnitSystem units) {
  if (std::isnan(value)) return {"–", {}};
  if (std::isinf(value)) return {"∞", {}};
  const double per = shown_per_stored(f, units), shown = value * per;
  const int more = f.shown == Shown::PowerDensity && units == UnitSystem::Imperial ? 1 : 0;
  const int usual = f.shown == Shown::Light ? decimals_of(ppfd_text(std::abs(shown))) : f.decimals + more;
  return f.with_sign ? told_difference(shown, expanded * per, usual) : told(shown, expanded * per, usual);
}

}  // namespace sunbreak
