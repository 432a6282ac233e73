#pragma once

#include <filesystem>
#include <string>

#include "book/bundle.h"
#include "book/package/zip_archive.h"

namespace sunbreak::book {

/// The published form of one test: a zipped Frictionless data package, one CSV file a table, documented in
/// docs/formats.md. Complete enough to recompute every figure; reads back without loss.
Archive make_package(const TestBundle& bundle);

/// The bundle in a data package, its ids counted from 1. Refuses a newer format, missing tables, unreadable cells and
/// broken references, naming the place.
Result<TestBundle> read_package(const Archive& archive);
Result<TestBundle> read_package_file(const std::filesystem::path& file);

/// The stations of all sweeps in one table for a spreadsheet: place, height, setting, raw and corrected value.
std::string spreadsheet_csv(const TestBundle& bundle);

constexpr int package_format = 4;

}  // namespace sunbreak::book
