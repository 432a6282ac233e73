#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "drawing/interval_axis.h"
#include "evaluation/lineup/members_provenance.h"
#include "paper/still_frame.h"

namespace sunbreak::paper {
namespace {

using namespace drawing;
using evaluation::LineUp;
using evaluation::LineUpEntry;

constexpr std::size_t most_listed = 9, most_told = 4;

const LineUpEntry& entry_of(const LineUp& lineup, int member) {
  return *lineup.members()[static_cast<std::size_t>(member)].entry;
}
const std::string& title_of(const LineUp& lineup, int member) {
  return lineup.members()[static_cast<std::size_t>(member)].entrant.title;
}

std::string value_of(const LineUp& lineup, int member, UnitSystem units) {
  const Standing& s = lineup.ranking().standings()[static_cast<std::size_t>(member)];
  return evaluation::shown_with_uncertainty(lineup.figure(), s.value, s.expanded(), units, lineup.terms().currency);
}

/// Ranks, names, bars on one axis and values of the largest group.
void draw_strip(Canvas& c, const StillFrame& frame, const LineUp& lineup, const std::string& way, UnitSystem units) {
  const std::vector<int>& group = lineup.groups().front();
  const double top = draw_still_heading(c, frame, std::string(lineup.figure().label), way);
  std::vector<double> values, expanded;
  const std::size_t shown = std::min(most_listed, group.size());
  for (std::size_t i = 0; i < shown; ++i) {
    const Standing& s = lineup.ranking().standings()[static_cast<std::size_t>(group[i])];
    values.push_back(s.value), expanded.push_back(s.expanded());
  }
  const IntervalAxis axis = interval_axis(values, expanded);
  const double width = frame.inner_width();
  const int points = frame.shape == StillShape::Wide ? 13 : 11;
  const double step = std::min(frame.tall() ? 48.0 : 36.0, (frame.bottom() - top) / static_cast<double>(shown));
  double y = top;
  for (std::size_t i = 0; i < shown; ++i) {
    const int m = group[i];
    const std::string rank = LineUp::rank_words(lineup.ranking().rank(m)), value = value_of(lineup, m, units);
    const double rank_width = c.text_width(rank, least_points, false) + 8,
                 value_width = c.text_width(value, points, true) + 8;
    // A narrow picture has the name on a line of its own.
    const double lines = frame.tall() ? 0.66 : 0.5, half = step * (frame.tall() ? 0.33 : 0.5);
    const double name_left = frame.tall() ? 0 : rank_width,
                 name_width = frame.tall() ? width : width - rank_width - value_width;
    const double second = frame.tall() ? y + half : y;
    c.text({still_edge + name_left, y, name_width, half}, Align::Left,
           fitted(c, title_of(lineup, m), points, false, name_width), {points, false, c.colors().ink});
    c.text({still_edge, second, rank_width, half}, Align::Left, rank, {least_points, false, c.colors().quiet});
    c.text({still_edge, second, width, half}, Align::Right, value, {points, true, c.colors().ink});
    draw_interval(c, {still_edge + 2, y + lines * step, width - 4, step * (frame.tall() ? 0.24 : 0.34)}, axis,
                  values[i], expanded[i], BarRole::Plain);
    y += step;
  }
}

/// Two maps on one scale, and a sentence for each of the first figures.
void draw_pair(Canvas& c, const StillFrame& frame, const LineUp& lineup, int a, int b, const std::string& way,
               UnitSystem units) {
  const double top = draw_still_heading(c, frame, "Side by side", way);
  double low = INFINITY, high = -INFINITY;
  for (const int m : {a, b})
    for (const double e : entry_of(lineup, m).ppfd)
      if (std::isfinite(e)) low = std::min(low, e), high = std::max(high, e);
  const ScaleRange range = round_range(low, high);
  const bool wide = frame.shape == StillShape::Wide;
  constexpr double gap = 12, name_height = 14;
  const double column = wide ? 190 : (frame.inner_width() - gap) / 2,
               map_height = std::min(column, frame.bottom() - top - name_height - 20);
  double left = still_edge;
  for (const int m : {a, b}) {
    const LineUpEntry& e = entry_of(lineup, m);
    evaluation::SweepView view;
    view.layout = lay_out(e.footprint, e.grid).value();
    view.ppfd = e.ppfd;
    view.states.resize(e.ppfd.size());
    for (evaluation::StationState& s : view.states) s.kind = evaluation::StationState::Read;
    record::Bench bare;
    bare.width_m = e.footprint.width_m, bare.depth_m = e.footprint.depth_m;
    c.text({left, top, column, name_height}, Align::Left, fitted(c, title_of(lineup, m), 10, true, column),
           {10, true, c.colors().ink});
    draw_still_map(c, {left, top + name_height, column, map_height}, bare, view, range, false, units);
    left += column + gap;
  }
  draw_still_scale(c, {still_edge, top + name_height + map_height + 4, std::min(2 * column + gap, 300.0), 13}, range);
  const double words_left = wide ? left + 4 : still_edge, words_width = frame.width - still_edge - words_left;
  double y = wide ? top : top + name_height + map_height + 24;
  std::size_t told = 0;
  for (const evaluation::PairSentence& s : evaluation::pair_sentences(lineup, a, b, units)) {
    if (told++ == most_told) break;
    const std::vector<std::string> lines = wrapped(c, s.words, 10, words_width);
    if (y + 13.5 * static_cast<double>(lines.size()) > frame.bottom() + 4) return;
    for (const std::string& line : lines) {
      c.text({words_left, y, words_width, 13}, Align::Left, line,
             {10, false, s.told_apart ? c.colors().ink : c.colors().quiet});
      y += 13.5;
    }
    y += 5;
  }
}

}  // namespace

Result<std::vector<Still>> line_up_stills(const LineUp& lineup, const std::string& way,
                                          const std::optional<std::pair<int, int>>& pair, StillShape shape,
                                          UnitSystem units, const Palette& palette) {
  const StillFrame frame(shape);
  std::vector<Still> made;
  if (lineup.groups().empty()) return made;
  const std::vector<int>& group = lineup.groups().front();
  std::string alt = fmt::format("Line-up by {}. ", lineup.figure().label);
  for (const int m : group)
    alt += fmt::format("{}: {}, {}. ", LineUp::rank_words(lineup.ranking().rank(m)), title_of(lineup, m),
                       value_of(lineup, m, units));
  const std::string simulated = evaluation::provenance_words(lineup);
  alt += simulated;
  std::string foot = group.size() > most_listed
                         ? fmt::format("± is k = 2; the first {} of {}", most_listed, group.size())
                         : "± is k = 2; ranks are intervals where fixtures are not told apart";
  if (!simulated.empty()) foot = evaluation::provenance_count_words(lineup) + " · " + foot;
  auto strip = still(frame, palette, "line-up", std::move(alt), foot,
                     [&](Canvas& c) { draw_strip(c, frame, lineup, way, units); });
  if (!strip) return strip.problem();
  made.push_back(std::move(strip.value()));
  if (!pair || !entry_of(lineup, pair->first).has_light() || !entry_of(lineup, pair->second).has_light()) return made;
  std::string words =
      fmt::format("{} and {} side by side. ", title_of(lineup, pair->first), title_of(lineup, pair->second));
  const auto sentences = evaluation::pair_sentences(lineup, pair->first, pair->second, units);
  for (std::size_t i = 0; i < std::min(most_told, sentences.size()); ++i) words += sentences[i].words + " ";
  std::string below = "± is k = 2; both maps on one scale";
  if (!simulated.empty()) words += simulated, below = evaluation::provenance_count_words(lineup) + " · " + below;
  auto beside = still(frame, palette, "side-by-side", std::move(words), below,
                      [&](Canvas& c) { draw_pair(c, frame, lineup, pair->first, pair->second, way, units); });
  if (!beside) return beside.problem();
  made.push_back(std::move(beside.value()));
  return made;
}

}  // namespace sunbreak::paper
