#include "evaluation/evaluation.h"

#include <algorithm>
#include <cmath>

#include "core/optics/room_lights.h"
#include "evaluation/budget_question.h"
#include "evaluation/evidence_facts.h"
#include "evaluation/once.h"
#include "evaluation/rig_model.h"
#include "evaluation/test_light.h"

namespace sunbreak::evaluation {
/// What each part is worked out from beside the sweep's view. Where it is the same as before, so is the answer.
namespace inputs {

struct FiguresInput {
  std::optional<double> power_w;
  double photoperiod_h = 0, low = 0, high = 0;
  ServingRule rule{};
  UnitSystem units = UnitSystem::Metric;
  std::vector<OwnSize> own_sizes{};
  bool operator==(const FiguresInput&) const = default;
};

struct HangInput {
  bool asked = false;  ///< only a probe that is being read asks for the model
  Room room;
  FixtureOutline outline;
  double height_m = 0;
  bool operator==(const HangInput&) const = default;
};

struct ChecksInput {
  std::string walk_order;
  bool opening_probe = false;
  std::optional<double> range_max, emitter_spacing_m;
  SweepStatement stated;
  std::optional<double> lux_lowest, lux_highest;
  HangInput hang;
  bool operator==(const ChecksInput&) const = default;
};

struct WalkedInput {
  double percent = 0;
  std::vector<LampEvent> events;
  bool operator==(const WalkedInput&) const = default;
};

struct BudgetInput {
  FiguresInput figures;
  std::optional<Meter> sensor, wall;
  std::vector<std::optional<double>> stated;
  std::string walk_order;
  bool opening_probe = false;
  std::vector<std::pair<double, std::shared_ptr<const SweepView>>> same_stop;  ///< by height
  double height_m = 0;
  std::vector<std::optional<double>> of_its_factors;
  bool operator==(const BudgetInput&) const = default;
};

}  // namespace inputs

using namespace inputs;

namespace {

std::optional<Meter> meter_of(const TestRecord& record, const std::optional<Id>& id) {
  const Meter* meter = record.meter(id);
  return meter ? std::optional(*meter) : std::nullopt;
}

/// True where `later` is `earlier` with samples added at its end, as a recording grows.
bool grown_from(const WallLog& later, const WallLog& earlier) {
  const auto starts_alike = [](const auto& longer, const auto& shorter) {
    return longer.size() >= shorter.size() &&
           (shorter.empty() || (longer.front().time_s == shorter.front().time_s &&
                                longer[shorter.size() - 1].time_s == shorter.back().time_s));
  };
  return starts_alike(later.samples, earlier.samples) && starts_alike(later.light, earlier.light) &&
         starts_alike(later.watts, earlier.watts);
}

template <typename T>
using Shared = std::shared_ptr<Once<T>>;

/// A test without what its light does not depend on: what it is used for, and what is said of it.
Test as_light_sees(Test test) {
  test.name = test.notes = test.target_name = test.tariff_currency = test.evenness_lead = test.height_rule = {};
  test.target_low_ppfd = test.target_high_ppfd = test.photoperiod_h = 0;
  test.target_by_daily_light = false;
  test.tariff_per_kwh = test.circuit_a = test.height_rule_ppfd = {};
  test.control = test.as_it_comes = test.mark = test.retest_of = test.retest_unit = {};
  test.hours_run = test.surface_limit_c = test.canopy_rise_limit_c = {};
  return test;
}

/// The sweeps that light between them is predicted from, with their views: not those that only confirm.
std::map<Id, std::pair<record::Sweep, std::shared_ptr<const SweepView>>> predicting(const TestRecord& record,
                                                                                    const SweepViews& views) {
  std::map<Id, std::pair<record::Sweep, std::shared_ptr<const SweepView>>> sweeps;
  for (const record::Sweep& sweep : record.sweeps)
    if (!sweep.confirms) {
      const auto view = views.find(sweep.id);
      sweeps[sweep.id] = {sweep, view == views.end() ? nullptr : view->second};
    }
  return sweeps;
}

}  // namespace

struct Evaluation::Sweep {
  record::Sweep row;
  std::shared_ptr<const SweepView> view;
  SweepDigest digest;
  FiguresInput figures_input;
  ChecksInput checks_input;
  WalkedInput walked_input;
  BudgetInput budget_input;
  Shared<std::optional<SweepFigures>> figures;
  Shared<HangResponse> hang;
  Shared<std::vector<Finding>> checks, checks_without_hang;
  Shared<WalkedState> walked;
  Shared<Budget> budget;
  Once<Evidence> evidence;
};

struct Evaluation::Parts {
  TestRecord record;
  std::shared_ptr<const WallLog> log;
  UnitSystem units = UnitSystem::Metric;
  std::optional<double> photons_per_joule;
  SweepViews views;
  std::map<Id, std::unique_ptr<Sweep>> sweeps;
  std::optional<std::pair<double, double>> range;
  Once<std::vector<TestFinding>> between;
  Shared<std::vector<TestFinding>> of_meters;
  Shared<std::shared_ptr<const TestLight>> light;
};

Evaluation::Evaluation(std::unique_ptr<Parts> parts) : parts_(std::move(parts)) {}
Evaluation::~Evaluation() = default;

const TestRecord& Evaluation::record() const { return parts_->record; }
const WallLog& Evaluation::log() const { return *parts_->log; }
const SweepViews& Evaluation::views() const { return parts_->views; }
std::optional<std::pair<double, double>> Evaluation::light_range() const { return parts_->range; }

std::optional<double> Evaluation::photons_per_joule() const { return parts_->photons_per_joule; }

const Evaluation::Sweep* Evaluation::sweep(Id sweep_id) const {
  const auto found = parts_->sweeps.find(sweep_id);
  return found == parts_->sweeps.end() ? nullptr : found->second.get();
}

const SweepDigest* Evaluation::digest(Id sweep_id) const {
  const Sweep* s = sweep(sweep_id);
  return s ? &s->digest : nullptr;
}

const SweepView* Evaluation::view(Id sweep_id) const {
  const Sweep* s = sweep(sweep_id);
  return s ? s->view.get() : nullptr;
}

const SweepFigures* Evaluation::figures(Id sweep_id) const {
  const Sweep* s = sweep(sweep_id);
  if (!s) return nullptr;
  const auto* figures = s->figures->get([&]() -> std::optional<std::optional<SweepFigures>> {
    auto sizes = parts_->units == UnitSystem::Metric ? usual_metric_sizes() : usual_foot_sizes();
    for (const OwnSize& own : parts_->record.own_sizes) sizes.push_back({own.width_m, own.depth_m});
    return sweep_figures(s->view->layout, s->view->ppfd, figure_context(parts_->record, s->row, std::move(sizes)));
  });
  return *figures ? &**figures : nullptr;
}

const HangResponse& Evaluation::hang(Id sweep_id) const {
  static const HangResponse none;
  const Sweep* s = sweep(sweep_id);
  if (!s || !s->checks_input.hang.asked) return none;
  return *s->hang->get([&]() -> std::optional<HangResponse> {
    const HangInput& in = s->checks_input.hang;
    return hang_response(*light_of(in.room), nominal_fixture(in.outline), s->view->layout, in.height_m);
  });
}

HangResponse Evaluation::hang_so_far(Id sweep_id) const {
  const Sweep* s = sweep(sweep_id);
  const HangResponse* known = s ? s->hang->known() : nullptr;
  return known ? *known : HangResponse{};
}

const std::vector<Finding>& Evaluation::findings(Id sweep_id) const {
  static const std::vector<Finding> none;
  const Sweep* s = sweep(sweep_id);
  if (!s) return none;
  return *s->checks->get([&]() -> std::optional<std::vector<Finding>> {
    return checks_of(parts_->record, s->row, *s->view, hang(sweep_id), s->checks_input.stated);
  });
}

const std::vector<Finding>* Evaluation::findings_so_far(Id sweep_id) const {
  const Sweep* s = sweep(sweep_id);
  return s ? s->checks->known() : nullptr;
}

const std::vector<Finding>& Evaluation::checks_without_waiting(Id sweep_id) const {
  const Sweep* s = sweep(sweep_id);
  if (!s || !s->checks_input.hang.asked || s->hang->known()) return findings(sweep_id);
  return *s->checks_without_hang->get([&]() -> std::optional<std::vector<Finding>> {
    return checks_of(parts_->record, s->row, *s->view, {}, s->checks_input.stated);
  });
}

const std::vector<TestFinding>& Evaluation::between() const {
  return *parts_->between.get([&]() -> std::optional<std::vector<TestFinding>> {
    std::vector<SweepDigest> digests;
    for (const auto& [id, s] : parts_->sweeps) digests.push_back(s->digest);
    std::vector<TestFinding> all = checks_between(parts_->record, digests, parts_->units);
    for (const TestFinding& of_meters : *parts_->of_meters->get(
             [&]() -> std::optional<std::vector<TestFinding>> { return checks_of_meters(parts_->record); }))
      all.push_back(of_meters);
    return all;
  });
}

std::vector<TestFinding> Evaluation::gather(bool work) const {
  std::vector<TestFinding> all;
  for (const auto& [id, s] : parts_->sweeps) {
    const std::vector<Finding>* known = work ? &findings(id) : s->checks->known();
    if (!known) known = s->checks_without_hang->known();
    if (!known) continue;
    for (const Finding& check : *known) all.push_back({id, check, {}});
  }
  for (const TestFinding& check : between()) all.push_back(check);
  for (TestFinding& c : all) c.set_aside = dismissal_of(parts_->record, c.sweep_id, c.check, view(c.sweep_id));
  return all;
}

std::vector<TestFinding> Evaluation::all_findings() const { return gather(true); }
std::vector<TestFinding> Evaluation::all_findings_so_far() const { return gather(false); }

const WalkedState& Evaluation::walked(Id sweep_id) const {
  static const WalkedState none;
  const Sweep* s = sweep(sweep_id);
  if (!s) return none;
  return *s->walked->get([&]() -> std::optional<WalkedState> {
    return walked_state(s->walked_input.events, *parts_->log, *s->view, s->walked_input.percent);
  });
}

const WalkedState* Evaluation::walked_so_far(Id sweep_id) const {
  const Sweep* s = sweep(sweep_id);
  return s ? s->walked->known() : nullptr;
}

const Budget* Evaluation::budget(Id sweep_id, std::stop_token stop) const {
  const Sweep* s = sweep(sweep_id);
  if (!s || s->digest.read == 0) return nullptr;
  return s->budget->get([&]() -> std::optional<Budget> {
    BudgetQuestion question = budget_question(parts_->record, s->row, *s->view, parts_->views);
    question.stop = stop;
    Budget budget = uncertainty_budget(question);
    return stop.stop_requested() ? std::nullopt : std::optional(std::move(budget));
  });
}

const Budget* Evaluation::budget_so_far(Id sweep_id) const {
  const Sweep* s = sweep(sweep_id);
  return s ? s->budget->known() : nullptr;
}

const Evidence* Evaluation::evidence(Id sweep_id) const {
  const Sweep* s = sweep(sweep_id);
  if (!s || s->digest.read == 0) return nullptr;
  return s->evidence.get([&]() -> std::optional<Evidence> {
    int open = 0;
    for (const Finding& finding : findings(sweep_id))
      open += !dismissal_of(parts_->record, sweep_id, finding, s->view.get());
    for (const TestFinding& c : between())
      if (c.sweep_id == sweep_id || c.sweep_id == 0)
        open += !dismissal_of(parts_->record, c.sweep_id, c.check, view(c.sweep_id));
    EvidenceFacts facts =
        evidence_facts(parts_->record, s->row, *s->view, walked(sweep_id), parts_->log->watts, open, parts_->units);
    if (const Finding* impossible = this->impossible(sweep_id)) facts.impossible = impossible->saw;
    return sunbreak::grade(facts);
  });
}

const Finding* Evaluation::impossible(Id sweep_id) const {
  const auto& all = findings(sweep_id);
  const auto found = std::ranges::find(all, Severity::Impossible, &Finding::severity);
  return found == all.end() ? nullptr : &*found;
}

const Finding* Evaluation::impossible() const {
  for (const auto& [id, s] : parts_->sweeps)
    if (const Finding* found = s->row.confirms || s->digest.read == 0 ? nullptr : impossible(id)) return found;
  return nullptr;
}

const Evidence* Evaluation::evidence_so_far(Id sweep_id) const {
  const Sweep* s = sweep(sweep_id);
  return s ? s->evidence.known() : nullptr;
}

std::optional<Grade> Evaluation::grade() const {
  std::optional<Grade> weakest;
  for (const auto& [id, s] : parts_->sweeps)
    if (const Evidence* e = s->row.confirms ? nullptr : evidence(id); e && (!weakest || e->grade < *weakest))
      weakest = e->grade;
  return weakest;
}

const TestLight* Evaluation::light(std::stop_token stop) const {
  const Sweep* first = nullptr;
  for (const auto& [id, s] : parts_->sweeps)
    if (s->digest.read > 0 && !s->row.confirms && !first) first = s.get();
  if (!first) return nullptr;
  const auto* light = parts_->light->get([&]() -> std::optional<std::shared_ptr<const TestLight>> {
    const BudgetQuestion question = budget_question(parts_->record, first->row, *first->view, parts_->views);
    const Budget* known = budget(first->row.id, stop);
    if (!known) return {};
    auto made = std::make_shared<const TestLight>(parts_->record, parts_->views, question, *known, stop);
    return stop.stop_requested() ? std::nullopt : std::optional<std::shared_ptr<const TestLight>>(std::move(made));
  });
  return light ? light->get() : nullptr;
}

const TestLight* Evaluation::light_so_far() const {
  const auto* known = parts_->light->known();
  return known ? known->get() : nullptr;
}

std::vector<TargetFit> Evaluation::target_fits(Id sweep_id, std::span<const Band> bands) const {
  const SweepView* v = view(sweep_id);
  return v ? sunbreak::target_fits(v->layout, v->ppfd, bands, serving_rule_of(parts_->record))
           : std::vector<TargetFit>();
}

std::shared_ptr<const Evaluation> evaluate(const TestRecord& record, std::shared_ptr<const WallLog> log,
                                           UnitSystem units, const Evaluation* before,
                                           const std::set<Id>* readings_of) {
  auto parts = std::make_unique<Evaluation::Parts>();
  parts->record = without_readings(record);
  parts->log = log ? std::move(log) : std::make_shared<const WallLog>(wall_log(record));
  parts->units = units;
  parts->photons_per_joule =
      before && before->record().spectra == record.spectra ? before->photons_per_joule() : photons_per_joule_of(record);
  const bool same_bench = before && footprint_of(before->record().bench) == footprint_of(record.bench);

  SweepViews fresh = view_sweeps(record, [&](const record::Sweep& row) {
    const Evaluation::Sweep* old = before ? before->sweep(row.id) : nullptr;
    const bool same_readings = readings_of && !readings_of->contains(row.id);
    if (!old || !same_readings || !same_bench || grid_of(old->row) != grid_of(row) ||
        correction_of(old->row) != correction_of(row))
      return true;
    parts->views.emplace(row.id, old->view);
    return false;
  });
  parts->views.merge(fresh);

  const Test& test = record.test;
  const Room room = room_of(record.bench);
  const FixtureOutline outline = outline_of(record);
  const std::optional<Meter> sensor = meter_of(record, test.sensor_id), wall = meter_of(record, test.wall_meter_id);
  for (const record::Sweep& row : record.sweeps) {
    const auto view = parts->views.find(row.id);
    if (view == parts->views.end()) continue;
    auto s = std::make_unique<Evaluation::Sweep>();
    s->row = row;
    s->view = view->second;
    const Rung* rung = record.rung(row.rung_id);
    const Stop* stop = record.stop(row.stop_id);
    const double height_m = rung ? rung->height_m : 0;
    s->figures_input = {row.power_w,           test.photoperiod_h,      test.target_low_ppfd,
                        test.target_high_ppfd, serving_rule_of(record), units,
                        record.own_sizes};
    s->checks_input = {test.walk_order,
                       test.opening_probe,
                       sensor ? sensor->range_max : std::nullopt,
                       record.fixture.emitter_spacing_m,
                       statement_of(record, row, units, parts->photons_per_joule),
                       row.lux_lowest,
                       row.lux_highest,
                       {}};
    if (rung && test.opening_probe && s->view->read() > 0 && !s->view->complete())
      s->checks_input.hang = {true, room, outline, height_m};
    s->walked_input = {stop ? stop->percent : 100, record.lamp_events};
    s->budget_input = {s->figures_input,
                       sensor,
                       wall,
                       {test.spectral_uncertainty_pct, test.cosine_uncertainty_pct, test.height_uncertainty_m,
                        test.position_uncertainty_m, test.edge_uncertainty_m},
                       test.walk_order,
                       test.opening_probe,
                       {},
                       height_m,
                       {row.lux_k, row.lux_k_expanded, row.moved_uncertainty_pct}};
    for (const record::Sweep& other : record.sweeps)
      if (const auto found = parts->views.find(other.id); other.stop_id == row.stop_id && found != parts->views.end())
        if (const Rung* at = record.rung(other.rung_id))
          s->budget_input.same_stop.emplace_back(at->height_m, found->second);

    const Evaluation::Sweep* old = before ? before->sweep(row.id) : nullptr;
    const bool same_view = old && old->view == s->view;
    s->digest = same_view ? old->digest : digest_of(row.id, *s->view);
    if (const SweepDigest& d = s->digest; d.read > 0) {
      if (!parts->range) parts->range = {d.scale_low_ppfd, d.scale_high_ppfd};
      parts->range = {std::min(parts->range->first, d.scale_low_ppfd),
                      std::max(parts->range->second, d.scale_high_ppfd)};
    }
    const auto keep = [&](auto member, bool same) {
      auto& part = (*s).*member;
      using Part = typename std::remove_reference_t<decltype(part)>::element_type;
      part = same ? (*old).*member : std::make_shared<Part>();
    };
    keep(&Evaluation::Sweep::figures, same_view && old->figures_input == s->figures_input);
    // The model asks for no reading: what it said of a height holds while the sweep there is walked.
    keep(&Evaluation::Sweep::hang,
         old && old->checks_input.hang == s->checks_input.hang && same_bench && grid_of(old->row) == grid_of(row));
    const bool same_checks = same_view && old->checks_input == s->checks_input;
    keep(&Evaluation::Sweep::checks, same_checks);
    keep(&Evaluation::Sweep::checks_without_hang, same_checks);
    keep(&Evaluation::Sweep::budget, old && old->budget_input == s->budget_input && same_view);
    const auto walked_the_same = [&] {
      if (!same_view || old->walked_input != s->walked_input) return false;
      if (before->parts_->log == parts->log) return true;
      const WalkedState* known = old->walked->known();
      return known && grown_from(*parts->log, before->log()) && !before->log().samples.empty() &&
             before->log().samples.back().time_s >= known->began_s;
    };
    keep(&Evaluation::Sweep::walked, walked_the_same());
    parts->sweeps.emplace(row.id, std::move(s));
  }
  const auto same_light = [&](const Evaluation::Parts& old) {
    const TestRecord &was = old.record, &is = parts->record;
    return predicting(was, old.views) == predicting(is, parts->views) && was.bench == is.bench &&
           was.fixture == is.fixture && as_light_sees(was.test) == as_light_sees(is.test) &&
           was.planned_rungs() == is.planned_rungs() && was.planned_stops() == is.planned_stops() &&
           was.meters == is.meters && was.stair_stops == is.stair_stops && was.stair_readings == is.stair_readings;
  };
  const auto same_meters = [&](const TestRecord& was) {
    const auto factors = [](const TestRecord& r) {
      std::vector<std::pair<double, double>> all;
      for (const record::Sweep& s : r.sweeps) all.emplace_back(s.spectral_factor, s.moved_factor);
      return all;
    };
    return was.check_readings == record.check_readings && was.meters == record.meters &&
           was.spectra == record.spectra && was.test.sensor_id == test.sensor_id &&
           was.test.tested_on == test.tested_on && was.test.created_at == test.created_at &&
           factors(was) == factors(record);
  };
  parts->of_meters = before && same_meters(before->record()) ? before->parts_->of_meters
                                                             : std::make_shared<Once<std::vector<TestFinding>>>();
  using Light = Once<std::shared_ptr<const TestLight>>;
  parts->light = before && same_light(*before->parts_) ? before->parts_->light : std::make_shared<Light>();
  return std::shared_ptr<const Evaluation>(new Evaluation(std::move(parts)));
}

}  // namespace sunbreak::evaluation
