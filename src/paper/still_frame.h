#pragma once

#include <functional>
#include <string>

#include "drawing/light_scale.h"
#include "evaluation/sweep_view.h"
#include "paper/pages.h"
#include "paper/stills.h"

/// What all stills have in common. They are drawn in points of which a picture is 360 high, whatever its shape: the
/// smallest letters are then 9 high.
namespace sunbreak::paper {

inline constexpr double still_height = 360, still_edge = 12, still_foot = 14;
inline constexpr int least_points = 9;

struct StillFrame {
  StillShape shape = StillShape::Wide;
  double width = 0;

  explicit StillFrame(StillShape of) : shape(of), width(still_height * size_of(of).width / size_of(of).height) {}
  bool tall() const { return shape == StillShape::Tall; }
  double inner_width() const { return width - 2 * still_edge; }
  double bottom() const { return still_height - still_foot - 8; }  ///< of what stands over the foot
};

/// A still of what `draw` puts on a canvas, with `foot` below it.
Result<Still> still(const StillFrame& frame, const drawing::Palette& palette, std::string name, std::string alt,
                    const std::string& foot, const std::function<void(drawing::Canvas&)>& draw);

/// Who measured, and when.
std::string still_foot_words(const record::TestRecord& record);

/// A heading in as many lines as it takes, and a line below; returns where they end.
double draw_still_heading(drawing::Canvas& c, const StillFrame& frame, const std::string& title,
                          const std::string& below);

/// The light scale as a bar with its ends.
void draw_still_scale(drawing::Canvas& c, const drawing::Box& room, const drawing::ScaleRange& range);

void draw_still_map(drawing::Canvas& c, const drawing::Box& room, const record::Bench& bench,
                    const evaluation::SweepView& view, const drawing::ScaleRange& range, bool numbers,
                    UnitSystem units);

/// A table whose first column takes what the others leave; smaller letters where it is narrow.
void draw_still_table(drawing::Canvas& c, const drawing::Box& room, const std::vector<std::string>& heads,
                      const std::vector<std::vector<std::string>>& rows);

}  // namespace sunbreak::paper
