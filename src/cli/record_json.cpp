#include "cli/record_json.h"

#include "cli/input_output.h"
#include "evaluation/heat_by_state.h"
#include "evaluation/rig_model.h"
#include "record/fact_sheet.h"

namespace sunbreak::cli {

using record::Json;

namespace {

Json change_json(const evaluation::FigureChange& c) {
  if (!c.known()) return nullptr;
  return {{"ratio", c.ratio}, {"expanded_k2", c.ratio * c.expanded}, {"beyond", c.beyond()}};
}

Json fact_json(const record::BoxFact& fact) { return fact.value ? Json(*fact.value) : Json(fact.words); }

}  // namespace

Json sheet_json(const record::TestRecord& test) {
  const record::Fixture& f = test.fixture;
  Json facts = Json::object();
  for (const record::FactKind& kind : record::fact_kinds())
    for (const char* source : {"stated", "checked"})
      if (const record::BoxFact* fact = record::box_fact(test, kind.name, source))
        facts[kind.name][source] = fact_json(*fact);
  return {{"name", f.name},         {"maker", f.maker},
          {"price", f.price},       {"discount_pct", f.discount_pct},
          {"shipping", f.shipping}, {"cost", record::cost_of(f)},
          {"currency", f.currency}, {"price_on", f.price_on},
          {"facts", facts}};
}

Json arrangement_json(const record::TestRecord& test) {
  const FixtureOutline o = evaluation::outline_of(test);
  return {{"columns", o.columns},         {"rows", o.rows},         {"spacing_x_m", o.spacing_x_m},
          {"spacing_y_m", o.spacing_y_m}, {"turn_deg", o.turn_deg}, {"tilt_deg", o.unit_tilt_deg}};
}

Json heat_json(const record::TestRecord& test) {
  Json rows = Json::array();
  for (const evaluation::HeatRow& r : evaluation::heat_rows(test, UnitSystem::Metric))
    rows.push_back({{"place", r.place},
                    {"height_m", r.height_m},
                    {"dimmer_pct", r.percent},
                    {"minutes_on", r.minutes_on},
                    {"surface_c", r.surface_c ? Json(r.surface_c.value()) : Json()},
                    {"hottest_c", r.hottest_c},
                    {"coldest_c", r.coldest_c},
                    {"rise_k", r.rise_k},
                    {"over_limit_k", r.over_limit}});
  return {{"rows", rows}, {"verdicts", evaluation::heat_verdicts(test, UnitSystem::Metric)}};
}

Json retest_json(const evaluation::Retest& r) {
  Json sweeps = Json::array();
  for (const evaluation::RetestedSweep& s : r.sweeps) {
    Json pattern = nullptr;
    if (s.pattern)
      pattern = {{"rms_pct", 100 * s.pattern->rms},
                 {"expected_rms_pct", 100 * s.pattern->expected_rms},
                 {"farthest_station", s.pattern->farthest},
                 {"beyond", s.pattern->beyond}};
    sweeps.push_back({{"height_m", s.height_m},
                      {"dimmer_pct", s.percent},
                      {"mean_ppfd", change_json(s.mean)},
                      {"power_w", change_json(s.power)},
                      {"canopy_efficacy_umol_j", change_json(s.efficacy)},
                      {"pattern", pattern}});
  }
  Json decay = nullptr;
  if (r.decay_pct_per_1000h)
    decay = {{"value", r.decay_pct_per_1000h->first}, {"expanded_k2", r.decay_pct_per_1000h->second}};
  return {{"of", r.earlier_title},
          {"of_measured_on", r.earlier_on},
          {"same_unit", r.same_unit},
          {"same_sensor", r.same_sensor},
          {"hours_between", r.hours_between},
          {"decay_pct_per_1000h", decay},
          {"sweeps", sweeps},
          {"sweeps_alone", r.alone},
          {"words", evaluation::retest_sentences(r, UnitSystem::Metric)}};
}

Json pictures_json(const record::TestRecord& whole) {
  Json all = Json::array();
  const auto add = [&](const auto& p, Json of) {
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
           : p.check_rule.empty() ? Json("test")
                                  : Json("check: " + p.check_rule));
  return all;
}

Json notes_json(const record::TestRecord& whole) {
  Json all = Json::array();
  for (const record::GrowthNote& n : whole.growth_notes) all.push_back({{"on", n.noted_on}, {"words", n.words}});
  return all;
}

}  // namespace sunbreak::cli
