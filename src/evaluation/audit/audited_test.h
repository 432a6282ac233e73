#pragma once

#include <map>
#include <memory>
#include <optional>
#include <stop_token>
#include <vector>

#include "core/optics/room.h"
#include "core/settle/settle_solver.h"
#include "evaluation/audit/audit.h"
#include "evaluation/audit/floor_light.h"
#include "evaluation/test_light.h"

namespace sunbreak::evaluation {

/// A test while it is audited: what several claims ask of it, each worked out once.
class AuditedTest {
 public:
  AuditedTest(const Evaluation& evaluation, const AuditContext& context, std::stop_token stop);

  const Evaluation& evaluation() const { return evaluation_; }
  const TestRecord& record() const { return evaluation_.record(); }
  const AuditContext& context() const { return context_; }
  UnitSystem units() const { return context_.units; }
  std::stop_token stop() const { return stop_; }
  /// Null where nothing was read.
  const TestLight* light() const { return light_; }
  bool fits() const { return light_ && light_->found().fits; }

  /// Mean of the watts read at a setting, with what the wall meter is sure to; nothing where none were.
  std::optional<FoundValue> watts_read(double percent) const;
  /// The same, or by the dimmer's curve between settings that were read.
  std::optional<FoundValue> watts(double percent) const;
  std::vector<double> percents_with_watts() const;
  /// What the wall meter is sure to, relative, k = 2.
  double wall_meter_expanded() const { return wall_meter_; }
  /// The mean of what a wall meter showed at a setting; nothing where it showed none of it.
  std::optional<double> wall_mean(double percent,
                                  const std::function<std::optional<double>(const WallReading&)>& of) const;

  /// Light of a setting beside the first one's, with its relative standard deviation.
  Result<SettleSetting> setting(double percent) const;

  /// What whole-light figures are sure to, part by part; with the wall meter for figures a joule.
  std::vector<SurePart> light_parts(bool a_joule) const;
  /// What figures of a sweep are sure to, part by part.
  std::vector<SurePart> sweep_parts(Id sweep_id, std::string_view figure_id) const;

  /// The target of a stage of growth in the list that the test goes by; the test's own for no stage.
  struct Stage {
    CropTarget target;
    Band band;
    bool own = false;  ///< the test's own target, since no stage was named
  };
  std::optional<Stage> stage(const std::string& name) const;
  const std::vector<CropTarget>& list() const { return list_; }
  const std::string& list_name() const { return list_name_; }
  ServingRule rule() const { return rule_; }
  /// The rule in use, for a band, within the heights that advice keeps to; without the tester's own limits: a claim is
  /// not the tester's.
  SettleRequest request(const Band& band) const { return {band, rule_, advised({}, *light_), 0.5}; }

  /// The heights and settings of an area of the bench's floor.
  const Result<SettleMaps>& maps(const Rectangle& area) const;
  /// The whole floor; null where light is not known all over it.
  const FloorLight* floor() const;
  /// The same at one height, walked or not.
  std::optional<FloorLight> floor_at(double height_m) const;
  /// The room that a claim of an area is of, where that is not the bench: with the walls that it names, or the bench's
  /// own as they were found, as large as the area. Nothing where the bench will do.
  std::optional<Room> other_room(const Claim& claim) const;

 private:
  const Evaluation& evaluation_;
  const AuditContext& context_;
  std::stop_token stop_;
  const TestLight* light_ = nullptr;
  double wall_meter_ = 0.02;
  std::vector<CropTarget> list_;
  std::string list_name_;
  ServingRule rule_;
  mutable std::vector<std::pair<Rectangle, std::unique_ptr<Result<SettleMaps>>>> maps_;
  mutable std::optional<std::optional<FloorLight>> floor_;
};

// One family of claims each. Claim, slot, label, claimed_words are filled in; of a number so are claimed and unit, in
// the maker's own.
void audit_power(const AuditedTest& test, AuditedClaim& a);
void audit_current(const AuditedTest& test, AuditedClaim& a);
void audit_power_factor(const AuditedTest& test, AuditedClaim& a);
void audit_ppf(const AuditedTest& test, AuditedClaim& a);
void audit_efficacy(const AuditedTest& test, AuditedClaim& a);
void audit_beam(const AuditedTest& test, AuditedClaim& a);
void audit_evenness(const AuditedTest& test, AuditedClaim& a);
void audit_coverage(const AuditedTest& test, AuditedClaim& a);
void audit_mean_ppfd(const AuditedTest& test, AuditedClaim& a);
void audit_height(const AuditedTest& test, AuditedClaim& a);
void audit_dimming_range(const AuditedTest& test, AuditedClaim& a);
void audit_boost(const AuditedTest& test, AuditedClaim& a);
void audit_checked(const AuditedTest& test, AuditedClaim& a);
void audit_surface(const AuditedTest& test, AuditedClaim& a);
void audit_lifetime(const AuditedTest& test, AuditedClaim& a);
void audit_equivalent(const AuditedTest& test, AuditedClaim& a);
void audit_map(const AuditedTest& test, AuditedClaim& a);

/// Why a height cannot be told, if it cannot; and why another room cannot.
std::optional<Problem> beyond_reach(const AuditedTest& test, double height_m);
Problem elsewhere_not_known(const AuditedTest& test);
/// "a space of 90 × 90 cm with white walls"
std::string room_words(const Claim& claim, UnitSystem units);
/// "75 %"
std::string dial_words(double percent);

/// Judges what was set as claimed and measured, and says what would help.
void judge(AuditedClaim& a, std::span<const SurePart> parts, ClaimSense sense = ClaimSense::AtLeast);
/// Not testable, why, and what would make it so.
void not_testable(AuditedClaim& a, std::string reason, std::string would);

/// The sentences that follow from a test and the verdicts on its claims.
std::vector<VerdictWords> drafted_words(const AuditedTest& test, const Audit& audit);

}  // namespace sunbreak::evaluation
