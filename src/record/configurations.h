#pragma once

#include <string>
#include <vector>

#include "record/test_record.h"

/// A test may hold one fixture in several configurations, each with its own heights, settings, sweeps, stair, log and
/// temperatures. What is worked out, drawn and walked is always of one: of the part of the record that is its own.
namespace sunbreak::record {

/// The ids of a test's configurations: 0 for the fixture as it comes, then those that were added.
std::vector<Id> configurations_of(const TestRecord& record);

/// What a configuration is called; "as it comes" where the first has no other name.
std::string configuration_name(const TestRecord& record, Id configuration_id);

/// Takes out of a whole record, or one that was already narrowed to it, what is of other configurations. Pictures of
/// the test as a whole, claims, meters and what else all share stay. Narrows to the fixture as it comes where there is
/// no such configuration.
void keep_configuration(TestRecord& record, Id configuration_id);

/// The same of a copy.
TestRecord of_configuration(const TestRecord& record, Id configuration_id);

/// What new rows of a narrowed record name as their configuration.
std::optional<Id> configuration_of(const TestRecord& record);

}  // namespace sunbreak::record
