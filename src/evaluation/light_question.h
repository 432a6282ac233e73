#pragma once

#include <optional>
#include <vector>

#include "core/power/dimmer_steps.h"
#include "core/uncertainty/budget.h"
#include "core/whole_light/whole_light.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::evaluation {

/// A dimmer setting as the fit of whole light knows it.
struct LightSetting {
  Id stop_id = 0;
  double percent = 100;
  std::optional<double> power_w;  ///< mean of its sweeps' watts
};

/// What the fit is asked of a test, and whose readings its sweeps are.
struct LightQuestion {
  WholeLightQuestion fit;
  std::vector<Id> sweep_ids;                            ///< one a sweep of the fit
  std::vector<std::shared_ptr<const SweepView>> views;  ///< as it was read, before dense ones are brought to cells
  std::vector<LightSetting> settings;                   ///< in the fit's order: the one nearest to 100 % first
  // What advice keeps to.
  double least_height_m = 0;    ///< from nearer the floor sees each emitter
  double height_step_m = 0.01;  ///< that the tester's tape is read to: a centimeter or half an inch
  DimmerSteps dimmer;           ///< where it can be set
};

/// Gathers a test's sweeps that have readings. `budget` is of one of them: how sure a reading, a place and a height
/// are.
LightQuestion light_question(const TestRecord& test_record, const SweepViews& views, const BudgetQuestion& budget);

}  // namespace sunbreak::evaluation
