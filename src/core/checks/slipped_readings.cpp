#include "core/checks/slipped_readings.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/bench/mirror_stations.h"
#include "core/quantity/display.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr double least_ppfd_judged = 5, odd_times = 5, impossible_times = 50;
/// A bare center is that much brighter than the corners of a bench where a small fixture hangs low.
constexpr double hot_center_times = 20;
constexpr std::size_t witnesses_for_sure = 3, few_others = 7;

double middle_of(std::vector<double> values) {
  const auto half = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), half, values.end());
  if (values.size() % 2 == 1) return *half;
  return (*half + *std::max_element(values.begin(), half)) / 2;
}

/// The readings that are not found odd yet, as logarithms.
class Judge {
 public:
  Judge(const Layout& layout, std::span<const double> ppfd, std::span<const double> pattern)
      : layout_(layout), ln_(ppfd.size(), unread), ln_pattern_(ppfd.size(), unread) {
    for (std::size_t i = 0; i < ppfd.size(); ++i) {
      if (std::isnan(ppfd[i])) continue;
      ln_[i] = std::log(std::max(ppfd[i], least_ppfd_judged));
      if (!pattern.empty() && pattern[i] > 0) ln_pattern_[i] = std::log(pattern[i]);
      read_.push_back(i);
    }
  }
  const std::vector<std::size_t>& read() const { return read_; }
  void take_out(std::size_t i) { std::erase(read_, i), ln_[i] = unread, level_.reset(); }

  /// How far each lies from the middle of all.
  std::vector<std::pair<double, std::size_t>> far_from_all(const std::vector<std::size_t>& stations) const {
    std::vector<double> all;
    for (const std::size_t j : read_) all.push_back(ln_[j]);
    const double middle = all.empty() ? 0 : middle_of(std::move(all));
    std::vector<std::pair<double, std::size_t>> far;
    for (const std::size_t i : stations) far.emplace_back(std::abs(ln_[i] - middle), i);
    return far;
  }

  std::optional<SlippedReading> judged(std::size_t i) const {
    using enum SlippedReading::HeldAgainst;
    const std::vector<std::size_t> near = neighbors(i);
    if (!near.empty()) {
      auto odd = unlike(i, near);
      if (!odd || near.size() >= witnesses_for_sure) return odd;
      const std::vector<double> mirrored = mirrors(i), expected = by_pattern(i);
      for (const auto* other : {&mirrored, &expected})
        if (!other->empty() && !beyond(i, *other, odd_times, odd_times, Mirrors)) return {};
      return odd;
    }
    const std::vector<double> mirrored = mirrors(i), expected = by_pattern(i);
    if (!expected.empty()) {
      auto odd = beyond(i, expected, odd_times, odd_times, Pattern);
      if (odd) odd->perhaps = false;
      return odd;
    }
    if (mirrored.size() > 1) return beyond(i, mirrored, odd_times, odd_times, Mirrors);
    std::vector<double> others;
    for (const std::size_t j : read_)
      if (j != i) others.push_back(ln_[j]);
    if (others.size() < witnesses_for_sure) return {};
    auto odd = beyond(i, others, others.size() > few_others ? odd_times : hot_center_times, odd_times, Others);
    if (odd) odd->perhaps = others.size() <= few_others;
    return odd;
  }

 private:
  std::optional<SlippedReading> beyond(std::size_t i, const std::vector<double>& said, double brighter, double darker,
                                       SlippedReading::HeldAgainst against) const {
    const auto [lowest, highest] = std::minmax_element(said.begin(), said.end());
    if (ln_[i] < *highest + std::log(brighter) && ln_[i] > *lowest - std::log(darker)) return {};
    return SlippedReading{static_cast<int>(i), std::exp(ln_[i]),   against,
                          std::exp(*lowest),   std::exp(*highest), said.size() < witnesses_for_sure};
  }

  std::vector<std::size_t> neighbors(std::size_t i) const {
    std::vector<std::size_t> near;
    if (!layout_.is_lattice()) return near;
    const Station& here = layout_.stations[i];
    for (int row = std::max(here.row - 1, 0); row <= std::min(here.row + 1, layout_.rows - 1); ++row)
      for (int column = std::max(here.column - 1, 0); column <= std::min(here.column + 1, layout_.columns - 1);
           ++column)
        if (const auto j = static_cast<std::size_t>(layout_.index(column, row)); j != i && !std::isnan(ln_[j]))
          near.push_back(j);
    return near;
  }
  /// Unlike the stations that touch it, as they read and as the pattern makes them: five times by one, and twice by
  /// the other.
  std::optional<SlippedReading> unlike(std::size_t i, const std::vector<std::size_t>& near) const {
    using enum SlippedReading::HeldAgainst;
    constexpr double cleared_times = 2;
    std::vector<double> read, made;
    for (const std::size_t j : near) {
      read.push_back(ln_[j]);
      const double step = ln_pattern_[i] - ln_pattern_[j];
      made.push_back(ln_[j] + (std::isnan(step) ? 0 : step));
    }
    const auto held = [&](double by_read, double by_pattern) {
      return beyond(i, read, by_read, by_read, Neighbors) && beyond(i, made, by_pattern, by_pattern, Neighbors);
    };
    if (!held(odd_times, cleared_times) && !held(cleared_times, odd_times)) return {};
    return beyond(i, read, cleared_times, cleared_times, Neighbors);
  }
  std::vector<double> mirrors(std::size_t i) const {
    std::vector<double> said;
    if (!layout_.is_lattice()) return said;
    for (const int place : mirror_stations(layout_, layout_.stations[i])) {
      const double ln = ln_[static_cast<std::size_t>(place)];
      if (place != static_cast<int>(i) && !std::isnan(ln)) said.push_back(ln);
    }
    return said;
  }
  /// What the other readings and the pattern make of a station.
  std::vector<double> by_pattern(std::size_t i) const {
    if (std::isnan(ln_pattern_[i])) return {};
    std::vector<double> levels;
    const bool alone = read_.size() < one_counts_for;
    if (!alone && level_) return {*level_ + ln_pattern_[i]};
    for (const std::size_t j : read_)
      if (!(alone && j == i) && !std::isnan(ln_pattern_[j])) levels.push_back(ln_[j] - ln_pattern_[j]);
    if (levels.size() < 2) return {};
    const double level = middle_of(std::move(levels));
    if (!alone) level_ = level;
    return {level + ln_pattern_[i]};
  }

  const Layout& layout_;
  std::vector<double> ln_, ln_pattern_;
  std::vector<std::size_t> read_;
  /// What all readings make of the pattern: of many no single one moves it.
  mutable std::optional<double> level_;
  static constexpr std::size_t one_counts_for = 16;
};

std::string range_of(const SlippedReading& odd) {
  const std::string low = ppfd_text(odd.lowest), high = ppfd_text(odd.highest);
  return low == high ? low : low + " to " + high;
}

std::string said_of(const SlippedReading& odd) {
  const std::string ppfd = ppfd_text(odd.ppfd), range = range_of(odd);
  switch (odd.against) {
    case SlippedReading::HeldAgainst::Neighbors:
      return fmt::format("{} among neighbors of {}", ppfd, range);
    case SlippedReading::HeldAgainst::Mirrors:
      return fmt::format("{} where its mirror places read {}", ppfd, range);
    case SlippedReading::HeldAgainst::Pattern:
      return fmt::format("{} where the fixture as described, beside the other readings, would give about {}", ppfd,
                         range);
    case SlippedReading::HeldAgainst::Others:
      return fmt::format("{} beside {} everywhere else", ppfd, range);
  }
  return {};
}

}  // namespace

std::vector<SlippedReading> slipped_readings(const Layout& layout, std::span<const double> ppfd,
                                             std::span<const double> pattern) {
  Judge judge(layout, ppfd, pattern);
  std::vector<std::size_t> doubted;
  for (const std::size_t i : judge.read())
    if (judge.judged(i)) doubted.push_back(i);
  auto suspects = judge.far_from_all(doubted);
  std::sort(suspects.begin(), suspects.end(), [&](const auto& a, const auto& b) {
    return a.first != b.first ? a.first > b.first : ppfd[a.second] > ppfd[b.second];
  });
  std::vector<SlippedReading> odd;
  for (const auto& [far, i] : suspects)
    if (auto found = judge.judged(i)) {
      found->ppfd = ppfd[i];
      odd.push_back(*found);
      judge.take_out(i);
    }
  return odd;
}

std::vector<Finding> slipped_reading_checks(std::span<const SlippedReading> odd) {
  std::vector<Finding> checks;
  for (const SlippedReading& o : odd)
    checks.push_back(
        {"unlike all around it",
         o.ppfd >= impossible_times * std::max(o.highest, least_ppfd_judged) ? Severity::Impossible : Severity::Bad,
         {o.station},
         said_of(o),
         o.perhaps ? "few readings say so yet; if it is wrong, mean, extremes and evenness are too"
                   : "light does not change so within one step: mean, extremes and evenness are wrong by it",
         o.perhaps ? "perhaps a slipped digit: read it again" : "look for a slipped digit, then read it again"});
  return checks;
}

}  // namespace sunbreak
