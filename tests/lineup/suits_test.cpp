#include "evaluation/lineup/suits.h"

#include <gtest/gtest.h>

#include <algorithm>

#include "evaluation/rig_model.h"
#include "evaluation/settle_field.h"
#include "publish/sample_tests.h"

namespace sunbreak {
namespace {

using evaluation::SuitQuestion;

struct Asked {
  double width_m, depth_m;
  Band band;
};

SuitQuestion question_of(const Asked& asked) {
  SuitQuestion q;
  q.room = evaluation::room_to_light({asked.width_m, asked.depth_m}, 2.4, "white");
  q.band = asked.band;
  q.rule = parse_serving_rule("mean").value();
  q.money = {3, 12, 0.3, 0};
  return q;
}

std::shared_ptr<const evaluation::Evaluation> sample(const char* fixture) {
  const auto& all = sample_tests();
  const auto found = std::ranges::find_if(all, [&](const auto& t) { return t.fixture.name == fixture; });
  return evaluation::evaluate(*found);
}

}  // namespace

TEST(Suits, ARoughLookIsWithinAFewPercentOfWhatIs) {
  for (const char* fixture : {"Ostler Six-Bar", "Brindle Panel 135", "Marrow Row"}) {
    const auto evaluation = sample(fixture);
    const auto& light = *evaluation->light();
    for (const char* walls : {"white", "open"}) {
      const Room room = evaluation::room_to_light({2.4, 3.2}, 2.4, walls);
      const Elsewhere elsewhere(light.found(), room, evaluation::room_layout(room));
      for (const auto& [columns, rows] : {std::pair{1, 1}, std::pair{1, 2}, std::pair{2, 2}, std::pair{2, 3}})
        for (const double height : {0.3, 0.6}) {
          const HangingPattern pattern{columns, rows, 2.4 / columns, 3.2 / rows};
          const auto exact = elsewhere.ppfd_at(pattern, height), rough = elsewhere.rough_ppfd_at(pattern, height);
          double mean = 0, rough_mean = 0;
          for (std::size_t i = 0; i < exact.size(); ++i) mean += exact[i], rough_mean += rough[i];
          EXPECT_NEAR(rough_mean / mean, 1, 0.01) << fixture << " " << columns << " × " << rows << " at " << height;
          const double lowest = *std::ranges::min_element(exact), rough_lowest = *std::ranges::min_element(rough);
          EXPECT_NEAR(rough_lowest / lowest, 1, 0.03) << fixture << " " << columns << " × " << rows << " at " << height;
        }
    }
  }
}

/// The answer is the cheapest of all ways by a search that looks at each as it is.
TEST(Suits, NoOtherWayTakesLess) {
  for (const char* fixture : {"Ostler Six-Bar", "Brindle Panel 135"}) {
    const auto evaluation = sample(fixture);
    const auto& light = *evaluation->light();
    for (const Asked& asked : {Asked{1.2, 1.2, {300, 600}}, Asked{1.5, 2.5, {400, 800}}, Asked{1.2, 2.4, {100, 200}}}) {
      const SuitQuestion q = question_of(asked);
      const evaluation::Entrant entrant;  // without a price: by watts
      const auto answer = evaluation::suit_of(*evaluation, entrant, q);
      ASSERT_TRUE(answer.suit) << answer.why_not;
      const Elsewhere elsewhere(light.found(), q.room, evaluation::room_layout(q.room));
      const auto& sweeps = light.question().fit.sweeps;
      const double low = std::ranges::min(sweeps, {}, &FitSweep::height_m).height_m,
                   high = std::ranges::max(sweeps, {}, &FitSweep::height_m).height_m;
      double least_w = INFINITY;
      for (int count = 1; count <= 12; ++count)
        for (int columns = 1; columns <= count; ++columns) {
          const HangingPattern p{columns, count / columns, asked.width_m / columns, asked.depth_m * columns / count};
          const FixtureOutline& o = light.question().fit.outline;
          if (count % columns != 0 || p.column_spacing_m < whole_width_m(o) || p.row_spacing_m < whole_depth_m(o))
            continue;
          for (int k = 0; k < 5; ++k) {
            const auto ppfd = elsewhere.ppfd_at(p, low + (high - low) * k / 4);
            double mean = 0;
            for (const double e : ppfd) mean += e / static_cast<double>(ppfd.size());
            for (const SettleSetting& s : evaluation::settle_settings(light).settings)
              if (q.band.contains(mean * s.light_factor) && s.power_w) least_w = std::min(least_w, *s.power_w * count);
          }
        }
      EXPECT_EQ(answer.meets, least_w < INFINITY) << fixture << " " << asked.band.low;
      if (answer.meets) {
        EXPECT_NEAR(answer.suit->power_w.value, least_w, 1e-9) << fixture << " " << asked.band.low;
      }
    }
  }
}

}  // namespace sunbreak
