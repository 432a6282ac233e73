#pragma once

#include <fstream>
#include <sstream>

#include "publishing/publish.h"

namespace sunbreak {

/// A test as it is told, audited without a shelf of targets.
inline publishing::Publication publication_of(const record::TestRecord& test) {
  publishing::Publication p;
  p.whole = std::make_shared<const record::TestRecord>(test);
  p.evaluations = evaluation::evaluate_all(test);
  p.audit = [](const evaluation::Evaluations& evaluations, UnitSystem told_in) {
    evaluation::AuditContext context;
    context.units = told_in;
    std::vector<evaluation::Audit> audits;
    for (const auto& evaluation : evaluations) audits.push_back(evaluation::audit(*evaluation, context));
    return audits;
  };
  return p;
}

inline std::vector<const publishing::Form*> every_form() {
  std::vector<const publishing::Form*> all;
  for (const publishing::Form& form : publishing::forms()) all.push_back(&form);
  return all;
}

inline std::string content_of(const std::filesystem::path& file) {
  std::ifstream in(file, std::ios::binary);
  std::ostringstream bytes;
  bytes << in.rdbuf();
  return bytes.str();
}

}  // namespace sunbreak
