#include "core/settle/settle_rule.h"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

namespace sunbreak {
namespace {

using RuleKind = SettleRule::Kind;

constexpr std::pair<RuleKind, std::string_view> rule_names[] = {
    {RuleKind::Edge, "edge"}, {RuleKind::Every, "every"},     {RuleKind::Share, "share"},
    {RuleKind::Mean, "mean"}, {RuleKind::Corners, "corners"}, {RuleKind::Center, "center"}};

}  // namespace

Result<SettleRule> parse_settle_rule(std::string_view text) {
  const auto colon = text.find(':');
  const std::string_view word = text.substr(0, colon);
  SettleRule rule;
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

std::string settle_rule_id(const SettleRule& rule) {
  for (const auto& [kind, name] : rule_names)
    if (kind == rule.kind) {
      if (kind == RuleKind::Share) return fmt::format("{}:{:.6g}", name, 100 * rule.share);
      if (kind == RuleKind::Corners || kind == RuleKind::Center) return fmt::format("{}:{:.6g}", name, rule.ppfd);
      return std::string(name);
    }
  return {};
}

std::string settle_rule_words(const SettleRule& rule, const Band& band) {
  switch (rule.kind) {
    case RuleKind::Edge:
      return fmt::format("mean along the edge at least {:.0f}, no place over {:.0f} µmol/m²/s", band.low, band.high);
    case RuleKind::Every:
      return fmt::format("every place at {:.0f} to {:.0f} µmol/m²/s", band.low, band.high);
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

std::string settle_rule_words(const SettleRule& rule) {
  switch (rule.kind) {
    case RuleKind::Edge:
      return "mean along the edge at or over the band's low end, no place over its high end";
    case RuleKind::Every:
      return "every place in band";
    case RuleKind::Share:
      return fmt::format("{:.0f} % of the area in band", 100 * rule.share);
    case RuleKind::Mean:
      return "mean in band";
    case RuleKind::Corners:
    case RuleKind::Center:
      return settle_rule_words(rule, {});
  }
  return {};
}

SettleMargins margins(const SettleRule& rule, const Band& band, const SettleFigures& f) {
  constexpr double none = 1;
  switch (rule.kind) {
    case RuleKind::Edge:
      return {f.edge - band.low, band.high - f.highest};
    case RuleKind::Every:
      return {f.lowest - band.low, band.high - f.highest};
    case RuleKind::Share: {
      // What is more is what stands in the way.
      const double over = f.in_band - rule.share;
      return f.too_dim >= f.too_bright ? SettleMargins{over, none} : SettleMargins{none, over};
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

SettleVerdict judged(const SettleRule& rule, const Band& band, const SettleFigures& f) {
  const SettleMargins m = margins(rule, band, f);
  return {m.to_too_dim < 0, m.to_too_bright < 0};
}

bool SettleLimits::allows_height(double height_m) const {
  constexpr double rounding_m = 1e-6;
  return (!min_height_m || height_m >= *min_height_m - rounding_m) &&
         (!max_height_m || height_m <= *max_height_m + rounding_m);
}

bool SettleLimits::allows(const SettleSetting& setting, const SettleFigures& figures) const {
  return (!max_power_w || (setting.power_w && *setting.power_w <= *max_power_w)) &&
         (!max_ppfd || figures.highest <= *max_ppfd);
}

}  // namespace sunbreak
