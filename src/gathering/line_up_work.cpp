#include "gathering/line_up_work.h"

#include <fmt/format.h>

#include <mutex>
#include <unordered_map>

#include "evaluation/lineup/lineup_figures.h"
#include "gathering/crew.h"
#include "gathering/entry_bytes.h"
#include "gathering/members.h"

namespace sunbreak::gathering {
namespace {

using evaluation::Entrant;
using evaluation::EntryQuestion;
using evaluation::LineUpEntry;
using Entries = std::vector<std::shared_ptr<const LineUpEntry>>;

/// Entries carry sentences, which are in units.
std::string key_of(const EntryQuestion& question, UnitSystem units) {
  return question_key(question) + (units == UnitSystem::Metric ? "" : "|imperial");
}

std::string key_of(const Entrant& entrant, const std::string& question) {
  return entrant.content.empty() ? std::string() : entrant.content + "|" + question;
}

LineUpEntry not_there(const Problem& problem) {
  LineUpEntry entry;
  entry.none = problem;
  entry.figures.resize(evaluation::lineup_figures().size());
  return entry;
}

/// Meters and benches of a guest are its tester's, whatever they are called.
std::string owner_of(const Entrant& entrant) {
  return entrant.guest.empty() ? std::string() : "guest " + entrant.tester;
}

/// An entry, and whether it may be kept: not where it says what kept it from being worked out this time.
struct WorkedOut {
  LineUpEntry entry;
  bool lasting = true;
};

WorkedOut work_out(const Entrant& entrant, const EntryQuestion& question, const book::Book* book, UnitSystem units,
                   std::stop_token stop) {
  try {
    const auto record = record_of(entrant, book);
    if (!record) return {not_there(record.problem()), false};
    const auto evaluation = evaluation::evaluate(record.value(), nullptr, units);
    return {evaluation::entry_of(*evaluation, question, owner_of(entrant), units, stop)};
  } catch (const std::exception& e) {
    return {
        not_there({fmt::format("it could not be worked out: {}", e.what()), "it is left out", "look at its readings"}),
        false};
  }
}

}  // namespace

struct EntryStore::Parts {
  std::mutex mutex;
  std::unordered_map<std::string, std::shared_ptr<const LineUpEntry>> entries;
};

EntryStore::EntryStore() : parts_(std::make_unique<Parts>()) {}
EntryStore::~EntryStore() = default;

std::shared_ptr<const LineUpEntry> EntryStore::find(const std::string& key) const {
  const std::lock_guard hold(parts_->mutex);
  const auto found = parts_->entries.find(key);
  return found == parts_->entries.end() ? nullptr : found->second;
}

void EntryStore::keep(const std::string& key, std::shared_ptr<const LineUpEntry> entry) {
  const std::lock_guard hold(parts_->mutex);
  parts_->entries[key] = std::move(entry);
}

Entries kept_entries(const std::vector<Entrant>& entrants, const EntryQuestion& question,
                     const std::optional<std::filesystem::path>& book, EntryStore& store, UnitSystem units) {
  const std::string asked = key_of(question, units);
  Entries entries(entrants.size());
  std::vector<std::string> wanted;
  std::vector<std::size_t> places;  // of those, among the entrants
  for (std::size_t i = 0; i < entrants.size(); ++i) {
    std::string key = key_of(entrants[i], asked);
    if (key.empty()) continue;
    entries[i] = store.find(key);
    if (!entries[i]) wanted.push_back(std::move(key)), places.push_back(i);
  }
  if (!book || wanted.empty()) return entries;
  EntryCache cache = EntryCache::beside(*book);  // mends a damaged one before others open it
  run_slices(wanted.size(), [&](std::size_t from, std::size_t to) {
    EntryCache own = from == 0 ? std::move(cache) : EntryCache::beside(*book);
    own.find(std::span(wanted).subspan(from, to - from), [&](std::size_t n, std::string_view bytes) {
      auto entry = entry_from(bytes);
      if (!entry) return;
      entries[places[from + n]] = std::make_shared<const LineUpEntry>(std::move(*entry));
      store.keep(wanted[from + n], entries[places[from + n]]);
    });
  });
  return entries;
}

Entries fill_entries(const std::vector<Entrant>& entrants, const EntryQuestion& question,
                     const std::optional<std::filesystem::path>& book, EntryStore& store, UnitSystem units,
                     std::stop_token stop, const std::function<void(const Filling&)>& on_progress, int threads) {
  Entries entries = kept_entries(entrants, question, book, store, units);
  std::vector<std::size_t> open;
  for (std::size_t i = 0; i < entries.size(); ++i)
    if (!entries[i]) open.push_back(i);
  const auto total = static_cast<int>(entrants.size());
  Filling filling{total - static_cast<int>(open.size()), total};
  if (on_progress) on_progress(filling);
  if (open.empty()) return entries;

  const std::string asked = key_of(question, units);
  EntryCache cache = book ? EntryCache::beside(*book) : EntryCache();
  std::map<std::string, std::string> to_keep;
  constexpr std::size_t kept_at_once = 64;
  std::vector<WorkedOut> worked(open.size());
  run_crew(
      open.size(), book, threads, stop,
      [&](std::size_t n, const book::Book* own) {
        worked[n] = work_out(entrants[open[n]], question, own, units, stop);
      },
      [&](std::size_t n) {
        const std::size_t i = open[n];
        entries[i] = std::make_shared<const LineUpEntry>(std::move(worked[n].entry));
        ++filling.done;
        if (const std::string key = key_of(entrants[i], asked); !key.empty() && worked[n].lasting) {
          store.keep(key, entries[i]);
          to_keep[key] = bytes_of(*entries[i]);
          if (to_keep.size() >= kept_at_once) cache.keep(to_keep), to_keep.clear();
        }
        if (on_progress) on_progress(filling);
      });
  cache.keep(to_keep);
  return entries;
}

}  // namespace sunbreak::gathering
