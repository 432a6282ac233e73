#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "core/figures/serving_rule.h"
#include "core/optics/room_light.h"
#include "evaluation/audit/audit.h"

/// Tests made up for trials of the audit: fixture, bench, dimmer, meters and readings drawn anew, their truth known.
namespace sunbreak::trial {

struct AuditBench {
  record::TestRecord record;  ///< walked, with a stair; nothing claimed yet
  std::string fixture, bench;
  std::vector<Emitter> emitters;  ///< as they truly are, about their middle
  Room room;
  double ppf_umol_s = 0, full_w = 0;
  double dim_power = 1;  ///< light goes with the dial to this power
  std::vector<double> heights_m;

  double light_factor(double percent) const;
  double watts(double percent) const;
  double efficacy() const { return ppf_umol_s / full_w; }
};

/// The bench of a number, the same for ever. What its meters are off by is drawn from what is stated of them. Open ones
/// take a part of the time.
enum class Benches { Any, Open };
AuditBench audit_bench(std::uint64_t seed, int number, Benches benches = Benches::Any);

/// A claim with what is true of it.
struct PlantedClaim {
  record::Claim claim;
  std::string
      plant;  ///< "true", "3 % off", "10 % off", "30 % off", "driver left out", "another height", "another tent"
  bool is_true = true;
  double truth = 0;    ///< of what is claimed, in the audit's unit
  double claimed = 0;  ///< in the same
};

/// Claims for a bench, of power, PPF, efficacy, map and coverage: each planted by its own draw.
std::vector<PlantedClaim> plant_claims(const AuditBench& bench, std::uint64_t seed, int number);

/// True PPFD at places of the bench's floor.
std::vector<double> true_ppfd(const AuditBench& bench, const RoomLight& room, double height_m,
                              const std::vector<Vec3>& places);

}  // namespace sunbreak::trial
