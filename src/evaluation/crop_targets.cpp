#include "evaluation/crop_targets.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/daily_light.h"
#include "core/targets/target_sets.h"

namespace sunbreak::evaluation {
namespace {

constexpr double alike = 1e-6;

}  // namespace

std::vector<CropTarget> shipped_targets() {
  std::vector<CropTarget> targets;
  for (const TargetSet& set : shipped_target_sets())
    for (const Target& t : set.targets)
      targets.push_back({0, std::string(set.name), std::string(set.reason), std::string(t.name), t.by_daily_light,
                         t.low, t.high, t.photoperiod_h, false});
  return targets;
}

std::vector<CropTarget> targets_of_set(const std::vector<CropTarget>& all, const std::string& set_name) {
  std::vector<CropTarget> own;
  std::copy_if(all.begin(), all.end(), std::back_inserter(own), [&](auto& t) { return t.set_name == set_name; });
  return own;
}

std::vector<std::string> set_names(const std::vector<CropTarget>& all) {
  std::vector<std::string> names;
  for (const CropTarget& t : all)
    if (std::find(names.begin(), names.end(), t.set_name) == names.end()) names.push_back(t.set_name);
  return names;
}

Band band_of(const CropTarget& t, double photoperiod_h) {
  if (!t.by_daily_light) return {t.low, t.high};
  return {ppfd_for_dli(t.low, photoperiod_h), ppfd_for_dli(t.high, photoperiod_h)};
}

std::optional<CropTarget> target_of(const std::vector<CropTarget>& all, const Test& test) {
  for (const CropTarget& t : all) {
    const Band band = band_of(t, test.photoperiod_h);
    if (t.name == test.target_name && t.by_daily_light == test.target_by_daily_light &&
        std::abs(band.low - test.target_low_ppfd) < alike && std::abs(band.high - test.target_high_ppfd) < alike)
      return t;
  }
  return {};
}

void set_target(Test& test, const CropTarget& target) {
  const Band band = band_of(target, target.photoperiod_h);
  test.target_name = target.name;
  test.target_by_daily_light = target.by_daily_light;
  test.photoperiod_h = target.photoperiod_h;
  test.target_low_ppfd = band.low;
  test.target_high_ppfd = band.high;
}

void set_photoperiod(Test& test, double hours) {
  if (test.target_by_daily_light && hours > 0) {
    test.target_low_ppfd *= test.photoperiod_h / hours;
    test.target_high_ppfd *= test.photoperiod_h / hours;
  }
  test.photoperiod_h = hours;
}

std::optional<Problem> problem_of(const CropTarget& t) {
  const auto refused = [](const char* seen, const char* remedy) {
    return Problem{seen, "the target was not kept", remedy};
  };
  if (t.name.empty() || t.set_name.empty()) return refused("a target without a name", "name it and its list");
  if (!(t.low >= 0 && t.high > t.low))
    return refused("the band's high end does not lie above its low end",
                   "give a low end of 0 or more and a higher one");
  if (!(t.photoperiod_h > 0 && t.photoperiod_h <= 24))
    return refused("the photoperiod does not fit a day", "give hours above 0 and up to 24");
  if (t.high > (t.by_daily_light ? 500 : 6000))
    return refused("the band lies above any light a crop is given",
                   "check the unit: PPFD in µmol/m²/s, daily light in mol/m²/d");
  return {};
}

}  // namespace sunbreak::evaluation
