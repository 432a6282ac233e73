#pragma once

#include <optional>
#include <random>
#include <string>
#include <vector>

#include "exchange/tables/sweep_table.h"

/// Valid tables of readings in every form the importer knows, random damage done to them, and the judgement whether
/// what was taken in from a damaged one could mislead.
namespace sunbreak::damage {

using Random = std::mt19937_64;

struct ValidTable {
  std::string bytes;
  exchange::TableContext context;
  std::vector<double> truth;   ///< one a station
  exchange::TableDraft draft;  ///< as read before the damage
};

/// A table that reads back to its truth without a finding; throws where it does not.
ValidTable make_valid(Random& random);

struct Damage {
  std::string kind;
  std::string bytes;
};

/// One random harm to a file: bytes flipped, lost or doubled, lines lost, doubled or swapped, cells overwritten, cut
/// short.
Damage harm(const std::string& bytes, Random& random);

enum class Outcome { Refused, TakenWithFindings, TakenInFull, Misleading };

struct Judgement {
  Outcome outcome;
  std::string why;  ///< where misleading
};

/// Reads the damaged table. Misleading is: a value taken that does not stand in the cell it claims to come from; or,
/// with nothing said, a station whose value is not its own though its cell was not overwritten in place.
Judgement judge(const ValidTable& valid, const std::string& damaged);

}  // namespace sunbreak::damage
