#pragma once

#include <SQLiteCpp/Database.h>

#include <optional>
#include <string>
#include <vector>

#include "book/book.h"
#include "book/records.h"
#include "book/target_records.h"
#include "core/figures/coverage.h"
#include "core/result.h"

namespace sunbreak::book {

/// The lists that ship with the application, not on any shelf yet.
std::vector<CropTarget> shipped_targets();

/// The targets on the shelf, in the order they were put there.
std::vector<CropTarget> crop_targets(const Book& book);

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

/// Puts the lists that ship with the application back as they were, beside the user's own. Adds what is missing and
/// mends what was changed.
void restore_shipped_targets(Edit& edit, const Book& book);

/// Fills the empty shelf of a lab book that never had one.
void seed_targets(SQLite::Database& db);

}  // namespace sunbreak::book
