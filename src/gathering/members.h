#pragma once

#include <filesystem>
#include <stop_token>
#include <string>
#include <vector>

#include "book/book.h"
#include "evaluation/lineup/entrant.h"

/// Line-ups as they are put together: from lab books and from other testers' packages.
namespace sunbreak::gathering {

/// Those who may stand in a line-up: each test of the lab book that was planned, in each of its configurations, told
/// without reading its readings.
std::vector<evaluation::Entrant> entrants_of(const book::Book& book);

/// A data package that is no guest, and why.
struct RefusedGuest {
  std::filesystem::path file;
  Problem problem;
};

/// What other testers' packages bring.
struct Guests {
  struct One {
    std::vector<evaluation::Entrant> entrants;  ///< one a configuration
    std::vector<record::Reading> some;          ///< a few of its readings that say when they were taken
  };
  std::vector<One> tests;
  std::vector<RefusedGuest> refused;
};

/// Reads data packages: files, and all *.zip of folders in the order of their names. Nothing of them is written
/// anywhere. One that cannot be read is refused with its reason, and harms no other. Where `stop` asks for an end the
/// rest is left out.
Guests guests_from(const std::vector<std::filesystem::path>& files_and_folders, std::stop_token stop = {});

/// Refuses guests whose readings are those of a test of the lab book: one's own package come back would count twice.
void leave_out_own(Guests& guests, const book::Book& book);

/// The package files among files and folders, each once.
std::vector<std::filesystem::path> package_files(const std::vector<std::filesystem::path>& files_and_folders,
                                                 std::vector<RefusedGuest>& refused);

/// The record of an entrant, narrowed to its configuration, with its readings; a Problem where it is gone.
Result<record::TestRecord> record_of(const evaluation::Entrant& entrant, const book::Book* book);

}  // namespace sunbreak::gathering
