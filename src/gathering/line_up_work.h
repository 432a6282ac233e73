#pragma once

#include <filesystem>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

#include "evaluation/lineup/lineup.h"
#include "gathering/entry_cache.h"

namespace sunbreak::gathering {

/// Entries that were worked out or read from the cache while the program runs. May be asked from any thread.
class EntryStore {
 public:
  EntryStore();
  ~EntryStore();

  std::shared_ptr<const evaluation::LineUpEntry> find(const std::string& key) const;
  void keep(const std::string& key, std::shared_ptr<const evaluation::LineUpEntry> entry);

 private:
  struct Parts;
  std::unique_ptr<Parts> parts_;
};

/// How far the filling is.
struct Filling {
  int done = 0, of = 0;
};

/// Works out the entries of all entrants to a question, on all cores, reading each test through a connection of its
/// own: what the store or the cache has is taken from there. `on_progress` is told on the calling thread. Entries of
/// what could not be read say so. Where `stop` asks for an end, what is done is kept and the rest is null.
std::vector<std::shared_ptr<const evaluation::LineUpEntry>> fill_entries(
    const std::vector<evaluation::Entrant>& entrants, const evaluation::EntryQuestion& question,
    const std::optional<std::filesystem::path>& book, EntryStore& store, UnitSystem units = UnitSystem::Metric,
    std::stop_token stop = {}, const std::function<void(const Filling&)>& on_progress = {}, int threads = 0);

/// Those entries that are in the store or the cache; null for the others. Fast.
std::vector<std::shared_ptr<const evaluation::LineUpEntry>> kept_entries(
    const std::vector<evaluation::Entrant>& entrants, const evaluation::EntryQuestion& question,
    const std::optional<std::filesystem::path>& book, EntryStore& store, UnitSystem units = UnitSystem::Metric);

}  // namespace sunbreak::gathering
