#pragma once

#include <filesystem>
#include <optional>
#include <stop_token>
#include <string>
#include <utility>
#include <vector>

#include "evaluation/lineup/lineup.h"
#include "exchange/files/new_file.h"

namespace sunbreak::publishing {

/// A line-up as it is told.
struct LineUpPublication {
  const evaluation::LineUp& lineup;
  std::string title, way;                     ///< its declared way, in words
  std::string csv;                            ///< its table
  std::optional<std::pair<int, int>> pair{};  ///< two members that are shown side by side; the first two where none
  UnitSystem units = UnitSystem::Metric;
};

/// Writes page, workbook, table and stills of a line-up into a folder, which is made where there is none, each whole or
/// not at all. What was written is added to `files`, the page first, whatever comes of the others.
std::optional<Problem> publish_line_up(const LineUpPublication& publication, const std::filesystem::path& folder,
                                       exchange::Existing existing, std::vector<std::filesystem::path>& files,
                                       std::stop_token stop = {});

/// A folder in `folder`, named after a title, that is not there yet.
std::filesystem::path free_folder(const std::filesystem::path& folder, const std::string& title);

}  // namespace sunbreak::publishing
