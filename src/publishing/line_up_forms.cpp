#include "publishing/line_up_forms.h"

#include <fmt/format.h>

#include <functional>

#include "paper/stills.h"
#include "publishing/forms.h"
#include "report/line_up_page.h"
#include "workbook/workbook.h"

namespace sunbreak::publishing {
namespace {

Result<Parts> stills_of(const LineUpPublication& p, const std::optional<std::pair<int, int>>& pair) {
  Parts parts;
  std::string alts;
  for (const auto& [shape, name] :
       {std::pair{paper::StillShape::Wide, "wide"}, std::pair{paper::StillShape::Tall, "tall"},
        std::pair{paper::StillShape::Square, "square"}}) {
    auto made = paper::line_up_stills(p.lineup, p.way, pair, shape, p.units);
    if (!made) return made.problem();
    for (paper::Still& still : made.value()) {
      const std::string file = fmt::format("{}-{}.png", name, still.name);
      alts += file + ": " + still.alt + "\n";
      parts.push_back({"-stills/" + file, std::move(still.png)});
    }
  }
  if (!parts.empty()) parts.push_back({"-stills/alt-texts.txt", std::move(alts)});
  return parts;
}

}  // namespace

std::optional<Problem> publish_line_up(const LineUpPublication& p, const std::filesystem::path& folder,
                                       exchange::Existing existing, std::vector<std::filesystem::path>& files,
                                       std::stop_token stop) {
  auto pair = p.pair;
  if (!pair && !p.lineup.groups().empty() && p.lineup.groups().front().size() > 1)
    pair = std::pair(p.lineup.groups().front()[0], p.lineup.groups().front()[1]);
  const std::string stem = file_stem(p.title);
  const std::function<Result<Parts>()> forms[] = {
      [&]() -> Result<Parts> {
        return Parts{{".html", report::line_up_page(p.lineup, p.title, p.way, p.units)}};
      },
      [&]() -> Result<Parts> {
        auto bytes = workbook::workbook_bytes(p.lineup, p.way);
        if (!bytes) return bytes.problem();
        return Parts{{".xlsx", std::move(bytes.value())}};
      },
      [&]() -> Result<Parts> {
        return Parts{{".csv", p.csv}};
      },
      [&] { return stills_of(p, pair); }};
  for (const auto& form : forms) {
    if (stop.stop_requested()) break;
    const auto parts = form();
    if (!parts) return parts.problem();
    for (const Part& part : parts.value()) {
      const std::filesystem::path file = folder / (stem + part.ending);
      std::error_code error;
      std::filesystem::create_directories(file.parent_path(), error);
      if (error) return exchange::cannot_write(file, error.value());
      if (const auto problem = exchange::write_new_file(file, part.content, existing)) return problem;
      files.push_back(file);
    }
  }
  return {};
}

std::filesystem::path free_folder(const std::filesystem::path& folder, const std::string& title) {
  constexpr int most_tried = 1000;
  const std::string stem = file_stem(title);
  std::filesystem::path found = folder / stem;
  std::error_code error;
  for (int n = 2; n <= most_tried && std::filesystem::exists(found, error); ++n)
    found = folder / fmt::format("{}-{}", stem, n);
  return found;
}

}  // namespace sunbreak::publishing
