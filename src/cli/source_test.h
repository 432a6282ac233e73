#pragma once

#include <memory>
#include <string>

#include "book/target_shelf.h"
#include "core/result.h"
#include "evaluation/audit/audit.h"
#include "evaluation/configurations.h"
#include "publishing/forms.h"
#include "record/picture_files.h"

namespace sunbreak::cli {

/// A test with all its configurations from a lab book, by its number or name (the only one where neither is given), or
/// the one in a data package. What is set apart in it is said on the error output.
Result<record::TestRecord> whole_test(const std::string& file, const std::string& test);

/// The same, of one configuration by its name; the fixture as it comes where none is named.
Result<record::TestRecord> source_test(const std::string& file, const std::string& test,
                                       const std::string& configuration = {});

/// The files of the pictures in a lab book or a data package.
record::PictureSource source_pictures(const std::string& file);

/// The test that one is a retest of, as it comes, where the same lab book has it; null elsewhere.
std::shared_ptr<const evaluation::Evaluation> source_earlier(const std::string& file, const record::TestRecord& test);

/// What the audit of a test takes beside it: the lab book's targets, and the lamps its fixture is to stand in for.
evaluation::AuditContext source_audit_context(const std::string& file, const record::TestRecord& test);

/// The audits of evaluations of one test, in their order.
std::vector<evaluation::Audit> source_audits(const std::string& file, const evaluation::Evaluations& evaluations,
                                             UnitSystem units);

/// All that the forms of a test are made from; of `file`, in which it is.
publishing::Publication source_publication(const std::string& file, record::TestRecord test, UnitSystem units);

/// The crop targets on that lab book's shelf; for a data package those that ship.
std::vector<record::CropTarget> source_targets(const std::string& file);

}  // namespace sunbreak::cli
