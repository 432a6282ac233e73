#include "report/page_parts.h"

#include <algorithm>

namespace sunbreak::report {
namespace {

constexpr PartName names[] = {{PagePart::Targets, "targets", "What each setting serves"},
                              {PagePart::HowToRead, "how-to-read", "How to read the maps"},
                              {PagePart::Claims, "claims", "Verdict and claims"},
                              {PagePart::Sweeps, "sweeps", "Each sweep in full"},
                              {PagePart::Budgets, "budgets", "What ± is made of"},
                              {PagePart::Readings, "readings", "Tables of readings"},
                              {PagePart::Power, "power", "Power, heat and cost"},
                              {PagePart::Light, "light", "Whole light"},
                              {PagePart::Spectrum, "spectrum", "Spectrum"},
                              {PagePart::Bench, "bench", "Fixture, bench, method"},
                              {PagePart::Definitions, "definitions", "Definitions"}};

}  // namespace

std::span<const PartName> page_parts() { return names; }

std::optional<PagePart> part_named(std::string_view id) {
  const auto found = std::ranges::find(names, id, &PartName::id);
  return found == std::end(names) ? std::nullopt : std::optional(found->part);
}

}  // namespace sunbreak::report
