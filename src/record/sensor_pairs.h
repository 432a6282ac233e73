#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "record/kinds/sensor_comparison.h"

namespace sunbreak::record {

/// Readings of the first and the second sensor, in the order they were taken.
using SensorPairs = std::vector<std::pair<double, double>>;

/// The pairs that a record holds; nothing where its texts are no numbers above zero, or not alike in number.
std::optional<SensorPairs> pairs_of(const SensorComparison& record);

/// Puts pairs into a record, each number by the shortest decimal that reads back the same.
void put_pairs(SensorComparison& record, const SensorPairs& pairs);

}  // namespace sunbreak::record
