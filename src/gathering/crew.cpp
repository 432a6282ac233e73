#include "gathering/crew.h"

#include <algorithm>
#include <atomic>
#include <condition_variable>
#include <future>
#include <memory>
#include <mutex>
#include <thread>
#include <vector>

namespace sunbreak::gathering {

void run_crew(std::size_t count, const std::optional<std::filesystem::path>& book, int threads,
              const std::stop_token& stop, const std::function<void(std::size_t, const book::Book*)>& work,
              const std::function<void(std::size_t)>& done) {
  if (count == 0) return;
  const std::size_t crew_size = std::min<std::size_t>(
      threads > 0 ? static_cast<std::size_t>(threads) : std::max(1u, std::thread::hardware_concurrency()), count);
  std::vector<std::unique_ptr<const book::Book>> connections(crew_size);
  if (book)
    for (auto& connection : connections) connection = book::Book::read_beside(*book);
  std::atomic<std::size_t> next = 0;
  std::mutex mutex;
  std::condition_variable news;
  std::vector<std::size_t> finished;  // since the calling thread looked
  std::size_t working = crew_size;
  std::vector<std::jthread> crew;
  for (const auto& connection : connections)
    crew.emplace_back([&, own = connection.get()] {
      for (std::size_t n = next++; n < count && !stop.stop_requested(); n = next++) {
        work(n, own);
        if (stop.stop_requested()) break;
        const std::lock_guard hold(mutex);
        finished.push_back(n);
        news.notify_one();
      }
      const std::lock_guard hold(mutex);
      --working;
      news.notify_one();
    });
  for (bool over = false; !over;) {
    std::vector<std::size_t> fresh;
    {
      std::unique_lock hold(mutex);
      news.wait(hold, [&] { return !finished.empty() || working == 0; });
      fresh.swap(finished);
      over = working == 0 && fresh.empty();
    }
    for (const std::size_t n : fresh) done(n);
  }
}

void run_slices(std::size_t count, const std::function<void(std::size_t, std::size_t)>& work) {
  // Of fewer a thread takes longer to start than it helps.
  constexpr std::size_t worth_a_thread = 100;
  const std::size_t slices =
      std::clamp<std::size_t>(count / worth_a_thread, 1, std::max(1u, std::thread::hardware_concurrency()));
  std::vector<std::future<void>> others;
  for (std::size_t s = 1; s < slices; ++s)
    others.push_back(std::async(std::launch::async, work, s * count / slices, (s + 1) * count / slices));
  work(0, count / slices);
  for (std::future<void>& other : others) other.get();
}

}  // namespace sunbreak::gathering
