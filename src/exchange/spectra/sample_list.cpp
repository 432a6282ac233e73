#include "exchange/spectra/sample_list.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace sunbreak::exchange {
namespace {

constexpr double most_out_of_order = 0.1;
constexpr double same_light = 1e-3;  ///< of the highest value: light of one wavelength that is told twice
constexpr double half_regular = 0.5, regular_share = 0.9;  ///< of steps that are alike
constexpr double alike_steps = 0.02;                       ///< of a step
constexpr std::size_t told_one_by_one = 5;                 ///< more are summed up

/// The longest rising part of the samples by wavelength (equal ones count as rising), as their indices.
std::vector<std::size_t> longest_rising(const std::vector<FileSample>& samples) {
  std::vector<std::size_t> tails, before(samples.size());
  for (std::size_t i = 0; i < samples.size(); ++i) {
    const auto at = std::upper_bound(tails.begin(), tails.end(), samples[i].nm,
                                     [&](double nm, std::size_t tail) { return nm < samples[tail].nm; });
    before[i] = at == tails.begin() ? i : *(at - 1);
    if (at == tails.end())
      tails.push_back(i);
    else
      *at = i;
  }
  std::vector<std::size_t> kept;
  for (std::size_t i = tails.empty() ? 0 : tails.back(); kept.size() < tails.size(); i = before[i]) kept.push_back(i);
  std::reverse(kept.begin(), kept.end());
  return kept;
}

/// Each finding, or where there are many the first few and how many more.
void tell(SpectrumDraft& draft, const std::vector<Finding>& findings, const char* what) {
  for (std::size_t i = 0; i < std::min(told_one_by_one, findings.size()); ++i) draft.findings.push_back(findings[i]);
  if (findings.size() > told_one_by_one)
    draft.findings.push_back(
        {0, 0, findings.front().refused, fmt::format("{} more {}", findings.size() - told_one_by_one, what)});
}

std::vector<FileSample> in_order(std::vector<FileSample> samples, SpectrumDraft& draft) {
  const auto falls = [&] {
    std::size_t falling = 0;
    for (std::size_t i = 1; i < samples.size(); ++i) falling += samples[i].nm < samples[i - 1].nm;
    return 2 * falling > samples.size();
  };
  if (falls()) {
    std::reverse(samples.begin(), samples.end());
    draft.findings.push_back({0, 0, false, "wavelengths fall; they were turned round"});
  }
  std::vector<FileSample> kept;
  std::vector<Finding> out;
  const std::vector<std::size_t> rising = longest_rising(samples);
  for (std::size_t i = 0, next = 0; i < samples.size(); ++i) {
    if (next < rising.size() && rising[next] == i)
      kept.push_back(samples[i]), ++next;
    else
      out.push_back(
          {samples[i].row, draft.column, true, fmt::format("{:g} nm is out of order: not taken", samples[i].nm)});
  }
  tell(draft, out, "rows are out of order: not taken");
  return kept;
}

std::vector<FileSample> told_once(const std::vector<FileSample>& samples, SpectrumDraft& draft) {
  double highest = 0;
  for (const FileSample& s : samples) highest = std::max(highest, s.value);
  std::vector<FileSample> kept;
  std::vector<Finding> twice;
  for (std::size_t i = 0; i < samples.size();) {
    std::size_t end = i + 1;
    double low = samples[i].value, high = low;
    for (; end < samples.size() && samples[end].nm - samples[i].nm < 1e-6; ++end) {
      low = std::min(low, samples[end].value);
      high = std::max(high, samples[end].value);
    }
    const bool alike = high - low <= same_light * highest;
    if (alike) kept.push_back(samples[i]);
    if (end > i + 1)
      twice.push_back({samples[i].row, draft.column, !alike,
                       fmt::format("{:g} nm stands there {} times with {}", samples[i].nm, end - i,
                                   alike ? "the same light: taken once" : "different light: none was taken")});
    i = end;
  }
  tell(draft, twice, "wavelengths stand there more than once");
  return kept;
}

void tell_missing_rows(const std::vector<FileSample>& samples, SpectrumDraft& draft) {
  if (samples.size() < 10) return;
  std::vector<double> steps;
  for (std::size_t i = 1; i < samples.size(); ++i) steps.push_back(samples[i].nm - samples[i - 1].nm);
  std::vector<double> sorted = steps;
  std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2), sorted.end());
  const double usual = sorted[sorted.size() / 2];
  const auto regular = [&](double step) { return std::fabs(step - usual) <= alike_steps * usual; };
  const auto count = static_cast<double>(std::count_if(steps.begin(), steps.end(), regular));
  if (count < regular_share * static_cast<double>(steps.size())) {
    if (count >= half_regular * static_cast<double>(steps.size()))
      draft.findings.push_back({0, 0, false,
                                fmt::format("most steps are {:g} nm, but {} of {} are of another width: compare the "
                                            "wavelengths with the original",
                                            usual, steps.size() - static_cast<std::size_t>(count), steps.size())});
    return;
  }
  std::vector<Finding> odd;
  for (std::size_t i = 0; i < steps.size(); ++i)
    if (!regular(steps[i]))
      odd.push_back({samples[i + 1].row, 0, false,
                     fmt::format("from {:g} to {:g} nm is a step of {:g} nm, where others are {:g} nm", samples[i].nm,
                                 samples[i + 1].nm, steps[i], usual)});
  tell(draft, odd, "steps are of another width");
}

void tell_odd_light(const Spectrum& s, SpectrumDraft& draft) {
  const auto [lowest, highest] = std::minmax_element(s.values.begin(), s.values.end());
  const auto below = std::count_if(s.values.begin(), s.values.end(), [](double value) { return value < 0; });
  if (below > 0)
    draft.findings.push_back({0, draft.column, false,
                              fmt::format("{} of {} values are below zero, the lowest {:.2g} % of the highest: as the "
                                          "dark left them, they were kept, so that sums are not pushed up",
                                          below, s.values.size(), 100 * *lowest / *highest)});
  std::size_t run = 0, longest = 0, at_top = 0;
  for (const double value : s.values) {
    run = value == *highest ? run + 1 : 0;
    at_top += value == *highest;
    longest = std::max(longest, run);
  }
  if (longest >= 3 && 5 * at_top < s.values.size())
    draft.findings.push_back({0, draft.column, false,
                              fmt::format("the top is flat over {} samples: the spectrometer may have been saturated; "
                                          "measure with less light or a shorter exposure",
                                          longest)});
}

}  // namespace

std::optional<Problem> take_samples(std::vector<FileSample> samples, SpectrumDraft& draft) {
  const std::size_t all = samples.size();
  std::vector<FileSample> kept = in_order(std::move(samples), draft);
  if (static_cast<double>(all - kept.size()) > most_out_of_order * static_cast<double>(all))
    return Problem{fmt::format("Of {} wavelengths {} are out of order", all, all - kept.size()),
                   "which light belongs to which wavelength is not sure",
                   "give one spectrum with wavelengths that rise"};
  kept = told_once(kept, draft);
  tell_missing_rows(kept, draft);
  for (const FileSample& s : kept) {
    draft.spectrum.wavelengths_nm.push_back(s.nm);
    draft.spectrum.values.push_back(s.value);
  }
  if (const auto problem = spectrum_problem(draft.spectrum)) return problem;
  tell_odd_light(draft.spectrum, draft);
  return std::nullopt;
}

}  // namespace sunbreak::exchange
