#include "report/html_report.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <kainjow/mustache.hpp>
#include <map>

#include "core/bench/walk_order.h"
#include "core/figures/figure_table.h"
#include "core/quantity/daily_light.h"
#include "core/quantity/number.h"
#include "embedded/sunbreak_report.h"
#include "evaluation/stabilization.h"
#include "report/card_section.h"
#include "report/confirmation_section.h"
#include "report/light_section.h"
#include "report/power_section.h"
#include "report/svg_figures.h"
#include "report/trust_section.h"
#include "report/visible.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using kainjow::mustache::mustache;
using List = kainjow::mustache::list;

std::string stated(const std::string& text) { return text.empty() ? "not stated" : text; }

class Facts {
 public:
  Facts& add(const std::string& name, const std::string& value) {
    data row;
    row.set("name", name);
    row.set("value", stated(value));
    rows_.push_back(row);
    return *this;
  }
  data take() { return data(rows_); }

 private:
  List rows_;
};

std::string percent(double share) { return short_number(100 * share, 1) + " %"; }

std::string claim_unit(const std::string& kind) {
  return kind == "power_w"           ? " W"
         : kind == "ppf_umol_s"      ? " µmol/s"
         : kind == "efficacy_umol_j" ? " µmol/J"
         : kind == "height_m"        ? " m"
         : kind == "equivalent"      ? " W"
                                     : "";
}

std::string claim_name(const std::string& kind) {
  static const std::map<std::string, std::string> names{{"power_w", "Power"},
                                                        {"ppf_umol_s", "PPF"},
                                                        {"efficacy_umol_j", "Efficacy"},
                                                        {"coverage", "Coverage"},
                                                        {"height_m", "Hanging height"},
                                                        {"dimming_range", "Dimming range"},
                                                        {"equivalent", "Equivalent lamp"}};
  const auto found = names.find(kind);
  return found == names.end() ? kind : found->second;
}

std::string grid_words(const Layout& layout, UnitSystem units) {
  const std::string count = layout.is_lattice() ? fmt::format("{} × {} stations", layout.columns, layout.rows)
                                                : fmt::format("{} stations", layout.stations.size());
  switch (layout.kind) {
    case GridKind::Cells:
      return count + " at the middles of equal cells that fill the footprint; each weighs the same";
    case GridKind::Nodes:
      return count + " from edge to edge; trapezoid weights (edge half, corner a quarter)";
    case GridKind::Inset:
      return fmt::format("{} inside {}; mean and PPF hold for that area alone, and nothing is said about the margin",
                         count, size_text(layout.measured.width_m, layout.measured.depth_m, units));
    case GridKind::Spots:
      return count +
             (layout.nine_point ? ", a spot check; mean by the nine-point Simpson rule" : ", a spot check; plain mean");
  }
  return count;
}

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
    least = low->calibration_factor, most = high->calibration_factor;
  }
  const std::string own = least == m.factor && most == m.factor
                              ? std::string()
                              : fmt::format(" (its card says {} by now)", short_number(m.factor, 4));
  return least == most ? fmt::format("factor {}{}", short_number(least, 4), own)
                       : fmt::format("factors {} to {}{}", short_number(least, 4), short_number(most, 4), own);
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

/// Draws figures either in place or apart.
class FigureSink {
 public:
  FigureSink(HtmlReport& report, bool apart) : report_(report), apart_(apart) {}
  std::string put(std::string svg) {
    if (!apart_) return svg;
    // With its size stated, a viewer can lay the page out before it draws a figure.
    const std::string size = svg.substr(svg.find(" width="), svg.find(" role=") - svg.find(" width="));
    report_.figures.push_back(std::move(svg));
    return fmt::format("<img src=\"figure:{}\"{}>", report_.figures.size() - 1, size);
  }

 private:
  HtmlReport& report_;
  bool apart_;
};

List figure_rows(const FigureSource& source, const Budget& budget, UnitSystem units, std::string_view lead) {
  List rows;
  const auto add = [&](const std::string& label, const std::string& value, const std::string& sure,
                       const std::string& where) {
    data row;
    row.set("label", label);
    row.set("value", value);
    row.set("sure", sure);
    row.set("where", where);
    rows.push_back(row);
  };
  for (const Figure* row : figures_led_by(lead)) {
    const Figure& f = *row;
    const double value = f.value ? f.value(source) : unread;
    if (std::isnan(value)) continue;
    add(std::string(f.label), shown_with_unit(f, value, units),
        shown_uncertainty(f, value, budget.expanded(f.id), units), f.where ? f.where(source, units) : "");
  }
  if (source.sweep.coverage) {
    const Coverage& c = *source.sweep.coverage;
    const Rectangle &largest = c.largest_rectangle, &centered = c.largest_centered_rectangle;
    add("Largest rectangle in band", c.in_band_m2 > 0 ? size_text(largest.width_m, largest.depth_m, units) : "none", "",
        centered.area_m2() > 0
            ? fmt::format("centered: {}; circle {} across", size_text(centered.width_m, centered.depth_m, units),
                          length_text(c.largest_centered_circle_m, units))
            : std::string("the middle itself is out of band"));
  }
  return rows;
}

List reading_rows(const evaluation::SweepView& view, UnitSystem units) {
  List rows;
  const auto add = [&](const std::vector<std::string>& texts) {
    List cells;
    for (const std::string& t : texts) cells.push_back(data(t));
    data row;
    row.set("cells", data(cells));
    rows.push_back(row);
  };
  const double unit = meters_per(surface_unit(units));
  const auto value = [&](std::size_t i) {
    return std::isnan(view.ppfd[i]) ? std::string("–") : ppfd_text(view.ppfd[i]);
  };
  if (!view.layout.is_lattice()) {
    for (std::size_t i = 0; i < view.layout.stations.size(); ++i) {
      const Station& s = view.layout.stations[i];
      add({s.name, short_number(s.x_m / unit, 1), short_number(s.y_m / unit, 1), value(i)});
    }
    return rows;
  }
  for (int row = view.layout.rows - 1; row >= 0; --row) {
    std::vector<std::string> texts{"y " + short_number(view.layout.ys_m[row] / unit, 1)};
    for (int column = 0; column < view.layout.columns; ++column) texts.push_back(value(view.layout.index(column, row)));
    add(texts);
  }
  std::vector<std::string> foot{std::string(symbol(surface_unit(units)))};
  for (const double x : view.layout.xs_m) foot.push_back("x " + short_number(x / unit, 1));
  add(foot);
  return rows;
}

List nominal_rows(const SweepFigures& f, UnitSystem units) {
  List rows;
  for (const NominalFootprint& n : f.nominal) {
    data row;
    row.set("size", size_text(n.size.width_m, n.size.depth_m, units));
    row.set("inside", ppfd_text(n.inside_mean_ppfd));
    row.set("edge", ppfd_text(n.edge_mean_ppfd));
    row.set("edge_daily", daily_light_text(dli_mol_m2_d(n.edge_mean_ppfd, f.photoperiod_h)));
    row.set("share", percent(n.in_band_share));
    row.set("verdict", n.passes ? "passes" : "does not pass");
    rows.push_back(row);
  }
  return rows;
}

}  // namespace

namespace {

/// The style sheet, its paper colors exchanged for those of a dark palette.
std::string css_in(const drawing::Palette& palette) {
  std::string css(embedded::report_css);
  if (!palette.dark) return css;
  const std::pair<std::string_view, drawing::Rgb> exchanged[] = {
      {"#1E2A2F", palette.ink},  {"#FBF9F4", palette.panel}, {"#5C686C", palette.quiet},
      {"#D8D2C4", palette.rule}, {"#E6E1D5", palette.rule},  {"#8A5A00", palette.ember}};
  for (const auto& [paper, color] : exchanged) {
    const std::string hex = fmt::format("#{:02X}{:02X}{:02X}", color.red, color.green, color.blue);
    for (std::size_t at = css.find(paper); at != std::string::npos; at = css.find(paper, at + hex.size()))
      css.replace(at, paper.size(), hex);
  }
  return css;
}

/// A meter's uncertainty as its maker quotes it, and what is assumed of it.
std::string quoted_uncertainty(const record::Meter& m) {
  if (!m.uncertainty_pct) return "not stated; the usual one is assumed";
  const double k = m.uncertainty_k.value_or(1);
  const std::string quoted = fmt::format("± {} %", short_number(k * *m.uncertainty_pct, 2));
  if (!m.uncertainty_k) return quoted + ", coverage factor not stated: one standard deviation is assumed";
  return k == 1 ? quoted + ", one standard deviation" : quoted + fmt::format(" (k = {})", short_number(k, 2));
}

/// Which sweeps were computed by a simulated bench, in words; empty where none was.
std::string simulated_words(const evaluation::Evaluation& evaluation, UnitSystem units) {
  const record::TestRecord& b = evaluation.record();
  std::vector<std::string> names;
  std::size_t measured = 0;
  for (const record::Sweep& sweep : b.sweeps) {
    const evaluation::SweepView* view = evaluation.view(sweep.id);
    if (!view || view->read() == 0) continue;
    const record::Rung* rung = b.rung(sweep.rung_id);
    const record::Stop* stop = b.stop(sweep.stop_id);
    if (!view->simulated())
      ++measured;
    else if (rung && stop)
      names.push_back(fmt::format("{} at {} %", length_text(rung->height_m, units), short_number(stop->percent, 1)));
  }
  if (names.empty()) return {};
  if (measured == 0) return "Sample data: these readings were computed by a simulated bench, not measured.";
  return fmt::format("Computed by a simulated bench, not measured: {}. The other sweeps were measured.",
                     fmt::join(names, ", "));
}

}  // namespace

HtmlReport html_report(const evaluation::Evaluation& evaluation, const ReportOptions& options) {
  const record::TestRecord& b = evaluation.record();
  HtmlReport report;
  FigureSink sink(report, options.figures_apart);
  const UnitSystem units = options.units;
  data page;
  page.set("title", record::title_of(b));
  page.set("css", css_in(options.palette));
  page.set("lead", fmt::format("{} on {} · measured {} by {}", stated(b.fixture.name), stated(b.bench.name),
                               stated(b.test.tested_on), stated(b.test.tested_by)));
  page.set("simulated", simulated_words(evaluation, units));

  const auto optional_length = [&](const std::optional<double>& m) {
    return m ? length_text(*m, units) : std::string();
  };
  page.set(
      "fixture",
      Facts()
          .add("Name", b.fixture.name)
          .add("Maker", b.fixture.maker)
          .add("Kind", b.fixture.kind)
          .add("Emitters", b.fixture.emitters)
          .add("Size",
               b.fixture.width_m && b.fixture.depth_m ? size_text(*b.fixture.width_m, *b.fixture.depth_m, units) : "")
          .add("Price", b.fixture.price ? short_number(*b.fixture.price, 2) + " " + b.fixture.currency : "")
          .take());
  Facts claims;
  for (const record::Claim& c : b.claims)
    claims.add(claim_name(c.kind),
               c.words.empty() && c.value ? short_number(*c.value, 3) + claim_unit(c.kind) : c.words);
  page.set("claims", claims.take());
  Facts bench;
  bench.add("Bench", b.bench.name)
      .add("Footprint", size_text(b.bench.width_m, b.bench.depth_m, units))
      .add("Height available", optional_length(b.bench.height_m))
      .add("Walls: left, right, front, back",
           fmt::format("{}, {}, {}, {}", stated(b.bench.wall_left), stated(b.bench.wall_right),
                       stated(b.bench.wall_front), stated(b.bench.wall_back)))
      .add("Door while reading", b.test.door)
      .add("Heights measured from", b.test.datum)
      .add("Heights chosen by", height_rule_words(b.test))
      .add("The tape ended at", tape_words(b.test))
      .add("Hung level, by a level", b.test.checked_level)
      .add("Centered, by the tape", b.test.checked_center)
      .add("Height checked at every corner", b.test.checked_height)
      .add("Fans as in use", b.test.checked_fans);
  for (const record::Meter& m : b.meters)
    bench.add(m.kind == "wall"           ? "Wall meter"
              : m.kind == "spectrometer" ? "Spectrometer"
                                         : "Quantum sensor",
              fmt::format("{}; calibrated {}; {}; uncertainty {}", stated(m.name), stated(m.calibrated_on),
                          factor_words(b, m), quoted_uncertainty(m)));
  page.set("bench", bench.take());

  const double low = b.test.target_low_ppfd, high = b.test.target_high_ppfd;
  double lowest = INFINITY, highest = -INFINITY;
  std::vector<std::pair<const record::Sweep*, const evaluation::SweepView*>> chosen;
  for (const record::Rung& rung : b.rungs)
    for (const record::Stop& stop : b.stops) {
      const record::Sweep* sweep = b.sweep(rung.id, stop.id);
      if (!sweep || sweep->confirms ||
          (!options.sweeps.empty() &&
           std::find(options.sweeps.begin(), options.sweeps.end(), sweep->id) == options.sweeps.end()))
        continue;
      const evaluation::SweepView* view = evaluation.view(sweep->id);
      if (!view || view->read() == 0) continue;
      for (const double ppfd : view->ppfd)
        if (!std::isnan(ppfd)) lowest = std::min(lowest, ppfd), highest = std::max(highest, ppfd);
      chosen.emplace_back(sweep, view);
    }
  const drawing::ScaleRange range = drawing::round_range(lowest, highest);

  List method;
  method.push_back(
      data("PPFD was read at each station with the sensor facing up, in µmol/m²/s; the raw value is kept and corrected "
           "as (raw − dark) · calibration factor · spectral factor."));
  if (!chosen.empty()) method.push_back(data("Stations: " + grid_words(chosen.front().second->layout, units) + "."));
  if (!chosen.empty()) method.push_back(data(walk_words(b, *chosen.front().second)));
  method.push_back(data(
      (b.test.datum.empty()
           ? std::string("What heights are measured from is not stated; they end at the sensor's receiving surface.")
           : fmt::format("Height is the vertical distance from the {} to the sensor's receiving surface.",
                         b.test.datum)) +
      " Power is read at the wall plug, driver losses included."));
  method.push_back(
      data("Between stations the field is bilinear and keeps the outer value to the edge of the measured area; areas "
           "are counted on it at 1 cm. Lowest and highest are always readings."));
  method.push_back(
      data(fmt::format("Target: {}, {} to {} µmol/m²/s, {} h of light a day.", stated(b.test.target_name),
                       short_number(low, 1), short_number(high, 1), short_number(b.test.photoperiod_h, 1))));
  page.set("method", data(method));

  add_power_section(page, b, evaluation.log(), units);
  const evaluation::TestLight* light = options.whole_light ? evaluation.light() : nullptr;
  add_light_section(page, light, units);
  std::optional<evaluation::SettingsCard> card;
  if (light && !b.card_rows.empty()) card = evaluation::settings_card(b, *light);
  add_card_section(page, b, card ? &*card : nullptr, units);
  add_confirmations(page, evaluation, light, units);

  const auto grade = evaluation.grade();
  page.set("graded", grade.has_value());
  page.set("band", fmt::format("{}–{} µmol/m²/s", short_number(low, 1), short_number(high, 1)));
  if (grade) page.set("test_grade", std::string(name(*grade)));
  const Figure& lead = sunbreak::figure(b.test.evenness_lead);
  page.set("evenness_name", std::string(lead.label));
  List sweeps;
  for (const auto& [sweep, laid_out] : chosen) {
    const evaluation::SweepView& view = *laid_out;
    const SweepFigures& f = *evaluation.figures(sweep->id);
    const Budget& budget = *evaluation.budget(sweep->id);
    const std::optional<Band> band = evaluation::figure_context(b, *sweep, {}).target;
    const Field field(view.layout, view.ppfd);
    data s;
    s.set("height", length_text(b.rung(sweep->rung_id)->height_m, units));
    s.set("dimmer", short_number(b.stop(sweep->stop_id)->percent, 1) + " %");
    s.set("stations", fmt::format("{}/{}", f.stations - f.missing, f.stations));
    s.set("mean", ppfd_text(f.mean_ppfd));
    const Figure& mean = figure("mean_ppfd");
    s.set("mean_sure", shown_uncertainty(mean, f.mean_ppfd, budget.expanded(mean.id), units));
    const FigureSource source(view.layout, view.ppfd, f);
    const auto shown = [&](const char* id) { return shown_value(figure(id), figure(id).value(source), units); };
    s.set("evenness", shown_with_unit(lead, lead.value(source), units));
    s.set("ppf", shown("ppf_umol_s"));
    s.set("power", f.power_w ? shown("power_w") : "not stated");
    s.set("efficacy", shown("canopy_efficacy_umol_j"));
    s.set("in_band", f.coverage ? shown("coverage") + " %" : "–");
    s.set("state", fmt::format("{} of {} stations read. {}.", f.stations - f.missing, f.stations,
                               grid_words(view.layout, units)));
    List notices;
    if (f.missing > 0)
      notices.push_back(data(fmt::format(
          "{} stations were not read: the figures hold for the {} of the measured area that the read ones stand for.",
          f.missing, percent(f.read_share))));
    if (view.layout.kind == GridKind::Spots) notices.push_back(data("Spot check: a quick look, not a survey."));
    if (view.drift.significant())
      notices.push_back(
          data(fmt::format("The reference station moved by {:+.1f} % while this sweep was walked; readings "
                           "are scaled to its start, raw values are in the data package.",
                           100 * view.drift.largest_change())));
    notices.push_back(data(evaluation.walked(sweep->id).words));
    if (options.readings_table && f.stations > options.most_readings_printed)
      notices.push_back(data(fmt::format("The table of its {} readings is in the page as written.", f.stations)));
    s.set("notices", data(notices));
    add_trust(s, budget, *evaluation.evidence(sweep->id), lead.id, units);
    s.set("map", sink.put(map_svg(b, view, band, range, units, options.palette)));
    s.set("figures", data(figure_rows(source, budget, units, lead.id)));
    s.set("length_unit", std::string(symbol(surface_unit(units))));
    s.set("has_rings", !f.rings.empty());
    if (!f.rings.empty()) s.set("rings", sink.put(rings_svg(f, range, band, units, options.palette)));
    s.set("has_field", field.exists());
    if (field.exists()) s.set("curve", sink.put(area_curve_svg(view, band, units, options.palette)));
    s.set("has_nominal", !f.nominal.empty());
    s.set("nominal", data(nominal_rows(f, units)));
    s.set("nominal_rule", fmt::format("Rule: {}.", figure("nominal").formula));
    const bool printed = options.readings_table && f.stations <= options.most_readings_printed;
    s.set("has_readings", printed);
    s.set("readings_note", "Corrected PPFD in µmol/m²/s; the first row is the far one.");
    s.set("rows", data(printed ? reading_rows(view, units) : List()));
    sweeps.push_back(s);
  }
  page.set("sweeps", data(sweeps));

  List set_aside;
  for (const record::Dismissal& d : b.dismissals) {
    const auto sweep = std::find_if(b.sweeps.begin(), b.sweeps.end(), [&](auto& w) { return w.id == d.sweep_id; });
    const record::Rung* rung = sweep == b.sweeps.end() ? nullptr : b.rung(sweep->rung_id);
    const record::Stop* stop = sweep == b.sweeps.end() ? nullptr : b.stop(sweep->stop_id);
    data row;
    row.set("where", sweep == b.sweeps.end() ? std::string("the test")
                     : rung && stop
                         ? fmt::format("{} · {} %", length_text(rung->height_m, units), short_number(stop->percent, 1))
                         : std::string("a sweep set apart"));
    row.set("saw", d.saw);
    row.set("reason", d.reason);
    set_aside.push_back(row);
  }
  page.set("has_set_aside", !set_aside.empty());
  page.set("set_aside", data(set_aside));

  List definitions;
  for (const Figure& d : figures()) {
    data row;
    row.set("label", std::string(d.label) + (d.symbol.empty() ? "" : fmt::format(" ({})", d.symbol)));
    row.set("meaning", std::string(d.meaning));
    row.set("formula", std::string(d.formula));
    definitions.push_back(row);
  }
  page.set("definitions", data(definitions));
  const auto volts = b.test.mains_v ? short_number(*b.test.mains_v, 1) + " V" : std::string();
  page.set("disclosure", Facts()
                             .add("How the unit was obtained", b.fixture.obtained)
                             .add("Payment or affiliate interest", b.fixture.interest)
                             .add("Measured by", b.test.tested_by)
                             .add("Measured on", b.test.tested_on)
                             .add("Mains", b.test.mains_v && b.test.mains_hz
                                               ? volts + ", " + short_number(*b.test.mains_hz, 1) + " Hz"
                                               : volts)
                             .add("Unit serial", b.fixture.serial)
                             .add("Remarks", b.test.notes)
                             .take());
  page.set("foot", "Every figure can be recomputed from the data package published with this page.");
  mustache page_template{std::string(embedded::report_mustache)};
  report.html = visible(page_template.render(page));
  return report;
}

}  // namespace sunbreak::report
