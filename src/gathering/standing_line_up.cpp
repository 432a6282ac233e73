#include "gathering/standing_line_up.h"

#include <algorithm>

#include "book/target_shelf.h"
#include "gathering/line_up_request.h"
#include "gathering/line_up_work.h"
#include "gathering/members.h"

namespace sunbreak::gathering {
namespace {
constexpr int most_to_work_out = 60;
}

evaluation::StandingLineUp standing_line_up(const book::Book& book, const std::filesystem::path& file,
                                            UnitSystem units) {
  const auto kept = book.all<record::SavedLineUp>("WHERE removed = 0 ORDER BY id LIMIT 1");
  const record::SavedLineUp asked = kept.empty() ? record::SavedLineUp{} : kept.front();
  const std::vector<evaluation::Entrant> entrants = entrants_of(book);
  const auto ready = ready_line_up(asked, entrants, book::crop_targets(book));
  const auto filter = evaluation::EntrantFilter::parse(asked.filter);
  if (!ready || !filter) return {};
  EntryStore store;
  const auto known = kept_entries(entrants, ready.value().question, file, store, units);
  if (std::ranges::count(known, nullptr) > most_to_work_out) return {};
  const auto entries = fill_entries(entrants, ready.value().question, file, store, units);
  std::vector<evaluation::LineUpMember> members;
  for (std::size_t i = 0; i < entrants.size(); ++i)
    if (entries[i] && filter.value().lets(entrants[i], entries[i].get())) members.push_back({entrants[i], entries[i]});
  if (members.size() < 2) return {};
  return {std::make_shared<const evaluation::LineUp>(std::move(members), ready.value().terms, units),
          declared_way(ready.value(), units)};
}

}  // namespace sunbreak::gathering
