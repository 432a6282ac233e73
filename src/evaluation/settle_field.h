#pragma once

#include <functional>
#include <stop_token>
#include <string>
#include <vector>

#include "core/quantity/display.h"
#include "core/quantity/length.h"
#include "core/settle/settle_chance.h"
#include "core/settle/settle_solver.h"
#include "core/uncertainty/budget.h"
#include "evaluation/evaluation.h"
#include "evaluation/test_light.h"

namespace sunbreak::evaluation {

/// The area of a test that is asked about where no other is named: what was measured, as the figures of its sweeps have
/// it.
Rectangle whole_area(const TestLight& light);
/// The largest that may be: the whole floor, where the model reaches beyond the stations.
Rectangle known_area(const TestLight& light);

/// An area from "100x100cm", about the middle of the whole one, or "100x60cm@10x20cm", with its place from the left and
/// the front; numbers without a unit are in `bare`. The whole one for nothing.
Result<Rectangle> parse_area(std::string_view text, const Rectangle& whole, LengthUnit bare);

/// What is wrong with an area of a test, if anything: outside of the footprint, or too small.
std::optional<Problem> problem_of_area(const TestLight& light, const Rectangle& area,
                                       UnitSystem told_in = UnitSystem::Metric);

/// What a tester asked, as it is on record of the test; the usual where nothing is.
Settling settling_of(const TestRecord& test_record);
/// The area of it, and the request for a band, with the limits that the tester set.
Rectangle area_asked(const Settling& settling, const TestLight& light);
SettleRequest request_asked(const Settling& settling, const Test& test, const Band& band);

/// The sweep that was read at a point of a field, where the field's area is all that was measured: nothing of it is
/// predicted then. Nothing where none was.
std::optional<Id> sweep_at(const TestLight& light, const SettleMaps& maps, const SettlePoint& point);

/// How sure figures are that were read and not predicted: by the budget of their sweep, where that has them.
SettleExpanded as_read(SettleExpanded predicted, const Budget& budget);

/// How sure the figures of a point are: as they were read where they were, else as predicted. Takes the budget of that
/// sweep, which may take a second.
SettleExpanded how_sure(const Evaluation& evaluation, const SettleMaps& maps, const SettleRequest& request,
                        const SettlePoint& point, std::stop_token stop = {});

/// The heights [m] that advice keeps to: those that were walked, and none so near that the floor sees each emitter
/// unless none else was walked.
std::pair<double, double> advised_heights_m(const TestLight& light);
/// Limits that keep to them, too.
SettleLimits advised(SettleLimits limits, const TestLight& light);
/// The request for a band within the heights that advice keeps to, unless the tester asks beyond.
SettleRequest request_asked(const Settling& settling, const Test& test, const TestLight& light, const Band& band);

/// The watts that the test's circuit carries for hours, by a widespread rule; nothing where its rating or the mains
/// voltage is not stated. Local rules decide.
std::optional<double> circuit_limit_w(const Test& test);

/// The heights a test's field has: as its tester's tape is read, whatever units they are looked at in.
std::vector<double> settle_heights(const TestLight& light);

/// The settings a test's field has, without heights: those walked, and between and beyond them what its stair tells.
SettleMaps settle_settings(const TestLight& light);

/// The field of an area, its heights nearest to `near_m` first. `on_more` is told what there is so far, on the calling
/// thread. Takes up to a second, and longer where whole light's left-out heights are not known yet.
/// Maps have a height at least: where `stop` asks for an end before, there are none.
Result<SettleMaps> settle_maps(const TestLight& light, const Rectangle& area, std::vector<double> heights_m,
                               double near_m, std::stop_token stop = {},
                               const std::function<void(const SettleMaps&)>& on_more = {});

/// What a test lacks for all of Settle, in words, and on which stage it is had; empty where it lacks nothing.
struct SettleLack {
  enum class From { Walk, WarmUp } from;
  std::string words;
};
std::vector<SettleLack> settle_lacks(const TestLight& light);

}  // namespace sunbreak::evaluation
