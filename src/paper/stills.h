#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/quantity/display.h"
#include "core/result.h"
#include "drawing/canvas.h"
#include "evaluation/audit/audit.h"
#include "evaluation/evaluation.h"
#include "evaluation/lineup/lineup.h"
#include "evaluation/settings_card.h"

namespace sunbreak::paper {

/// Pictures for video (16 : 9), for phones held upright, and for posts.
enum class StillShape { Wide, Tall, Square };
struct StillSize {
  int width, height;  ///< [px]
};
constexpr StillSize size_of(StillShape shape) {
  return shape == StillShape::Wide   ? StillSize{1920, 1080}
         : shape == StillShape::Tall ? StillSize{1080, 1920}
                                     : StillSize{1200, 1200};
}
/// No text is lower than this part of the picture's height, so that it can be read on a phone.
inline constexpr double least_text_share = 0.025;

/// A picture with what a screen reader says of it.
struct Still {
  std::string name;  ///< "title", "60-cm-100", "all-sweeps", "claims"
  std::string png;
  std::string alt;
};

/// Each sweep of a test with its figures, and all of them beside each other; one light scale over all.
Result<std::vector<Still>> sweep_stills(const evaluation::Evaluation& evaluation, StillShape shape, UnitSystem units,
                                        const drawing::Palette& palette = drawing::paper_palette());

/// Title with the verdict, what serves each target, the settings card and the claims; `audit` and `card` may be null.
Result<std::vector<Still>> told_stills(const evaluation::Evaluation& evaluation, const evaluation::Audit* audit,
                                       const std::vector<record::CropTarget>& targets,
                                       const evaluation::SettingsCard* card, StillShape shape, UnitSystem units,
                                       const drawing::Palette& palette = drawing::paper_palette());

/// A line-up's largest group by its figure, and two members side by side where both have light. None where nothing is
/// lined up.
Result<std::vector<Still>> line_up_stills(const evaluation::LineUp& lineup, const std::string& declared_way,
                                          const std::optional<std::pair<int, int>>& pair, StillShape shape,
                                          UnitSystem units, const drawing::Palette& palette = drawing::paper_palette());

}  // namespace sunbreak::paper
