#pragma once

#include <chrono>
#include <string>

#include "cli/say.h"
#include "gathering/line_up_work.h"

namespace sunbreak::cli {

/// Says on the error output how far a long work has come: nothing of what is done within two seconds, then now and
/// then.
class Progress {
 public:
  explicit Progress(std::string of_what) : of_what_(std::move(of_what)) {}

  void operator()(const gathering::Filling& filling) {
    const auto now = std::chrono::steady_clock::now();
    if (now - said_ < between || filling.done == filling.of) return;
    said_ = now;
    warn("{} of {} {} worked out\n", filling.done, filling.of, of_what_);
  }

 private:
  static constexpr auto between = std::chrono::seconds(2);
  std::string of_what_;
  std::chrono::steady_clock::time_point said_ = std::chrono::steady_clock::now();
};

}  // namespace sunbreak::cli
