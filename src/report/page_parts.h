#pragma once

#include <bitset>
#include <optional>
#include <span>
#include <string_view>

namespace sunbreak::report {

/// What a page may leave out. What comes first, the sweeps at a glance, a retest, notes and the disclosure are on every
/// page.
enum class PagePart {
  HowToRead,
  Targets,
  Claims,
  Sweeps,
  Budgets,
  Readings,
  Power,
  Light,
  Spectrum,
  Bench,
  Definitions,
  Count
};

using PageParts = std::bitset<static_cast<std::size_t>(PagePart::Count)>;
inline const PageParts all_parts = PageParts().set();

struct PartName {
  PagePart part;
  std::string_view id, label;
};
/// In the order they stand on the page.
std::span<const PartName> page_parts();
/// Nothing where no part has that id.
std::optional<PagePart> part_named(std::string_view id);

inline bool has(const PageParts& parts, PagePart part) { return parts.test(static_cast<std::size_t>(part)); }

}  // namespace sunbreak::report
