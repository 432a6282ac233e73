#include "core/figures/serving_rule.h"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

#include "core/quantity/display.h"

namespace sunbreak {
namespace {

using RuleKind = ServingRule::Kind;

constexpr std::pair<RuleKind, std::string_view> rule_names[] = {
    {RuleKind::Edge, "edge"}, {RuleKind::Every, "every"},     {RuleKind::Share, "share"},
    {RuleKind::Mean, "mean"}, {RuleKind::Corners, "corners"}, {RuleKind::Center, "center"}};

}  // namespace

Result<ServingRule> parse_serving_rule(std::string_view text) {
  const auto colon = text.find(':');
  const std::string_view word = text.substr(0, colon);
  ServingRule rule;
  const Problem unknown{fmt::format("the rule '{}' is none that is known", text), "",
                        "choose edge, every, share:90, mean, corners:600 or center:800"};
  bool found = false;
  for (const auto& [kind, name] : rule_names)
    if (word == name) rule.kind = kind, found = true;
  const bool takes_number =
      rule.kind == RuleKind::Share || rule.kind == RuleKind::Corners || rule.kind == RuleKind::Center;
  const bool has_number = colon != std::string_view::npos;
  if (!found || (has_number && !takes_number) || (!has_number && takes_number && rule.kind != RuleKind::Share))
    return unknown;
  if (!has_number) return rule;
  const std::string_view digits = text.substr(colon + 1);
  double value = 0;
  const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
  if (error != std::errc() || end != digits.data() + digits.size() || !std::isfinite(value) || value <= 0 ||
      value > (rule.kind == RuleKind::Share ? 100.0 : 20000.0))
    return unknown;
  (rule.kind == RuleKind::Share ? rule.share : rule.ppfd) = rule.kind == RuleKind::Share ? value / 100 : value;
  return rule;
}

std::string serving_rule_id(const ServingRule& rule) {
  for (const auto& [kind, name] : rule_names)
    if (kind == rule.kind) {
      if (kind == RuleKind::Share) return fmt::format("{}:{:.6g}", name, 100 * rule.share);
      if (kind == RuleKind::Corners || kind == RuleKind::Center) return fmt::format("{}:{:.6g}", name, rule.ppfd);
      return std::string(name);
    }
  return {};
}

std::string serving_rule_words(const ServingRule& rule, const Band& band) {
  switch (rule.kind) {
    case RuleKind::Edge:
      return fmt::format("mean along the edge at least {:.0f}, no station over {:.0f} µmol/m²/s", band.low, band.high);
    case RuleKind::Every:
      return fmt::format("every station at {:.0f} to {:.0f} µmol/m²/s", band.low, band.high);
    case RuleKind::Share:
      return fmt::format("{:.0f} % of the area at {:.0f} to {:.0f} µmol/m²/s", 100 * rule.share, band.low, band.high);
    case RuleKind::Mean:
      return fmt::format("mean at {:.0f} to {:.0f} µmol/m²/s", band.low, band.high);
    case RuleKind::Corners:
      return fmt::format("mean of the corners at least {:.0f} µmol/m²/s", rule.ppfd);
    case RuleKind::Center:
      return fmt::format("center at {:.0f} µmol/m²/s, within {:.0f} %", rule.ppfd, 100 * center_within);
  }
  return {};
}

std::string serving_rule_words(const ServingRule& rule) {
  switch (rule.kind) {
    case RuleKind::Edge:
      return "mean along the edge at or over the band's low end, no station over its high end";
    case RuleKind::Every:
      return "every station in band";
    case RuleKind::Share:
      return fmt::format("{:.0f} % of the area in band", 100 * rule.share);
    case RuleKind::Mean:
      return "mean in band";
    case RuleKind::Corners:
    case RuleKind::Center:
      return serving_rule_words(rule, {});
  }
  return {};
}

ServingMargins margins(const ServingRule& rule, const Band& band, const AreaLight& f) {
  constexpr double none = 1;
  switch (rule.kind) {
    case RuleKind::Edge:
      return {f.edge - band.low, band.high - f.highest};
    case RuleKind::Every:
      return {f.lowest - band.low, band.high - f.highest};
    case RuleKind::Share: {
      // What is more is what stands in the way.
      const double over = f.in_band - rule.share;
      return f.too_dim >= f.too_bright ? ServingMargins{over, none} : ServingMargins{none, over};
    }
    case RuleKind::Mean:
      return {f.mean - band.low, band.high - f.mean};
    case RuleKind::Corners:
      return {f.corners - rule.ppfd, none};
    case RuleKind::Center:
      return {f.center - (1 - center_within) * rule.ppfd, (1 + center_within) * rule.ppfd - f.center};
  }
  return {};
}

ServingVerdict judged(const ServingRule& rule, const Band& band, const AreaLight& f) {
  const ServingMargins m = margins(rule, band, f);
  return {m.to_too_dim < 0, m.to_too_bright < 0,
          std::isnan(m.to_too_dim) || std::isnan(m.to_too_bright) || f.read_share < least_read};
}

namespace {

/// How far short or over a PPFD is, never rounded down to nothing.
std::string short_by(double lacking) { return fmt::format("{:.0f}", std::max(1.0, std::ceil(lacking - 0.05))); }

}  // namespace

std::string lacking_words(const ServingRule& rule, const Band& band, const AreaLight& f) {
  const ServingVerdict verdict = judged(rule, band, f);
  if (verdict.unknown && !verdict.too_dim && !verdict.too_bright)
    return fmt::format("only {} of it was read", share_text(f.read_share));
  const ServingMargins m = margins(rule, band, f);
  const auto both = [&](const char* dim, const char* bright) {
    std::string words;
    if (m.to_too_dim < 0) words = fmt::format("{} is {} µmol/m²/s short", dim, short_by(-m.to_too_dim));
    if (m.to_too_bright < 0)
      words += words.empty() ? fmt::format("{} is {} µmol/m²/s over", bright, short_by(-m.to_too_bright))
                             : fmt::format(", {} {} over", bright, short_by(-m.to_too_bright));
    return words;
  };
  switch (rule.kind) {
    case RuleKind::Edge:
      return both("the edge", "the brightest station");
    case RuleKind::Every:
      return both("the dimmest station", "the brightest station");
    case RuleKind::Mean:
      return both("the mean", "the mean");
    case RuleKind::Corners:
      return both("the mean of the corners", "");
    case RuleKind::Center:
      return both("the center", "the center");
    case RuleKind::Share:
      if (f.in_band >= rule.share) return {};
      return fmt::format("{:.0f} % of the area is in band instead of {:.0f} %, {:.0f} % too dim, {:.0f} % too bright",
                         std::floor(100 * f.in_band), 100 * rule.share, 100 * f.too_dim, 100 * f.too_bright);
  }
  return {};
}

}  // namespace sunbreak
