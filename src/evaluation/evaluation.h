#pragma once

#include <memory>
#include <optional>
#include <set>
#include <span>
#include <stop_token>
#include <vector>

#include "core/evidence/grade.h"
#include "core/quantity/display.h"
#include "core/targets/target_fit.h"
#include "core/uncertainty/budget.h"
#include "evaluation/stabilization.h"
#include "evaluation/test_checks.h"

namespace sunbreak::evaluation {

class TestLight;

/// Everything that is worked out of one test's record: the one place that screens, pages, packages and the command line
/// read figures, checks, budgets and grades from. A pure function of the record: equal records give equal answers. Each
/// part is worked out when it is first asked for and kept, so that asking for one sweep's figures costs just that:
///
///     const auto evaluation = evaluate(record);
///     if (const SweepFigures* f = evaluation->figures(sweep_id)) fmt::print("{}", f->mean_ppfd);
///
/// An evaluation holds what it needs of the record and never changes; it may be shared between threads and asked from
/// any of them. Who asks for what another thread is working out waits, except through the functions ..._so_far(), which
/// never work and never wait. Pointers and references given out live as long as the evaluation.
class Evaluation {
 public:
  ~Evaluation();

  /// The record without its readings and logs.
  const TestRecord& record() const;
  const WallLog& log() const;

  /// A sweep laid out and corrected; null where there is none or it cannot be laid out.
  const SweepView* view(Id sweep_id) const;
  const SweepViews& views() const;
  /// Its counts, extremes and mean at a glance; null where there is no view.
  const SweepDigest* digest(Id sweep_id) const;
  /// Lowest and highest PPFD over all sweeps, without stations unlike all around them: the ends of a color scale.
  /// Nothing where none has a reading.
  std::optional<std::pair<double, double>> light_range() const;

  /// Null where nothing is read.
  const SweepFigures* figures(Id sweep_id) const;

  /// What leans and shifts do at a sweep's height to its opening probe; zeros where no probe is being read. Takes up to
  /// a second for a room that no one asked about before.
  const HangResponse& hang(Id sweep_id) const;
  HangResponse hang_so_far(Id sweep_id) const;

  /// What looks wrong with one sweep, set aside or not.
  const std::vector<Finding>& findings(Id sweep_id) const;
  /// Photons of 400 to 700 nm in a joule of the light, by its measured spectrum; nothing where there is none.
  std::optional<double> photons_per_joule() const;
  /// What of a sweep cannot be, by what physics rules out; null where nothing is. Of no sweep in particular: the first
  /// of all that count.
  const Finding* impossible(Id sweep_id) const;
  const Finding* impossible() const;
  const std::vector<Finding>* findings_so_far(Id sweep_id) const;
  /// The same with the opening probe judged without the model while that is being worked out.
  const std::vector<Finding>& checks_without_waiting(Id sweep_id) const;

  /// All checks of the test, with what was set aside.
  std::vector<TestFinding> all_findings() const;
  /// As far as they are known: those of sweeps that nobody asked about are not among them.
  std::vector<TestFinding> all_findings_so_far() const;

  /// Whether light and watts had stabilized when a sweep was walked.
  const WalkedState& walked(Id sweep_id) const;
  const WalkedState* walked_so_far(Id sweep_id) const;

  /// Null where nothing is read, or where `stop` asked for an end.
  const Budget* budget(Id sweep_id, std::stop_token stop = {}) const;
  const Budget* budget_so_far(Id sweep_id) const;

  /// Null where nothing is read.
  const Evidence* evidence(Id sweep_id) const;
  const Evidence* evidence_so_far(Id sweep_id) const;

  /// A test is graded by its weakest sweep; nothing where none has a reading.
  std::optional<Grade> grade() const;

  /// The test's whole light and what comes of it; null where no sweep has readings, or where `stop` asked for an end.
  /// Takes a second or two where it is not known.
  const TestLight* light(std::stop_token stop = {}) const;
  const TestLight* light_so_far() const;

  /// How a sweep fits several targets; empty where it has no field between stations.
  std::vector<TargetFit> target_fits(Id sweep_id, std::span<const Band> bands) const;

 private:
  friend std::shared_ptr<const Evaluation> evaluate(const TestRecord&, std::shared_ptr<const WallLog>, UnitSystem,
                                                    const Evaluation*, const std::set<Id>*);
  struct Sweep;
  struct Parts;
  explicit Evaluation(std::unique_ptr<Parts> parts);
  const Sweep* sweep(Id sweep_id) const;
  const std::vector<TestFinding>& between() const;
  std::vector<TestFinding> gather(bool work) const;

  std::unique_ptr<Parts> parts_;
};

/// Evaluates a test. `log` is what wall_log() gives of the record; worked out here where it is not given. `units` say
/// which nominal footprints are looked at. Where the same test was evaluated `before`, what its change did not touch is
/// taken over: with `readings_of`, sweeps that are not in it have the readings they had.
std::shared_ptr<const Evaluation> evaluate(const TestRecord& record, std::shared_ptr<const WallLog> log = nullptr,
                                           UnitSystem units = UnitSystem::Metric, const Evaluation* before = nullptr,
                                           const std::set<Id>* readings_of = nullptr);

}  // namespace sunbreak::evaluation
