#pragma once

#include <sys/wait.h>

#include <array>
#include <cstdio>
#include <string>
#include <utility>

namespace sunbreak {

/// Runs a command line; its status and all that it printed.
inline std::pair<int, std::string> run_program(const std::string& command) {
  std::string said;
  FILE* pipe = popen((command + " 2>&1").c_str(), "r");
  if (!pipe) return {-1, "it cannot be run"};
  std::array<char, 4096> part{};
  while (const std::size_t read = fread(part.data(), 1, part.size(), pipe)) said.append(part.data(), read);
  const int status = pclose(pipe);
  return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, said};
}

}  // namespace sunbreak
