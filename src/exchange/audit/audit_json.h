#pragma once

#include "record/json.h"

#include "evaluation/audit/audit.h"

namespace sunbreak::exchange {

/// {"target_list": …, "claims": […], "watts": […], "words": […]} as the command line prints it. Numbers of a claim are
/// in its own `unit`; null where there is none. Keys: docs/formats.md.
record::Json audit_json(const evaluation::Audit& audit);

}  // namespace sunbreak::exchange
