#include <fmt/format.h>

#include <cmath>

#include "doors/doors.h"
#include "exchange/scene/scene_file.h"
#include "exchange/tables/log_table.h"
#include "exchange/tables/stair_table.h"
#include "exchange/tables/sweep_table.h"

namespace sunbreak::doors {
namespace {

std::string table() {
  std::string text = "x_cm,y_cm,PPFD\n";
  for (int row = 0; row < 6; ++row)
    for (int column = 0; column < 6; ++column)
      text += fmt::format("{},{},{}\n", 10 + 20 * column, 10 + 20 * row, 400 + 7 * column - 3 * row);
  return text;
}

std::string log() {
  std::string text = "time_s,light,watts,volts\n";
  for (int i = 0; i < 120; ++i)
    text += fmt::format("{},{:.1f},{:.1f},230.1\n", 5 * i, 560 + 40 * std::exp(-i / 40.0), 322.0 + i % 3);
  return text;
}

const std::string stair =
    "dimmer %,watts,power factor,light\n100,322,0.98,560\n75,243,0.97,424\n50,165,0.95,290\n0,0.4,0.3,\n";
const std::string scene = R"({"room": {"width_m": 1.2, "depth_m": 1.2, "height_m": 2, "reflectance": {"left": 0.8,
 "right": 0.7, "front": 0.6, "back": 0.5, "ceiling": 0.4, "floor": 0.3}}, "emitters": [{"x_m": 0.5, "y_m": 0.4,
 "z_m": 0.6, "nx": 0, "ny": 0, "nz": -1, "ppf_umol_s": 100, "m": 1}], "stations": [{"x_m": 0.1, "y_m": 0.2, "z_m": 0}]})";

/// A byte, a cell, a line, or a stretch is harmed.
std::string harmed(std::string text, Random& random) {
  static const std::vector<std::string> cells = {
      "",     "-1", "1e309",    "nan",  "inf", "-inf", "1e-320", "999999999999",
      "12,5", "µ",  "\xff\xfe", "=1+1", "\"",  ";;",   "0x10",   std::string(2, '\0')};
  const std::size_t rounds = 1 + random() % 4;
  for (std::size_t i = 0; i < rounds && !text.empty(); ++i) {
    const std::size_t at = random() % text.size();
    switch (random() % 6) {
      case 0:
        text[at] = static_cast<char>(random() % 256);
        break;
      case 1: {
        const auto from = text.find_last_of(",:\n", at), to = text.find_first_of(",}\n", at);
        const std::size_t a = from == std::string::npos ? 0 : from + 1, b = to == std::string::npos ? text.size() : to;
        if (b >= a) text.replace(a, b - a, cells[random() % cells.size()]);
        break;
      }
      case 2: {
        const auto end = text.find('\n', at);
        text.erase(at, end == std::string::npos ? std::string::npos : end - at + 1);
        break;
      }
      case 3:
        text.insert(at, text.substr(random() % text.size(), random() % 60));
        break;
      case 4:
        text.resize(at);
        break;
      default:
        text.insert(at, std::string(random() % 3000, text[at]));
    }
  }
  return text;
}

template <typename Read>
Case told(const char* family, const std::string& bytes, Read read) {
  const std::string_view name(family);
  if (also_try) also_try({name.ends_with("log") ? ".log.csv" : name.ends_with("scene") ? ".json" : ".csv", bytes});
  const auto result = read(bytes);
  if (result) return {family, "", Outcome::Taken};
  const std::string words = result.problem().sentence();
  return {family, words, words.size() > 10 ? Outcome::RefusedWithPlace : Outcome::RefusedWithoutPlace};
}

}  // namespace

Case try_text(Random& random) {
  switch (random() % 4) {
    case 0:
      return told("a garbled table", harmed(table(), random), [](const std::string& bytes) {
        return exchange::read_sweep_table(bytes, {{1.2, 1.2}, GridKind::Cells, {}, {}});
      });
    case 1:
      return told("a garbled log", harmed(log(), random),
                  [](const std::string& bytes) { return exchange::read_log_table(bytes); });
    case 2:
      return told("a garbled stair", harmed(stair, random),
                  [](const std::string& bytes) { return exchange::read_stair_table(bytes); });
    default:
      return told("a garbled scene", harmed(scene, random),
                  [](const std::string& bytes) { return exchange::read_scene(bytes); });
  }
}

Case text_case(Random& random) { return try_text(random); }

}  // namespace sunbreak::doors
