#include <fmt/format.h>

#include <iostream>
#include <memory>
#include <nlohmann/json.hpp>

#include "book/import/delimited.h"
#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "core/power/settled.h"
#include "core/quantity/number.h"
#include "core/result.h"

namespace sunbreak::cli {
namespace {

using nlohmann::ordered_json;

/// A log of light and, where it has them, watts.
struct Log {
  std::vector<TimedValue> light, watts;
  int left_out = 0;
};

Result<Log> read_log(const std::string& text) {
  const book::Rows rows = book::split_cells(text, book::guess_separator(text));
  std::size_t time = 0, light = 1, watts = 2;
  double seconds_a_unit = 1;
  Log log;
  bool any = false;
  for (const auto& row : rows) {
    if (row.size() < 2) continue;
    if (!any && !parse_number(row[0])) {
      bool named = false;
      for (std::size_t c = 0; c < row.size(); ++c) {
        const std::string& name = row[c];
        if (name.starts_with("time")) time = c, named = true, seconds_a_unit = name.find("min") != name.npos ? 60 : 1;
        if (name.starts_with("ppfd") || name.starts_with("light")) light = c;
        if (name.starts_with("watts") || name.starts_with("power")) watts = c;
      }
      if (!named)
        return Problem{"its first row names no time column", "nothing was judged",
                       "name the columns time_s, ppfd, watts"};
      any = true;
      continue;
    }
    any = true;
    const auto cell = [&](std::size_t c) { return c < row.size() ? parse_number(row[c]) : std::nullopt; };
    const auto t = cell(time);
    if (!t || (!log.light.empty() && *t * seconds_a_unit <= log.light.back().time_s)) {
      ++log.left_out;
      continue;
    }
    if (const auto v = cell(light)) log.light.push_back({*t * seconds_a_unit, *v});
    if (const auto w = cell(watts)) log.watts.push_back({*t * seconds_a_unit, *w});
  }
  if (log.light.size() < 3)
    return Problem{"it has fewer than three readings of light with a time", "the rule needs three at least",
                   "give one line a reading: time_s, ppfd, and watts if there are any"};
  return log;
}

ordered_json to_json(const SettledVerdict& v) {
  ordered_json j{{"state", v.state == SettledState::Settled  ? "settled"
                           : v.state == SettledState::Moving ? "moving"
                                                             : "too short"},
                 {"change_in_30_min", number(v.change_in_window)},
                 {"still_to_come", v.fit ? number(v.fit->remaining_share) : ordered_json(nullptr)},
                 {"still_to_come_sd", v.fit ? number(v.fit->remaining_sd) : ordered_json(nullptr)},
                 {"time_constant_s", v.fit ? number(v.fit->time_constant_s) : ordered_json(nullptr)},
                 {"settles_in_s", v.settles_in_s ? number(*v.settles_in_s) : ordered_json(nullptr)},
                 {"fall_since_on", v.fall_since_on ? number(*v.fall_since_on) : ordered_json(nullptr)},
                 {"words", v.words}};
  return j;
}

int settle_check(const std::string& file, bool json) {
  const auto text = text_of_file(file);
  if (!text) {
    std::cerr << text.problem().sentence() << "\n";
    return input_error;
  }
  const auto log = read_log(text.value());
  if (!log) {
    std::cerr << file << ": " << log.problem().sentence() << "\n";
    return input_error;
  }
  const Log& l = log.value();
  if (l.left_out > 0)
    std::cerr << fmt::format("{} lines without a time later than the one before were left out.\n", l.left_out);
  const SettledVerdict light = settled(l.light);
  const bool has_watts = l.watts.size() >= 3;
  const SettledVerdict both = has_watts ? settled(l.light, l.watts) : light;
  if (json) {
    ordered_json j{{"verdict", both.words}, {"light", to_json(light)}};
    j["watts"] = has_watts ? to_json(settled(l.watts)) : ordered_json(nullptr);
    std::cout << j.dump(2) << "\n";
  } else {
    std::cout << both.words << "\n";
  }
  return 0;
}

}  // namespace

void add_settle_command(CLI::App& app, int& status) {
  auto file = std::make_shared<std::string>();
  auto json = std::make_shared<bool>(false);
  CLI::App* command = app.add_subcommand("settle-check", "Tell whether light and watts of a warm-up log have settled");
  command->add_option("LOG", *file, "a table with the columns time_s (or time_min), ppfd, watts")->required();
  command->add_flag("--json", *json, "as JSON");
  command->callback([file, json, &status] { status = settle_check(*file, *json); });
}

}  // namespace sunbreak::cli
