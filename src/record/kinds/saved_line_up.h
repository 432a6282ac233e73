#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// A line-up as its tester left it: who is in it, by which figure and in which way. What comes of it is never kept.
struct SavedLineUp {
  Id id = 0;
  std::string name;
  std::string figure = "canopy_efficacy_umol_j", way = "as-measured", filter;
  bool all_pairs = false;
  std::string target_name;
  std::optional<double> target_low_ppfd, target_high_ppfd;
  std::string rule = "edge";
  double photoperiod_h = 12, years = 3, tariff_per_kwh = 0.3, decay_pct_per_1000h = 0;
  std::string currency = "EUR";
  bool price_counts = false;
  std::string left_out;  ///< tests taken out by hand: their numbers and configurations, or their packages
  bool removed = false;
  bool operator==(const SavedLineUp&) const = default;
};

template <>
struct Described<SavedLineUp> {
  static constexpr Facts facts{.name = "saved_line_up", .since = 10, .published = false};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("name", &SavedLineUp::name, "what the line-up is called");
    columns.add("figure", &SavedLineUp::figure, "the figure that it is by");
    columns.add("way", &SavedLineUp::way, "its way, as sunbreak-cli line-up --way has it");
    columns.add("filter", &SavedLineUp::filter, "words and bounds that all in it have to meet");
    columns.add("all_pairs", &SavedLineUp::all_pairs, "ranks are sure for all pairs together");
    columns.add("target_name", &SavedLineUp::target_name, "the crop target that it is for");
    columns.add("target_low_ppfd", &SavedLineUp::target_low_ppfd, "low end of the target's band")
        .unit("umol/m2/s")
        .between(0, 20000);
    columns.add("target_high_ppfd", &SavedLineUp::target_high_ppfd, "high end of the target's band")
        .unit("umol/m2/s")
        .between(0, 20000);
    columns.add("rule", &SavedLineUp::rule, "when a target is met");
    columns.add("photoperiod_h", &SavedLineUp::photoperiod_h, "hours of light a day").unit("h").between(0, 24);
    columns.add("years", &SavedLineUp::years, "of use, for costs").between(0, 100);
    columns.add("tariff_per_kwh", &SavedLineUp::tariff_per_kwh, "money for a kWh").between(0, 1e6);
    columns.add("decay_pct_per_1000h", &SavedLineUp::decay_pct_per_1000h, "light lost in 1,000 h")
        .unit("%")
        .between(0, 50);
    columns.add("currency", &SavedLineUp::currency, "money of prices and tariff");
    columns.add("price_counts", &SavedLineUp::price_counts, "dominance looks at the price too");
    columns.add("left_out", &SavedLineUp::left_out, "tests taken out by hand");
    columns.add("removed", &SavedLineUp::removed, "taken off the shelf");
  }
};

}  // namespace sunbreak::record
