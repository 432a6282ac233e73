#include "core/lineup/ranking.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <map>

#include "core/quantity/normal_quantile.h"

namespace sunbreak {
namespace {

constexpr double each_pair_standards = 2;
/// Sources that more than one entry has are laid out a column each up to so many; past that, pairs are gone through
/// source by source.
constexpr std::size_t most_columns = 32;

/// Chance of a difference over so many standard uncertainties, either way, where there is none.
double two_sided(double standards) { return std::erfc(standards / std::sqrt(2.0)); }

}  // namespace

/// The entries in their order, laid out for going through all pairs: by place in the order.
struct Ranking::Pairs {
  std::size_t count = 0;
  std::vector<double> value, variance, bias;
  std::vector<std::vector<double>> columns;  ///< a shared source each
  bool in_columns = true;
  std::vector<int> classes;                 ///< of comparability
  double most_variance = 0, most_bias = 0;  ///< of any entry
};

Ranking::Ranking(std::vector<Standing> standings, Better better, Sure sure, const Comparability* comparable)
    : standings_(std::move(standings)), better_(better), comparable_(comparable) {
  for (const Standing& s : standings_) variance_.push_back(s.variance_between());
  for (std::size_t i = 0; i < standings_.size(); ++i)
    if (std::isfinite(standings_[i].value) && std::isfinite(variance_[i])) order_.push_back(static_cast<int>(i));
  std::ranges::stable_sort(order_, [&](int a, int b) {
    const double x = standings_[static_cast<std::size_t>(a)].value, y = standings_[static_cast<std::size_t>(b)].value;
    return better_ == Better::More ? x > y : x < y;
  });
  const Pairs pairs = lay_out_pairs();
  if (sure == Sure::AllPairs) find_what_is_needed(pairs);
  count_ranks(pairs);
}

/// |difference| less what pulls them apart, in standard uncertainties of the difference.
double Ranking::standards_between(int i, int j) const {
  const Standing &a = standings_[static_cast<std::size_t>(i)], &b = standings_[static_cast<std::size_t>(j)];
  const double off = std::abs(a.value - b.value) - std::abs(a.bias - b.bias);
  if (!(off > 0)) return 0;
  const double u = (difference(a, b).expanded - std::abs(a.bias - b.bias)) / 2;
  return u > 0 ? off / u : std::numeric_limits<double>::infinity();
}

bool Ranking::told_apart(int a, int b) const { return may_compare(a, b) && standards_between(a, b) > needed_; }

bool Ranking::beats(int i, int j) const {
  const double a = standings_[static_cast<std::size_t>(i)].value, b = standings_[static_cast<std::size_t>(j)].value;
  return (better_ == Better::More ? a > b : a < b) && told_apart(i, j);
}

std::vector<int> Ranking::ties(int entry) const {
  std::vector<int> tied;
  if (ranks_[static_cast<std::size_t>(entry)].of == 0) return tied;
  for (const int other : order_)
    if (other != entry && may_compare(entry, other) && !(standards_between(entry, other) > needed_))
      tied.push_back(other);
  return tied;
}

Ranking::Pairs Ranking::lay_out_pairs() const {
  Pairs p;
  p.count = order_.size();
  std::map<std::uint32_t, int> entries_with;
  for (const int entry : order_)
    for (const SharedPart& part : standings_[static_cast<std::size_t>(entry)].shared) ++entries_with[part.source];
  std::map<std::uint32_t, std::size_t> column_of;
  for (const auto& [source, entries] : entries_with)
    if (entries > 1) column_of.emplace(source, column_of.size());
  p.in_columns = column_of.size() <= most_columns;
  if (p.in_columns) p.columns.assign(column_of.size(), std::vector<double>(p.count, 0));
  for (std::size_t at = 0; at < p.count; ++at) {
    const Standing& s = standings_[static_cast<std::size_t>(order_[at])];
    p.value.push_back(s.value), p.bias.push_back(s.bias);
    double own = s.own_variance + s.between_variance;
    for (const SharedPart& part : s.shared) {
      const auto column = column_of.find(part.source);
      if (p.in_columns && column != column_of.end())
        p.columns[column->second][at] = part.standard;
      else
        own += part.standard * part.standard;
    }
    p.variance.push_back(own);
    p.most_variance = std::max(p.most_variance, variance_[static_cast<std::size_t>(order_[at])]);
    p.most_bias = std::max(p.most_bias, std::abs(s.bias));
    p.classes.push_back(comparable_ ? comparable_->class_of(order_[at]) : 0);
  }
  return p;
}

/// The squares of how many standard uncertainties an entry's differences to later ones are, up to `until`; 0 where what
/// pulls the two apart is more.
void Ranking::squares_from(const Pairs& p, std::size_t at, std::size_t until, std::vector<double>& squares,
                           std::vector<double>& variances) const {
  const double value = p.value[at], variance = p.variance[at], bias = p.bias[at];
  double* out = variances.data();
  for (std::size_t j = at + 1; j < until; ++j) out[j] = variance + p.variance[j];
  for (const std::vector<double>& column : p.columns) {
    const double own = column[at];
    const double* others = column.data();
    for (std::size_t j = at + 1; j < until; ++j) out[j] += (own - others[j]) * (own - others[j]);
  }
  for (std::size_t j = at + 1; j < until; ++j) {
    const double off = std::max(0.0, std::abs(value - p.value[j]) - std::abs(bias - p.bias[j]));
    squares[j] = off * off / out[j];
  }
  if (p.in_columns) return;
  for (std::size_t j = at + 1; j < until; ++j) {
    const double standards = standards_between(order_[at], order_[j]);
    squares[j] = standards * standards;
  }
}

/// The first place from which on every entry is so far off that it is told apart whatever the two share: u² of a
/// difference is at most twice what both have.
std::size_t Ranking::surely_apart_from(const Pairs& p, std::size_t at) const {
  const double whole = variance_[static_cast<std::size_t>(order_[at])],
               off = 2 * p.most_bias + needed_ * std::sqrt(2 * (whole + p.most_variance)), value = p.value[at];
  const auto near = [&](double other) { return std::abs(value - other) <= off; };
  return static_cast<std::size_t>(
      std::partition_point(p.value.begin() + static_cast<std::ptrdiff_t>(at) + 1, p.value.end(), near) -
      p.value.begin());
}

/// Holm goes through the pairs from the plainest on, and stops at the first that is not plain enough for how many are
/// left. Those that would be plain enough among all pairs, and those that are not for themselves, need no sorting.
void Ranking::find_what_is_needed(const Pairs& p) {
  const double level = two_sided(each_pair_standards);
  std::vector<double> open, squares(p.count), variances(p.count);
  std::size_t pairs = 0, sure = 0;
  for (std::size_t i = 0; i < p.count; ++i)
    for (std::size_t j = i + 1; j < p.count; ++j) pairs += comparable_at(p, i, j) ? 1 : 0;
  if (pairs == 0) return;
  const double surely = -normal_quantile(level / 2 / static_cast<double>(pairs));
  for (std::size_t i = 0; i < p.count; ++i) {
    squares_from(p, i, p.count, squares, variances);
    for (std::size_t j = i + 1; j < p.count; ++j) {
      if (!(squares[j] > each_pair_standards * each_pair_standards) || !comparable_at(p, i, j)) continue;
      const double standards = std::sqrt(squares[j]);
      if (standards > surely)
        ++sure;
      else
        open.push_back(standards);
    }
  }
  std::ranges::sort(open, std::greater());
  needed_ = surely;
  for (std::size_t k = 0; k < open.size(); ++k) {
    if (two_sided(open[k]) > level / static_cast<double>(pairs - sure - k)) break;
    // A hair less: the pair itself is told apart, however its square was rounded.
    needed_ = open[k] * (1 - 1e-12);
  }
}

bool Ranking::comparable_at(const Pairs& p, std::size_t i, std::size_t j) const {
  return !comparable_ || comparable_->may_classes(p.classes[i], p.classes[j]);
}

void Ranking::count_ranks(const Pairs& p) {
  std::vector<double> squares(p.count), variances(p.count);
  std::vector<int> others(p.count, 0), beaten(p.count, 0), beaten_by(p.count, 0);
  const double enough = needed_ * needed_;
  for (std::size_t i = 0; i < p.count; ++i) {
    const std::size_t far = surely_apart_from(p, i);
    squares_from(p, i, far, squares, variances);
    int here = 0, comparable = 0;
    const char* may = comparable_ ? comparable_->row(p.classes[i]) : nullptr;
    for (std::size_t j = i + 1; j < far; ++j) {
      const int with = may ? may[p.classes[j]] : 1, beyond = with & static_cast<int>(squares[j] > enough);
      comparable += with, others[j] += with;
      here += beyond, beaten_by[j] += beyond;
    }
    for (std::size_t j = far; j < p.count; ++j) {
      const int with = may ? may[p.classes[j]] : 1;
      comparable += with, others[j] += with;
      here += with, beaten_by[j] += with;
    }
    others[i] += comparable, beaten[i] += here;
  }
  ranks_.resize(standings_.size());
  for (std::size_t at = 0; at < p.count; ++at)
    ranks_[static_cast<std::size_t>(order_[at])] = {1 + beaten_by[at], 1 + others[at] - beaten[at], 1 + others[at]};
}

std::vector<std::pair<int, int>> Ranking::tie_brackets(std::span<const int> sequence) const {
  std::vector<std::pair<int, int>> brackets;
  int first = 0;
  for (int last = 0; last < std::ssize(sequence); ++last) {
    int from = first;
    for (int i = last - 1; i >= from; --i) {
      const int a = sequence[static_cast<std::size_t>(i)], b = sequence[static_cast<std::size_t>(last)];
      if (!may_compare(a, b) || standards_between(a, b) > needed_) {
        from = i + 1;
        break;
      }
    }
    if (from > first && last - 1 > first) brackets.emplace_back(first, last - 1);
    first = from;
  }
  if (const int last = static_cast<int>(sequence.size()) - 1; last > first) brackets.emplace_back(first, last);
  return brackets;
}

}  // namespace sunbreak
