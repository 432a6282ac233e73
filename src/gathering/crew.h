#pragma once

#include <filesystem>
#include <functional>
#include <optional>
#include <stop_token>

#include "book/book.h"

namespace sunbreak::gathering {

/// Does `work` for each number up to `count` on several threads, each with a connection of its own to the lab book
/// (null where there is none), and tells `done` of it on the calling thread. `work` must not throw. Returns when all is
/// done, or what was under way when `stop` asked for an end; of what was left undone `done` is not told. Throws where
/// the lab book cannot be read.
void run_crew(std::size_t count, const std::optional<std::filesystem::path>& book, int threads,
              const std::stop_token& stop, const std::function<void(std::size_t number, const book::Book* book)>& work,
              const std::function<void(std::size_t number)>& done);

/// Does `work` for the numbers up to `count` in runs of neighbours, [from, to), one run a thread. It throws what the
/// first of them threw.
void run_slices(std::size_t count, const std::function<void(std::size_t from, std::size_t to)>& work);

}  // namespace sunbreak::gathering
