#pragma once

#include <filesystem>
#include <string>

#include "evaluation/evaluation.h"
#include "exchange/package/zip_archive.h"

namespace sunbreak::exchange {

using namespace record;

/// The published form of one test: a zipped Frictionless data package, one CSV file a table, documented in
/// docs/formats.md. Complete enough to recompute every figure; reads back without loss. `evaluation` is the record's.
/// With whole light, its figures and the reference rooms' go along, which takes a second or two.
enum class WithLight { No, Yes };
Archive make_package(const TestRecord& record, const evaluation::Evaluation& evaluation,
                     WithLight with_light = WithLight::No);
/// The same where no one has evaluated the record yet.
Archive make_package(const TestRecord& record);

/// The test in a data package, its ids counted from 1. Refuses a newer format, missing tables and columns, unreadable
/// cells, and what cannot be (record/faults.h), naming the place.
Result<TestRecord> read_package(const Archive& archive);
/// The same from a file, of which only package_members() are unpacked. `altered` takes what alterations() tells of it.
Result<TestRecord> read_package_file(const std::filesystem::path& file, std::vector<std::string>* altered = nullptr);

/// The files a data package may have.
std::set<std::string> package_members();

/// The stations of all sweeps in one table for a spreadsheet: place, height, setting, raw and corrected value.
std::string spreadsheet_csv(const evaluation::Evaluation& evaluation);

/// The format this build writes: it goes with the lab book's schema.
int package_format();

}  // namespace sunbreak::exchange
