#include "cli/record_json.h"

#include "cli/input_output.h"
#include "evaluation/heat_by_state.h"
#include "evaluation/rig_model.h"
#include "record/fact_sheet.h"

namespace sunbreak::cli {

using nlohmann::ordered_json;

namespace {

ordered_json change_json(const evaluation::FigureChange& c) {
  if (!c.known()) return nullptr;
  return {{"ratio", number(c.ratio)}, {"expanded_k2", number(c.ratio * c.expanded)}, {"beyond", c.beyond()}};
}

ordered_json fact_json(const record::BoxFact& fact) {
  return fact.value ? number(*fact.value) : ordered_json(fact.words);
}

}  // namespace

ordered_json sheet_json(const record::TestRecord& test) {
  const record::Fixture& f = test.fixture;
  ordered_json facts = ordered_json::object();
  for (const record::FactKind& kind : record::fact_kinds())
    for (const char* source : {"stated", "checked"})
      if (const record::BoxFact* fact = record::box_fact(test, kind.name, source))
        facts[std::string(kind.name)][source] = fact_json(*fact);
  return {{"name", f.name},
          {"maker", f.maker},
          {"price", maybe(f.price)},
          {"discount_pct", maybe(f.discount_pct)},
          {"shipping", maybe(f.shipping)},
          {"cost", maybe(record::cost_of(f))},
          {"currency", f.currency},
          {"price_on", f.price_on},
          {"facts", facts}};
}

ordered_json arrangement_json(const record::TestRecord& test) {
  const FixtureOutline o = evaluation::outline_of(test);
  return {{"columns", o.columns},         {"rows", o.rows},         {"spacing_x_m", o.spacing_x_m},
          {"spacing_y_m", o.spacing_y_m}, {"turn_deg", o.turn_deg}, {"tilt_deg", o.unit_tilt_deg}};
}

ordered_json heat_json(const record::TestRecord& test) {
  ordered_json rows = ordered_json::array();
  for (const evaluation::HeatRow& r : evaluation::heat_rows(test, UnitSystem::Metric))
    rows.push_back({{"place", r.place},
                    {"height_m", maybe(r.height_m)},
                    {"dimmer_pct", maybe(r.percent)},
                    {"minutes_on", maybe(r.minutes_on)},
                    {"surface_c", r.surface_c ? number(r.surface_c.value()) : ordered_json(nullptr)},
                    {"hottest_c", maybe(r.hottest_c)},
                    {"coldest_c", maybe(r.coldest_c)},
                    {"rise_k", maybe(r.rise_k)},
                    {"over_limit_k", maybe(r.over_limit)}});
  return {{"rows", rows}, {"verdicts", evaluation::heat_verdicts(test, UnitSystem::Metric)}};
}

ordered_json retest_json(const evaluation::Retest& r) {
  ordered_json sweeps = ordered_json::array();
  for (const evaluation::RetestedSweep& s : r.sweeps) {
    ordered_json pattern = nullptr;
    if (s.pattern)
      pattern = {{"rms_pct", number(100 * s.pattern->rms)},
                 {"expected_rms_pct", number(100 * s.pattern->expected_rms)},
                 {"farthest_station", s.pattern->farthest},
                 {"beyond", s.pattern->beyond}};
    sweeps.push_back({{"height_m", s.height_m},
                      {"dimmer_pct", s.percent},
                      {"mean_ppfd", change_json(s.mean)},
                      {"power_w", change_json(s.power)},
                      {"canopy_efficacy_umol_j", change_json(s.efficacy)},
                      {"pattern", pattern}});
  }
  ordered_json decay = nullptr;
  if (r.decay_pct_per_1000h)
    decay = {{"value", number(r.decay_pct_per_1000h->first)}, {"expanded_k2", number(r.decay_pct_per_1000h->second)}};
  return {{"of", r.earlier_title},
          {"of_measured_on", r.earlier_on},
          {"same_unit", r.same_unit},
          {"same_sensor", r.same_sensor},
          {"hours_between", maybe(r.hours_between)},
          {"decay_pct_per_1000h", decay},
          {"sweeps", sweeps},
          {"sweeps_alone", r.alone},
          {"words", evaluation::retest_sentences(r, UnitSystem::Metric)}};
}

ordered_json pictures_json(const record::TestRecord& whole) {
  ordered_json all = ordered_json::array();
  const auto add = [&](const auto& p, ordered_json of) {
    all.push_back({{"of", std::move(of)},
                   {"kind", p.kind},
                   {"caption", p.caption},
                   {"digest", p.digest},
                   {"media_type", p.media_type},
                   {"width_px", p.width_px},
                   {"height_px", p.height_px},
                   {"bytes", p.size_bytes}});
  };
  for (const record::FixturePicture& p : whole.fixture_pictures) add(p, "fixture");
  for (const record::Picture& p : whole.pictures)
    add(p, p.sweep_id             ? "sweep"
           : p.temperature_id     ? "temperature"
           : p.growth_note_id     ? "note"
           : p.check_rule.empty() ? ordered_json("test")
                                  : ordered_json("check: " + p.check_rule));
  return all;
}

ordered_json notes_json(const record::TestRecord& whole) {
  ordered_json all = ordered_json::array();
  for (const record::GrowthNote& n : whole.growth_notes) all.push_back({{"on", n.noted_on}, {"words", n.words}});
  return all;
}

}  // namespace sunbreak::cli
