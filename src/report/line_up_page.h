#pragma once

#include <functional>
#include <string>

#include "core/quantity/display.h"
#include "evaluation/lineup/lineup.h"

namespace sunbreak::report {

/// What a line-up's page leads on to; empty links are left out.
struct LineUpLinks {
  std::string feed;
  std::function<std::string(int member)> page, package;
};

/// A line-up as one self-contained page: ranks as intervals, values with ± on one axis, groups that may not be held
/// against each other apart with the reason, and its declared way.
std::string line_up_page(const evaluation::LineUp& lineup, const std::string& title, const std::string& declared_way,
                         UnitSystem units, const LineUpLinks& links = {});

}  // namespace sunbreak::report
