#include "publishing/publish.h"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <mutex>
#include <numeric>
#include <thread>

namespace sunbreak::publishing {
namespace {

namespace fs = std::filesystem;

Written write_form(const Publication& publication, const Form& form, const fs::path& folder, const Naming& naming) {
  Written written{&form, {}, {}};
  try {
    const auto parts = form.make(publication);
    if (!parts) {
      written.problem = parts.problem();
      return written;
    }
    const std::string stem = file_stem(record::title_of(publication.record()));
    for (const Part& part : parts.value()) {
      const auto [file, existing] = naming(form, folder / (stem + part.ending));
      std::error_code error;
      fs::create_directories(file.parent_path(), error);
      written.problem =
          error ? exchange::cannot_write(file, error.value()) : exchange::write_new_file(file, part.content, existing);
      if (written.problem) return written;
      written.files.push_back(file);
    }
  } catch (const std::exception& e) {
    written.problem = Problem{fmt::format("the {} could not be made: {}", form.label, e.what()), "it was not written",
                              "look at the test's readings"};
  }
  return written;
}

}  // namespace

std::vector<Written> publish(const Publication& publication, std::span<const Form* const> wanted,
                             const fs::path& folder, const Naming& naming,
                             const std::function<void(const Written&)>& done, std::stop_token stop) {
  std::vector<const Form*> applying;
  for (const Form* form : wanted)
    if (!form->needs || form->needs(publication.record())) applying.push_back(form);
  std::error_code error;
  fs::create_directories(folder, error);
  std::vector<Written> all(applying.size());
  if (error) {
    for (std::size_t n = 0; n < applying.size(); ++n)
      all[n] = {applying[n], {}, exchange::cannot_write(folder, error.value())};
    if (done)
      for (const Written& written : all) done(written);
    return all;
  }
  // Audits take longest: one worker begins with them, the others with what can be done meanwhile.
  std::vector<std::size_t> order(applying.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::ranges::stable_partition(order, [&](std::size_t n) { return applying[n]->begins_alone; });
  if (!order.empty()) std::ranges::rotate(order, order.end() - 1);
  std::atomic<std::size_t> next = 0;
  std::mutex telling;
  {
    std::vector<std::jthread> crew;
    const auto size = std::min<std::size_t>(std::max(1u, std::thread::hardware_concurrency()), applying.size());
    for (std::size_t t = 0; t < size; ++t)
      crew.emplace_back([&] {
        for (std::size_t at = next++; at < applying.size() && !stop.stop_requested(); at = next++) {
          const std::size_t n = order[at];
          all[n] = write_form(publication, *applying[n], folder, naming);
          const std::lock_guard hold(telling);
          if (done) done(all[n]);
        }
      });
  }
  std::erase_if(all, [](const Written& w) { return w.form == nullptr; });
  return all;
}

std::vector<Written> publish(const Publication& publication, std::span<const Form* const> wanted,
                             const fs::path& folder, exchange::Existing existing,
                             const std::function<void(const Written&)>& done, std::stop_token stop) {
  return publish(
      publication, wanted, folder,
      [existing](const Form&, const fs::path& usual) {
        return std::pair{usual, existing};
      },
      done, stop);
}

}  // namespace sunbreak::publishing
