#pragma once

#include <string>

#include "evaluation/audit/audit.h"

/// What an audit comes to, as tables of a data package; `configuration` is the number that its rows name, empty for the
/// fixture as it comes.
namespace sunbreak::exchange {

inline constexpr const char* audit_head =
    "configuration_id,slot,kind,claimed,claimed_to,unit,measured,measured_to,expanded_k2,difference_pct,chance,verdict,"
    "reason,lifts\r\n";
void append_audit(std::string& csv, const evaluation::Audit& audit, const std::string& configuration);

inline constexpr const char* verdict_head = "configuration_id,slot,aspect,sentence,figure,value,unit,own\r\n";
void append_verdict(std::string& csv, const evaluation::Audit& audit, const std::string& configuration);

}  // namespace sunbreak::exchange
