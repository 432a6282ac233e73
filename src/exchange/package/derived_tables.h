#pragma once

#include <map>
#include <vector>

#include "exchange/package/data_package.h"

namespace sunbreak::exchange {

/// The ids that rows have in the package, by those they have in the lab book.
using PlainIds = std::map<Id, Id>;

/// Budgets take most of the time.
enum class WithUncertainty { No, Yes };

/// What a package states beside what was recorded: stations.csv and figures.csv, and whole_light.csv, audit.csv and
/// verdict.csv as far as they are asked for and there is something in them. Whole light takes a second or two for each
/// configuration.
Archive derived_tables(const evaluation::Evaluations& evaluations, const PlainIds& sweeps,
                       const PlainIds& configurations, WithLight with_light,
                       const std::vector<evaluation::Audit>& audits,
                       WithUncertainty with_uncertainty = WithUncertainty::Yes);

}  // namespace sunbreak::exchange
