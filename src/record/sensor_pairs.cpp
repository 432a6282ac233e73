#include "record/sensor_pairs.h"

#include "record/spectrum_samples.h"

namespace sunbreak::record {

std::optional<SensorPairs> pairs_of(const SensorComparison& record) {
  const auto first = numbers_of(record.first_light), second = numbers_of(record.second_light);
  if (!first || !second || first->size() != second->size()) return std::nullopt;
  SensorPairs pairs;
  for (std::size_t i = 0; i < first->size(); ++i) {
    if (!((*first)[i] > 0 && (*second)[i] > 0)) return std::nullopt;
    pairs.emplace_back((*first)[i], (*second)[i]);
  }
  return pairs;
}

void put_pairs(SensorComparison& record, const SensorPairs& pairs) {
  std::vector<double> first, second;
  for (const auto& [one, other] : pairs) first.push_back(one), second.push_back(other);
  record.first_light = text_of_numbers(first), record.second_light = text_of_numbers(second);
}

}  // namespace sunbreak::record
