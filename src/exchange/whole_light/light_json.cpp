#include "exchange/whole_light/light_json.h"

#include <cmath>

namespace sunbreak::exchange {
namespace {

using record::Json;

}  // namespace

Json found_json(const FoundValue& value) {
  if (!std::isfinite(value.value)) return nullptr;
  return {{"value", value.value}, {"expanded_k2", value.expanded}};
}

Json whole_light_json(const evaluation::TestLight& light) {
  const WholeLight& w = light.found();
  Json j{{"fits", w.fits}, {"reason", w.reason}, {"advice", w.advice}};
  j["ppf_umol_s"] = found_json(light.ppf_umol_s());
  j["efficacy_umol_j"] = found_json(light.efficacy_umol_j());
  j["utilization"] = Json::array();
  for (const Utilization& u : w.utilization)
    j["utilization"].push_back({{"height_m", u.height_m}, {"share", found_json(u.share)}});
  j["half_angle_deg"] = found_json(w.half_angle_deg);
  j["wall_reflectance"] = found_json(w.wall_reflectance);
  j["reflectance"] = Json::object();
  const char* const sides[] = {"left", "right", "front", "back", "floor", "ceiling"};
  for (std::size_t side = 0; side < w.reflectance.size(); ++side)
    j["reflectance"][sides[side]] = found_json(w.reflectance[side]);
  j["offset_m"] = {{"x", found_json(w.offset_x_m)}, {"y", found_json(w.offset_y_m)}};
  j["tilt_deg"] = Json::array();
  for (std::size_t unit = 0; unit < w.roll_deg.size(); ++unit)
    j["tilt_deg"].push_back({{"unit", unit + 1},
                             {"right_side_lower", found_json(w.roll_deg[unit])},
                             {"far_side_lower", found_json(w.pitch_deg[unit])},
                             {"share", found_json(w.unit_share[unit])}});
  j["height_offset_m"] = found_json(w.height_offset_m);
  j["settings"] = Json::array();
  for (std::size_t s = 0; s < light.question().settings.size() && s < w.setting_factors.size(); ++s)
    j["settings"].push_back(
        {{"dimmer_pct", light.question().settings[s].percent}, {"light_factor", found_json(w.setting_factors[s])}});
  j["residual_rms_pct"] = 100 * w.residual_rms;
  j["left_out_by_model"] = light.way() == BetweenWay::Model;
  j["left_out"] = Json::array();
  for (const LeftOutHeight& left : light.left_out())
    j["left_out"].push_back({{"height_m", left.height_m},
                             {"rms_pct", 100 * left.rms},
                             {"mean_pct", 100 * left.mean},
                             {"cubic_rms_pct", 100 * left.cubic_rms}});
  return j;
}

}  // namespace sunbreak::exchange
