#pragma once

#include <string>
#include <vector>

#include "core/quantity/display.h"
#include "core/result.h"
#include "drawing/canvas.h"
#include "evaluation/audit/audit.h"
#include "evaluation/evaluation.h"

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

/// The pictures of a test in one shape: title with the verdict, each sweep with its figures, all sweeps, claims where
/// `audit` has some. One light scale over all of them.
Result<std::vector<Still>> stills(const evaluation::Evaluation& evaluation, const evaluation::Audit* audit,
                                  StillShape shape, UnitSystem units,
                                  const drawing::Palette& palette = drawing::paper_palette());

}  // namespace sunbreak::paper
