#include <fmt/format.h>

#include <memory>

#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/say.h"
#include "core/optics/room_light.h"
#include "exchange/files/read_file.h"
#include "exchange/scene/scene_file.h"
#include "record/json.h"

namespace sunbreak::cli {
namespace {

int predict(const std::string& file, bool json) {
  const auto text = exchange::read_file(file);
  if (!text) return refuse(text.problem());
  const auto scene = exchange::read_scene(text.value());
  if (!scene) return refuse(scene.problem(), file);
  const auto& [room, emitters, stations] = scene.value();
  const RoomLight light(room);
  const Prediction p = light.predict_once(emitters, stations);
  auto rows = record::Json::array();
  for (std::size_t i = 0; i < stations.size(); ++i) {
    const Vec3& s = stations[i];
    rows.push_back({{"x_m", s.x},
                    {"y_m", s.y},
                    {"z_m", s.z},
                    {"ppfd", p.direct[i] + p.reflected[i]},
                    {"direct_ppfd", p.direct[i]},
                    {"reflected_ppfd", p.reflected[i]}});
    if (!json)
      say("x {:.3f}  y {:.3f}  z {:.3f} m   {:>8.2f} µmol/m²/s: direct {:.2f}, reflected {:.2f}\n", s.x, s.y, s.z,
          p.direct[i] + p.reflected[i], p.direct[i], p.reflected[i]);
  }
  if (json) say_json(record::Json{{"stations", rows}});
  return 0;
}

}  // namespace

void add_predict_command(CLI::App& app, int& status) {
  auto file = std::make_shared<std::string>();
  auto json = std::make_shared<bool>(false);
  CLI::App* command = app.add_subcommand("predict", "Work out the PPFD that a scene's emitters give at its stations");
  add_text(*command, "SCENE", *file, "the scene (JSON)")->required();
  command->add_flag("--json", *json, "as JSON");
  command->callback([file, json, &status] { status = predict(*file, *json); });
}

}  // namespace sunbreak::cli
