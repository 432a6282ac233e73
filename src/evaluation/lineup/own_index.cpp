#include "evaluation/lineup/own_index.h"

#include <fmt/format.h>

#include <cmath>

#include "core/quantity/number.h"

namespace sunbreak::evaluation {
namespace {

constexpr std::string_view written = "index:figure=weight,figure=weight", mark = "index:";
constexpr double middle = 100, most_weight = 1000;

}  // namespace

std::string in_a_sentence(std::string_view label) {
  std::string text(label);
  const auto upper = [](char c) { return c >= 'A' && c <= 'Z'; };
  if (text.size() > 1 && upper(text[0]) && !upper(text[1])) text[0] = static_cast<char>(text[0] - 'A' + 'a');
  return text;
}

Result<OwnIndex> OwnIndex::parse(std::string_view text) {
  OwnIndex index;
  std::string_view rest = text.substr(std::min(text.size(), mark.size()));
  while (!rest.empty()) {
    const std::string_view word = rest.substr(0, rest.find(','));
    rest.remove_prefix(std::min(rest.size(), word.size() + 1));
    const auto equals = word.find('=');
    const int at = lineup_figure_index(word.substr(0, equals));
    if (at < 0)
      return Problem{fmt::format("there is no figure '{}' to weigh", word.substr(0, equals)),
                     "the index cannot be worked out", fmt::format("write it as {}", written)};
    const LineUpFigure& figure = lineup_figures()[static_cast<std::size_t>(at)];
    const auto weight = equals == std::string_view::npos ? 1.0 : parse_number(word.substr(equals + 1));
    if (!weight || !(*weight > 0) || *weight > most_weight)
      return Problem{fmt::format("the weight of {} reads '{}'", figure.label,
                                 equals == std::string_view::npos ? "" : word.substr(equals + 1)),
                     "it has to be a number over 0; figures where less is better count the other way by themselves",
                     fmt::format("write it as {}", written)};
    for (const Part& p : index.parts)
      if (p.figure == &figure)
        return Problem{fmt::format("{} is weighed twice", figure.label), "which weight counts is not clear",
                       "leave one out"};
    index.parts.push_back({&figure, *weight});
  }
  if (index.parts.empty())
    return Problem{"the index has no figure in it", "there is nothing to weigh",
                   fmt::format("write it as {}", written)};
  return index;
}

std::string OwnIndex::id() const {
  std::string text(mark);
  for (const Part& p : parts) text += fmt::format("{}{}={}", &p == parts.data() ? "" : ",", p.figure->id, p.weight);
  return text;
}

std::string OwnIndex::words() const {
  std::string text;
  for (const Part& p : parts)
    text += fmt::format("{}{} × {}{}", text.empty() ? "" : ", ", p.weight,
                        p.figure->better == Better::Less ? "less " : "", in_a_sentence(p.figure->label));
  return text;
}

LineUpFigure OwnIndex::figure(std::string_view id, std::string_view meaning) const {
  LineUpFigure own{id, "Own index", "", meaning};
  own.needed = Needs::Nothing;
  own.decimals = 1;
  for (const Part& p : parts) own.needed = own.needed | p.figure->needed;
  return own;
}

double OwnIndex::share(const Part& part) const {
  double sum = 0;
  for (const Part& p : parts) sum += p.weight;
  return (part.figure->better == Better::Less ? -1 : 1) * part.weight / sum;
}

double OwnIndex::log_of(std::span<const Standing> values) const {
  double sum = 0;
  for (std::size_t i = 0; i < parts.size(); ++i)
    sum += values[i].value > 0 ? share(parts[i]) * std::log(values[i].value) : unread;
  return sum;
}

Standing OwnIndex::standing(std::span<const Standing> values, double log_middle) const {
  const double value = middle * std::exp(log_of(values) - log_middle);
  std::vector<std::pair<double, const Standing*>> from;
  for (std::size_t i = 0; i < parts.size(); ++i)
    from.emplace_back(value * share(parts[i]) / values[i].value, &values[i]);
  return std::isnan(value) ? Standing{} : worked_out(value, from);
}

}  // namespace sunbreak::evaluation
