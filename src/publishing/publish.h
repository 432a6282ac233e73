#pragma once

#include <filesystem>
#include <functional>
#include <optional>
#include <stop_token>

#include "exchange/files/new_file.h"
#include "publishing/forms.h"

namespace sunbreak::publishing {

/// What came of one form.
struct Written {
  const Form* form = nullptr;
  std::vector<std::filesystem::path> files;  ///< that were written, the first one leading
  std::optional<Problem> problem;            ///< why it was not, or not all of it
};

/// Where a form is written, asked on any thread just before it is: the file, and what happens to one that is there.
using Naming = std::function<std::pair<std::filesystem::path, exchange::Existing>(const Form& form,
                                                                                  const std::filesystem::path& usual)>;

/// Makes the forms and writes them into a folder, which is made where there is none; each file whole or not at all.
/// Works on all cores; tells `done` of each, in any order, on the thread it was made on, one at a time. Where `stop`
/// asks for an end, what is not made yet is left out. In the order of the forms.
std::vector<Written> publish(const Publication& publication, std::span<const Form* const> wanted,
                             const std::filesystem::path& folder, const Naming& naming,
                             const std::function<void(const Written&)>& done = {}, std::stop_token stop = {});
/// The same under their usual names.
std::vector<Written> publish(const Publication& publication, std::span<const Form* const> wanted,
                             const std::filesystem::path& folder, exchange::Existing existing,
                             const std::function<void(const Written&)>& done = {}, std::stop_token stop = {});

}  // namespace sunbreak::publishing
