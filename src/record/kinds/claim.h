#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// One thing that a fixture's maker says of it. Which kinds there are, and what each holds, is in record/claim_kinds.
struct Claim {
  Id id = 0, fixture_id = 0;
  std::string kind;
  std::optional<double> value;
  std::string words;               ///< as the maker puts it
  std::optional<double> value_to;  ///< the upper end, where a range is claimed
  std::string unit;                ///< the maker's own, where it is not the one that the kind names
  std::string says;                ///< what the kind leaves open: driver losses, which ratio, which lamp
  std::string stage;               ///< of growth
  std::optional<double> width_m, depth_m, height_m, percent;
  std::string walls;  ///< of the space that it is claimed in
  std::string map_grid = "cells";
  std::optional<int> map_columns, map_rows;
  std::string map_ppfd;  ///< the maker's map: numbers apart by blanks, front row first, each row from the left
  std::string source, stated_on;
  bool operator==(const Claim&) const = default;
};

template <>
struct Described<Claim> {
  static constexpr Facts facts{.name = "claim"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("fixture_id", &Claim::fixture_id, "the fixture it is made for").belongs_to("fixture");
    columns.add("kind", &Claim::kind, "what is claimed")
        .one_of({"power_w",
                 "current_a",
                 "ppf_umol_s",
                 "efficacy_umol_j",
                 "coverage",
                 "height_m",
                 "dimming_range",
                 "dimming_steps",
                 "boost_pct",
                 "beam_angle_deg",
                 "equivalent",
                 "evenness",
                 "color_temperature_k",
                 "rendering_ra",
                 "uv_present",
                 "far_red_present",
                 "surface_temperature_c",
                 "noise_db",
                 "power_factor",
                 "weight_kg",
                 "lifetime_h",
                 "map"});
    columns.add("value", &Claim::value, "the figure claimed, in the unit its kind names; of a range the lower end")
        .between(0, 1e6);
    columns.add("words", &Claim::words, "the claim in words");
    columns.add("value_to", &Claim::value_to, "the upper end of a range").between(0, 1e6).since(9);
    columns.add("unit", &Claim::unit, "the unit that the maker states it in; empty: the kind's own").since(9);
    columns
        .add("says", &Claim::says,
             "efficacy: with driver or without driver; evenness: the id of the figure; equivalent: the kind of lamp")
        .since(9);
    columns.add("stage", &Claim::stage, "stage of growth").since(9);
    columns.add("width_m", &Claim::width_m, "size of the area claimed, or of the map's")
        .unit("m")
        .between(0.02, 100)
        .since(9);
    columns.add("depth_m", &Claim::depth_m, "its depth").unit("m").between(0.02, 100).since(9);
    columns.add("height_m", &Claim::height_m, "hanging height stated with it").unit("m").between(0.01, 10).since(9);
    columns.add("percent", &Claim::percent, "dimmer setting stated with it").unit("%").between(0, 200).since(9);
    columns.add("walls", &Claim::walls, "walls of the space it is claimed in")
        .one_of({"reflective", "white", "dark", "open"})
        .since(9);
    columns.add("map_grid", &Claim::map_grid, "map: its places are the middles of cells, or nodes from edge to edge")
        .one_of({"cells", "nodes"})
        .since(9);
    columns.add("map_columns", &Claim::map_columns, "map: places along x").between(1, 500).since(9);
    columns.add("map_rows", &Claim::map_rows, "map: places along y").between(1, 500).since(9);
    columns
        .add("map_ppfd", &Claim::map_ppfd,
             "map: PPFD apart by blanks [umol/m2/s], front row first, each row from the left")
        .since(9);
    columns.add("source", &Claim::source, "where it is stated").since(9);
    columns.add("stated_on", &Claim::stated_on, "the day it was stated or seen (ISO 8601 date)").date().since(9);
  }
};

}  // namespace sunbreak::record
