#pragma once

#include <filesystem>
#include <string>

#include "evaluation/audit/audit.h"
#include "evaluation/configurations.h"
#include "exchange/package/zip_archive.h"
#include "record/picture_files.h"

namespace sunbreak::exchange {

using namespace record;

/// The published form of one test: a zipped Frictionless data package, one CSV file a table, documented in
/// docs/formats.md. Complete enough to recompute every figure; reads back without loss. `evaluations` are the record's.
/// With whole light, its figures and the reference rooms' go along, which takes a second or two for each configuration.
/// Pictures go along as far as `pictures` has their files and they are sound, without what a camera told beside them.
/// `audits` are the evaluations', in their order, where the verdicts on the maker's claims are to go along.
enum class WithLight { No, Yes };
Archive make_package(const TestRecord& record, const evaluation::Evaluations& evaluations,
                     const PictureSource& pictures = {}, WithLight with_light = WithLight::No,
                     const std::vector<evaluation::Audit>& audits = {});
/// The same where no one has evaluated the record yet.
Archive make_package(const TestRecord& record, const PictureSource& pictures = {});

/// The test in a data package, its ids counted from 1. Refuses a newer format, missing tables and columns, unreadable
/// cells, and what cannot be (record/faults.h), naming the place.
Result<TestRecord> read_package(const Archive& archive);
/// The same from a file, of which only package_members() and pictures are unpacked: the one gate that all packages come
/// in by. What alterations() tells of it stands in the test from then on (Test::altered); it is looked for unless
/// `known_altered` says what was found before. `pictures` takes what pictures_in() finds.
Result<TestRecord> read_package_file(const std::filesystem::path& file, PictureFiles* pictures = nullptr,
                                     const std::string* known_altered = nullptr);

/// The files of a record's pictures in its package: those that are what their name says and tell nothing beside the
/// picture.
PictureFiles pictures_in(const Archive& archive, const TestRecord& record);

/// Where a package has its pictures.
inline constexpr std::string_view picture_folder = "pictures/";

/// The files a data package may have, beside its pictures.
std::set<std::string> package_members();

/// The stations of all sweeps in one table for a spreadsheet: place, height, setting, raw and corrected value.
std::string spreadsheet_csv(const evaluation::Evaluations& evaluations);

/// The format this build writes: it goes with the schema that last changed what is published.
int package_format();

}  // namespace sunbreak::exchange
