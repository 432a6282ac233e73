#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "cli/figures_command.h"
#include "cli/say.h"
#include "core/result.h"
#include "exchange/files/read_file.h"
#include "exchange/tables/sweep_table.h"

namespace sunbreak::cli {

/// Says why an input was refused; returns the command's status.
inline int refuse(Problem problem, const std::string& file = {}) {
  if (!file.empty()) problem.seen = file + ": " + problem.seen;
  warn("{}\n", problem.sentence());
  return input_error;
}

/// Says what was noticed in a table, row by row.
inline void say_findings(const std::vector<exchange::Finding>& findings) {
  for (const exchange::Finding& f : findings)
    warn("note: {}{}\n", (f.row > 0 ? "row " + std::to_string(f.row) + ": " : ""), f.words);
}

/// A problem that names the file it is with.
inline Problem in_file(const std::string& file, Problem problem) {
  problem.seen = file + ": " + problem.seen;
  return problem;
}

/// What a reader of tables made of a file, with what it noticed said; a problem that names the file.
template <typename Draft>
Result<Draft> draft_of(const std::string& file, Result<Draft> (*read)(std::string_view)) {
  const auto text = exchange::read_file(file);
  if (!text) return text.problem();
  auto draft = read(text.value());
  if (!draft) return in_file(file, draft.problem());
  say_findings(draft.value().findings);
  return draft;
}

}  // namespace sunbreak::cli
