#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/figures/coverage.h"
#include "core/result.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::evaluation {

/// The lists that ship with the application, not on any shelf yet.
std::vector<CropTarget> shipped_targets();

/// Those of one list.
std::vector<CropTarget> targets_of_set(const std::vector<CropTarget>& all, const std::string& set_name);

/// The names of the lists, each once.
std::vector<std::string> set_names(const std::vector<CropTarget>& all);

/// A target's PPFD band [µmol m⁻² s⁻¹] at a photoperiod: one of daily light moves with it.
Band band_of(const CropTarget& target, double photoperiod_h);

/// The shelf's target that a test has; nothing where its band is its own.
std::optional<CropTarget> target_of(const std::vector<CropTarget>& all, const Test& test);

/// Gives a test a target, with its photoperiod.
void set_target(Test& test, const CropTarget& target);

/// Changes a test's photoperiod; a band of daily light moves.
void set_photoperiod(Test& test, double hours);

/// What is wrong with a target, if anything.
std::optional<Problem> problem_of(const CropTarget& target);

}  // namespace sunbreak::evaluation
